/** Made-up feeds: what the demo's venue shows, and what the stand-in server gives out at any hour. */

const HOUR_MS = 3_600_000;
/** From one high water to the next: half of the moon's day. Typical. */
const TIDE_MS = 12.42 * HOUR_MS;
/** A high water at the made-up quay. */
const HIGH_MS = Date.UTC(2026, 10, 20, 3, 10);
const MEAN_M = 2.1;
const RANGE_M = 1.3;
/** From springs to neaps and back. */
const SPRING_MS = 14.77 * 24 * HOUR_MS;

const wall = (ms: number): string => new Date(ms).toISOString().slice(0, 16).replace('T', ' ');

/** High and low water from a midnight on, as CSV: no real place has these. */
export function tideTable(fromMs: number, days: number): string {
	const rows = ['Time,Height'];
	const half = TIDE_MS / 2;
	for (let n = Math.ceil((fromMs - HIGH_MS) / half); HIGH_MS + n * half < fromMs + days * 24 * HOUR_MS; n++) {
		const at = HIGH_MS + n * half;
		const range = RANGE_M * (0.8 + 0.2 * Math.cos((2 * Math.PI * (at - HIGH_MS)) / SPRING_MS));
		rows.push(`${wall(Math.round(at / 60_000) * 60_000)},${(MEAN_M + (n % 2 === 0 ? range : -range)).toFixed(1)} m`);
	}
	return `${rows.join('\n')}\n`;
}

/** Departures of every day. */
export const ferryTable = (): string =>
	[
		'Leaves,For,From',
		'09:05,Norvik,Quay 1',
		'11:40,Havn,Quay 2',
		'14:10,Norvik,Quay 1',
		'17:20,Norvik,Quay 1',
		'19:05,Havn,Quay 2',
		''
	].join('\n');

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
const HEADLINES = [
	'Tonight: lamp lit at dusk, six at a time',
	'Boat shed & slip closed for repairs',
	'Seals on the north skerry'
];

/** News as RSS. */
export const newsFeed = (nowMs: number): string =>
	[
		'<?xml version="1.0" encoding="UTF-8"?>',
		'<rss version="2.0"><channel><title>Harbour news</title>',
		...HEADLINES.map(
			(title, n) =>
				`<item><title>${escaped(title)}</title><pubDate>${new Date(nowMs - n * 24 * HOUR_MS).toUTCString()}</pubDate></item>`
		),
		'</channel></rss>',
		''
	].join('\n');

/** Guided tours as iCalendar. */
export const calendarFeed = (): string =>
	[
		'BEGIN:VCALENDAR',
		'VERSION:2.0',
		'PRODID:-//Skerrin Light//Tours//EN',
		...(
			[
				['lamp', '20260401T140000', 'PT1H', 'FREQ=WEEKLY;BYDAY=WE,SA,SU', 'Up to the lamp', 'Tower'],
				['horn', '20260404T110000', 'PT45M', 'FREQ=MONTHLY;BYDAY=1SA', 'The horn and its engine', 'Fog-horn room']
			] as const
		).flatMap(([uid, start, long, rule, title, place]) => [
			'BEGIN:VEVENT',
			`UID:${uid}@skerrin.example`,
			'DTSTAMP:20260301T000000Z',
			`DTSTART:${start}`,
			`DURATION:${long}`,
			`RRULE:${rule}`,
			`SUMMARY:${title}`,
			`LOCATION:${place}`,
			'END:VEVENT'
		]),
		'END:VCALENDAR',
		''
	].join('\r\n');

/** Weather from today on, as docs/weather.schema.json has it. */
export const weatherFeed = (nowMs: number): string =>
	JSON.stringify({
		place: 'Skerrin',
		updated: new Date(nowMs).toISOString(),
		now: { temperatureC: 6.5, windMs: 9, windFromDeg: 225, sky: 'showers' },
		days: Array.from({ length: 4 }, (_, n) => ({
			date: new Date(nowMs + n * 24 * HOUR_MS).toISOString().slice(0, 10),
			highC: 8 - n,
			lowC: 4 - n,
			rainMm: [6, 2, 0, 11][n],
			sky: (['showers', 'part-cloud', 'clear', 'rain'] as const)[n]
		}))
	});
