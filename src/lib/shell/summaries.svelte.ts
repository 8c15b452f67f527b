import { wrap, type Remote } from 'comlink';
import { chain } from '$core/chain';
import { assess } from '$core/engines/assess';
import { contextFor } from '$core/engines/context';
import { summarise, type Summary } from '$core/engines/summary';
import type { Surroundings } from '$core/link/context';
import type { Plan } from '$core/plan/plan';
import type { Endpoint, Workshop } from '$core/plan/workshop';
import { judging } from './judging.svelte';
import type { SummaryWorker } from './summaryWorker';

/** Entries and rules of a plan that is judged within a frame; larger ones are judged in a worker, one after another. */
const SMALL = 400;
const isSmall = ({ sources, programme, notices }: Plan): boolean =>
	sources.items.length + programme.rules.length + notices.pages.length * 4 <= SMALL;

/** Nothing is judged in passing while somebody types, or has just opened something. */
const REST_MS = 800;

interface Known {
	readonly plan: Plan;
	readonly surroundings: Surroundings;
	readonly summary: Summary;
}

/** What the shelf says of each endpoint: only what changed is judged, and of the large ones only the open one on the page itself. */
class Summaries {
	#known = $state.raw<ReadonlyMap<string, Known>>(new Map());
	#worker: Remote<SummaryWorker> | null = null;
	#shared: readonly unknown[] = [];
	#latest: { workshop: Workshop; absent: ReadonlySet<string>; open: string | undefined } | null = null;
	#askedMs = 0;
	#busy = false;
	#isBroken = false;
	#breaks: (why: Error) => void = () => {};
	#broken = new Promise<never>((_, reject) => (this.#breaks = reject));

	/** As far as it is known now; `open`: the endpoint that the page shows, which is judged there anyway. */
	of(endpoint: Endpoint, workshop: Workshop, absent: ReadonlySet<string>, open: string | undefined): Summary {
		const surroundings = contextFor(chain, workshop, endpoint.id, absent);
		if (endpoint.id === open || isSmall(endpoint.plan))
			return summarise(assess(judging.links, endpoint.plan, surroundings));
		const known = this.#known.get(endpoint.id);
		if (!known)
			return {
				...WAITING,
				links: chain.map(({ id, title }) => ({ ...NOTHING, id, title }) as Summary['links'][number])
			};
		const isOf = known.plan === endpoint.plan && known.surroundings === surroundings;
		return isOf ? known.summary : { ...known.summary, pending: true };
	}

	/** Has the worker judge what of it is not judged yet. */
	want(workshop: Workshop, absent: ReadonlySet<string>, open: string | undefined): void {
		this.#latest = { workshop, absent, open };
		this.#askedMs = performance.now();
		if (!this.#busy) void this.#work();
	}

	async #work(): Promise<void> {
		this.#busy = true;
		try {
			for (let next = this.#next(); next; next = this.#next()) {
				const restMs = this.#askedMs + REST_MS - performance.now();
				if (restMs > 0) {
					await new Promise((done) => setTimeout(done, restMs));
					continue;
				}
				const { endpoint, surroundings } = next;
				const summary = await this.#judge(endpoint, surroundings);
				const there = new Set(this.#latest!.workshop.endpoints.map(({ id }) => id));
				const kept = [...this.#known].filter(([id]) => there.has(id));
				this.#known = new Map(kept).set(endpoint.id, { plan: endpoint.plan, surroundings, summary });
			}
		} finally {
			this.#busy = false;
		}
	}

	#next(): { endpoint: Endpoint; surroundings: Surroundings } | null {
		const { workshop, absent, open } = this.#latest!;
		for (const endpoint of workshop.endpoints) {
			if (endpoint.id === open || isSmall(endpoint.plan)) continue;
			const surroundings = contextFor(chain, workshop, endpoint.id, absent);
			const known = this.#known.get(endpoint.id);
			if (known?.plan !== endpoint.plan || known.surroundings !== surroundings) return { endpoint, surroundings };
		}
		return null;
	}

	/** Where no worker can be had, or it has fallen over, the page does it. */
	async #judge(endpoint: Endpoint, surroundings: Surroundings): Promise<Summary> {
		if (!this.#isBroken)
			try {
				const judging = this.#ready().then((worker) => worker.of(endpoint, surroundings.others));
				return await Promise.race([judging, this.#broken]);
			} catch {
				this.#isBroken = true;
			}
		const { judges } = await import('$core/judges');
		return summarise(assess(judges, endpoint.plan, surroundings));
	}

	async #ready(): Promise<Remote<SummaryWorker>> {
		const { workshop, absent } = this.#latest!;
		if (!this.#worker) {
			const worker = new Worker(new URL('./summaryWorker.ts', import.meta.url), { type: 'module' });
			worker.onerror = (event) => this.#breaks(new Error(event.message));
			// It may fall over while nobody waits for it.
			this.#broken.catch(() => {});
			this.#worker = wrap<SummaryWorker>(worker);
		}
		const shared = [workshop.venue, workshop.parts, workshop.media, absent];
		if (shared.some((one, n) => one !== this.#shared[n])) {
			this.#shared = shared;
			const { venue, parts, media } = workshop;
			await this.#worker.share({ venue, parts, media, absent });
		}
		return this.#worker;
	}
}
export const summaries = new Summaries();

const NOTHING = { used: true, telling: '', worst: null, pending: true } as const;
const WAITING: Omit<Summary, 'links'> = { worst: null, pending: true, first: null, findings: 0 };
