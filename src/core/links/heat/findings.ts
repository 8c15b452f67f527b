import type { Claim } from '../../claims';
import { formatSeconds, withUnit } from '../../basics/format';
import { changing, type Change } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import { fitThermal } from './fit';
import { computeHeat, findHeat, PLACE_AIR, type Heat } from './model';
import { dutyWatts, settledAfterSec } from './thermal';
import type { HeatSettings } from './settings';

const own = changing<HeatSettings>('heat');

/** To see whether something helps, a coarse run is enough: each step is exact. */
const FEW_STEPS = 40;
/** Below this distance from its limit a warm day is enough. */
const THIN_MARGIN_K = 8;

/** Whether it stays below the temperature at which it slows, and what would help. */
export function assessHeat(settings: HeatSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const heat = computeHeat(settings, context, claims);
	if (!heat)
		return [
			{
				id: 'heat.unknown',
				level: 'note',
				title: 'Nothing can be said of the heat yet',
				why: 'Choose a board; then its temperature over time stands here.',
				setting: 'parts.board',
				fixes: []
			}
		];
	return [
		...assessTemperature(settings, context, claims, heat),
		...assessLoad(heat),
		...assessReadings(settings, context, heat),
		...assessSlowed(settings, context, claims, heat)
	];
}

function assessTemperature(settings: HeatSettings, context: Context, claims: readonly Claim[], heat: Heat): Finding[] {
	const { run, board, model } = heat;
	if (run.throttlesAfterSec !== null)
		return [
			{
				id: 'heat.throttles',
				level: run.dropped > 0 ? 'stop' : 'caution',
				title: `Too hot after ${formatSeconds(run.throttlesAfterSec * 1000)}`,
				why: `${board.name} would reach ${withUnit(board.throttleC, 0, '°C')} ${PLACE_AIR[settings.place].words} with the room at ${withUnit(settings.roomC, 0, '°C')}, and slow itself. ${run.dropped > 0 ? `${Math.round(run.dropped * 100)}\u2009% of the frames would be dropped.` : 'What it plays would not suffer, but the heat wears it.'}`,
				setting: 'heat.place',
				fixes: cooling(settings, context, claims)
			}
		];
	const margin = model.throttleC - run.steadyC;
	if (margin < THIN_MARGIN_K)
		return [
			{
				id: 'heat.thin-margin',
				level: 'caution',
				title: `Only ${withUnit(margin, 0, 'K')} below its limit`,
				why: `It settles at ${withUnit(run.steadyC, 0, '°C')}; at ${withUnit(model.throttleC, 0, '°C')} it slows itself. A hot day or dust is enough.`,
				setting: 'heat.place',
				fixes: cooling(settings, context, claims)
			}
		];
	return [];
}

interface Candidate {
	readonly label: string;
	readonly price: number;
	readonly change: Change;
	readonly place?: HeatSettings['place'];
}

/** Parts and places that bring it well below its limit, the cheapest first. */
function cooling(settings: HeatSettings, context: Context, claims: readonly Claim[]): Fix[] {
	/** Measured constants are of the things as they are: parts that change need new readings. */
	const asTypical = { ...settings, useReadings: false };
	const margin = ({ change, place = settings.place }: Candidate): number => {
		const heat = findHeat({ ...asTypical, place }, context.suppose(change), claims, FEW_STEPS);
		return heat ? heat.model.throttleC - heat.run.steadyC - (heat.run.throttlesAfterSec === null ? 0 : 100) : -100;
	};
	// What keeps rain or dust out stays what it is for.
	const box = context.part('case', context.facts.parts.case);
	const candidates: Candidate[] = context.drawer.flatMap((part) => {
		const price = part.price ?? 0;
		const label = `Use ${part.name}`;
		if (part.kind === 'cooler' && part.id !== context.facts.parts.cooler)
			return [{ label, price, change: context.change.choosePart('cooler', part.id) }];
		if (part.kind === 'case' && part.id !== box?.id && (!box?.sealed || part.sealed) && (!box?.closed || part.closed))
			return [{ label, price, change: context.change.choosePart('case', part.id) }];
		if (
			part.kind === 'fan' &&
			part.header &&
			!context.facts.parts.also.some((item) => context.find(item.part)?.kind === 'fan')
		)
			return [{ label: `Add ${part.name}`, price, change: context.change.addPart(part.id) }];
		return [];
	});
	if (settings.place !== 'room')
		candidates.push({
			label: 'Stand it free in the room',
			price: 0,
			place: 'room',
			change: own({ place: 'room' })
		});
	const helping: Candidate[] = [];
	for (const candidate of candidates.sort((a, b) => a.price - b.price)) {
		if (helping.length === 3) break;
		if (margin(candidate) >= THIN_MARGIN_K) helping.push(candidate);
	}
	return helping.map(({ label, change }) => ({
		label,
		apply: (plan) => own({ useReadings: false })(change(plan))
	}));
}

function assessSlowed(settings: HeatSettings, context: Context, claims: readonly Claim[], { run }: Heat): Finding[] {
	if (!context.probe?.throttled || run.throttlesAfterSec !== null) return [];
	return [
		{
			id: 'heat.slowed-seen',
			level: 'caution',
			title: 'The board itself has said that it slowed down',
			why: 'The probe report carries its flag. Whatever the figures say, cool it better, take two readings, and probe again after a restart.',
			setting: 'heat.place',
			fixes: cooling(settings, context, claims)
		}
	];
}

function assessLoad({ load, board }: Heat): Finding[] {
	if (load.share <= 1) return [];
	return [
		{
			id: 'heat.cannot-keep-up',
			level: 'stop',
			title: `The board would have to be ${load.share.toFixed(1)} times as fast`,
			why: `${board.name} has no circuit that decodes this kind of film, and its processors do not suffice. Choose another board in the list under Brief, or bring the film into another form.`,
			setting: 'parts.board',
			fixes: []
		}
	];
}

function assessReadings(settings: HeatSettings, context: Context, heat: Heat): Finding[] {
	const { readings, useReadings, roomC, place } = settings;
	if (!useReadings) {
		const probed = context.probe?.temperaturesC[0];
		return readings.length === 0 && probed
			? [
					{
						id: 'heat.probed',
						level: 'note',
						title: `The board itself reported ${withUnit(probed.celsius, 0, '°C')}`,
						why: 'Taken as one reading after a known time, and with a second one, it makes the figures here those of your own board.',
						setting: 'heat.readings',
						fixes: []
					}
				]
			: [];
	}
	const fitted = fitThermal(readings, roomC + PLACE_AIR[place].k, dutyWatts(heat.duty));
	if (!fitted.ok)
		return [
			{
				id: 'heat.readings-unusable',
				level: 'caution',
				title: 'The readings cannot be used',
				why: `${fitted.faults[0]!.message} Until then the typical constants stand.`,
				setting: 'heat.readings',
				fixes: [{ label: 'Use typical constants', apply: own({ useReadings: false }) }]
			}
		];
	const longest = Math.max(...readings.map(({ afterMin }) => afterMin)) * 60;
	if (longest < settledAfterSec(heat.model) / 10)
		return [
			{
				id: 'heat.readings-early',
				level: 'note',
				title: 'The last reading is early',
				why: `What it settles at is foretold from its first ${formatSeconds(longest * 1000)}. One more reading after ${formatSeconds((settledAfterSec(heat.model) / 2) * 1000)} makes it sure.`,
				setting: 'heat.readings',
				fixes: []
			}
		];
	return [];
}

export default assessHeat satisfies Judge<HeatSettings>;
