import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { amplifierFigures, driverOf, loadOf, outputVrms } from '../../parts/amplifier';
import { playbackSchema } from '../../parts/schema';
import { fieldOf } from './room';
import { isOfAnother } from '../../probe/nameCard';
import { isUnnamed, waysListed, waysOfClass } from './route';
import type { SoundSettings } from './settings';

const soundCard = z.object({
	cardId: z.string(),
	deviceNumber: z.number().int(),
	name: z.string(),
	/** Nobody has seen that name yet: it is the plan's own. */
	assumed: z.boolean().default(false),
	/** What the board's start file must name for it to be listed; "": something that nobody has said; null: it says so itself. */
	overlay: z.string().nullable().default(null),
	playback: playbackSchema,
	/** Names by which alsa-lib leads to it. */
	ways: z.array(z.enum(['hw', 'iec958', 'hdmi'])).default(['hw']),
	readyMs: z.number().min(0),
	fullScaleVrms: z.number().positive(),
	volume: z.object({ name: z.string(), lowestDb: z.number(), startDb: z.number() }).nullable()
});
const amplifier = z.object({
	name: z.string(),
	muted: z.boolean(),
	gainDb: z.number(),
	clipVrms: z.number().positive()
});
const speakers = z.object({
	name: z.string(),
	sensitivityDb: z.number(),
	ohm: z.number().positive(),
	count: z.number().int().positive(),
	/** In a row on one output. */
	inSeries: z.number().int().positive().default(1)
});
/** A converter as the endpoint's kernel would find it. */
export type BenchSoundCard = z.infer<typeof soundCard>;

declare module '../../engines/machine/bench' {
	interface Bench {
		soundCards: BenchSoundCard[];
		amplifier: z.infer<typeof amplifier> | null;
		speakers: z.infer<typeof speakers> | null;
		/** What distance and room make of the level at 1 m, at most. */
		fieldDb: number;
	}
}
/** What a rehearsal knows of converters, amplifier and speakers. */
export const soundBenchShape = {
	soundCards: z.array(soundCard).default([]),
	amplifier: amplifier.nullable().default(null),
	speakers: speakers.nullable().default(null),
	fieldDb: z.number().default(0)
};

/** Sound cards, amplifier, speakers, and what distance and room do. */
export function soundBench(settings: SoundSettings, context: Context): Partial<Bench> {
	const { parts } = context.facts;
	const driver = driverOf(context);
	const speakersPart = context.part('speakers', parts.speakers);
	return {
		soundCards: soundCards(settings, context),
		amplifier: driver ? { name: driver.name, muted: false, ...amplifierFigures(driver) } : null,
		speakers: speakersPart
			? {
					name: speakersPart.name,
					sensitivityDb: speakersPart.sensitivityDb,
					ohm: speakersPart.ohm,
					count: speakersPart.atEar ? 1 : speakersPart.count,
					inSeries: loadOf(speakersPart, driver?.channels ?? 2, settings.wiring).inSeries
				}
			: null,
		fieldDb: fieldOf(settings, speakersPart?.atEar).most
	};
}

/** What the board reported, with the figures of the chosen converter; without a report, the converter under the name that the plan gives it. */
function soundCards(settings: SoundSettings, context: Context): BenchSoundCard[] {
	const part = context.part('converter', context.facts.parts.converter);
	const ready = {
		readyMs: (part?.readySec ?? 1) * 1000,
		fullScaleVrms: part ? outputVrms(part, context) : 1,
		overlay: isUnnamed(context) ? settings.overlay : null
	};
	const devices = context.probe?.soundDevices ?? [];
	if (devices.length)
		return devices.flatMap((device): BenchSoundCard[] => {
			const playback = device.playback ?? part?.playback;
			if (!playback) return [];
			const mixer = device.mixers[0];
			return [
				{
					...ready,
					cardId: device.cardId,
					deviceNumber: device.deviceNumber,
					name: device.cardName,
					assumed: false,
					playback,
					ways: waysListed(device.doors) ?? [...(part ? waysOfClass(part) : (['hw'] as const))],
					volume: mixer ? { name: mixer.name, lowestDb: mixer.lowestDb ?? -60, startDb: mixer.nowDb ?? 0 } : null
				}
			];
		});
	// Nobody knows what the kernel calls this one.
	if (!part || settings.cardId === '' || isOfAnother(settings, part.id)) return [];
	return [
		{
			...ready,
			cardId: settings.cardId,
			deviceNumber: settings.deviceNumber,
			name: part.name,
			assumed: true,
			playback: part.playback,
			ways: [...waysOfClass(part)],
			volume: part.volume
		}
	];
}
