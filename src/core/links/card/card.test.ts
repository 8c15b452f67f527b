import { describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { cardText } from '../../files/cardBytes';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { writers } from '../../writers';
import { rehearsed } from '../../rehearsals';
import { assess } from '../../engines/assess';
import { derive } from '../../engines/derive';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree } from '../../engines/machine';
import { rehearse, type Rehearsal } from '../../engines/rehearse';
import { inWords } from '../../engines/say';
import { speaking } from '../../speaking';
import { runSheet } from '../../engines/runSheet';
import { write } from '../../engines/write';
import type { Plan } from '../../plan/plan';
import { computeRoom } from './contents';
import { keepWhere } from './keepWhere';
import { computeLayer } from './layer';
import { isWriting } from './rehearse';
import { computeWear, computeWriteMin, judgeCard } from './wear';

const bench = demoWorkshop.endpoints.find(({ id }) => id === 'test-bench')!;
const context = contextFor(chain, demoWorkshop, bench.id);
const withCard = (change: Partial<Plan['card']>, parts: Partial<Plan['parts']> = {}): Plan => ({
	...bench.plan,
	parts: { ...bench.plan.parts, ...parts },
	card: { ...bench.plan.card, ...change }
});
const ids = (plan: Plan) =>
	assess(judges, plan, context)
		.findings.filter(({ link }) => link === 'card')
		.map(({ id }) => id);
const here = derive(chain, bench.plan, context);
const ear = ({ tracks }: Rehearsal) => tracks.find(({ id }) => id === 'ear')!.spans;
const IMAGE = {
	name: 'a.img',
	form: 'raw',
	fileBytes: 2e9,
	rawBytes: 2e9,
	sha256: '',
	checked: 'same',
	takesSeed: true,
	firstFreeBytes: 400e6
} as const;

describe('the card', () => {
	it('is filled to its last byte', () => {
		const room = computeRoom(bench.plan.card, here.context, here.claims)!;
		const sum = room.pieces.reduce((total, { bytes }) => total + bytes, 0);
		expect(sum / 1e9).toBeCloseTo(room.card.capacityGb, 6);
	});
	it.each([
		['card.too-small', withCard({ swapMb: 16_000 }, { card: 'card-8' })],
		['card.worn-soon', withCard({ dailyMb: 5000, logsInMemory: false })],
		['card.slow', withCard({ image: IMAGE, wroteInMin: 12 })],
		['card.too-fast', withCard({ image: IMAGE, wroteInMin: 0.1 })],
		['card.unchecked', withCard({ image: { ...IMAGE, checked: 'no' } })],
		['card.image-too-large', withCard({ image: { ...IMAGE, rawBytes: 40e9 } })],
		['card.no-seed', withCard({ image: { ...IMAGE, takesSeed: false } })],
		['card.cut-unmended', withCard({ mendAtStart: false })],
		['card.cut-logs', withCard({ logsInMemory: false })],
		['card.boot-text', withCard({ bootStyle: 'cmdline' })],
		['card.layer-fills', withCard({ root: 'overlay', dailyMb: 100 })],
		['card.fetch-once', { ...bench.plan, network: { ...bench.plan.network, way: 'none' as const } }]
	])('%s is found when it is so, and only then', (id, plan) => {
		expect(ids(bench.plan)).not.toContain(id);
		expect(ids(plan)).toContain(id);
	});
	it('wears by what is written into its cells, and not at all when it is read-only', () => {
		const card = context.part('card', 'card-32')!;
		const wear = (change: Partial<Plan['card']>) => computeWear(withCard(change).card, card, []);
		expect(wear({ dailyMb: 100 }).years).toBeCloseTo(wear({ dailyMb: 50 }).years / 2, 6);
		expect(wear({ root: 'overlay' }).years).toBe(Infinity);
		expect(computeWriteMin(6e9, card)).toBeCloseTo(10, 6);
		expect(judgeCard(6e9, 10, card).verdict).toBe('as-promised');
	});
});

describe('a layer in memory', () => {
	const board = { memoryMb: 1024 };
	const days = (change: Partial<Plan['card']>) =>
		computeLayer(withCard({ root: 'overlay', ...change }).card, board, []);
	it('holds half of the memory, by what is written each day', () => {
		expect(days({ dailyMb: 16 })).toEqual({ roomMb: 512, dailyMb: 16, daysUntilFull: 32 });
		expect(days({ dailyMb: 0 }).daysUntilFull).toBe(Infinity);
		expect(days({ dailyMb: 16, logsInMemory: false }).daysUntilFull).toBeLessThan(32);
		const recorded = { on: 'wear', from: 'sources', what: 'news', bytesPerDay: 1e9 } as const;
		expect(computeLayer(withCard({ root: 'overlay', dailyMb: 24 }).card, board, [recorded]).daysUntilFull).toBe(0.5);
	});
	it('is a caution by the month, a stop within a day; a writable root has none', () => {
		const plan = withCard({ root: 'overlay', dailyMb: 1000, logsInMemory: false });
		const found = assess(judges, plan, context).findings.find(({ id }) => id === 'card.layer-fills')!;
		expect(found.level).toBe('caution');
		const full = withCard({ root: 'overlay', dailyMb: 5000 });
		expect(assess(judges, full, context).findings.find(({ id }) => id === 'card.layer-fills')).toMatchObject({
			level: 'stop'
		});
		expect(ids(found.fixes.find(({ label }) => /writable/.test(label))!.apply(full))).not.toContain('card.layer-fills');
	});
	it('is asked for by verify.sh, and nowhere else', () => {
		const checks = (plan: Plan) => {
			const file = write(writers, plan, context).find(({ path }) => path.endsWith('verify.sh'))!;
			return 'lines' in file ? cardText(file) : '';
		};
		expect(checks(withCard({ root: 'overlay' }))).toContain('= overlay');
		expect(checks(bench.plan)).not.toContain('= overlay');
	});
});

it('keeps large media on a drive when there is one, and recordings never on the card', () => {
	const claims = derive(chain, bench.plan, context).claims;
	const large = [...claims, { on: 'store', from: 'sources', what: 'films', bytes: 20e9 } as const];
	const where = (plan: Plan, what: string) =>
		keepWhere(plan.card, derive(chain, plan, context).context, large).find((row) => row.what === what)!.where;
	const withDrive = withCard({}, { also: [{ part: 'drive-ssd-500', count: 1 }] });
	expect(where(bench.plan, 'Media')).toBe('card');
	expect(where(withDrive, 'Media')).toBe('USB drive without moving parts, 500 GB');
	expect(where(bench.plan, 'Recordings')).not.toBe('card');
});

describe('a cut at any moment', () => {
	const mediaBytes = new Map(['Line-up tone 440.wav'].map((location) => [location, demoMediaBytes(location)!]));
	const card = (plan: Plan) => cardTree(write(writers, plan, context, { mediaBytes }));
	const cutAt = (plan: Plan, atMs: number) =>
		rehearse({
			links: rehearsed,
			card: card(plan),
			bench: benchFor(writers, plan, context),
			startUtcMs: Date.parse('2026-11-24T12:00:00Z'),
			forMs: 120_000,
			faults: [{ name: 'power-cut', atMs, lastsMs: 5000 }]
		});
	const endsInSound = (plan: Plan, atMs: number): boolean => ear(cutAt(plan, atMs)).at(-1)?.state === 'sound';
	const cmdline = { bootStyle: 'cmdline', bootText: 'console=tty1 root=/dev/x rootwait' } as const;
	/** Moments of which some fall into a write and some do not. */
	const moments = Array.from({ length: 14 }, (_, n) => 30_000 + n * 137);

	it('falls into a write now and then', () => {
		expect(moments.some((ms) => isWriting(ms - 7500, false))).toBe(true);
		expect(isWriting(100, false)).toBe(true);
		expect(isWriting(1000, false)).toBe(false);
		expect(isWriting(65_100, true)).toBe(true);
		expect(isWriting(65_100, false)).toBe(false);
	});
	it('leaves a read-only root intact, always', () => {
		const plan = withCard({ root: 'overlay', mendAtStart: false, ...cmdline });
		for (const ms of moments) {
			const result = cutAt(plan, ms);
			expect(ear(result).at(-1)?.state).toBe('sound');
			expect(inWords(speaking, result.events).some(({ text }) => text.includes('torn'))).toBe(false);
		}
	});
	it('is mended at the start when that is asked for, and fatal where nothing mends it', () => {
		const mended = moments.map((ms) => endsInSound(withCard({ ...cmdline }), ms));
		expect(mended).not.toContain(false);
		const unmended = moments.map((ms) => endsInSound(withCard({ mendAtStart: false, ...cmdline }), ms));
		expect(unmended).toContain(false);
		expect(unmended).toContain(true);
		const torn = moments[unmended.indexOf(false)]!;
		expect(
			inWords(speaking, cutAt(withCard({ ...cmdline }), torn).events).some(({ text }) =>
				text.includes('is being mended')
			)
		).toBe(true);
	});
});

describe('what goes on the card', () => {
	const text = (plan: Plan, path: string): string | null => {
		const file = write(writers, plan, context).find((known) => known.path === path);
		return file && 'lines' in file ? cardText(file) : null;
	};
	it('tells the kernel what the plan adds, behind what the image tells it', () => {
		expect(text(withCard({ bootStyle: 'cmdline', bootText: 'root=/dev/x quiet' }), 'boot/cmdline.txt')).toBe(
			'root=/dev/x quiet fsck.repair=yes panic=10\n'
		);
		expect(text(bench.plan, 'boot/cmdline.txt')).toBeNull();
	});
	it('brings a settings sheet without any password', () => {
		const sheet = text(withCard({ system: 'player' }), 'docs/settings-sheet.html')!;
		expect(sheet).toContain('<td>Plain48</td>');
		expect(sheet.toLowerCase()).not.toContain('$6$');
		expect(sheet).not.toContain('keys in place of a remote');
		const named = { ...withCard({ system: 'platform' }), brief: { ...bench.plan.brief, name: '<b>&' } };
		const platform = text(named, 'docs/settings-sheet.html')!;
		expect(platform).toContain('<h1>&lt;b&gt;&amp;</h1>');
		for (const part of [
			'onto a memory stick',
			'keys in place of a remote',
			'Line-up tone 440.wav',
			'checks at the end'
		])
			expect(platform).toContain(part);
	});
	it('grows the root before anything large is installed, and ends with the right output for a ready-made image', () => {
		const keys = (plan: Plan) => runSheet(writers, plan, context).flatMap(({ steps }) => steps.map(({ key }) => key));
		const plain = keys(bench.plan);
		expect(plain.indexOf('card.grow')).toBeLessThan(plain.indexOf('card.apply'));
		const platform = keys(withCard({ system: 'platform', prepare: 'format' }));
		const inOrder = [
			'card.fetch-archive',
			'card.format-card',
			'card.grow',
			'card.hidden-settings',
			'card.recovery',
			'card.second-archive',
			'card.wipe-cache',
			'card.right-output'
		];
		expect(platform.filter((key) => inOrder.includes(key))).toEqual(inOrder);
		const player = runSheet(writers, withCard({ system: 'player' }), context);
		const setUp = player.find(({ phase }) => phase === 'set up')!.steps;
		expect(setUp.at(-1)).toMatchObject({ id: 'restart-set up', do: expect.stringContaining('own page or menu') });
		expect(setUp.at(-1)!.command).toBeUndefined();
		expect(setUp.map(({ id }) => id)).not.toContain('page-again');
		const fetched = runSheet(writers, withCard({ system: 'platform' }, { board: 'board-full-1' }), context)[0]!.steps;
		expect(fetched.find(({ id }) => id === 'fetch-image')!.do).toContain('1\u2009GB of memory');
	});
});
