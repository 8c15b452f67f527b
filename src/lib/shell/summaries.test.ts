import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { demoWorkshop } from '$demo/workshop';
import { chain } from '$core/chain';
import { judges } from '$core/judges';
import { assess } from '$core/engines/assess';
import { contextFor } from '$core/engines/context';
import type { Endpoint, Workshop } from '$core/plan/workshop';
import { summaries } from './summaries.svelte';

const NONE: ReadonlySet<string> = new Set();
const [first] = demoWorkshop.endpoints;
const item = first!.plan.sources.items[0]!;
/** Too large to be judged on the page. */
const large: Endpoint = {
	...first!,
	id: 'large',
	plan: {
		...first!.plan,
		sources: {
			...first!.plan.sources,
			items: Array.from({ length: 500 }, (_, n) => ({ ...item, id: `i${n}`, location: `f${n}.flac` }))
		}
	}
};
const workshop: Workshop = { ...demoWorkshop, endpoints: [large] };

beforeEach(() => {
	/** One whose program could not be fetched: it never answers. */
	vi.stubGlobal(
		'Worker',
		class {
			onerror: ((event: { message: string }) => void) | null = null;
			constructor() {
				setTimeout(() => this.onerror?.({ message: 'not there' }), 5);
			}
			addEventListener(): void {}
			removeEventListener(): void {}
			postMessage(): void {}
		}
	);
});
afterEach(() => {
	vi.useRealTimers();
	vi.unstubAllGlobals();
});

it('judges nothing in passing while somebody types, and all once it is quiet', async () => {
	vi.useFakeTimers();
	const typed = Array.from({ length: 5 }, () => ({ ...large, plan: { ...large.plan } }));
	const firstOf = (endpoint: Endpoint) =>
		summaries.of(endpoint, { ...demoWorkshop, endpoints: [endpoint] }, NONE, undefined).pending;
	for (const endpoint of typed) {
		summaries.want({ ...demoWorkshop, endpoints: [endpoint] }, NONE, undefined);
		await vi.advanceTimersByTimeAsync(700);
		expect(firstOf(endpoint)).toBe(true);
	}
	await vi.advanceTimersByTimeAsync(700);
	expect(firstOf(typed[4]!)).toBe(false);
});

it('where the worker falls over, what is large is judged all the same', async () => {
	expect(summaries.of(large, workshop, NONE, undefined).pending).toBe(true);
	summaries.want(workshop, NONE, undefined);
	await vi.waitFor(() => expect(summaries.of(large, workshop, NONE, undefined).first).not.toBeNull(), {
		timeout: 10_000
	});
	const judged = assess(judges, large.plan, contextFor(chain, workshop, 'large', NONE));
	expect(summaries.of(large, workshop, NONE, undefined).findings).toBe(judged.findings.length);
});
