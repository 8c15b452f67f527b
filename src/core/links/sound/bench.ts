import type { Bench, BenchSoundCard } from '../../engines/machine';
import type { Context } from '../../link';
import { amplifierFigures } from '../../parts/amplifier';
import type { Plan } from '../../plan/plan';

/** Sound cards, amplifier, speakers, and how far away one sits. */
export function soundBench(plan: Plan, context: Context): Partial<Bench> {
	const amplifier = context.part('amplifier', plan.parts.amplifier);
	const speakers = context.part('speakers', plan.parts.speakers);
	return {
		soundCards: soundCards(plan, context),
		amplifier: amplifier ? { name: amplifier.name, muted: false, ...amplifierFigures(amplifier) } : null,
		speakers: speakers
			? { name: speakers.name, sensitivityDb: speakers.sensitivityDb, ohm: speakers.ohm, count: speakers.count }
			: null,
		distanceM: plan.sound.distanceM
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
					assumed: false,
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
			assumed: true,
			playback: part.playback,
			volume: part.volume
		}
	];
}
