/**
 * The heat: how warm the chip gets where it stands, with what cools it, and what slowing itself would do to what it plays.
 * One warm body, first order; `thermal.ts` has the model, `fit.ts` makes it that of one's own board.
 */
import type { Claim } from '../../claims';
import { formatSeconds, withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { FAN_UNIT, fanLine } from './fan';
import { computeHeat, PLACE_AIR } from './model';
import { HEAT_FAULTS } from './faults';
import { heatSettings, type HeatSettings } from './settings';
import { resistance, settledAfterSec } from './thermal';
import './offers';

function figures(settings: HeatSettings, context: Context, claims: readonly Claim[]): Figure[] {
	const heat = computeHeat(settings, context, claims);
	if (!heat)
		return [
			{
				id: 'steady',
				setting: 'heat.place',
				label: 'Settles at',
				text: 'no board',
				value: null,
				sure: 'assumed',
				from: 'Choose a board.',
				telling: true
			}
		];
	const { run, model, watts, load, fitted, fan } = heat;
	const sure = fitted ? 'measured' : 'typical';
	return [
		{
			id: 'steady',
			setting: 'heat.place',
			label: 'Settles at',
			text: `${withUnit(run.steadyC, 0, '°C')} · ${run.throttlesAfterSec === null ? `${withUnit(model.throttleC - run.steadyC, 0, 'K')} left` : 'slows itself'}`,
			value: run.steadyC,
			sure,
			from: `${withUnit(watts, 1, 'W')} inside, ${PLACE_AIR[settings.place].words}, the room at ${withUnit(settings.roomC, 0, '°C')}.`,
			telling: true
		},
		{
			id: 'throttle',
			setting: 'parts.board',
			label: 'Slows itself after',
			text: run.throttlesAfterSec === null ? 'never' : formatSeconds(run.throttlesAfterSec * 1000),
			value: run.throttlesAfterSec,
			sure,
			from: `At ${withUnit(model.throttleC, 0, '°C')} the board lowers its own speed.`
		},
		{
			id: 'dropped',
			setting: 'parts.board',
			label: 'Frames dropped then',
			text: `${Math.round(run.dropped * 100)}\u2009%`,
			value: run.dropped,
			sure,
			from: `Playing takes ${Math.round(load.share * 100)}\u2009% of the processors; decoded by ${load.by === 'circuit' ? 'a circuit of its own' : 'the processors'}.`
		},
		{
			id: 'resistance',
			setting: 'parts.cooler',
			label: 'Chip to room',
			text: withUnit(resistance(model, 0), 1, 'K/W'),
			value: resistance(model, 0),
			sure,
			from: fitted
				? `Fitted to your readings; they lie ${withUnit(fitted.offK, 1, 'K')} off on average.`
				: `Board and heatsink side by side ${withUnit(model.chipKPerW, 1, 'K/W')}, case and place ${withUnit(model.caseKPerW, 1, 'K/W')}${fan ? '; the fan lowers the first' : ''}.`
		},
		{
			id: 'tau',
			setting: 'parts.cooler',
			label: 'Settled within',
			text: formatSeconds(settledAfterSec(model) * 1000),
			value: settledAfterSec(model),
			sure,
			from: `Six time constants; board and heatsink hold ${withUnit(model.jPerK, 0, 'J/K')}.`
		}
	];
}

/** The link that keeps the processor below its limit. */
export const heat: Link<'heat', HeatSettings> = {
	id: 'heat',
	title: 'Heat',
	settings: heatSettings,
	version: 1,
	empty: () => ({ place: 'room', roomC: 22, fanOnC: 60, fanOffC: 50, readings: [], useReadings: false }),
	key: 't',
	place: { column: 'board', row: 2, half: 'left', wires: [{ to: 'parts', carries: 'rule' }] },
	faults: HEAT_FAULTS,
	claims: (_, context) =>
		fanLine(context)
			? [
					{ on: 'unit', from: 'heat', what: 'fan', name: FAN_UNIT, setting: 'heat.fanOnC' },
					{
						on: 'check',
						from: 'heat',
						what: 'fan',
						label: 'the fan is under control',
						command: `systemctl is-active ${FAN_UNIT}`,
						setting: 'heat.fanOnC'
					}
				]
			: [],
	figures
};
