import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '$core/chain';
import { benchFor } from '$core/engines/benchFor';
import { contextFor } from '$core/engines/context';
import { cardTree } from '$core/engines/machine';
import { rehearse } from '$core/engines/rehearse';
import { write } from '$core/engines/write';
import { rehearsed } from '$core/rehearsals';
import { writers } from '$core/writers';
import { itemShown, momentOf, pageShown } from './moment';

const run = (id: string, change: (plan: (typeof demoWorkshop.endpoints)[number]['plan']) => void, forMs = 240_000) => {
	const { plan } = structuredClone(demoWorkshop.endpoints.find((endpoint) => endpoint.id === id)!);
	change(plan);
	const context = contextFor(chain, demoWorkshop, id);
	const result = rehearse({
		links: rehearsed,
		card: cardTree(write(writers, plan, context)),
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.UTC(2026, 10, 24, 11),
		forMs
	});
	return { plan, result };
};

describe('one moment of a rehearsal', () => {
	const { result } = run('bunkhouse-lounge', () => {});
	it('has nothing before there is one, and silence before there is sound', () => {
		expect(momentOf(null, 0)).toMatchObject({ past: [], seen: null, playing: '', heard: null });
		expect(momentOf(result, 0)).toMatchObject({ playing: '', heard: null, ear: { state: 'silence' } });
	});
	it('knows what plays and how it is heard, and of the past only what is past', () => {
		const end = momentOf(result, 240_000);
		expect(end.ear?.state).toBe('sound');
		expect(end.heard?.title).toBe(end.playing);
		const half = momentOf(result, 20_000);
		expect(half.past.every(({ atMs }) => atMs <= 20_000)).toBe(true);
		expect(half.past.length).toBeLessThan(end.past.length);
	});
	it('finds the page that is shown by its id: two may be called alike', () => {
		const { plan, result: shown } = run('ticket-hatch', (changed) => {
			for (const page of changed.notices.pages) page.title = 'Notice';
		});
		const ids = new Set<string>();
		for (let atMs = 0; atMs <= 240_000; atMs += 2000) {
			const { seen } = momentOf(shown, atMs);
			const page = pageShown(plan, seen);
			if (!page) continue;
			expect(seen!.id).toBe(`page:${page.id}`);
			ids.add(page.id);
		}
		expect(ids.size).toBeGreaterThan(1);
	});
	it('finds what is shown by its place: another may be called alike', () => {
		const { plan, result: shown } = run('gallery-wall', ({ sources }) => {
			const [only] = sources.items;
			sources.items = [{ ...only!, id: 'twin', location: 'twin.png' }, only!];
		});
		const { seen } = momentOf(shown, 240_000);
		expect(itemShown(plan, seen)?.id).toBe(plan.sources.items[1]!.id);
		expect(itemShown(plan, null)).toBeNull();
	});
});
