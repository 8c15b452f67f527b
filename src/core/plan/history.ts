import { z } from 'zod';
import { fault, ok, type Result } from '../basics/result';
import { misfit } from './misfit';
import { applyChanges, isListChange, stepText, type Change } from './patch';
import type { Workshop } from './workshop';

const path = z
	.array(
		z.union([
			z.string(),
			z.number().int().min(0),
			z.strictObject({ id: z.string() }),
			z.strictObject({ location: z.string() })
		])
	)
	.max(40);
const anchor = z.string().nullable().optional();
const change = z.union([
	z.strictObject({
		path,
		by: z.enum(['id', 'location']),
		moved: z.array(z.strictObject({ key: z.string(), from: anchor, to: anchor, value: z.unknown().optional() }))
	}),
	z.strictObject({ path, before: z.unknown().optional(), after: z.unknown().optional() })
]);
/** Changes as they are saved. */
export const changesSchema = z.array(change);
const entry = z.object({ label: z.string(), changes: changesSchema });
/** A history as it is saved. */
export const historySchema = z.object({ undo: z.array(entry).max(1000), redo: z.array(entry).max(1000) });

/** One step of the history: what it was called, and what it changed. */
interface HistoryEntry {
	readonly label: string;
	readonly changes: readonly Change[];
}
/** Steps that can be taken back, and those that were. */
export interface History {
	readonly undo: readonly HistoryEntry[];
	readonly redo: readonly HistoryEntry[];
}
/** Nothing done yet. */
export const NO_HISTORY: History = { undo: [], redo: [] };
/** So many steps can be taken back. */
const KEPT_STEPS = 200;

/** A further step; one that goes on with the last, in the same places, becomes one with it. */
export function withStep({ undo }: History, step: HistoryEntry, goesOn: boolean): History {
	const last = undo.at(-1);
	if (!goesOn || !last || !areInSamePlaces(last, step))
		return { undo: [...undo.slice(1 - KEPT_STEPS), step], redo: [] };
	const joined = step.changes.map((change, n) => ({
		...change,
		before: (last.changes[n] as { before?: unknown }).before
	}));
	return { undo: [...undo.slice(0, -1), { ...step, changes: joined as Change[] }], redo: [] };
}

function areInSamePlaces(a: HistoryEntry, b: HistoryEntry): boolean {
	const place = (change: Change): string => (isListChange(change) ? '' : change.path.map(stepText).join('/'));
	return (
		a.changes.length === b.changes.length &&
		a.changes.every((change, n) => place(change) !== '' && place(change) === place(b.changes[n]!))
	);
}

/**
 * The workshop one step back, or forward, with the history as it is then; null when there is no such step.
 * Fault: `history-unfit`, when the step was made in another workshop, or would leave one that the schema refuses.
 */
export function step(
	workshop: Workshop,
	history: History,
	way: 'back' | 'forward'
): Result<{ workshop: Workshop; history: History; label: string }> | null {
	const { undo, redo } = history;
	const entry = (way === 'back' ? undo : redo).at(-1);
	if (!entry) return null;
	const done = applyChanges(workshop, entry.changes, way);
	if (!done.ok) return fault('history-unfit', done.faults[0]!.message);
	const why = misfit(workshop, done.value);
	if (why) return fault('history-unfit', why);
	return ok({
		workshop: done.value,
		label: entry.label,
		history:
			way === 'back'
				? { undo: undo.slice(0, -1), redo: [...redo, entry] }
				: { undo: [...undo, entry], redo: redo.slice(0, -1) }
	});
}
