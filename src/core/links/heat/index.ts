/**
 * The heat: how warm the chip gets where it stands, with what cools it, and what slowing itself would do to what it plays.
 * One warm body, first order; `thermal.ts` has the model, `fit.ts` makes it that of one's own board.
 */
import type { Claim } from '../../claims';
import { formatSeconds, withUnit } from '../../basics/format';
import type { Context, Figure, Link } from '../../link';
import { FAN_UNIT, fanLine, heatFiles } from './files';
import { assessHeat } from './findings';
import { computeHeat, PLACE_AIR } from './model';
import { HEAT_FAULTS } from './rehearse';
import { heatSettings, type HeatSettings } from './settings';
import { resistance, settledAfterSec } from './thermal';
import { heatBench, heatBenchShape } from './bench';
import { HEAT_WORDS } from './words';

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
	bench: { shape: heatBenchShape, of: heatBench },
	faults: HEAT_FAULTS,
	words: HEAT_WORDS,
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
	figures,
	assess: assessHeat,
	files: heatFiles,
	steps(settings, context) {
		const cooler = context.part('cooler', context.facts.parts.cooler);
		const box = context.part('case', context.facts.parts.case);
		return [
			...(cooler
				? [
						{
							id: 'pad',
							phase: 'assemble' as const,
							needs: ['earthed'] as const,
							makes: ['cooled'] as const,
							do: `Wipe the chip, peel the foil from both sides of the pad, and set ${cooler.name} down in one movement.`,
							expect: 'It sits flat on the chip and touches nothing beside it.',
							caution: 'A heatsink that slips onto other parts makes a short circuit. It can get too hot to touch.'
						}
					]
				: []),
			...(box
				? [
						{
							id: 'spacers',
							phase: 'assemble' as const,
							needs: ['earthed', 'cooled', 'on header'] as const,
							makes: ['boxed'] as const,
							do: `Screw the board onto the spacers of ${box.name}; use those at the corners only.`,
							expect: `At least ${box.spacersMm}\u2009mm of air below it; no foot stands on a part, and the card can still be drawn out.`
						}
					]
				: []),
			...(fanLine(context)?.way === 'pwm'
				? [
						{
							id: 'pwm-named',
							phase: 'set up' as const,
							needs: ['logged in'] as const,
							do: `Tell the board\u2019s own start file to make GPIO ${fanLine(context)!.gpio} a PWM output, as its documentation says. Without that the fan\u2019s unit is passed over, and the fan stands.`,
							expect: 'One line more in that file. After the restart verify.sh says that the fan is under control.',
							needsRestart: true as const
						}
					]
				: []),
			{
				id: 'read-heat',
				phase: 'check',
				needs: ['verified', 'heard'],
				makes: ['readings taken'],
				do: 'Read the chip\u2019s temperature 5 minutes after a cold start, and again after an hour, while it plays.',
				command: 'cat /sys/class/thermal/thermal_zone0/temp',
				expect: 'Thousandths of a degree Celsius. Enter both under Heat: the figures become those of your own board.',
				reading: 'two temperatures and their minutes'
			}
		];
	}
};
