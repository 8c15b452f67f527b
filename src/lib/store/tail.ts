import { z } from 'zod';
import { changesSchema, step, withStep, type History } from '$core/plan/history';
import { misfit } from '$core/plan/misfit';
import { applyChanges, type Change } from '$core/plan/patch';
import { WORKSHOP_VERSION, type Workshop } from '$core/plan/workshop';

/**
 * What was done since the last save, written down at once: saving takes some milliseconds, and a page may be gone before.
 * A short text beside the store, which the browser keeps over a reload whatever else is under way.
 */
const KEY = 'yphos-tail';
/** A whole workshop that was imported is no tail: the save itself is waited for. */
const MOST_CHARACTERS = 500_000;

const done = z.union([
	z.object({ did: z.literal('change'), label: z.string(), changes: changesSchema, goesOn: z.boolean() }),
	z.object({ did: z.enum(['back', 'forward']) })
]);
const tailSchema = z.object({
	version: z.literal(WORKSHOP_VERSION),
	tab: z.string(),
	revision: z.number().nullable(),
	/** So many of them are in the save that is under way. */
	saving: z.number().int().min(0),
	done: z.array(done).max(500)
});
export type Done =
	| { readonly did: 'change'; readonly label: string; readonly changes: readonly Change[]; readonly goesOn: boolean }
	| { readonly did: 'back' | 'forward' };

export class Tail {
	#done: Done[] = [];
	#saving = 0;

	constructor(readonly tab: string) {}

	/** What another page noted and never saved is this one's to save. */
	adopt(left: readonly Done[], revision: number | null): void {
		this.#done.push(...left);
		this.#write(revision);
	}

	note(one: Done, revision: number | null): void {
		this.#done.push(one);
		this.#write(revision);
	}

	/** A save of all that was done so far begins. */
	saving(revision: number | null): void {
		this.#saving = this.#done.length;
		this.#write(revision);
	}

	saved(revision: number): void {
		this.#done = this.#done.slice(this.#saving);
		this.#saving = 0;
		this.#write(revision);
	}

	forget(): void {
		this.#done = [];
		this.#saving = 0;
		this.#write(null);
	}

	#write(revision: number | null): void {
		try {
			const text = JSON.stringify({
				version: WORKSHOP_VERSION,
				tab: this.tab,
				revision,
				saving: this.#saving,
				done: this.#done
			});
			if (this.#done.length === 0 || text.length > MOST_CHARACTERS) localStorage.removeItem(KEY);
			else localStorage.setItem(KEY, text);
		} catch {
			// No room, or not allowed: the save itself remains.
		}
	}
}

/** The workshop with what was done after it was saved; null when there is nothing, or it does not fit what is stored. */
export function withTail(stored: {
	readonly workshop: Workshop;
	readonly history: History;
	readonly revision: number | null;
	readonly tab: string;
}): { workshop: Workshop; history: History; left: Done[] } | null {
	try {
		const parsed = tailSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
		if (!parsed.success) return null;
		const { revision, saving, tab } = parsed.data;
		const isNext = stored.revision === (revision ?? 0) + 1 && stored.tab === tab;
		if (!isNext && stored.revision !== revision) return null;
		const left = (parsed.data.done as Done[]).slice(isNext ? saving : 0);
		let { workshop, history } = stored;
		for (const one of left) {
			const next = one.did === 'change' ? redo(workshop, history, one) : undone(workshop, history, one.did);
			if (!next) return null;
			({ workshop, history } = next);
		}
		return left.length ? { workshop, history, left } : null;
	} catch {
		return null;
	}
}

function redo(workshop: Workshop, history: History, { label, changes, goesOn }: Extract<Done, { did: 'change' }>) {
	const after = applyChanges(workshop, changes, 'forward');
	if (!after.ok || misfit(workshop, after.value)) return null;
	return { workshop: after.value, history: withStep(history, { label, changes }, goesOn) };
}

function undone(workshop: Workshop, history: History, way: 'back' | 'forward') {
	const result = step(workshop, history, way);
	return result?.ok ? result.value : null;
}
