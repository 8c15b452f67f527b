import { expect, it } from 'vitest';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { assess } from '../../engines/assess';
import { contextFor } from '../../engines/context';
import type { Media } from '../../parts/media';

const ID = 'bunkhouse-lounge';
const { plan } = demoWorkshop.endpoints.find(({ id }) => id === ID)!;
const loud = (media: Media, integratedLufs: number | null): Media => ({
	...media,
	details: { container: 'WAVE', tags: {}, chapters: [], loudness: { integratedLufs, rangeLu: 1, truePeakDbtp: -1 } }
});
const found = (levels: readonly (number | null)[]) => {
	const names = plan.sources.items.map(({ location }) => location);
	const media = demoWorkshop.media.map((one) => {
		const level = levels[names.indexOf(one.location)];
		return level === undefined ? one : loud(one, level);
	});
	return assess(chain, plan, contextFor(chain, { ...demoWorkshop, media }, ID)).findings.find(
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
