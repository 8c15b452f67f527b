import type { Bench, BenchSoundCard } from './machine';
import type { Context } from '../link';
import { amplifierFigures } from '../parts/amplifier';
import { placeOf } from '../mediaPlace';
import type { Plan } from '../plan/plan';

/** Time to take an address by cable or radio. Typical. */
const JOIN_MS = { wired: 2600, radio: 5200, none: 0 } as const;

/** The surroundings that a plan expects: its parts as they are, the devices as probed, the streams all playing. */
export function benchFor(plan: Plan, context: Context, voltsAtBoard: number | null = null): Bench {
	const board = context.part('board', plan.parts.board);
	const amplifier = context.part('amplifier', plan.parts.amplifier);
	const speakers = context.part('speakers', plan.parts.speakers);
	const locations = [...new Set(plan.sources.items.map((item) => item.location))];
	return {
		board: {
			name: board?.name ?? 'a board of no particular class',
			firmwareMs: (board?.firmwareSec ?? 3) * 1000,
			kernelMs: (board?.kernelSec ?? 5) * 1000,
			servicesMs: (board?.servicesSec ?? 4) * 1000,
			hasClock: board?.hasClock ?? false,
			voltsAtBoard
		},
		soundCards: soundCards(plan, context),
		amplifier: amplifier ? { name: amplifier.name, muted: false, ...amplifierFigures(amplifier) } : null,
		speakers: speakers
			? { name: speakers.name, sensitivityDb: speakers.sensitivityDb, ohm: speakers.ohm, count: speakers.count }
			: null,
		distanceM: plan.sound.distanceM,
		network: {
			wired: true,
			radio: plan.network.ssid ? { ssid: plan.network.ssid, pskHex: null } : null,
			joinMs: JOIN_MS[plan.network.way]
		},
		streams: locations
			.filter((location) => placeOf(location).kind === 'stream')
			.map((url) => ({ url, state: 'plays', media: context.media(url) })),
		media: locations.flatMap((location) => {
			const media = context.media(location);
			return media && placeOf(location).kind !== 'stream' ? [{ ...media, location: placeOf(location).inPlaylist }] : [];
		})
	};
}

/** What the board reported, with the figures of the chosen converter; without a report, the converter under the name that the plan gives it. */
function soundCards(plan: Plan, context: Context): BenchSoundCard[] {
	const part = context.part('converter', plan.parts.converter);
	const ready = { readyMs: (part?.readySec ?? 1) * 1000, fullScaleVrms: part?.fullScaleVrms ?? 1 };
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
					playback,
					volume: mixer ? { name: mixer.name, lowestDb: mixer.lowestDb ?? -60, startDb: mixer.nowDb ?? 0 } : null
				}
			];
		});
	if (!part || plan.sound.cardId === '') return [];
	return [
		{
			...ready,
			cardId: plan.sound.cardId,
			deviceNumber: plan.sound.deviceNumber,
			name: part.name,
			playback: part.playback,
			volume: part.volume
		}
	];
}
