import { getContext, setContext, untrack } from 'svelte';
import { chain } from '$core/chain';
import { labelOf } from '$core/fields';
import { judges } from '$core/judges';
import { writers } from '$core/writers';
import { assess } from '$core/engines/assess';
import { derive } from '$core/engines/derive';
import { curesOf } from '$core/engines/cure';
import { benchFor } from '$core/engines/benchFor';
import { contextFor } from '$core/engines/context';
import { runSheet } from '$core/engines/runSheet';
import { write } from '$core/engines/write';
import type { Finding, Fix } from '$core/link/finding';
import type { SettingPath } from '$core/link/setting';
import { planSchema, type LinkId, type Plan } from '$core/plan/plan';
import { loadMediaBytes } from '$lib/store/media';
import { store } from '$lib/store/workshop.svelte';

const titleOf = (id: LinkId): string => chain.find((link) => link.id === id)!.title;

/** One endpoint and all that follows from its plan; recomputed as the plan changes. */
export class EndpointView {
	#id: () => string;
	mediaBytes = $state.raw<ReadonlyMap<string, Uint8Array>>(new Map());

	constructor(id: () => string) {
		this.#id = id;
	}

	id(): string {
		return this.#id();
	}

	endpoint = $derived.by(() => store.workshop?.endpoints.find((endpoint) => endpoint.id === this.id()) ?? null);
	plan = $derived(this.endpoint?.plan as Plan);
	surroundings = $derived(contextFor(chain, store.workshop!, this.id(), store.absent));
	#derived = $derived(derive(chain, this.plan, this.surroundings));
	context = $derived(this.#derived.context);
	claims = $derived(this.#derived.claims);
	assessment = $derived(assess(judges, this.plan, this.surroundings));
	sheet = $derived(runSheet(writers, this.plan, this.surroundings));
	files = $derived(write(writers, this.plan, this.surroundings, { mediaBytes: this.mediaBytes }));
	bench = $derived(benchFor(writers, this.plan, this.surroundings));

	/** Whoever asks is not asked again by a change of the plan; what is asked for later counts, however long it takes. */
	async loadMedia(): Promise<void> {
		const { items } = untrack(() => this.plan.sources);
		this.#asked = items;
		const found = await loadMediaBytes(items.map(({ location }) => location));
		if (this.#asked === items) this.mediaBytes = found;
	}
	#asked: unknown = null;

	/** Puts a value at "link.key"; gives a sentence, and changes nothing, when the value is not allowed. */
	set(path: SettingPath, value: unknown): string | null {
		const [link, key] = path.split('.') as [LinkId, string];
		const next = { ...this.plan, [link]: { ...this.plan[link], [key]: value } };
		const parsed = planSchema.shape[link].safeParse(next[link]);
		if (!parsed.success) return parsed.error.issues[0]!.message;
		return store.changePlan(this.#id(), `${titleOf(link)}: ${labelOf(path).toLowerCase()}`, (plan) => ({
			...plan,
			[link]: parsed.data
		}));
	}

	/** Gives a sentence, and changes nothing, when the plan would not be one. */
	edit(label: string, change: (plan: Plan) => Plan): string | null {
		return store.changePlan(this.#id(), label, change);
	}

	cures(finding: Finding): readonly Fix[] {
		return curesOf(judges, this.plan, this.surroundings, finding);
	}

	apply(fix: Fix): void {
		if (store.changePlan(this.#id(), fix.label, (plan) => fix.apply(plan, Date.now())) !== null) return;
		store.offerUndo(`Done: ${fix.label}.`);
	}
}

const KEY = Symbol('endpoint');
export const provideEndpoint = (view: EndpointView): EndpointView => setContext(KEY, view);
export const useEndpoint = (): EndpointView => getContext(KEY);
