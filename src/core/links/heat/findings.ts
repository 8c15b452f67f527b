import type { Claim } from '../../claims';
import { formatSeconds, withUnit } from '../../format';
import type { Context, Finding, Fix } from '../../link';
import { addPart } from '../../parts/chosen';
import type { Plan } from '../../plan/plan';
import { fitThermal } from './fit';
import { computeHeat, findHeat, PLACE_AIR, type Heat } from './model';
import { settledAfterSec } from './thermal';

/** To see whether something helps, a coarse run is enough: each step is exact. */
const FEW_STEPS = 40;
/** Below this distance from its limit a warm day is enough. */
const THIN_MARGIN_K = 8;

export function assessHeat(plan: Plan, context: Context, claims: readonly Claim[]): Finding[] {
	const heat = computeHeat(plan, context, claims);
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
		...assessTemperature(plan, context, claims, heat),
		...assessLoad(heat),
		...assessReadings(plan, context, heat),
		...assessSlowed(plan, context, claims, heat)
	];
}

function assessTemperature(plan: Plan, context: Context, claims: readonly Claim[], heat: Heat): Finding[] {
	const { run, board, model } = heat;
	if (run.throttlesAfterSec !== null)
		return [
			{
				id: 'heat.throttles',
				level: run.dropped > 0 ? 'stop' : 'caution',
				title: `Too hot after ${formatSeconds(run.throttlesAfterSec * 1000)}`,
				why: `${board.name} would reach ${withUnit(board.throttleC, 0, '°C')} ${PLACE_AIR[plan.heat.place].words} with the room at ${withUnit(plan.heat.roomC, 0, '°C')}, and slow itself. ${run.dropped > 0 ? `${Math.round(run.dropped * 100)}\u2009% of the frames would be dropped.` : 'What it plays would not suffer, but the heat wears it.'}`,
				setting: 'heat.place',
				fixes: cooling(plan, context, claims)
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
				fixes: cooling(plan, context, claims)
			}
		];
	return [];
}

/** Parts and places that bring it well below its limit, the cheapest first. */
function cooling(plan: Plan, context: Context, claims: readonly Claim[]): Fix[] {
	const margin = (changed: Plan): number => {
		const heat = findHeat(changed, context, claims, FEW_STEPS);
		return heat ? heat.model.throttleC - heat.run.steadyC - (heat.run.throttlesAfterSec === null ? 0 : 100) : -100;
	};
	const candidates: { label: string; price: number; change: (p: Plan) => Plan }[] = context.drawer.flatMap((part) => {
		const price = part.price ?? 0;
		const label = `Use ${part.name}`;
		if (part.kind === 'cooler' && part.id !== plan.parts.cooler)
			return [{ label, price, change: (p: Plan) => ({ ...p, parts: { ...p.parts, cooler: part.id } }) }];
		if (part.kind === 'case' && part.id !== plan.parts.case)
			return [{ label, price, change: (p: Plan) => ({ ...p, parts: { ...p.parts, case: part.id } }) }];
		if (part.kind === 'fan' && part.header && !plan.parts.also.some((item) => context.find(item.part)?.kind === 'fan'))
			return [{ label: `Add ${part.name}`, price, change: (p: Plan) => addPart(p, part.id) }];
		return [];
	});
	if (plan.heat.place !== 'room')
		candidates.push({
			label: 'Stand it free in the room',
			price: 0,
			change: (p) => ({ ...p, heat: { ...p.heat, place: 'room' } })
		});
	// Measured constants are of the things as they are: parts that change need new readings.
	const base: Plan = { ...plan, heat: { ...plan.heat, useReadings: false } };
	const helping: typeof candidates = [];
	for (const candidate of candidates.sort((a, b) => a.price - b.price)) {
		if (helping.length === 3) break;
		if (margin(candidate.change(base)) >= THIN_MARGIN_K) helping.push(candidate);
	}
	return helping.map(({ label, change }) => ({
		label,
		apply: (p) => {
			const changed = change(p);
			return { ...changed, heat: { ...changed.heat, useReadings: false } };
		}
	}));
}

function assessSlowed(plan: Plan, context: Context, claims: readonly Claim[], { run }: Heat): Finding[] {
	if (!context.probe?.throttled || run.throttlesAfterSec !== null) return [];
	return [
		{
			id: 'heat.slowed-seen',
			level: 'caution',
			title: 'The board itself has said that it slowed down',
			why: 'The probe report carries its flag. Whatever the figures say, cool it better, take two readings, and probe again after a restart.',
			setting: 'heat.place',
			fixes: cooling(plan, context, claims)
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

function assessReadings(plan: Plan, context: Context, heat: Heat): Finding[] {
	const { readings, useReadings, roomC, place } = plan.heat;
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
	const fitted = fitThermal(readings, roomC + PLACE_AIR[place].k, heat.watts);
	if (!fitted.ok)
		return [
			{
				id: 'heat.readings-unusable',
				level: 'caution',
				title: 'The readings cannot be used',
				why: `${fitted.faults[0]!.message} Until then the typical constants stand.`,
				setting: 'heat.readings',
				fixes: [{ label: 'Use typical constants', apply: (p) => ({ ...p, heat: { ...p.heat, useReadings: false } }) }]
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
