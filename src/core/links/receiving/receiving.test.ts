import { describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { assess } from '../../engines/assess';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree, type CardTree } from '../../engines/machine';
import { rehearse } from '../../engines/rehearse';
import { runSheet } from '../../engines/runSheet';
import { inWords } from '../../engines/say';
import { speaking } from '../../speaking';
import { write } from '../../engines/write';
import type { Plan } from '../../plan/plan';
import { rehearsed } from '../../rehearsals';
import { writers } from '../../writers';
import { apartMs, delaysOf, keptMs, minutesToGap } from './delay';
import { marginDb, radioLossDb, reachM } from './reach';
import { receivingSettings } from './settings';

const ID = 'test-bench';
const bench = demoWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(chain, demoWorkshop, ID);
const TONE = bench.sources.items[0]!.location;
const planWith = (receiving: Partial<Plan['receiving']> = {}, more: Partial<Plan> = {}): Plan => ({
	...bench,
	receiving: { ...bench.receiving, ...receiving },
	...more
});
const filesOf = (plan: Plan) => write(writers, plan, context, { mediaBytes: new Map([[TONE, demoMediaBytes(TONE)!]]) });
function textOf(plan: Plan, end: string): string {
	const file = filesOf(plan).find(({ path }) => path.endsWith(end));
	return file && 'lines' in file ? file.lines.map(({ text }) => text).join('\n') : '';
}
type Sent = 'phone-sends' | 'computer-sends';
const AT_MS = 300_000;
function run(plan: Plan, sent: Sent, change: (card: CardTree) => CardTree = (card) => card, more: object = {}) {
	return rehearse({
		links: rehearsed,
		card: change(cardTree(filesOf(plan))),
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs: 600_000,
		faults: [{ name: sent, atMs: AT_MS, lastsMs: 60_000 }],
		...more
	});
}
const said = (...args: Parameters<typeof run>): string =>
	inWords(speaking, run(...args).events)
		.map(({ text }) => text)
		.join('\n');
/** With a line of one of its files changed, and apply.sh none the wiser. */
const changed =
	(end: string, from: string | RegExp, to: string) =>
	(card: CardTree): CardTree => {
		const path = [...card.keys()].find((known) => known.endsWith(end))!;
		const apply = [...card.keys()].find((known) => known.endsWith('apply.sh'))!;
		const tree = new Map(card);
		const text = card.get(path)!.text;
		expect(text).toMatch(from);
		tree.set(path, { ...card.get(path)!, text: text.replace(from, to) });
		const own = tree.get(apply)!;
		return tree.set(apply, { ...own, text: own.text.replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum') });
	};

describe('what is sent, in the rehearsal', () => {
	it('is heard from a phone, the list rests meanwhile and goes on', () => {
		const { tracks, events } = run(planWith(), 'phone-sends');
		const text = inWords(speaking, events).map((event) => event.text);
		expect(text).toEqual(
			expect.arrayContaining([
				'A phone sends its sound to \u201cTest bench\u201d',
				'The list rests while somebody sends',
				'The phone stops',
				'The list goes on'
			])
		);
		const marks = tracks
			.find(({ id }) => id === 'ear')!
			.marks.map(({ atMs, data }) => [atMs, (data as { title: string }).title]);
		expect(marks.find(([, title]) => /^Line-up.* \+ A phone$/.test(String(title)))?.[0]).toBe(AT_MS + 1500);
		expect(marks.find(([, title]) => title === 'A phone')?.[0]).toBe(AT_MS + 2500);
		const after = events.find(({ code }) => code === 'goes-on')!.atMs - (AT_MS + 60_000);
		expect(after).toBeGreaterThanOrEqual(3000);
		expect(after).toBeLessThan(5000);
	});
	it('is heard from a computer by either way; each can be kept out', () => {
		const both = said(planWith(), 'computer-sends');
		expect(both).toMatch(/by sound server to port 4713[\s\S]*by RTP to port 5004/);
		expect(both).not.toMatch(/not heard|kept out|Nothing answers/);
		expect(said(planWith(), 'computer-sends', changed('nftables.conf', /^.*udp dport 5004 accept\n/gm, ''))).toContain(
			'kept out: port 5004'
		);
		expect(said(planWith(), 'computer-sends', changed('sound-server.pa', 'port=4713', 'port=4700'))).toContain(
			'Nothing answers the computer at port 4713'
		);
		expect(
			said(planWith(), 'computer-sends', changed('sound-server.pa', /auth-ip-acl=\S+/, 'auth-ip-acl=10.0.0.0/8'))
		).toContain('takes nothing from 192.168.40');
		expect(said(planWith(), 'computer-sends', changed('sound-server.pa', 'module-native', 'module-nativ'))).toContain(
			'Failed to load module'
		);
	});
	it.each([
		['bluealsa.service', '--profile=a2dp-sink', '--profile=a2dp-source', 'bluealsa.service offers none'],
		['bluealsa-aplay.service', 'SupplementaryGroups=audio', 'DynamicUser=yes', 'bluealsa-aplay.service does not run'],
		['yphos-pairing.service', 'RestrictAddressFamilies=AF_UNIX', 'DynamicUser=yes', 'nothing answers it'],
		['bluealsa-aplay.service', '--pcm=default', '--pcm=other', 'asound.conf knows no device "other"'],
		['asound.conf', 'type dmix', 'type plug', 'a field ipc_key, which plug does not take']
	])('is not heard when %s says "%s" otherwise', (end, from, to, why) => {
		expect(said(planWith(), 'phone-sends', changed(end, from, to))).toContain(why);
	});
	it.each([
		['sound-server.pa', 'load-module module-suspend-on-idle timeout=2\n', ''],
		['give-way.sh', /$/, '\n']
	])('the list does not go on when %s is without its end', (end, from, to) => {
		expect(said(planWith(), 'computer-sends', changed(end, from, to))).not.toContain('The list goes on');
	});
	it.each([
		['apply.sh', 'enable yphos-pairing.service\n', '', 'nothing answers it'],
		['yphos-pairing.service', /ExecStartPre=-\S+ discoverable on\n/, '', 'does not show itself'],
		['yphos-pairing.service', /ExecStartPre=-\S+ discoverable-timeout 0\n/, '', 'does not show itself'],
		['machine-info', 'bench', 'bonch', 'finds \u201cTest bonch\u201d'],
		['yphos-rtp.service', 'DynamicUser=yes\n', '', 'yphos-rtp.service runs as the administrator']
	])('a phone that nobody knows cannot come when %s lacks "%s"', (end, from, to, why) => {
		expect(said(planWith(), 'phone-sends', changed(end, from, to))).toContain(why);
	});
	it('finds the converter busy where the list holds it alone, and says whose it is', () => {
		const plan = planWith({}, { sound: { ...bench.sound, travel: 'follow' } });
		expect(said(plan, 'phone-sends')).toMatch(/not heard: Line-up tone.* holds the sound card Plain48/);
		expect(assess(judges, plan, context).findings.find(({ id }) => id === 'receiving.not-shared')?.level).toBe('stop');
	});
	it('mixes where that is wished, and then nothing rests', () => {
		const text = said(planWith({ meanwhile: 'mixes' }), 'phone-sends');
		expect(text).not.toContain('The list rests');
		expect(text).not.toContain('not heard');
	});
	it('is silent in quiet hours too, unless they are not for it', () => {
		const programme = { ...bench.programme, quiet: [{ weekdays: [], from: '08:00', until: '20:00' }] };
		const quiet = planWith({}, { programme });
		expect(said(quiet, 'phone-sends')).toContain('bluealsa-aplay.service does not run');
		expect(said(planWith({ quietToo: false }, { programme }), 'phone-sends')).not.toContain('does not run');
		// Beginning and end, while it runs.
		const later = planWith(
			{},
			{ programme: { ...programme, quiet: [{ weekdays: [], from: '09:04', until: '09:06' }] } }
		);
		expect(said(later, 'phone-sends')).toContain('bluealsa-aplay.service does not run');
		expect(
			said(later, 'phone-sends', undefined, { faults: [{ name: 'phone-sends', atMs: 420_000, lastsMs: 30_000 }] })
		).not.toContain('does not run');
	});
	it('begins anew after a power cut, whoever was sending then', () => {
		const { events } = run(planWith(), 'phone-sends', undefined, {
			faults: [
				{ name: 'phone-sends', atMs: AT_MS, lastsMs: 30_000 },
				{ name: 'power-cut', atMs: AT_MS + 10_000, lastsMs: 5_000 },
				{ name: 'phone-sends', atMs: AT_MS + 200_000, lastsMs: 30_000 }
			]
		});
		const at = (code: string) => events.filter((event) => event.code === code).map(({ atMs }) => atMs - AT_MS);
		expect(at('rests')).toEqual([2500, 202_500]);
		// The first end is that of the power, and the player starts with the board.
		expect(at('goes-on').length).toBe(1);
		expect(at('not-played')).toEqual([]);
	});
	it('a give-way script that was changed is left out, and that is said', () => {
		expect(said(planWith(), 'phone-sends', changed('give-way.sh', 'sleep 1', 'sleep 9'))).toContain(
			'give-way.sh is not as it was written'
		);
	});
	it('assumes what nobody can know here', () => {
		expect(run(planWith({ pairing: 'once' }), 'phone-sends').words.join(' ')).toContain('the phone was paired');
		expect(run(planWith(), 'phone-sends').words.join(' ')).not.toContain('the phone was paired');
	});
});

describe('what is written', () => {
	it('names the endpoint as phones show it, quotes and all', () => {
		expect(textOf(planWith({ name: 'Mo\u2019s "bench" $1' }), '/etc/machine-info')).toBe(
			'PRETTY_HOSTNAME="Mo\u2019s \\"bench\\" \\$1"'
		);
		expect(said(planWith({ name: 'The "old" $hed' }), 'phone-sends')).toContain('to \u201cThe "old" $hed\u201d');
		expect(textOf(planWith(), '/etc/machine-info')).toBe('PRETTY_HOSTNAME="Test bench"');
	});
	it('offers phones a place to send to, and nothing else; each service has a folder of its own', () => {
		expect(textOf(planWith(), 'bluealsa.service')).toContain(
			'ExecStart=/usr/bin/bluealsa --profile=a2dp-sink --initial-volume=60\n'
		);
		expect(textOf(planWith({ bufferMs: 500 }), 'bluealsa-aplay.service')).toContain(
			'--pcm-buffer-time=500000 --pcm-period-time=100000'
		);
		const homes = filesOf(planWith()).flatMap((file) =>
			'lines' in file ? file.lines.filter(({ text }) => text.startsWith('StateDirectory=')).map(({ text }) => text) : []
		);
		expect(homes.length).toBe(3);
		expect(new Set(homes).size).toBe(homes.length);
	});
	it('writes only what the chosen ways need', () => {
		const names = (plan: Plan): string[] => filesOf(plan).map(({ path }) => path.slice(path.lastIndexOf('/') + 1));
		const none = names(planWith({ bluetooth: false, server: false, rtp: true }));
		for (const name of ['bluealsa.service', 'machine-info', 'sound-server.pa', 'pair.sh'])
			expect(none).not.toContain(name);
		expect(none).toContain('yphos-rtp.service');
		expect(names(planWith({ pairing: 'once' }))).toContain('pair.sh');
		expect(names(planWith({}, { receiving: { ...bench.receiving, used: false } })).join()).not.toMatch(
			/blue|rtp|give-way/
		);
	});
	it('the run sheet pairs, and tries each way with a command that can be pasted', () => {
		const steps = runSheet(writers, planWith({ pairing: 'once' }), context).flatMap((phase) => [...phase.steps]);
		const step = (id: string) => steps.find((known) => known.id.endsWith(id));
		expect(step('receive-pair')?.command).toBe('sudo /opt/yphos/bin/pair.sh');
		expect(step('receive-server')?.command).toMatch(/server=tcp:[a-z-]+\.local:4713 sink_name=test-bench$/);
		expect(step('receive-rtp')?.command).toContain('-f rtp_mpegts rtp://');
		for (const id of ['receive-phone', 'receive-server', 'receive-rtp']) expect(step(id)?.caution).toContain('quietly');
	});
});

describe('settings', () => {
	it.each([
		[{ rtpPort: 5005 }, 'even'],
		[{ rtpPort: 80 }, ''],
		[{ bufferMs: 120 }, '50'],
		[{ beginsPercent: 101 }, '']
	])('refuses %o', (wrong, word) => {
		const read = receivingSettings.safeParse({ ...bench.receiving, ...wrong });
		expect(read.success).toBe(false);
		expect(read.error!.issues[0]!.message).toContain(word);
	});
});

describe('reckoning', () => {
	it('free space by Friis at one metre, and by n beyond; reach and margin are each other\u2019s inverse', () => {
		const friis = 20 * Math.log10((4 * Math.PI * 1) / (299.792458 / 2441));
		expect(radioLossDb(1, 0)).toBeCloseTo(friis, 1);
		expect(radioLossDb(10, 0) - radioLossDb(1, 0)).toBeCloseTo(22, 6);
		for (const walls of [0, 1, 3])
			for (const dbm of [-6, 0, 4, 10])
				for (const wanted of [0, 15]) expect(marginDb(dbm, reachM(dbm, walls, wanted), walls)).toBeCloseTo(wanted, 6);
		// A stronger adapter does not make the phone louder.
		expect(marginDb(20, 10, 1)).toBe(marginDb(4, 10, 1));
	});
	it('delay is what its stages are, and grows with what is kept ready', () => {
		const alone = delaysOf(bench.receiving, false);
		for (const { stages, totalMs } of alone) expect(stages.reduce((sum, { ms }) => sum + ms, 0)).toBe(totalMs);
		const more = delaysOf({ ...bench.receiving, bufferMs: bench.receiving.bufferMs + 200 }, false);
		more.forEach(({ totalMs }, n) => expect(totalMs - alone[n]!.totalMs).toBe(200));
		expect(delaysOf({ ...bench.receiving, bluetooth: false, server: false, rtp: false }, false)).toEqual([]);
	});
	it.each([
		[100, 250],
		[250, 250],
		[300, 375],
		[2000, 375]
	])('the mixing device makes of %i ms %i, as a real start showed; alone it is as wished', (wished, kept) => {
		expect(keptMs(wished, true)).toBe(kept);
		expect(keptMs(wished, false)).toBe(wished);
	});
	it('two clocks 100 millionths apart use up half of 300 ms in 25 minutes', () => {
		// The same, counted in samples: 4.8 of 48 000 a second.
		const samples = (0.15 * 48_000) / 4.8;
		expect(minutesToGap(300)).toBeCloseTo(samples / 60, 6);
		expect(apartMs(300, [])).toBe(0);
		expect(apartMs(300, [300])).toBe(60);
		expect(apartMs(100, [500])).toBe(420);
	});
});
