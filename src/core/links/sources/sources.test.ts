import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { writers } from '../../writers';
import { rehearsed } from '../../rehearsals';
import { assess } from '../../engines/assess';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree } from '../../engines/machine';
import { rehearse } from '../../engines/rehearse';
import { runSheet } from '../../engines/runSheet';
import { write } from '../../engines/write';
import { cardText } from '../../files/cardBytes';
import type { CardFile } from '../../link/file';
import type { Plan } from '../../plan/plan';
import type { Workshop } from '../../plan/workshop';
import type { SourcesSettings } from './settings';

const lounge = demoWorkshop.endpoints[0]!;
const one = demoWorkshop.media.find(({ location }) => location === 'Night ferry.wav')!;
const bytes = demoMediaBytes('Night ferry.wav')!;
const sha256 = createHash('sha256').update(bytes).digest('hex');
const NAMES = ['a.wav', 'what? [live] "x".wav', '-b.wav'];
/** An own workshop with these files in its list, whose bytes are kept there. */
const workshop = (sources: Partial<SourcesSettings> = {}, rest: Partial<Plan> = {}): Workshop => ({
	...demoWorkshop,
	media: NAMES.map((location) => ({ ...one, location, sha256, kept: 'browser' as const, sizeBytes: 1_000_000 })),
	endpoints: [
		{
			...lounge,
			plan: {
				...lounge.plan,
				...rest,
				sources: {
					...lounge.plan.sources,
					items: NAMES.map((location) => ({
						id: location,
						location,
						title: '',
						durationSec: null,
						extra: [],
						part: null
					})),
					...sources
				}
			}
		}
	]
});
const see = (of: Workshop, absent?: ReadonlySet<string>) => {
	const { id, plan } = of.endpoints[0]!;
	const surroundings = contextFor(chain, of, id, absent);
	const files = write(writers, plan, surroundings, {
		mediaBytes: new Map(NAMES.filter((name) => !absent?.has(name)).map((name) => [name, bytes]))
	});
	const text = (path: string): string => {
		const file = files.find((known) => known.path === path) as Extract<CardFile, { lines: unknown }> | undefined;
		return file ? cardText(file) : '';
	};
	return {
		id,
		plan,
		surroundings,
		files,
		text,
		steps: runSheet(writers, plan, surroundings).flatMap(({ steps }) => [...steps])
	};
};

describe('files of the list', () => {
	it('are carried by the set, and asked for on the endpoint as it has them', () => {
		const { files, text, steps } = see(workshop());
		expect(files.filter(({ path }) => path.includes('/opt/yphos/media/'))).toHaveLength(3);
		expect(text('boot/yphos/verify.sh')).toContain(
			`check 'a.wav is there, whole' cmp "$here"/root/opt/yphos/media/a.wav /opt/yphos/media/a.wav`
		);
		expect(text('boot/yphos/apply.sh')).not.toMatch(/^folder /m);
		expect(steps.some(({ id }) => id === 'copy-media')).toBe(false);
	});
	it('are copied by the person into a folder of theirs, under names that survive, and known by digest', () => {
		const { files, text, steps } = see(workshop({ carry: 'self' }));
		expect(files.filter(({ path }) => path.includes('/opt/yphos/media/'))).toEqual([]);
		expect(text('docs/copy-media.sftp').split('\n')).toEqual([
			'put "./a.wav" "/opt/yphos/media/a.wav"',
			expect.stringMatching(
				/^put "\.\/what\? \[live\] \\"x\\"\.wav" "\/opt\/yphos\/media\/what_ _live_ _x_-[0-9a-f]{8}\.wav"$/
			),
			expect.stringMatching(/^put "\.\/-b\.wav" "\/opt\/yphos\/media\/b-[0-9a-f]{8}\.wav"$/),
			''
		]);
		expect(text('boot/yphos/apply.sh')).toContain('\nfolder keeper /opt/yphos/media\n');
		expect(text('boot/yphos/verify.sh')).toContain(`has_digest ${sha256} /opt/yphos/media/a.wav`);
		const keys = steps.map(({ key }) => key);
		const order = ['card.apply', 'sources.copy-media', 'card.verify'];
		expect(keys.filter((key) => order.includes(key))).toEqual(order);
		expect(steps.find(({ id }) => id === 'copy-media')!.command).toBe(
			'sftp -oBatchMode=no -b copy-media.sftp keeper@lounge.local'
		);
	});
	it('go below a layer in memory, which is opened first', () => {
		const { text, steps } = see(workshop({ carry: 'self' }, { card: { ...lounge.plan.card, root: 'overlay' } }));
		expect(text('docs/copy-media.sftp')).toContain('put "./a.wav" "/media/root-ro/opt/yphos/media/a.wav"');
		const keys = steps.map(({ id }) => id);
		expect(keys.indexOf('open-below')).toBeGreaterThan(-1);
		expect(keys.indexOf('open-below')).toBeLessThan(keys.indexOf('copy-media'));
	});
	it('come on a stick where there is no network', () => {
		const { text, steps } = see(workshop({ carry: 'self' }, { network: { ...lounge.plan.network, way: 'none' } }));
		expect(text('docs/copy-media.sftp')).toBe('');
		expect(steps.find(({ id }) => id === 'copy-media')!.command).toContain('/opt/yphos/media');
	});
	it('that are not here stop the plan, are not rehearsed as if they were, and one press ends it', () => {
		const own = workshop();
		const absent = new Set(['a.wav']);
		const { id, plan, surroundings, files } = see(own, absent);
		const found = assess(judges, plan, surroundings).findings.find((finding) => finding.id === 'sources.not-here')!;
		expect([found.level, found.title]).toEqual(['stop', 'One file of the list is not here']);
		const bench = benchFor(writers, plan, surroundings);
		expect(bench.media.map(({ location }) => location)).not.toContain('/opt/yphos/media/a.wav');
		const ran = rehearse({
			links: rehearsed,
			card: cardTree(files),
			bench,
			startUtcMs: Date.parse('2026-11-24T18:40:00Z'),
			forMs: 60_000,
			faults: []
		});
		expect(JSON.stringify(ran.events)).toContain('no such file');
		const mended = found.fixes[0]!.apply(plan);
		expect(
			assess(judges, mended, contextFor(chain, own, id, absent)).findings.map((finding) => finding.id)
		).not.toContain('sources.not-here');
	});
	it('fit the first partition or stop the plan, by the byte', () => {
		const image = {
			name: 'a.img',
			form: 'raw',
			fileBytes: 1,
			rawBytes: 1e9,
			sha256: '',
			checked: 'same',
			takesSeed: true
		} as const;
		const idsWith = (firstFreeBytes: number | null, sizeBytes: number, carry: 'set' | 'self' = 'set'): string[] => {
			const own = workshop({ carry }, { card: { ...lounge.plan.card, image: { ...image, firstFreeBytes } } });
			const sized = { ...own, media: own.media.map((media) => ({ ...media, sizeBytes })) };
			return assess(judges, sized.endpoints[0]!.plan, contextFor(chain, sized, lounge.id)).findings.map(
				(finding) => finding.id
			);
		};
		expect(idsWith(30_200_000, 10_000_000)).not.toContain('card.set-too-large');
		expect(idsWith(30_199_999, 10_000_000)).toContain('card.set-too-large');
		expect(idsWith(30_199_999, 10_000_000, 'self')).not.toContain('card.set-too-large');
		expect(idsWith(null, 10_000_000)).not.toContain('card.set-large');
		expect(idsWith(null, 30_000_000)).toContain('card.set-large');
	});
});

it('a picture without sound is said where nothing shows it, and either fix ends that', () => {
	const poster = demoWorkshop.media.find(({ location }) => location === 'Ferry times.png')!;
	const base = workshop();
	const of: Workshop = {
		...base,
		media: base.media.map((media, n) => (n === 0 ? { ...poster, location: NAMES[0]! } : media))
	};
	const found = (plan: Plan) =>
		assess(judges, plan, contextFor(chain, of, lounge.id)).findings.find(({ id }) => id === 'sources.unseen');
	const { plan } = of.endpoints[0]!;
	const finding = found(plan)!;
	expect(finding.title).toBe('One entry is a picture without sound');
	expect(finding.fixes.map(({ label }) => label)).toEqual(['Leave them out', 'Add a picture']);
	for (const fix of finding.fixes) expect(found(fix.apply(plan)), fix.label).toBeUndefined();
	expect(found(base.endpoints[0]!.plan)).toBeDefined();
	expect(
		assess(judges, plan, contextFor(chain, base, lounge.id)).findings.some(({ id }) => id === 'sources.unseen')
	).toBe(false);
});
