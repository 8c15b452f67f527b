import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { benchFor } from '../../../engines/benchFor';
import { assess } from '../../../engines/assess';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { write } from '../../../engines/write';
import { judges } from '../../../judges';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { typefaceFor } from '../../../standards/typefaces';
import { asDrawn } from './letters';

const hatch = demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!.plan;
const context = contextFor(judges, demoWorkshop, 'ticket-hatch');
const saying = (text: string, change: Partial<Plan['notices']> = {}): Plan => ({
	...hatch,
	notices: {
		...hatch.notices,
		pages: hatch.notices.pages.map((page) => ({
			...page,
			zones: page.zones.map((zone) => (zone.shows === 'text' ? { ...zone, text } : zone))
		})),
		...change
	}
});
const lettersOf = (plan: Plan) =>
	assess(judges, plan, context).findings.filter(({ id }) => id.startsWith('notices.letters'));
const boxesOf = (plan: Plan) =>
	rehearse({
		links: rehearsed,
		card: cardTree(write(writers, plan, context)),
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs: 900_000
	}).events.filter(({ code }) => code === 'boxes');

describe('a typeface for each letter', () => {
	it.each([
		['Velkommen, Łódź, Ελλάδα, Київ, שלום, مرحبا: ½ → €', 'there'],
		['ようこそ', 'fonts-noto-cjk'],
		['환영합니다', 'fonts-noto-cjk'],
		['स्वागत', 'fonts-noto-core'],
		['ยินดี', 'fonts-noto-core'],
		['🚢', 'fonts-noto-color-emoji'],
		['\u{13000}', null]
	] as const)('%s', (text, by) => {
		expect(new Set(Array.from(text, typefaceFor))).toEqual(new Set([by]));
		expect(asDrawn(text, []).includes('\u25a1')).toBe(by !== 'there');
	});
	it('is asked for with its package, which the fix installs, and the rehearsal sees the difference', () => {
		expect(lettersOf(hatch)).toEqual([]);
		const plan = saying('Velkommen ようこそ');
		const [found, ...others] = lettersOf(plan);
		expect([found?.id, others]).toEqual(['notices.letters-fonts-noto-cjk', []]);
		expect(boxesOf(plan).length).toBeGreaterThan(0);
		const mended = found!.fixes[0]!.apply(plan);
		expect(lettersOf(mended)).toEqual([]);
		expect(boxesOf(mended)).toEqual([]);
	});
	it('is looked for in the names of days too, and not where pictures are drawn here', () => {
		expect(lettersOf(saying('', { language: 'ja-JP' })).map(({ id }) => id)).toEqual([
			'notices.letters-fonts-noto-cjk'
		]);
		expect(lettersOf(saying('ようこそ', { shownBy: 'pictures' }))).toEqual([]);
	});
});
