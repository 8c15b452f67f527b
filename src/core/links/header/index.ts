/**
 * The header: the 40 pins on the board, who takes which, and where two want the same.
 * The pins stand in `standards/header40Table.ts`; start at `occupancy.ts`.
 */
import type { Claim } from '../../claims';
import { withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { clockOf } from '../../parts/chosen';
import { HEADER_PINS } from '../../standards/header40Table';
import { headerSettings, type HeaderSettings } from './settings';
import { hasHeader, occupancyOf } from './users';
import './offers';

const GPIO_LINES = HEADER_PINS.filter(({ gpio }) => gpio !== null).length;

function figures(settings: HeaderSettings, context: Context, claims: readonly Claim[]): Figure[] {
	const { takings, freeLines, milliamperes3V3, milliamperes5V } = occupancyOf(settings, context, claims);
	const there = hasHeader(context);
	const board = context.part('board', context.facts.parts.board);
	return [
		{
			id: 'free',
			setting: 'parts.also',
			label: 'Lines free',
			text: there === false ? 'no header' : takings.length ? `${freeLines.length} free of ${GPIO_LINES}` : 'all free',
			value: there === false ? 0 : freeLines.length,
			sure: 'exact',
			from: 'GPIO lines that no part takes; 0 and 1 are kept for the identifying memory.',
			telling: true
		},
		{
			id: 'at-3v3',
			setting: 'parts.also',
			label: 'From the 3.3 V pins',
			text: withUnit(milliamperes3V3, 0, 'mA'),
			value: milliamperes3V3,
			sure: 'typical',
			from: board
				? `The board gives ${withUnit(board.header3V3A * 1000, 0, 'mA')} there.`
				: 'Sum over the parts on the header.'
		},
		{
			id: 'at-5v',
			setting: 'parts.also',
			label: 'From the 5 V pins',
			text: withUnit(milliamperes5V, 0, 'mA'),
			value: milliamperes5V,
			sure: 'typical',
			from: 'Straight from the supply; the power link counts it too.'
		}
	];
}

/** The link that shares out the 40-pin header. */
export const header: Link<'header', HeaderSettings> = {
	id: 'header',
	title: 'Header',
	settings: headerSettings,
	version: 1,
	empty: () => ({ lines: {} }),
	key: 'h',
	place: { column: 'board', row: 2, half: 'right', wires: [{ to: 'parts', carries: 'rule' }] },
	publish: ({ lines }) => ({ wiring: lines }),
	claims: (_, context) =>
		clockOf(context)
			? [
					{
						on: 'check',
						from: 'header',
						what: 'clock',
						label: 'the clock on the header is seen',
						command: 'test -e /dev/rtc0',
						setting: 'parts.also'
					}
				]
			: [],
	figures
};
