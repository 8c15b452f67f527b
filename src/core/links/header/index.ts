/**
 * The header: the 40 pins on the board, who takes which, and where two want the same.
 * The pins stand in `standards/header40Table.ts`; start at `occupancy.ts`.
 */
import type { Claim } from '../../claims';
import { withUnit } from '../../basics/format';
import type { Context, Figure, Link, Step } from '../../link';
import { clockOf } from '../../parts/chosen';
import { HEADER_PINS } from '../../standards/header40Table';
import { assessHeader } from './findings';
import { pinOf } from './occupancy';
import { headerSettings, type HeaderSettings } from './settings';
import { hasHeader, occupancyOf, usersOf } from './users';
import { headerBench, headerBenchShape } from './bench';
import { HEADER_WORDS } from './words';
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

function steps(settings: HeaderSettings, context: Context, claims: readonly Claim[]): Step[] {
	const users = usersOf(settings, context, claims);
	if (users.length === 0) return [];
	const wired = users.flatMap(({ name, use, lines }) =>
		use.movable.map(
			({ what, suggested }, n) =>
				`${name}: ${what} to pin ${pinOf(lines[n] ?? suggested)} (GPIO ${lines[n] ?? suggested})`
		)
	);
	const clock = clockOf(context);
	const fans = users.filter(
		({ use }) => use.movable.some(({ what }) => what.startsWith('fan')) || use.milliamperes5V > 0
	);
	return [
		{
			id: 'fit-header',
			phase: 'assemble',
			needs: ['earthed', 'cooled'],
			makes: ['on header'],
			do: `With the board unplugged, fit on the header: ${users.map(({ name }) => name).join('; ')}. Pin 1 is the corner with the square pad; count from there.`,
			expect: 'Every pin is covered, none stands beside its hole, and nothing touches the board underneath.',
			caution:
				'One row off puts 5\u2009V on a 3.3\u2009V line and ends the board. Look from two sides before power comes.'
		},
		...(wired.length
			? [
					{
						id: 'wire-lines',
						phase: 'assemble' as const,
						needs: ['on header', 'boxed'] as const,
						makes: ['joined'] as const,
						do: `Join single wires. ${wired.join('. ')}.`,
						expect: 'Each wire sits on the pin that the drawing shows.'
					}
				]
			: []),
		...(fans.some(({ id }) => context.find(id)?.kind === 'fan')
			? [
					{
						id: 'fan-wires',
						phase: 'assemble' as const,
						needs: ['boxed'] as const,
						makes: ['joined'] as const,
						do: 'Fan: red to pin 4 (5\u2009V), black to pin 6 (ground), the third wire, when there is one, to its control pin.',
						expect: 'It turns, and blows onto the heatsink or out of the case.',
						caution: 'A fan wired the wrong way round does not turn, and may be ruined. Red is plus.'
					}
				]
			: []),
		...(clock
			? [
					{
						id: 'clock-named',
						phase: 'set up' as const,
						do: `Tell the system of ${clock.name}, in the board\u2019s own start file, as its leaflet says.`,
						expect: 'One line more in that file.',
						needsRestart: true as const
					},
					{
						id: 'clock-set',
						phase: 'check' as const,
						needs: ['verified'] as const,
						makes: ['clock set'] as const,
						do: 'Set the clock once, while the system knows the time from the network.',
						command: 'sudo hwclock --systohc && sudo hwclock --show',
						expect:
							'The time of day. "Cannot access the hardware clock" means that the start file does not name it yet.'
					}
				]
			: [])
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
	bench: { shape: headerBenchShape, of: headerBench },
	words: HEADER_WORDS,
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
	figures,
	assess: assessHeader,
	steps
};
