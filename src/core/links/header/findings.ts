import type { Claim } from '../../claims';
import { withUnit } from '../../basics/format';
import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import type { Judge } from '../../manifest';
import type { Part } from '../../parts/schema';
import { PWM_LINES } from '../../standards/header40Table';
import { distinct } from '../../basics/distinct';
import { computeOccupancy, pinOf, type HeaderConflict, type HeaderUser, type Occupancy } from './occupancy';
import { hasHeader, LIFT, occupancyOf, usersOf } from './users';
import type { HeaderSettings } from './settings';

const own = changing<HeaderSettings>('header');

/** Pins wanted twice, addresses met twice, and what a pin cannot do. */
export function assessHeader(settings: HeaderSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const users = usersOf(settings, context, claims);
	if (users.length === 0) return [];
	if (hasHeader(context) === false)
		return [
			{
				id: 'header.none',
				level: 'stop',
				title: 'This board has no header',
				why: `${names(users)} must sit on a 40-pin header. Choose a board that has one, or the USB version.`,
				setting: 'parts.board',
				fixes: users.flatMap((user) => instead(user, users, context, (other) => other.header === null)).slice(0, 3)
			}
		];
	const occupancy = occupancyOf(settings, context, claims);
	return [
		...distinct(occupancy.conflicts.map((conflict) => conflictFinding(conflict, users, settings, context, occupancy))),
		...currentFindings(context, occupancy)
	];
}

const names = (users: readonly HeaderUser[]): string => users.map(({ name }) => name).join(' and ');
const pins = (lines: readonly number[]): string =>
	lines.length > 4
		? `${lines.length} pins, ${pinOf(lines[0]!)} among them`
		: `pin${lines.length > 1 ? 's' : ''} ${lines.map(pinOf).join(', ')}`;

function conflictFinding(
	conflict: HeaderConflict,
	users: readonly HeaderUser[],
	settings: HeaderSettings,
	context: Context,
	{ freeLines }: Occupancy
): Finding {
	const others = (user: HeaderUser): Fix[] => otherParts(user, users, context);
	const at = { id: `header.${idOf(conflict)}`, level: 'stop' as const, setting: 'header' as const };
	switch (conflict.kind) {
		case 'line': {
			const { a, b, lines } = conflict;
			return {
				...at,
				title: `Two parts want ${pins(lines)}`,
				why: `${a.by.name} needs ${lines.length > 1 ? 'them' : `GPIO ${lines[0]!}`} for ${a.as}, ${b.by.name} for ${b.as}. Whichever is found first wins, and the other is missing.`,
				fixes: [
					...moves(b.by, lines, settings, freeLines),
					...moves(a.by, lines, settings, freeLines),
					...others(b.by),
					...others(a.by)
				].slice(0, 4)
			};
		}
		case 'address':
			return {
				...at,
				title: `Two parts answer at address ${hex(conflict.address)}`,
				why: `${names(conflict.users)} share the I2C bus, where each needs an address of its own. Some have a solder bridge that moves it; read their sheets. Otherwise use another.`,
				fixes: conflict.users.flatMap(others).slice(0, 3)
			};
		case 'id-memory':
			return {
				...at,
				title: 'Two parts carry the identifying memory',
				why: `${names(conflict.users)} both tell the board what they are, on pins 27 and 28, and it hears only a jumble. Only one add-on of this kind can be fitted.`,
				fixes: conflict.users.flatMap(others).slice(0, 3)
			};
		case 'no-pwm':
			return {
				...at,
				title: `GPIO ${conflict.line} has no PWM`,
				why: `${conflict.user.name} sets its speed by pulses that the board makes only on ${PWM_LINES.map(({ line }) => `GPIO ${line}`).join(', ')}.`,
				fixes: moves(conflict.user, [conflict.line], settings, freeLines)
			};
		case 'no-room':
			return {
				...at,
				title: 'Not everything fits on the header',
				why: coverWords(conflict.users.filter(({ use }) => !use.passesThrough)),
				fixes: [
					{
						label: `Add ${conflict.lifts > 1 ? `${conflict.lifts} stacking headers` : 'a stacking header'}`,
						apply: context.change.addPart(LIFT, conflict.lifts)
					}
				]
			};
	}
}

const coverWords = (lids: readonly HeaderUser[]): string =>
	lids.length > 1
		? `${names(lids)} each cover all 40 pins and bring none through. Stacking headers lift them, so that all can be joined.`
		: `${names(lids)} covers all 40 pins and brings none through. A stacking header lifts it, so that more can be joined.`;

/** The same conflict keeps its id while others come and go. */
const idOf = (conflict: HeaderConflict): string => {
	switch (conflict.kind) {
		case 'line':
			return `line.${conflict.a.by.id}.${conflict.b.by.id}`;
		case 'no-pwm':
			return `no-pwm.${conflict.user.id}`;
		case 'no-room':
			return 'no-room';
		default:
			return `${conflict.kind}.${conflict.users.map(({ id }) => id).join('.')}`;
	}
};

const hex = (address: number): string => `0x${address.toString(16).padStart(2, '0')}`;

/** Wires a movable line of this part, when it is one of these, to a free one that can do the same. */
function moves(
	user: HeaderUser,
	lines: readonly number[],
	settings: HeaderSettings,
	freeLines: readonly number[]
): Fix[] {
	return user.use.movable.flatMap(({ what, suggested, pwm }, n): Fix[] => {
		const now = user.lines[n] ?? suggested;
		const to = freeLines.find((line) => !pwm || PWM_LINES.some((known) => known.line === line));
		if (!lines.includes(now) || to === undefined) return [];
		const wired = user.use.movable.map((line, k) => (k === n ? to : (user.lines[k] ?? line.suggested)));
		return [
			{
				label: `Wire the ${what} to pin ${pinOf(to)} (GPIO ${to})`,
				apply: own(({ lines }) => ({ lines: { ...lines, [user.id]: wired } }))
			}
		];
	});
}

/** Parts that do the same: one that is joined otherwise, and one on the header that leaves the others their pins. */
function otherParts(user: HeaderUser, users: readonly HeaderUser[], context: Context): Fix[] {
	const rest = users.filter((known) => known !== user);
	const clashes = (among: readonly HeaderUser[]): number => computeOccupancy(among, Infinity).conflicts.length;
	const without = clashes(rest);
	return [
		...instead(user, users, context, (other) => other.header === null),
		...instead(user, users, context, ({ id, name, header }) =>
			header === null ? false : clashes([...rest, { id, name, use: header, lines: [] }]) === without
		)
	];
}

function instead(
	user: HeaderUser,
	users: readonly HeaderUser[],
	context: Context,
	suits: (part: Part) => boolean
): Fix[] {
	const part = context.find(user.id);
	const other =
		part &&
		context.drawer.find(
			(known) => users.every(({ id }) => id !== known.id) && doesTheSame(part, known) && suits(known)
		);
	return other ? [{ label: `Use ${other.name}`, apply: context.change.replacePart(part.id, other.id) }] : [];
}

/** A converter that takes the usual rates and gives the same kind of signal; a tuner for the same broadcasts. */
function doesTheSame(part: Part, other: Part): boolean {
	if (part.kind === 'converter' && other.kind === 'converter') {
		const usual = part.playback.ratesHz.filter((rate) => rate >= 44_100 && rate <= 96_000);
		return (
			(other.joint === 'usb' || other.joint === 'header' || other.joint === 'optical') &&
			(part.joint === 'optical') === (other.joint === 'optical') &&
			usual.every((rate) => other.playback.ratesHz.includes(rate))
		);
	}
	return (
		part.kind === 'tuner' && other.kind === 'tuner' && part.systems.every((system) => other.systems.includes(system))
	);
}

/** The 3.3 V pins come from a small regulator on the board. */
function currentFindings(context: Context, { milliamperes3V3 }: Occupancy): Finding[] {
	const board = context.part('board', context.facts.parts.board);
	if (!board || milliamperes3V3 <= board.header3V3A * 1000) return [];
	return [
		{
			id: 'header.too-much-3v3',
			level: 'stop',
			title: `The 3.3\u2009V pins are asked for ${withUnit(milliamperes3V3, 0, 'mA')}`,
			why: `${board.name} gives ${withUnit(board.header3V3A * 1000, 0, 'mA')} there. Its regulator would fail, and the board with it. Leave something out, or feed it from 5\u2009V.`,
			setting: 'parts.also',
			fixes: []
		}
	];
}

export default assessHeader satisfies Judge<HeaderSettings>;
