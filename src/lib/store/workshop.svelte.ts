import { openSaved, openWorkshop, type Damaged } from '$core/plan/open';
import { applyChanges, diff } from '$core/plan/patch';
import { emptyWorkshop, WORKSHOP_VERSION, type Endpoint, type Workshop } from '$core/plan/workshop';
import { sentence } from '$core/result';
import type { Plan } from '$core/plan/plan';
import { demoWorkshop } from '$demo/workshop';
import {
	readEnvelope,
	readHistory,
	readKeptAside,
	writeEnvelope,
	writeKeptAside,
	type Envelope,
	type History,
	type HistoryEntry,
	type KeptAside
} from './storage';

const SAVE_AFTER_MS = 250;
const KEPT_STEPS = 200;
/** Typing in one field is one step as long as no pause is longer. */
const SAME_STEP_MS = 1500;

type SaveState = 'saved' | 'saving' | 'failed' | 'conflict';

/** The workshop of this browser: read once, saved by itself, with a history that outlives the page. */
class WorkshopStore {
	workshop = $state.raw<Workshop | null>(null);
	history = $state.raw<History>({ undo: [], redo: [] });
	save = $state<SaveState>('saved');
	savedUtc = $state<string | null>(null);
	/** What another tab saved while this one had changes of its own. */
	conflict = $state.raw<Envelope | null>(null);
	keptAside = $state.raw<readonly KeptAside[]>([]);
	problem = $state<string | null>(null);
	/** A short word on what just happened, for the status line. */
	said = $state('');

	#tab = crypto.randomUUID();
	#revision = 0;
	#dirty = false;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#lastStep = { label: '', atMs: 0 };
	#channel: BroadcastChannel | null = null;

	readonly zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

	async open(): Promise<void> {
		if (this.workshop) return;
		try {
			this.keptAside = await readKeptAside();
			const envelope = await readEnvelope();
			if (envelope) {
				await this.#take(envelope);
				await this.#takeHistory(envelope);
			} else this.workshop = demoWorkshop;
		} catch (error) {
			this.problem = `This browser does not let Yphos keep anything (${(error as Error).message}). You can work, but export before you close the page.`;
			this.workshop = demoWorkshop;
		}
		this.#channel = new BroadcastChannel('yphos');
		this.#channel.onmessage = () => void this.#hearOtherTab();
		addEventListener('pagehide', () => void this.flush());
	}

	/** Steps back are differences between workshops of one version; an older one's fit no longer. */
	async #takeHistory(envelope: Envelope): Promise<void> {
		const version = (envelope.workshop as { version?: unknown } | null)?.version;
		this.history = version === WORKSHOP_VERSION ? await readHistory() : { undo: [], redo: [] };
	}

	/** Reads what is stored as a stranger; what cannot be understood is kept aside, never written over. */
	async #take(envelope: Envelope): Promise<void> {
		this.#revision = typeof envelope.revision === 'number' ? envelope.revision : 0;
		this.savedUtc = envelope.savedUtc ?? null;
		const opened = openSaved(envelope.workshop, this.zone);
		if (opened.ok) {
			await this.#keepAside(opened.value.damaged);
			this.workshop = opened.value.workshop;
		} else {
			await this.#keepAside([{ where: 'workshop', why: sentence(opened.faults), raw: envelope.workshop }]);
			this.workshop = emptyWorkshop(this.zone);
		}
	}

	async #keepAside(damaged: readonly Damaged[]): Promise<void> {
		if (damaged.length === 0) return;
		const known = new Set(this.keptAside.map((item) => JSON.stringify(item.raw)));
		const fresh = damaged
			.filter((item) => !known.has(JSON.stringify(item.raw)))
			.map((item) => ({ ...item, foundUtc: new Date().toISOString() }));
		this.keptAside = [...this.keptAside, ...fresh];
		await writeKeptAside(this.keptAside);
	}

	async forgetKeptAside(): Promise<void> {
		this.keptAside = [];
		await writeKeptAside([]);
	}

	/** Every change goes through here: one named step that can be undone. */
	change(label: string, edit: (workshop: Workshop) => Workshop): void {
		if (!this.workshop) return;
		const before = this.workshop;
		const after = edit(before);
		const changes = diff(before, after);
		if (changes.length === 0) return;
		const last = this.history.undo.at(-1);
		const goesOn =
			last !== undefined &&
			this.#lastStep.label === label &&
			Date.now() - this.#lastStep.atMs < SAME_STEP_MS &&
			samePlaces(last, changes);
		const entry: HistoryEntry = goesOn
			? { label, changes: changes.map((change, n) => ({ ...change, before: last.changes[n]!.before })) }
			: { label, changes };
		this.#lastStep = { label, atMs: Date.now() };
		this.workshop = after;
		this.history = {
			undo: [...this.history.undo.slice(goesOn ? 0 : -KEPT_STEPS, goesOn ? -1 : undefined), entry],
			redo: []
		};
		this.#later();
	}

	/** So many more, or fewer, of a part are there already. */
	own(partId: string, by: number, name: string): void {
		this.change(`${name}: there already`, (workshop) => {
			const { [partId]: now = 0, ...rest } = workshop.owned;
			const next = Math.min(99, now + by);
			return { ...workshop, owned: next < 1 ? rest : { ...rest, [partId]: next } };
		});
	}

	changeEndpoint(id: string, label: string, edit: (endpoint: Endpoint) => Endpoint): void {
		this.change(label, (workshop) => ({
			...workshop,
			endpoints: workshop.endpoints.map((endpoint) => (endpoint.id === id ? edit(endpoint) : endpoint))
		}));
	}

	changePlan(id: string, label: string, edit: (plan: Plan) => Plan): void {
		this.changeEndpoint(id, label, (endpoint) => ({ ...endpoint, plan: edit(endpoint.plan) }));
	}

	undo(): void {
		const entry = this.history.undo.at(-1);
		if (!entry || !this.workshop) return;
		this.workshop = applyChanges(this.workshop, [...entry.changes].reverse(), 'back');
		this.history = { undo: this.history.undo.slice(0, -1), redo: [...this.history.redo, entry] };
		this.said = `Undone: ${entry.label}`;
		this.#lastStep.label = '';
		this.#later();
	}

	redo(): void {
		const entry = this.history.redo.at(-1);
		if (!entry || !this.workshop) return;
		this.workshop = applyChanges(this.workshop, entry.changes, 'forward');
		this.history = { undo: [...this.history.undo, entry], redo: this.history.redo.slice(0, -1) };
		this.said = `Done again: ${entry.label}`;
		this.#lastStep.label = '';
		this.#later();
	}

	/** Replaces the whole workshop by an exported one; a step like any other. Gives a sentence when it cannot. */
	async importText(text: string): Promise<string | null> {
		const opened = openWorkshop(text, this.zone);
		if (!opened.ok) return sentence(opened.faults);
		await this.#keepAside(opened.value.damaged);
		this.change('import a workshop', () => opened.value.workshop);
		return opened.value.damaged.length
			? `${opened.value.damaged.length} part(s) of the file could not be understood and are kept aside.`
			: null;
	}

	#later(): void {
		this.#dirty = true;
		this.save = 'saving';
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.flush(), SAVE_AFTER_MS);
	}

	async flush(): Promise<void> {
		if (!this.#dirty || !this.workshop || this.conflict) return;
		clearTimeout(this.#timer);
		this.#dirty = false;
		const savedUtc = new Date().toISOString();
		try {
			const done = await writeEnvelope(
				{ revision: this.#revision + 1, tab: this.#tab, savedUtc, workshop: this.workshop },
				this.history,
				this.#revision
			);
			if (!done.saved) {
				this.conflict = done.other;
				this.save = 'conflict';
				return;
			}
			this.#revision++;
			this.savedUtc = savedUtc;
			if (!this.#dirty) this.save = 'saved';
			this.#channel?.postMessage('saved');
		} catch (error) {
			this.#dirty = true;
			this.save = 'failed';
			this.problem = `The last changes are not saved: ${(error as Error).message}. Export the workshop now; then make room in the browser's storage.`;
		}
	}

	/** Another tab has saved: follow it, unless this one has something of its own. */
	async #hearOtherTab(): Promise<void> {
		const envelope = await readEnvelope();
		if (!envelope || envelope.tab === this.#tab) return;
		if (this.#dirty) return void (await this.flush());
		await this.#take(envelope);
		await this.#takeHistory(envelope);
		this.said = 'Followed a change made in another tab';
	}

	/** Two tabs changed the workshop: keep this one's state, or take the other's. */
	async settle(keep: 'mine' | 'theirs'): Promise<void> {
		const other = this.conflict;
		if (!other) return;
		this.conflict = null;
		if (keep === 'theirs') {
			this.#dirty = false;
			await this.#take(other);
			await this.#takeHistory(other);
			this.save = 'saved';
		} else {
			this.#revision = other.revision;
			this.#later();
		}
	}
}

const samePlaces = (entry: HistoryEntry, changes: HistoryEntry['changes']): boolean =>
	entry.changes.length === changes.length &&
	entry.changes.every((change, n) => change.path.join('/') === changes[n]!.path.join('/'));

export const store = new WorkshopStore();
