import { z } from 'zod';
import { fault, ok, type Result } from '../../../basics/result';
import { dateText } from '../../../basics/dates';
import { lineText } from '../../../basics/text';
import { LONGEST_FEED } from './schema';

const degrees = z.number().min(-90).max(70);
const sky = z.enum(['clear', 'part-cloud', 'cloud', 'fog', 'rain', 'showers', 'snow', 'thunder']);

/** Weather as Yphos reads it; published as `docs/weather.schema.json`. Temperatures in °C, wind in m/s, rain in mm. */
export const weatherSchema = z.object({
	place: lineText(80),
	/** When it was made, with its zone: "2026-11-27T06:00:00Z". */
	updated: z.iso.datetime({ offset: true }),
	now: z.object({
		temperatureC: degrees,
		windMs: z.number().min(0).max(120),
		/** Where it comes from, clockwise from north. */
		windFromDeg: z.number().min(0).max(360),
		sky
	}),
	days: z
		.array(z.object({ date: dateText, highC: degrees, lowC: degrees, rainMm: z.number().min(0).max(2000), sky }))
		.max(14)
});
/** The same, as a type. */
export type Weather = z.infer<typeof weatherSchema>;
/** What the sky is like. */
export type Sky = z.infer<typeof sky>;

/** The sky in words. */
export const SKY_WORDS: Readonly<Record<Sky, string>> = {
	clear: 'clear',
	'part-cloud': 'some cloud',
	cloud: 'cloudy',
	fog: 'fog',
	rain: 'rain',
	showers: 'showers',
	snow: 'snow',
	thunder: 'thunder'
};

/** Faults: `weather-long`, `weather-json`, `weather-shape` (with its place). */
export function readWeather(text: string): Result<Weather> {
	if (text.length > LONGEST_FEED) return fault('weather-long', 'The weather is longer than any weather needs to be.');
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch {
		return fault('weather-json', 'This is no JSON. Ask for the weather as docs/weather.schema.json describes it.');
	}
	const read = weatherSchema.safeParse(value);
	if (read.success) return ok(read.data);
	const issue = read.error.issues[0]!;
	return fault('weather-shape', `${issue.message} docs/weather.schema.json says what is read.`, issue.path.join('.'));
}

/** The same shape for others, as `docs/weather.schema.json` has it. */
export const weatherJsonSchema = (): object => ({
	title: 'Weather',
	...z.toJSONSchema(weatherSchema, { io: 'input' })
});
