import { expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { assess } from '../../../engines/assess';
import { contextFor } from '../../../engines/context';
import type { Plan } from '../../../plan/plan';
import type { Media } from '../../../parts/media';

const ID = 'bunkhouse-lounge';
const demo = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const plan: Plan = {
	...demo,
	sources: { ...demo.sources, items: demo.sources.items.map((item) => ({ ...item, part: null })) }
};
const loud = (media: Media, integratedLufs: number | null): Media => ({
	...media,
	details: { container: 'WAVE', tags: {}, chapters: [], loudness: { integratedLufs, rangeLu: 1, truePeakDbtp: -1 } }
});
const found = (levels: readonly (number | null)[], its = plan) => {
	const names = plan.sources.items.map(({ location }) => location);
	const media = demoWorkshop.media.map((one) => {
		const level = levels[names.indexOf(one.location)];
		return level === undefined ? one : loud(one, level);
	});
	return assess(judges, its, contextFor(chain, { ...demoWorkshop, media }, ID)).findings.find(
		({ id }) => id === 'sources.uneven'
	);
};

it('says that files are not equally loud, from ten units on, and by which it is seen', () => {
	expect(found([-14, -30.5])).toMatchObject({ level: 'note', title: expect.stringContaining('LU louder') as string });
	expect(found([-14, -30.5])!.why).toMatch(/Harbour bell in A" has \u221214\.0.*Night ferry" \u221230\.5/);
	expect(found([-20, -30])).toBeUndefined();
	expect(found([-14, null])).toBeUndefined();
	expect(found([])).toBeUndefined();
});

it('makes the louder ones softer, by no more than is needed, and what is softer already counts as such', () => {
	const levels = [-14, -30.5];
	const cured = found(levels)!.fixes[0]!.apply(plan);
	expect(cured.sources.items.map(({ part }) => part?.quieterDb ?? 0).slice(0, 3)).toEqual([11.5, 0, 0]);
	expect(found(levels, cured)).toBeUndefined();
	// Two more, and it is again too loud for the softest.
	expect(found([-14, -36.5], cured)).toBeDefined();
});
