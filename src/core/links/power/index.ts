/** Power: what all the parts draw, against what the supply gives and what the lead leaves of it. Thin: one rail, one lead. */
import { claimsOn, type Claim } from '../../claims';
import { withUnit } from '../../format';
import type { Context, Finding, Figure, Link } from '../../link';
import type { Plan } from '../../plan/plan';
import { computePowerPath } from './load';
import { powerSettings, type PowerSettings } from './settings';

/** A supply that works at more than this part of its rating runs hot and sags. */
const COMFORT = 0.8;
/** Supplies called 5 V and 5.1 V serve the same boards. */
const RAIL_TOLERANCE_V = 0.25;

function path(plan: Plan, context: Context, claims: readonly Claim[]) {
	const supply = context.part('supply', plan.parts.supply);
	return supply ? { supply, ...computePowerPath(claimsOn(claims, 'power'), supply, plan.power) } : null;
}

/** No tick where nothing has been worked out. */
const UNKNOWN: Finding = {
	id: 'power.unknown',
	level: 'note',
	title: 'Nothing can be said of the power yet',
	why: 'Choose a board and a supply among the parts; then load, voltage and margin stand here.',
	setting: 'parts.supply',
	fixes: []
};

function assess(plan: Plan, context: Context, claims: readonly Claim[]): Finding[] {
	const p = path(plan, context, claims);
	const board = context.part('board', plan.parts.board);
	if (!p || !board) return [UNKNOWN];
	const findings: Finding[] = [];
	const stronger = context.drawer
		.flatMap((part) =>
			part.kind === 'supply' &&
			Math.abs(part.volts - p.supply.volts) <= RAIL_TOLERANCE_V &&
			part.volts * part.amperes * COMFORT >= p.peakW
				? [part]
				: []
		)
		.sort((a, b) => a.amperes - b.amperes)[0];
	const useStronger =
		stronger && stronger.id !== p.supply.id
			? [{ label: `Use ${stronger.name}`, apply: (q: Plan) => ({ ...q, parts: { ...q.parts, supply: stronger.id } }) }]
			: [];
	const who = claimsOn(claims, 'power')
		.map((claim) => `${claim.what} ${withUnit(claim.peakW, 1, 'W')}`)
		.join(', ');
	if (p.peakW > p.ratedW)
		findings.push({
			id: 'power.too-weak',
			level: 'stop',
			title: `The supply is ${withUnit(p.peakW - p.ratedW, 1, 'W')} too weak`,
			why: `At their busiest the parts draw ${withUnit(p.peakW, 1, 'W')} (${who}); ${p.supply.name} gives ${withUnit(p.ratedW, 1, 'W')}. The board would restart when it is busy.`,
			setting: 'parts.supply',
			fixes: useStronger
		});
	else if (p.peakW > COMFORT * p.ratedW)
		findings.push({
			id: 'power.only-just',
			level: 'caution',
			title: 'The supply is only just enough',
			why: `At their busiest the parts draw ${withUnit(p.peakW, 1, 'W')} (${who}) of ${withUnit(p.ratedW, 1, 'W')}. Keep a fifth in hand.`,
			setting: 'parts.supply',
			fixes: useStronger
		});
	if (p.voltsAtPeak === null || p.voltsAtPeak < board.brownOutV)
		findings.push({
			id: 'power.lead-sags',
			level: 'stop',
			title:
				p.voltsAtPeak === null
					? 'The lead cannot carry the load'
					: `Only ${withUnit(p.voltsAtPeak, 2, 'V')} reach the board`,
			why: `It browns out at ${withUnit(board.brownOutV, 2, 'V')}. The lead loses the rest: make it shorter or thicker.`,
			setting: 'power.leadAreaMm2',
			fixes: [
				{
					label: 'Use 0.5\u2009m of 0.5\u2009mm²',
					apply: (q) => ({ ...q, power: { leadLengthM: 0.5, leadAreaMm2: 0.5 } })
				}
			]
		});
	if (context.probe?.supplyAlarm)
		findings.push({
			id: 'power.alarm-seen',
			level: 'caution',
			title: 'The board itself has reported too little voltage',
			why: 'The probe report carries a supply alarm. Whatever the figures say, try a stronger supply or a shorter lead, then probe again.',
			setting: 'parts.supply',
			fixes: useStronger
		});
	return findings;
}

function figures(plan: Plan, context: Context, claims: readonly Claim[]): Figure[] {
	const p = path(plan, context, claims);
	if (!p)
		return [
			{
				id: 'volts',
				label: 'At the board',
				text: 'no supply',
				value: null,
				sure: 'assumed',
				from: 'Choose a supply.',
				telling: true
			}
		];
	const from = 'Constant power through copper at 20 °C, both conductors, and two plugs.';
	return [
		{
			id: 'volts',
			label: 'When busiest',
			text: p.voltsAtPeak === null ? 'collapses' : `${withUnit(p.voltsAtPeak, 2, 'V')} at board`,
			value: p.voltsAtPeak,
			sure: 'typical',
			from,
			telling: true
		},
		{
			id: 'typical',
			label: 'Drawn while playing',
			text: withUnit(p.typicalW, 1, 'W'),
			value: p.typicalW,
			sure: 'typical',
			from: 'Sum of what the parts claim.'
		},
		{
			id: 'peak',
			label: 'Drawn at the busiest',
			text: withUnit(p.peakW, 1, 'W'),
			value: p.peakW,
			sure: 'typical',
			from: 'Sum of what the parts claim at their peak.'
		},
		{
			id: 'rated',
			label: 'The supply gives',
			text: withUnit(p.ratedW, 1, 'W'),
			value: p.ratedW,
			sure: 'exact',
			from: 'Volts times amperes on its label.'
		},
		{
			id: 'lead',
			label: 'Lead and plugs',
			text: withUnit(p.loopOhm * 1000, 0, 'mΩ'),
			value: p.loopOhm,
			sure: 'typical',
			from
		}
	];
}

export const power: Link<PowerSettings> = {
	id: 'power',
	title: 'Power',
	settings: powerSettings,
	claims: () => [],
	figures,
	assess,
	files: () => [],
	steps: (plan, context, claims) => {
		const p = path(plan, context, claims);
		return [
			{
				id: 'power-last',
				phase: 'first start',
				do: 'Plug in the supply, last of all.',
				expect: p?.voltsTypical
					? `About ${withUnit(p.voltsTypical, 2, 'V')} at the board; its light shows life within seconds.`
					: 'Its light shows life within seconds.',
				caution:
					'Use a supply with a safety mark for your country. Mains wiring is work for a competent person under local rules.',
				reading: 'volts at the board, if you can measure'
			}
		];
	},
	rehearse(machine) {
		machine.on('mains-on', () => {
			const volts = machine.bench.board.voltsAtBoard;
			machine.log(
				'power',
				machine.clock.nowMs === 0 ? 'Mains on' : 'Mains back',
				volts === null ? '' : withUnit(volts, 2, 'V')
			);
			machine.emit('powered');
		});
		machine.on('mains-off', () => machine.log('power', 'Mains gone: everything stops at once', '0.00\u2009V', 'bad'));
		machine.on('fault', ({ name, on }) => {
			if (name === 'power-cut') machine.mains(!on);
		});
	}
};
