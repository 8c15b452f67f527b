import { displayLines, FUNCTION_LINES, HEADER_PINS, PWM_LINES } from '../../standards/header40Table';
import { groupBy } from '../../basics/groupBy';
import type { HeaderUse } from '../../parts/schema';

/** One part on the header, with the lines to which its movable ones are wired. */
export interface HeaderUser {
	readonly id: string;
	readonly name: string;
	readonly use: HeaderUse;
	readonly lines: readonly number[];
}

/** One line taken by one part. Buses are shared by any number of parts; everything else by one. */
export interface Taking {
	readonly line: number;
	readonly by: HeaderUser;
	readonly as: string;
	readonly bus: 'I2C' | 'SPI0' | 'SPI1' | null;
}

/** Why two parts cannot share the header. */
export type HeaderConflict =
	| { readonly kind: 'line'; readonly lines: readonly number[]; readonly a: Taking; readonly b: Taking }
	| { readonly kind: 'address'; readonly address: number; readonly users: readonly [HeaderUser, HeaderUser] }
	| { readonly kind: 'id-memory'; readonly users: readonly [HeaderUser, HeaderUser] }
	| { readonly kind: 'no-pwm'; readonly line: number; readonly user: HeaderUser }
	| { readonly kind: 'no-room'; readonly users: readonly HeaderUser[]; readonly lifts: number };

/** Who takes which lines of the header. */
export interface Occupancy {
	readonly takings: readonly Taking[];
	readonly conflicts: readonly HeaderConflict[];
	/** Lines that nobody takes, ascending. */
	readonly freeLines: readonly number[];
	readonly milliamperes5V: number;
	readonly milliamperes3V3: number;
}

/** The pin, 1 to 40, on which a GPIO line comes out. */
export const pinOf = (line: number): number => HEADER_PINS.find(({ gpio }) => gpio === line)!.pin;

/** Every line that a part takes, in words of its function. */
export function takingsOf(user: HeaderUser): Taking[] {
	const { use } = user;
	const take = (lines: readonly number[], names: readonly string[], bus: Taking['bus'] = null): Taking[] =>
		lines.map((line, n) => ({ line, by: user, as: names[n] ?? names[0]!, bus }));
	return [
		...(use.i2s ? take(FUNCTION_LINES.i2s, ['sound clock', 'sound frame', 'sound in', 'sound out']) : []),
		...(use.i2c.length ? take(FUNCTION_LINES.i2c, ['I2C data', 'I2C clock'], 'I2C') : []),
		...(use.idMemory ? take(FUNCTION_LINES.idMemory, ['identity data', 'identity clock']) : []),
		...(use.uart ? take(FUNCTION_LINES.uart, ['serial out', 'serial in']) : []),
		...use.spi.flatMap(({ bus, select }) => {
			const name = `SPI${bus}` as const;
			const [data, selects] =
				bus === 0
					? [FUNCTION_LINES.spi0, FUNCTION_LINES.spi0Selects]
					: [FUNCTION_LINES.spi1, FUNCTION_LINES.spi1Selects];
			const line = selects[select];
			return [
				...take(data, [`${name} out`, `${name} in`, `${name} clock`], name),
				...(line === undefined ? [] : take([line], [`${name} select ${select}`]))
			];
		}),
		...(use.displayBits ? take(displayLines(use.displayBits), ['parallel display']) : []),
		...take(use.gpio, ['fixed line']),
		...use.movable.flatMap(({ what, suggested }, n) => take([user.lines[n] ?? suggested], [what]))
	];
}

/**
 * Who takes which line, where two want the same, and what is left. The identifying memory may be there once;
 * an I2C bus carries each address once; add-ons that bring no pins through need a stacking header for each beyond the first.
 * @param lifts stacking headers at hand
 */
export function computeOccupancy(users: readonly HeaderUser[], lifts: number): Occupancy {
	const takings = users.flatMap(takingsOf);
	const taken = new Set(takings.map(({ line }) => line));
	return {
		takings,
		conflicts: [
			...lineConflicts(takings),
			...addressConflicts(users),
			...pwmConflicts(users),
			...memoryConflicts(users),
			...roomConflicts(users, lifts)
		],
		freeLines: Array.from({ length: 28 }, (_, line) => line).filter((line) => line > 1 && !taken.has(line)),
		milliamperes5V: sum(users, ({ use }) => use.milliamperes5V),
		milliamperes3V3: sum(users, ({ use }) => use.milliamperes3V3)
	};
}

const sum = (users: readonly HeaderUser[], of: (user: HeaderUser) => number): number =>
	users.reduce((total, user) => total + of(user), 0);

const isMemory = (taking: Taking): boolean => taking.as.startsWith('identity');

/** One conflict for each pair of parts, with all the lines that both want. */
function lineConflicts(takings: readonly Taking[]): HeaderConflict[] {
	const found = new Map<string, { lines: number[]; a: Taking; b: Taking }>();
	const byLine = groupBy(takings, ({ line }) => line);
	for (const a of takings) {
		const there = byLine.get(a.line)!;
		for (const b of there.slice(there.indexOf(a) + 1)) {
			if (a.by === b.by || (a.bus !== null && a.bus === b.bus)) continue;
			// Two memories are a conflict of their own kind.
			if (isMemory(a) && isMemory(b)) continue;
			const key = `${a.by.id}|${b.by.id}`;
			const pair = found.get(key);
			if (pair) pair.lines.push(a.line);
			else found.set(key, { lines: [a.line], a, b });
		}
	}
	return [...found.values()].map((pair) => ({ kind: 'line', ...pair, lines: [...new Set(pair.lines)] }));
}

function addressConflicts(users: readonly HeaderUser[]): HeaderConflict[] {
	return users.flatMap((a, n) =>
		users
			.slice(n + 1)
			.flatMap((b) =>
				a.use.i2c
					.filter(({ address }) => b.use.i2c.some((other) => other.address === address))
					.map(({ address }) => ({ kind: 'address' as const, address, users: [a, b] as const }))
			)
	);
}

function pwmConflicts(users: readonly HeaderUser[]): HeaderConflict[] {
	return users.flatMap((user) =>
		user.use.movable.flatMap(({ suggested, pwm }, n) => {
			const line = user.lines[n] ?? suggested;
			return pwm && !PWM_LINES.some((known) => known.line === line) ? [{ kind: 'no-pwm' as const, line, user }] : [];
		})
	);
}

function memoryConflicts(users: readonly HeaderUser[]): HeaderConflict[] {
	const [a, b] = users.filter(({ use }) => use.idMemory);
	return a && b ? [{ kind: 'id-memory', users: [a, b] }] : [];
}

function roomConflicts(users: readonly HeaderUser[], lifts: number): HeaderConflict[] {
	const closed = users.filter(({ use }) => !use.passesThrough);
	// What comes by single wires fits beside a lid only when the lid is lifted.
	const needed = Math.max(0, users.length > closed.length ? closed.length : closed.length - 1);
	return needed > lifts ? [{ kind: 'no-room', users, lifts: needed - lifts }] : [];
}

/** Everybody who cannot be relied on while the conflicts stand. Room alone is found by hand, not at the start. */
export const unreliable = (conflicts: readonly HeaderConflict[]): ReadonlySet<string> =>
	new Set(
		conflicts.flatMap((conflict) =>
			conflict.kind === 'line'
				? [conflict.a.by.id, conflict.b.by.id]
				: conflict.kind === 'no-pwm'
					? [conflict.user.id]
					: conflict.users.map(({ id }) => id)
		)
	);
