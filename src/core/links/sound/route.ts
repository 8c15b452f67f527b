import type { Context } from '../../link/context';
import type { PartOf, Playback } from '../../parts/schema';
import type { SoundDevice } from '../../parts/probeFacts';
import type { Route } from './treatment';
import type { SoundSettings } from './settings';

/** The probed device that the plan names, when there is one. */
export const probedDevice = (settings: SoundSettings, context: Context): SoundDevice | null =>
	context.probe?.soundDevices.find(
		(device) => device.cardId === settings.cardId && device.deviceNumber === settings.deviceNumber
	) ?? null;

/** What the converter takes: as the board itself reported, else as its class typically does. */
export function playbackOf(
	settings: SoundSettings,
	context: Context
): { playback: Playback; sure: 'measured' | 'typical' } | null {
	const probed = probedDevice(settings, context)?.playback;
	if (probed) return { playback: probed, sure: 'measured' };
	const part = context.part('converter', context.facts.parts.converter);
	return part ? { playback: part.playback, sure: 'typical' } : null;
}

/** The converter's own volume: as the board lists it, else as its class has it; null when it has none. */
export function controlOf(settings: SoundSettings, context: Context): { readonly name: string } | null {
	const listed = probedDevice(settings, context);
	return listed
		? (listed.mixers[0] ?? null)
		: (context.part('converter', context.facts.parts.converter)?.volume ?? null);
}

/** Ways into a device: as the board itself lists them, else those that alsa-lib has for the class. Source: alsa-lib 1.2.8, src/conf/cards. */
export function waysOf(settings: SoundSettings, context: Context): readonly SoundSettings['door'][] | null {
	const part = context.part('converter', context.facts.parts.converter);
	return waysListed(probedDevice(settings, context)?.doors ?? []) ?? (part ? waysOfClass(part) : null);
}

/** Those among what `aplay -L` lists of a device; null when it lists nothing. */
export const waysListed = (listed: readonly string[]): SoundSettings['door'][] | null =>
	listed.length === 0
		? null
		: (['hw', 'iec958', 'hdmi'] as const).filter((way) => way === 'hw' || listed.includes(way));

/** A card on the header has none of its own there; one on USB has iec958 as another name for its plain output. */
export const waysOfClass = ({ joint, draw }: PartOf<'converter'>): readonly SoundSettings['door'][] =>
	joint === 'display' ? ['hw', 'hdmi'] : draw?.via === 'usb' ? ['hw', 'iec958'] : ['hw'];

const gainInPlayerDb = (settings: SoundSettings): number => (settings.volumeAt === 'player' ? settings.volumeDb : 0);

/** How samples reach the converter by plan; null until one is chosen. */
export function routeOf(settings: SoundSettings, context: Context): Route | null {
	const found = playbackOf(settings, context);
	return found
		? {
				playback: found.playback,
				door: settings.door,
				forcedRateHz: settings.travel === 'follow' ? null : settings.fixedRateHz,
				gainDb: gainInPlayerDb(settings)
			}
		: null;
}

/** It sits on the header and carries no memory by which the board would know it. */
export function isUnnamed(context: Context): boolean {
	const part = context.part('converter', context.facts.parts.converter);
	return part?.header != null && part.header.i2s && !part.header.idMemory;
}
