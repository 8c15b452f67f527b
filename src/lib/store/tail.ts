import { z } from 'zod';
import { changesSchema, step, withStep, type History } from '$core/plan/history';
import { misfit } from '$core/plan/misfit';
import { applyChanges, type Change } from '$core/plan/patch';
import { WORKSHOP_VERSION, type Workshop } from '$core/plan/workshop';
import { safely } from '$core/basics/safely';

/**
 * What was done since the last save, written down at once: saving takes some milliseconds, and a page may be gone before.
 * A short text beside the store, which the browser keeps over a reload whatever else is under way.
 */
const KEY = 'yphos-tail';
/** Each tab has its own: two that are reloaded at once would write over each other's. */
const keyOf = (tab: string): string => `${KEY}-${tab}`;
/** Held by a tab for as long as it is open: what it notes is its own to save. Source: Web Locks API. */
const aliveAs = (tab: string): string => `${KEY}-${tab}`;
/** A whole workshop that was imported is no tail: the save itself is waited for. */
const MOST_CHARACTERS = 500_000;
const MOST_STEPS = 500;

const done = z.union([
	z.object({ did: z.literal('change'), label: z.string(), changes: changesSchema, goesOn: z.boolean() }),
	z.object({ did: z.enum(['back', 'forward']) })
]);
const tailSchema = z.object({
	version: z.literal(WORKSHOP_VERSION),
	tab: z.string(),
	atMs: z.number().default(0),
	revision: z.number().nullable(),
	/** So many of them are in the save that is under way. */
	saving: z.number().int().min(0),
	/** So many steps of this tab went before the first one here. */
	before: z.number().int().min(0).optional(),
	done: z.array(done).max(MOST_STEPS)
});
export type Done =
	| { readonly did: 'change'; readonly label: string; readonly changes: readonly Change[]; readonly goesOn: boolean }
	| { readonly did: 'back' | 'forward' };

export class Tail {
	#done: Done[] = [];
	#saving = 0;
	#before = 0;
	/** Whether a page that goes now loses nothing of what was noted. */
	isWhole = true;

	constructor(readonly tab: string) {}

	/** Says that this tab is open, until it is closed. */
	live(): void {
		void navigator.locks.request(aliveAs(this.tab), () => new Promise<never>(() => {}));
	}

	/** What another page noted and never saved is this one's to save. */
	adopt(left: readonly Done[], revision: number | null): void {
		this.#done.push(...left);
		this.#write(revision);
	}

	note(one: Done, revision: number | null): void {
		this.#done.push(one);
		this.#write(revision);
	}

	/** A save of all that was done so far begins: so many steps of this tab are in it. */
	saving(revision: number | null): number {
		this.#saving = this.#done.length;
		this.#write(revision);
		return this.#before + this.#saving;
	}

	saved(revision: number): void {
		this.#done = this.#done.slice(this.#saving);
		this.#before += this.#saving;
		this.#saving = 0;
		this.#write(revision);
	}

	forget(): void {
		this.#before += this.#done.length;
		this.#done = [];
		this.#saving = 0;
		this.#write(null);
	}

	#write(revision: number | null): void {
		try {
			const text = JSON.stringify({
				version: WORKSHOP_VERSION,
				tab: this.tab,
				atMs: Date.now(),
				revision,
				saving: this.#saving,
				before: this.#before,
				done: this.#done
			});
			this.isWhole = text.length <= MOST_CHARACTERS && this.#done.length <= MOST_STEPS;
			if (this.#done.length === 0 || !this.isWhole) localStorage.removeItem(keyOf(this.tab));
			else localStorage.setItem(keyOf(this.tab), text);
		} catch {
			// No room, or not allowed: the save itself remains.
			this.isWhole = this.#done.length === 0;
		}
	}
}

/** What was done after the last save, in every tab that is no longer open. */
export interface Caught {
	readonly workshop: Workshop;
	readonly history: History;
	readonly left: readonly Done[];
	/** What fits no longer: another tab has saved since. */
	readonly strange: readonly unknown[];
}

interface Stored {
	readonly workshop: Workshop;
	readonly history: History;
	readonly revision: number | null;
	readonly tab: string;
	/** By tab: so many of its steps are in it. */
	readonly noted: Readonly<Record<string, number>>;
}

/** A reloaded page still counts as open for some milliseconds: what it noted can be taken over once it is gone. */
export async function previousGone(tab: string): Promise<void> {
	try {
		const before = sessionStorage.getItem(KEY);
		sessionStorage.setItem(KEY, tab);
		if (before === null || localStorage.getItem(keyOf(before)) === null) return;
		for (let tries = 0; tries < MOST_TRIES; tries++) {
			const { held = [] } = await navigator.locks.query();
			if (!held.some(({ name }) => name === aliveAs(before))) return;
			await new Promise((done) => setTimeout(done, BETWEEN_TRIES_MS));
		}
	} catch {
		// Not allowed to look: nothing was noted either.
	}
}
/** Longer than a page takes to go; a tab that was doubled has the other's name, and that one stays. */
const MOST_TRIES = 50;
const BETWEEN_TRIES_MS = 20;

/**
 * Takes over the tails of tabs that are gone, the earliest first; of several pages that open at once one alone does. What it gives is no
 * longer noted anywhere: it is the caller's to note and to save.
 */
export const takeTails = (stored: Stored): Promise<Caught | null> =>
	navigator.locks.request(`${KEY}-taking`, async () => {
		const open = new Set(((await navigator.locks.query()).held ?? []).map(({ name }) => name));
		const tails: { tail: z.infer<typeof tailSchema>; raw: unknown }[] = [];
		const strange: unknown[] = [];
		try {
			const keys = Array.from({ length: localStorage.length }, (_, n) => localStorage.key(n) ?? '');
			for (const key of keys.filter((one) => one === KEY || (one.startsWith(`${KEY}-`) && !open.has(one)))) {
				const text = localStorage.getItem(key) ?? 'null';
				localStorage.removeItem(key);
				const raw = parsed(text);
				const tail = safely(tailSchema, raw);
				if (tail.success) tails.push({ tail: tail.data, raw });
				else if (raw !== null) strange.push(raw);
			}
		} catch {
			// Not allowed to look: nothing was noted either.
		}
		let now: Stored = stored;
		const left: Done[] = [];
		for (const { tail, raw } of tails.sort((a, b) => a.tail.atMs - b.tail.atMs)) {
			const next = withTail(now, stored, tail);
			if (!next) strange.push(raw);
			else {
				now = { ...now, ...next };
				left.push(...next.left);
			}
		}
		const { workshop, history } = now;
		return left.length || strange.length ? { workshop, history, left, strange } : null;
	}) as Promise<Caught | null>;

function parsed(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return text;
	}
}

/** The workshop with what a tab did after that was saved; null: it does not fit. */
function withTail(
	now: Pick<Stored, 'workshop' | 'history'>,
	stored: Pick<Stored, 'revision' | 'tab' | 'noted'>,
	{ revision, saving, tab, before = 0, done: noted }: z.infer<typeof tailSchema>
): { workshop: Workshop; history: History; left: Done[] } | null {
	const isNext = stored.revision === (revision ?? 0) + 1 && stored.tab === tab;
	// A browser that is killed may have kept a note of some seconds before: what of it was saved since is not missed.
	const inSave = stored.noted[tab];
	const saved = inSave === undefined ? (isNext ? saving : 0) : Math.max(0, inSave - before);
	const left = (noted as Done[]).slice(saved);
	let { workshop, history } = now;
	if (inSave !== undefined && left.length === 0) return { workshop, history, left };
	const isLast = inSave !== undefined && stored.tab === tab;
	if (!isNext && !isLast && stored.revision !== revision) return null;
	for (const one of left) {
		const next = one.did === 'change' ? redo(workshop, history, one) : undone(workshop, history, one.did);
		if (!next) return null;
		({ workshop, history } = next);
	}
	return { workshop, history, left };
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
