import type { z } from 'zod';
import type { Plug, Cargo } from '../plugs';
import { partSchema, type Draw, type HeaderUse, type Part, type PartKind, type Socket } from '../schema';

/** A part before its schema has filled in what it leaves out. */
export type PartRow = z.input<typeof partSchema>;
type RowOf<K extends PartKind> = Extract<PartRow, { kind: K }>;

/** One row of the catalogue, typical of its class unless it says otherwise. Prices in euro, typical of late 2026. */
export const row = <K extends PartKind>(
	kind: K,
	part: Omit<RowOf<K>, 'kind' | 'sure'> & Partial<Pick<RowOf<K>, 'sure'>>
): PartRow => ({ kind, sure: 'typical', ...part }) as unknown as PartRow;

/** Parsed once, when it is first asked for: a row that breaks its schema is refused by name. */
export function checked(rows: readonly PartRow[]): readonly Part[] {
	return rows.map((part) => {
		const parsed = partSchema.safeParse(part);
		if (!parsed.success) throw new RangeError(`catalogue: ${part.id}: ${parsed.error.issues[0]!.message}`);
		return parsed.data;
	});
}

/** One socket of a part, or `count` alike. */
export const socket = (way: 'in' | 'out', plug: Plug, carries: Cargo[], count = 1, male = false): Socket => ({
	way,
	plug,
	male,
	carries,
	count
});
/** What a part draws, W: at rest, typical, at most. */
export const draw = (
	via: Draw['via'],
	idleW: number,
	typicalW: number,
	peakW: number,
	surgeW: number = peakW
): Draw => ({ via, idleW, typicalW, peakW, surgeW });

/** What a part takes of the header; what is left out it does not take. */
export const headerUse = (use: Partial<HeaderUse>): HeaderUse => ({
	i2s: false,
	spi: [],
	i2c: [],
	uart: false,
	displayBits: 0,
	gpio: [],
	movable: [],
	milliamperes5V: 0,
	milliamperes3V3: 0,
	idMemory: false,
	passesThrough: false,
	...use
});
