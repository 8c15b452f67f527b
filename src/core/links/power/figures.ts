import { claimsOn, type Claim } from '../../claims';
import { formatSeconds, withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import { chosenParts } from '../../parts/chosen';
import type { PartOf } from '../../parts/schema';
import { computeEnergy, computeHoldUpSec } from './energy';
import { computeFuse, fuseCharacteristic, FUSE_RATINGS_A } from './inlet';
import { computePath, goodFromV, type PowerPath } from './powerPath';
import type { PowerSettings } from './settings';

/** A small supply turns nine tenths of what it takes into what it gives. Typical at half load. */
const SUPPLY_EFFICIENCY = 0.87;

/** Watts from the wall: the board's supply with its loss, and whatever has a plug of its own. */
function wallWatts(path: PowerPath, claims: readonly Claim[]): { on: number; quiet: number; standby: number } {
	const mains = claimsOn(claims, 'power').filter(({ via }) => via === 'mains');
	const sum = (of: 'typicalW' | 'idleW'): number => mains.reduce((total, claim) => total + claim[of] * claim.count, 0);
	return {
		on: path.watts.typical / SUPPLY_EFFICIENCY + sum('typicalW'),
		quiet: path.watts.idle / SUPPLY_EFFICIENCY + sum('idleW'),
		standby: path.supply.noLoadW + sum('idleW')
	};
}

/** The chosen part that bridges a cut, or null. */
export const holdUpOf = (context: Context): PartOf<'hold-up'> | null =>
	chosenParts(context).flatMap(({ part }) => (part.kind === 'hold-up' ? [part] : []))[0] ?? null;

/** The fuse of a mains inlet, or null where none is planned. Amperes. */
export function inletFuse(settings: PowerSettings, context: Context) {
	const { inlet } = settings;
	if (!inlet) return null;
	const fuse = computeFuse({ ...inlet, mainsV: context.venue.mainsV, ratingsA: FUSE_RATINGS_A });
	return { ...fuse, characteristic: fuse.fuseA === null ? null : fuseCharacteristic(fuse.fuseA, inlet.inrushA) };
}

/** Volts at the board, spare amperes, watts from the wall, energy a year. */
export function powerFigures(settings: PowerSettings, context: Context, claims: readonly Claim[]): Figure[] {
	const path = computePath(settings, context, claims);
	if (!path)
		return [
			{
				id: 'volts',
				setting: 'parts.supply',
				label: 'At the board',
				text: 'no supply',
				value: null,
				sure: 'assumed',
				from: 'Choose a supply.',
				telling: true
			}
		];
	const board = context.part('board', context.facts.parts.board);
	return [
		...atTheBoard(path, board),
		...onUsb(path, board),
		...overTime(settings, context, claims, path),
		...throughTheInlet(settings, context)
	];
}

function atTheBoard(path: PowerPath, board: PartOf<'board'> | null): Figure[] {
	const from = 'Constant power through copper at 20 °C, both conductors, and the contacts of the plugs.';
	const volts = (id: keyof PowerPath['at'], label: string, words: string): Figure => {
		const drop = path.at[id];
		return {
			id,
			setting: 'parts.supply',
			label,
			text: drop ? `${withUnit(drop.boardV, 2, 'V')} · ${withUnit(path.watts[id], 1, 'W')}` : 'collapses',
			value: drop?.boardV ?? null,
			sure: 'typical',
			from: `${words} ${from}`
		};
	};
	const peak = path.at.peak;
	return [
		{
			id: 'volts',
			setting: 'parts.supply',
			label: 'When busiest',
			text: peak ? `${withUnit(peak.boardV, 2, 'V')} at board` : 'collapses',
			value: peak?.boardV ?? null,
			sure: 'typical',
			from,
			telling: true
		},
		...(board && peak
			? [
					{
						id: 'margin',
						setting: 'parts.supply' as const,
						label: board.warnsV === null ? 'Margin to the brown-out' : 'Margin to the warning',
						text: withUnit((peak.boardV - goodFromV(board)) * 1000, 0, 'mV'),
						value: peak.boardV - goodFromV(board),
						sure: 'typical' as const,
						from: `${board.warnsV === null ? '' : `The board warns and slows itself below ${withUnit(board.warnsV, 2, 'V')}. `}It restarts below ${withUnit(board.brownOutV, 2, 'V')}; that differs between boards of one class.`
					}
				]
			: []),
		volts('idle', 'Waiting', 'Everything on, nothing playing.'),
		volts('typical', 'Playing', 'What the parts claim while they do their work.'),
		volts('peak', 'All at their busiest', 'What the parts claim at their peak, all at once.'),
		volts(
			'surge',
			'A part switched on',
			'While it plays, the one part with the greatest inrush current is switched on.'
		),
		volts('start', 'When power comes', 'The board\u2019s own inrush current, the other parts waiting.'),
		{
			id: 'rated',
			setting: 'parts.supply',
			label: 'The supply gives',
			text: withUnit(path.ratedW, 1, 'W'),
			value: path.ratedW,
			sure: 'exact',
			from: 'Volts times amperes on its label.'
		},
		{
			id: 'lead',
			setting: 'parts.lead',
			label: 'Cable and plugs',
			text: withUnit(path.loopOhm * 1000, 0, 'mΩ'),
			value: path.loopOhm,
			sure: 'typical',
			from: path.lead
				? `${path.lead.name}: ${path.lead.lengthM}\u2009m of ${path.lead.areaMm2}\u2009mm², there and back.`
				: from
		}
	];
}

function onUsb(path: PowerPath, board: PartOf<'board'> | null): Figure[] {
	if (!board || path.usb.devices === 0) return [];
	return [
		{
			id: 'usb',
			setting: 'parts.also',
			label: 'USB, all together',
			text: `${withUnit(path.usb.totalA, 2, 'A')} of ${withUnit(board.usbTotalA, 1, 'A')}`,
			value: path.usb.totalA,
			sure: 'typical',
			from: `${path.usb.devices} device${path.usb.devices > 1 ? 's' : ''} at their busiest; those in a hub with its own supply are not counted.`
		},
		{
			id: 'usb-port',
			setting: 'parts.also',
			label: 'USB, the busiest socket',
			text: `${withUnit(path.usb.busiestA, 2, 'A')} of ${withUnit(board.usbPortA, 1, 'A')}`,
			value: path.usb.busiestA,
			sure: 'typical',
			from: 'A plain hub gathers the current of all that hangs on it.'
		}
	];
}

function overTime(settings: PowerSettings, context: Context, claims: readonly Claim[], path: PowerPath): Figure[] {
	const { on, quiet, standby } = wallWatts(path, claims);
	// Hours switched off are taken to be quiet ones first.
	const quietHoursPerDay = Math.max(
		0,
		settings.onHoursPerDay - (24 - (context.facts.programme ? context.facts.programme.quietHoursPerDay : 0))
	);
	const { pricePerKwh, currency } = context.venue;
	const energy = computeEnergy({
		onW: on,
		quietW: quiet,
		standbyW: standby,
		onHoursPerDay: settings.onHoursPerDay,
		quietHoursPerDay,
		pricePerKwh
	});
	const store = holdUpOf(context);
	const seconds = store ? computeHoldUpSec(store, path.watts.typical) : null;
	return [
		{
			id: 'energy',
			setting: 'power.onHoursPerDay',
			label: 'Energy in a year',
			text: `${withUnit(energy.kwhPerYear, 0, 'kWh')} · ${energy.costPerYear.toFixed(2)} ${currency}`,
			value: energy.kwhPerYear,
			sure: 'typical',
			from: `${withUnit(on, 1, 'W')} for ${withUnit(settings.onHoursPerDay - quietHoursPerDay, 1, 'h')} a day, ${quietHoursPerDay > 0 ? `${withUnit(quiet, 1, 'W')} in ${withUnit(quietHoursPerDay, 1, 'h')} of quiet, ` : ''}${withUnit(standby, 1, 'W')} otherwise, at ${pricePerKwh} ${currency} a kWh. Screens and amplifiers with their own plug are in it.`
		},
		...(store
			? [
					{
						id: 'hold-up',
						setting: 'parts.also' as const,
						label: 'Without mains',
						text: seconds === null ? 'not at all' : formatSeconds(seconds * 1000),
						value: seconds,
						sure: 'typical' as const,
						from: `${store.name}: ${store.wattHours}\u2009Wh, of which ${Math.round(store.efficiency * 100)}\u2009% arrive; a shutdown takes ${settings.shutdownSec}\u2009s.`
					}
				]
			: [])
	];
}

function throughTheInlet(settings: PowerSettings, context: Context): Figure[] {
	const fuse = inletFuse(settings, context);
	if (!fuse) return [];
	return [
		{
			id: 'inlet',
			setting: 'power.inlet',
			label: 'Through the inlet',
			text: withUnit(fuse.currentA, 3, 'A'),
			value: fuse.currentA,
			sure: 'typical',
			from: `Watts by ${context.venue.mainsV}\u2009V and the power factor.`
		},
		{
			id: 'fuse',
			setting: 'power.inlet',
			label: 'Next fuse',
			text: fuse.fuseA === null ? 'none is large enough' : `${fuse.characteristic} ${fuse.fuseA}\u2009A`,
			value: fuse.fuseA,
			sure: 'exact',
			from: `${withUnit(fuse.neededA, 3, 'A')} with the margin; ratings of IEC 60127-2. T opens late, F at once.`
		}
	];
}
