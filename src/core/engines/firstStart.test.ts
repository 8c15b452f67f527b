import { describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../demo/media';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { writers } from '../writers';
import { rehearsed } from '../rehearsals';
import { benchFor } from './benchFor';
import { contextFor } from './context';
import { cardTree, firstStart, type Bench, type CardTree } from './machine';
import { rehearse } from './rehearse';
import { inWords } from './say';
import { speaking } from '../speaking';
import { write } from './write';

const { id, plan } = demoWorkshop.endpoints.find((endpoint) => endpoint.id === 'test-bench')!;
const surroundings = contextFor(chain, demoWorkshop, id);
const tone = plan.sources.items[0]!.location;
const files = write(writers, plan, surroundings, { mediaBytes: new Map([[tone, demoMediaBytes(tone)!]]) });
const startUtcMs = Date.parse('2026-11-24T18:40:00Z');
interface Around {
	readonly faults?: readonly { name: string; atMs: number; lastsMs?: number }[];
	readonly change?: (bench: Bench) => void;
	readonly edit?: (card: Map<string, { text: string; bytes: Uint8Array | null }>) => void;
}
function run({ faults = [], change, edit }: Around = {}) {
	const bench = structuredClone(benchFor(writers, plan, surroundings));
	change?.(bench);
	const card = new Map(cardTree(files)) as Map<string, { text: string; bytes: Uint8Array | null }>;
	edit?.(card);
	const result = rehearse({ links: rehearsed, card: card as CardTree, bench, startUtcMs, forMs: 60_000, faults });
	return {
		verdict: result.verdict,
		texts: inWords(speaking, result.events).map(({ text }) => text),
		words: result.words
	};
}
const early = (name: string, lastsMs?: number) => ({ faults: [{ name, atMs: 0, ...(lastsMs ? { lastsMs } : {}) }] });

describe('the first start', () => {
	it('comes to its end from an image whose clock is a month behind', () => {
		const bench = benchFor(writers, plan, surroundings);
		const installed = firstStart({ links: rehearsed, card: cardTree(files), bench, startUtcMs });
		expect([installed.problems, installed.clockBehindMs]).toEqual([[], 0]);
		// The network, the time, lists, packages, restart: minutes, not seconds and not hours.
		expect(installed.tookMs / 60_000).toBeGreaterThan(0.5);
		expect(installed.tookMs / 60_000).toBeLessThan(10);
	});
	it('gets nothing from an archive that cannot be reached, and says so', () => {
		const { verdict, texts } = run(early('archive-absent'));
		expect(verdict).toMatch(/^Silence/);
		expect(texts.some((text) => /^First start: apply\.sh ended with 100/.test(text))).toBe(true);
	});
	it('waits for another program that holds the list of packages, and gives up on one that never ends', () => {
		expect(run(early('archive-locked', 120_000)).verdict).toMatch(/^Sound after/);
		expect(run(early('archive-locked', 3_000_000)).texts.join()).toContain(
			'The locks of apt and dpkg were held for ten minutes'
		);
	});
	it('fails at an archive that comes back only after it has asked, until it is run again', () =>
		expect(run(early('archive-late')).verdict).toMatch(/^Silence/));
	it('is refused by the archive with an old clock, were the time not waited for', () => {
		const { texts } = run({
			edit: (card) => {
				const apply = card.get('boot/yphos/apply.sh')!;
				card.set('boot/yphos/apply.sh', {
					...apply,
					text: apply.text.replace('!= no ]] && break', '!= never ]] && break')
				});
			}
		});
		expect(texts.join()).toContain('not valid yet');
	});
	it('never comes to anything on a supply that gives way', () =>
		expect(run({ change: (bench) => (bench.power = { ...bench.power!, ratedW: 1 }) }).texts.join()).toContain(
			'The board does not come up, so nothing is set up'
		));
	it('runs out of room on a small card, and says which step did', () =>
		expect(run({ change: (bench) => (bench.card = { roomBytes: 50e6 }) }).texts.join()).toMatch(
			/First start: apply\.sh ended with \d+: .*(?:free space|could not be written)/
		));
	it('finds the first partition where an image has it, and says so when it has it nowhere', () => {
		const at = (firstPartition: Bench['firstPartition']) =>
			run({ change: (bench) => (bench.firstPartition = firstPartition) });
		for (const place of ['/boot', '/boot/efi', '/efi'] as const) expect(at(place).verdict).toMatch(/^Sound after/);
		expect(at('/elsewhere' as '/boot').texts.join()).toContain('no first partition is mounted');
	});
	it('takes a cable for granted where none is planned, and says that it does', () => {
		const { words } = run({
			change: (bench) => (bench.network = { ...bench.network, wired: false }),
			edit: (card) => void card.delete('boot/network-config')
		});
		expect(words.join()).toContain('a cable to a router is joined for the first start');
	});
	it('does not restart when the seed does not ask for it', () =>
		expect(
			run({
				edit: (card) => {
					const seed = card.get('boot/user-data')!;
					card.set('boot/user-data', { ...seed, text: seed.text.replace(/power_state.*\n/, '') });
				}
			}).texts
		).toContain('First start: Nothing restarts it at the end: services begin only with the next start'));
});
