import { NO_HISTORY, step, withStep, type History } from '$core/plan/history';
import { misfit } from '$core/plan/misfit';
import type { Damaged } from '$core/plan/open';
import { diff } from '$core/plan/patch';
import { WORKSHOP_VERSION, type Endpoint, type Workshop } from '$core/plan/workshop';
import { sentence } from '$core/basics/result';
import type { Plan } from '$core/plan/plan';
import { decide, openStored, type Decision, type Lock, type Opening } from './opening';
import { Saver, type Saved } from './saver.svelte';
import { previousGone, Tail, takeTails } from './tail';
import {
	changeKeptAside,
	readKeptAside,
	readMediaNames,
	writeEnvelope,
	type KeptAside,
	type ReadEnvelope
} from './storage';

/** Typing in one field is one step as long as no pause is longer. */
const SAME_STEP_MS = 1500;

/** A browser that is killed has few tabs whose notes are older than their saves. */
const MOST_TABS = 8;

/** The workshop of this browser: read once, saved by itself, with a history that outlives the page. Nothing enters it that its schema refuses. */
class WorkshopStore {
	workshop = $state.raw<Workshop | null>(null);
	history = $state.raw<History>(NO_HISTORY);
	savedUtc = $state<string | null>(null);
	/** What is stored is not simply opened: read-only until the person has decided. */
	lock = $state.raw<Lock | null>(null);
	/** What another tab saved while this one had changes of its own. */
	conflict = $state.raw<ReadEnvelope | null>(null);
	keptAside = $state.raw<readonly KeptAside[]>([]);
	/** Media whose bytes this browser is to have, and does not. */
	absent = $state.raw<ReadonlySet<string>>(new Set());
	problem = $state<string | null>(null);
	/** What was changed while it was opened or mended. */
	remarks = $state.raw<readonly string[]>([]);
	/** The person works without keeping anything. */
	unsaved = $state(false);
	/** A short word on what just happened, for the status line; with a number, so that the same word can be said again. */
	message = $state.raw<{ readonly text: string; readonly undo: boolean; readonly n: number } | null>(null);

	#tab = crypto.randomUUID();
	#revision: number | null = null;
	#noted: Readonly<Record<string, number>> = {};
	/** Who saved what was opened. */
	#lastStep = { label: '', atMs: 0 };
	#channel: BroadcastChannel | null = null;
	#saver = new Saver(() => this.#write());
	#tail = new Tail(this.#tab);

	readonly zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

	get said(): string {
		return this.message?.text ?? '';
	}
	set said(text: string) {
		this.message = text ? { text, undo: false, n: (this.message?.n ?? 0) + 1 } : null;
	}
	/** Says what was done, with a button that takes it back. */
	offerUndo(text: string): void {
		this.message = { text, undo: true, n: (this.message?.n ?? 0) + 1 };
	}

	get save(): 'saved' | 'saving' | 'failed' | 'conflict' | 'unsaved' {
		return this.unsaved ? 'unsaved' : this.conflict ? 'conflict' : this.#saver.state;
	}
	/** Why the last save failed. */
	get saveProblem(): string {
		return this.#saver.state === 'failed' ? this.#saver.why : '';
	}

	async open(): Promise<void> {
		if (this.workshop) return;
		await previousGone(this.#tab);
		await this.#takeWithTails(await openStored(this.zone));
		await this.lookForMedia();
		try {
			this.keptAside = await readKeptAside();
		} catch {
			// It cannot be reached either: the lock says so.
		}
		if (this.#channel) return;
		this.#channel = new BroadcastChannel('yphos');
		this.#channel.onmessage = () => void this.#hearOtherTab();
		addEventListener('pagehide', () => void this.flush());
		document.addEventListener('visibilitychange', () => document.hidden && void this.flush());
		// Only where leaving would lose something that no later save can bring.
		addEventListener('beforeunload', (event) => {
			if (this.#saver.isDirty && (this.save === 'failed' || this.save === 'conflict' || !this.#tail.isWhole))
				event.preventDefault();
		});
	}

	/** Looks which media are really here; a browser may have thrown them out, and an opened file brings none. */
	async lookForMedia(): Promise<void> {
		const kept = (this.workshop?.media ?? []).filter((media) => media.kept === 'browser');
		const here = new Set(kept.length ? await readMediaNames().catch(() => []) : []);
		const absent = kept.map(({ location }) => location).filter((location) => !here.has(location));
		if (absent.length !== this.absent.size || absent.some((location) => !this.absent.has(location)))
			this.absent = new Set(absent);
	}

	async #take(opening: Opening): Promise<void> {
		this.#revision = opening.revision;
		this.#noted = opening.noted;
		this.savedUtc = opening.savedUtc;
		this.history = opening.history;
		this.lock = opening.lock;
		this.workshop = opening.workshop;
		this.remarks = opening.remarks;
		if (opening.strangeHistory !== undefined)
			await this.#setHistoryAside('The steps back could not be read', opening.strangeHistory);
	}

	/** With what a page that is gone had done and had no time to save: nobody sees, or types into, what lacks it. */
	async #takeWithTails(opening: Opening): Promise<void> {
		const { lock, workshop, history, revision, tab, noted } = opening;
		if (lock || !workshop) return this.#take(opening);
		this.#tail.live();
		const caught = await takeTails({ workshop, history, revision, tab, noted });
		// Noted as this tab's own before anything else: the other's note is gone.
		if (caught?.left.length) this.#tail.adopt(caught.left, revision);
		await this.#take({ ...opening, workshop: caught?.workshop ?? workshop, history: caught?.history ?? history });
		if (!caught) return;
		if (caught.left.length) this.#later();
		const why =
			'It was done in a tab that was closed before it could be saved, and fits no longer: another tab has saved since.';
		if (await this.#keepAside(caught.strange.map((raw) => ({ where: 'tail', why, raw }))))
			if (caught.strange.length) this.problem = `Something was set aside. ${why}`;
	}

	/** Tries once more what could not be opened. */
	async retry(): Promise<void> {
		this.lock = null;
		this.workshop = null;
		await this.open();
	}

	/** What to do with a store that was not simply opened. Nothing of it is written over before it is kept aside. */
	async decide(decision: Decision): Promise<void> {
		const lock = this.lock;
		if (!lock || lock.reason === 'newer' || lock.reason === 'unreachable') return;
		const { workshop, aside, remarks } = await decide(lock, decision, this.zone);
		if (!(await this.#keepAside(aside))) return;
		this.lock = null;
		this.workshop = workshop;
		this.history = NO_HISTORY;
		this.remarks = remarks;
		this.#later();
	}

	/** Goes on with a demo or whatever is opened next, and keeps nothing: what is stored stays as it is. */
	workUnsaved(workshop: Workshop): void {
		this.unsaved = true;
		this.lock = null;
		this.workshop = workshop;
	}

	/** False, and a word, when it could not be kept. */
	async #keepAside(damaged: readonly Damaged[], version: number = WORKSHOP_VERSION): Promise<boolean> {
		if (damaged.length === 0) return true;
		try {
			this.keptAside = await changeKeptAside((items) => {
				const known = new Set(items.map((item) => JSON.stringify(item.raw)));
				const fresh = damaged.filter((item) => !known.has(JSON.stringify(item.raw)));
				const foundUtc = new Date().toISOString();
				return [...items, ...fresh.map((item) => ({ ...item, id: crypto.randomUUID(), foundUtc, version }))];
			});
			return true;
		} catch (error) {
			this.problem = `What is damaged could not be kept aside (${(error as Error).message}), so nothing was written over. Download what is stored, make room, and try again.`;
			return false;
		}
	}

	async #setHistoryAside(why: string, raw: unknown): Promise<void> {
		this.history = NO_HISTORY;
		if (await this.#keepAside([{ where: 'history', why, raw }]))
			this.problem = `${why}, so they were set aside: undo begins anew. Your workshop is as it was.`;
	}

	async forgetKeptAside(id: string): Promise<void> {
		this.keptAside = await changeKeptAside((items) => items.filter((item) => item.id !== id));
	}

	/** Takes in again what was kept aside, mended as far as it can be. Gives a sentence either way. */
	async reopen(item: KeptAside): Promise<string> {
		const { reopen } = await import('$core/plan/open');
		if (!this.workshop) return 'Open a workshop first.';
		const done = reopen(this.workshop, item, item.version || WORKSHOP_VERSION);
		if (!done.ok) return sentence(done.faults);
		const refused = this.change(`open ${item.where} again`, () => done.value.workshop);
		if (refused) return refused;
		const changed = done.value.changed;
		return changed.length ? `It is open again. Changed on the way: ${changed.join('; ')}` : 'It is open again, whole.';
	}

	/**
	 * Every change goes through here: one named step that can be undone. What the schema refuses changes nothing,
	 * and comes back as a sentence.
	 */
	change(label: string, edit: (workshop: Workshop) => Workshop): string | null {
		if (!this.workshop || this.lock) return 'Nothing can be changed before the saved workshop is open.';
		const before = this.workshop;
		const after = edit(before);
		const changes = diff(before, after);
		if (changes.length === 0) return null;
		const refused = misfit(before, after);
		if (refused) {
			this.problem = `Nothing was changed. ${refused}`;
			return refused;
		}
		// Its button would take back this step, and not what it speaks of.
		if (this.message?.undo) this.message = null;
		const goesOn = this.#lastStep.label === label && Date.now() - this.#lastStep.atMs < SAME_STEP_MS;
		this.#lastStep = { label, atMs: Date.now() };
		this.workshop = after;
		this.history = withStep(this.history, { label, changes }, goesOn);
		if (!this.unsaved) this.#tail.note({ did: 'change', label, changes, goesOn }, this.#revision);
		this.#later();
		return null;
	}

	/** So many more, or fewer, of a part are there already. */
	own(partId: string, by: number, name: string): void {
		this.change(`${name}: there already`, (workshop) => {
			const { [partId]: now = 0, ...rest } = workshop.owned;
			const next = Math.min(99, now + by);
			return { ...workshop, owned: next < 1 ? rest : { ...rest, [partId]: next } };
		});
	}

	changeEndpoint(id: string, label: string, edit: (endpoint: Endpoint) => Endpoint): string | null {
		return this.change(label, (workshop) => ({
			...workshop,
			endpoints: workshop.endpoints.map((endpoint) => (endpoint.id === id ? edit(endpoint) : endpoint))
		}));
	}

	changePlan(id: string, label: string, edit: (plan: Plan) => Plan): string | null {
		return this.changeEndpoint(id, label, (endpoint) => ({ ...endpoint, plan: edit(endpoint.plan) }));
	}

	undo(): void {
		this.#go('back', 'Undone');
	}

	redo(): void {
		this.#go('forward', 'Done again');
	}

	#go(way: 'back' | 'forward', word: string): void {
		if (!this.workshop || this.lock) return;
		const done = step(this.workshop, this.history, way);
		if (!done) return;
		if (!done.ok) {
			void this.#setHistoryAside('The steps back do not fit this workshop any more', this.history);
			return;
		}
		this.workshop = done.value.workshop;
		this.history = done.value.history;
		this.said = `${word}: ${done.value.label}`;
		this.#lastStep.label = '';
		if (!this.unsaved) this.#tail.note({ did: way }, this.#revision);
		this.#later();
	}

	/** Replaces the whole workshop by an exported one; a step like any other. Gives a sentence when something is to be said of it. */
	async importText(text: string): Promise<string | null> {
		const { openWorkshop } = await import('$core/plan/open');
		const opened = openWorkshop(text, this.zone);
		return opened.ok ? this.importOpened(opened.value) : sentence(opened.faults);
	}

	async importOpened({
		workshop,
		damaged,
		remarks
	}: {
		workshop: Workshop;
		damaged: readonly Damaged[];
		remarks: readonly string[];
	}): Promise<string | null> {
		if (!(await this.#keepAside(damaged))) return this.problem;
		const refused = this.change('import a workshop', () => workshop);
		if (refused) return refused;
		await this.lookForMedia();
		const words = [
			...(damaged.length ? [`${damaged.length} part(s) of the file could not be understood and are kept aside.`] : []),
			...remarks
		];
		return words.length ? words.join(' ') : null;
	}

	#later(): void {
		if (!this.unsaved) this.#saver.request();
	}

	flush(): Promise<void> {
		return this.#saver.flush();
	}

	async #write(): Promise<Saved> {
		if (!this.workshop || this.lock || this.conflict) return 'stopped';
		const savedUtc = new Date().toISOString();
		const envelope = {
			revision: (this.#revision ?? 0) + 1,
			tab: this.#tab,
			savedUtc,
			workshop: this.workshop,
			history: this.history,
			noted: this.#notedWith(this.#tail.saving(this.#revision))
		};
		const done = await writeEnvelope(envelope, this.#revision, WORKSHOP_VERSION);
		if (done === 'saved') {
			this.#revision = envelope.revision;
			this.#noted = envelope.noted;
			this.#tail.saved(envelope.revision);
			this.savedUtc = savedUtc;
			this.#channel?.postMessage('saved');
			return 'saved';
		}
		if (done === 'newer') this.lock = { reason: 'newer', raw: null };
		else this.conflict = done.other;
		return 'stopped';
	}

	/** How much of each tab's notes is in a save; of those that saved last. */
	#notedWith(steps: number): Record<string, number> {
		const others = Object.entries(this.#noted).filter(([tab]) => tab !== this.#tab);
		return Object.fromEntries([...others.slice(-MOST_TABS), [this.#tab, steps]]);
	}

	/** Another tab has saved: follow it, unless this one has something of its own. */
	async #hearOtherTab(): Promise<void> {
		if (this.unsaved) return;
		if (this.#saver.isDirty) return this.flush();
		const opening = await openStored(this.zone);
		if (opening.tab === this.#tab || this.#saver.isDirty) return;
		await this.#take(opening);
		this.said = 'Followed a change made in another tab';
	}

	/** Two tabs changed the workshop: keep this one's state, or take the other's. */
	async settle(keep: 'mine' | 'theirs'): Promise<void> {
		const other = this.conflict;
		if (!other) return;
		if (keep === 'theirs') {
			this.#saver.drop();
			this.#tail.forget();
			await this.#take(await openStored(this.zone));
			this.conflict = null;
		} else {
			this.conflict = null;
			this.#revision = other.state === 'sound' ? other.envelope.revision : null;
			this.#later();
		}
	}
}

export const store = new WorkshopStore();
