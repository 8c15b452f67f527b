import { createSign, generateKeyPairSync } from 'node:crypto';
import { execFileSync, spawn } from 'node:child_process';
import {
	chmodSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	readlinkSync,
	rmSync,
	writeFileSync
} from 'node:fs';
import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../demo/media';
import { plainHatchWorkshop } from '../../../../demo/plainHatch';
import { demoWorkshop } from '../../../../demo/workshop';
import { chain } from '../../chain';
import { judges } from '../../judges';
import { assess } from '../../engines/assess';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree, type CardTree } from '../../engines/machine';
import { rehearse } from '../../engines/rehearse';
import { inWords } from '../../engines/say';
import { write } from '../../engines/write';
import { cardBytes } from '../../files/cardBytes';
import { lines, rootPath, textFile } from '../../files/cardFile';
import type { CardFile } from '../../link/file';
import type { Plan } from '../../plan/plan';
import type { Workshop } from '../../plan/workshop';
import { rehearsed } from '../../rehearsals';
import { speaking } from '../../speaking';
import { writers } from '../../writers';
import { packContent } from './pack';
import askScript from '../network/ask.sh?raw';
import { RENEW, SWITCH_SET } from './scripts';
import { deliverySettings, keyLines, type DeliverySettings } from './settings';

const ID = 'ticket-hatch';
const { publicKey, privateKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
const KEY = publicKey.export({ type: 'spki', format: 'der' }).toString('base64');
const FROM = 'https://files.example/hatch';

interface Made {
	readonly plan: Plan;
	readonly files: CardFile[];
	readonly bench: ReturnType<typeof benchFor>;
}
const made = new Map<string, Made>();
/** The hatch as it fetches its content, with pages or without. */
function fetching(workshop: Workshop, own: Partial<DeliverySettings> = {}): Made {
	const key = JSON.stringify([workshop === demoWorkshop, own]);
	const known = made.get(key);
	if (known) return known;
	const { plan: before } = workshop.endpoints.find(({ id }) => id === ID)!;
	const plan: Plan = {
		...before,
		delivery: { used: true, from: FROM, times: ['12:00'], publicKey: KEY, era: 0, ...own }
	};
	const context = contextFor(chain, workshop, ID);
	const mediaBytes = demoMediaOf(plan.sources.items);
	const result = {
		plan,
		files: write(writers, plan, context, { mediaBytes }),
		bench: benchFor(writers, plan, context)
	};
	made.set(key, result);
	return result;
}
function run(
	{ files, bench }: Made,
	fault: string | null,
	forMs = 420_000,
	tree: CardTree = cardTree(files),
	cutAtMs?: number,
	atMs = 0
) {
	const result = rehearse({
		links: rehearsed,
		card: tree,
		bench,
		startUtcMs: Date.parse('2026-07-14T09:30:00Z'),
		forMs,
		faults: [
			...(fault ? [{ name: fault, atMs }] : []),
			...(cutAtMs === undefined ? [] : [{ name: 'power-cut', atMs: cutAtMs }])
		]
	});
	return {
		texts: inWords(speaking, result.events)
			.map(({ text }) => text)
			.join('\n'),
		eye: result.tracks.find(({ id }) => id === 'eye')!
	};
}

describe.each([
	['pages', demoWorkshop],
	['a list', plainHatchWorkshop]
])('new content for %s, rehearsed', (_, workshop) => {
	it('changes nothing while nothing new is there, and the player plays through the link', () => {
		const { texts, eye } = run(fetching(workshop), null);
		expect(texts).not.toContain('Shown is');
		expect(texts).toContain('no set can be fetched from https://files.example/hatch; what is shown stays');
		expect(eye.spans.at(-1)!.state).toBe('picture');
	});

	it('is fetched whole, shown, and shown again after a power cut', () => {
		const { texts, eye } = run(fetching(workshop), 'new-set', 900_000, undefined, 600_000);
		expect(texts.match(/Shown is set \d+/g)).toHaveLength(1);
		expect(texts).not.toMatch(/Shown is what the card brought|Not rehearsed.*(?:renew|switch)/);
		expect(eye.spans.at(-1)!.state).toBe('picture');
	});

	it.each([
		['set-breaks-off', /could not be fetched; what is shown stays/],
		['set-spoilt', /is not what the manifest says; what is shown stays/],
		['set-forged', /not signed with your key; what is shown stays/],
		['set-endless', /no set can be fetched from https:\/\/files.example\/hatch; what is shown stays/]
	])('is not shown, nor any part of it: %s', (fault, says) => {
		const { texts, eye } = run(fetching(workshop), fault);
		expect(texts).toMatch(says);
		expect(texts).not.toContain('Shown is');
		expect(eye.spans.at(-1)!.state).toBe('picture');
	});

	it('goes on where the connection broke off, at the next time', () => {
		const { texts } = run(fetching(workshop, { times: ['12:00', '10:45'] }), 'set-breaks-off', 1_500_000);
		expect(texts.indexOf('The connection is there again')).toBeGreaterThan(texts.indexOf('could not be fetched'));
		expect(texts.match(/Shown is set \d+/g)).toHaveLength(1);
	});

	it('is taken back when the player does not come to life with it, and not tried again', () => {
		const { texts, eye } = run(fetching(workshop, { times: ['10:45'] }), 'set-dead', 1_500_000);
		expect(texts.match(/Shown is set \d+/g)).toHaveLength(1);
		expect(texts.match(/Shown is what the card brought/g)).toHaveLength(1);
		expect(texts).toContain('the one before is shown again');
		expect(texts).toMatch(/set \d+ is not newer than set \d+, which was here/);
		expect(eye.spans.at(-1)!.state).toBe('picture');
	});

	it('that does not play is taken back after a power cut long before, too: no page of an earlier start speaks for it', () => {
		const made = fetching(workshop, { times: ['10:55'] });
		const { texts, eye } = run(made, 'set-dead', 2_100_000, undefined, 600_000, 900_000);
		expect(texts).toMatch(/Shown is set \d+[^]*Shown is what the card brought/);
		expect(eye.spans.at(-1)!.state).toBe('picture');
		expect(texts).not.toContain('the page has been silent');
	});

	it('that does not play is taken back at the next start, too, when the power went meanwhile', () => {
		const { texts, eye } = run(fetching(workshop), 'set-dead', 900_000, undefined, 150_000);
		expect(texts).toMatch(/Shown is set \d+[^]*Shown is what the card brought/);
		expect(eye.spans.at(-1)!.state).toBe('picture');
	});
});

it('the rehearsal takes the set by the key that stands on the card', () => {
	const made = fetching(demoWorkshop);
	const tree = new Map(cardTree(made.files));
	const path = rootPath('/opt/yphos/delivery/key.pem');
	tree.set(path, { text: tree.get(path)!.text.replace(/[a-z]/, 'Z'), bytes: null });
	// The copy is damaged: apply.sh itself refuses it, so nothing of the set is put in place.
	expect(run(made, 'new-set', 420_000, tree).texts).toContain('is damaged');
});

/** A folder as an endpoint has it, and its scripts in a real shell. */
describe('renew.sh and switch-set.sh in a real shell', () => {
	const top = mkdtempSync(join(tmpdir(), 'yphos-delivery-'));
	const [root, state, own, site, bin, fetched] = ['root', 'state', 'own', 'site', 'bin', 'fetched'].map((name) =>
		join(top, name)
	) as [string, string, string, string, string, string];
	let server: Server;
	let address = '';
	let asked: string[] = [];
	/** Answers so many files, and no more. */
	let patience = Infinity;

	beforeAll(async () => {
		server = createServer(({ url = '/' }, response) => {
			asked.push(url);
			const path = join(site, url);
			if (url.startsWith('/files/') && patience-- <= 0) return void response.destroy();
			if (!existsSync(path)) return void response.writeHead(404).end();
			response.end(readFileSync(path));
		});
		await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
		address = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
	});
	afterAll(() => {
		server.close();
		rmSync(top, { recursive: true });
	});
	beforeEach(() => {
		rmSync(top, { recursive: true });
		for (const folder of [root, state, own, site, bin, fetched]) mkdirSync(folder, { recursive: true });
		[asked, patience] = [[], Infinity];
		put(join(own, 'from'), `${address}\n`);
		put(join(own, 'for'), 'hatch\n');
		put(join(own, 'shows-pages'), 'yes\n');
		put(join(own, 'near'), 'yes\n');
		for (const [name, text] of [
			['ask.sh', askScript],
			['switch-set.sh', SWITCH_SET.join('\n')]
		] as const) {
			put(join(bin, name), text);
			chmodSync(join(bin, name), 0o755);
		}
		put(join(own, 'key.pem'), `${keyLines(KEY).join('\n')}\n`);
		for (const file of cardSet('one')) put(join(root, file.path.slice(rootPath('').length)), cardBytes(file));
		// What systemctl and the log would say: the player lives unless a set says otherwise.
		program(
			'systemctl',
			`echo "$*" >>${top}/asked; case $1 in show) echo 0 ;; is-active) test ! -e ${top}/silent ;; esac`
		);
		program('sleep', ':');
		program(
			'journalctl',
			`grep -q dead ${state}/now/notices/index.html || echo 'yphos-page alive 2026-07-14T12:00:00Z'`
		);
	});

	const put = (path: string, content: string | Uint8Array): void => {
		mkdirSync(dirname(path), { recursive: true });
		writeFileSync(path, content);
	};
	const program = (name: string, script: string): void => {
		put(join(bin, name), `#!/bin/sh\n${script}\n`);
		chmodSync(join(bin, name), 0o755);
	};
	/** As a card set has it: a page that says a word, a list, a picture, and a unit of the endpoint's own. */
	const cardSet = (word: string): CardFile[] => [
		textFile(rootPath('/opt/yphos/notices/index.html'), '', lines('notices', `<p>${word}</p>`)),
		textFile(rootPath('/opt/yphos/playlist.m3u8'), '', lines('sources', '#EXTM3U', '/opt/yphos/media/a b.png')),
		{
			path: rootPath('/opt/yphos/media/a b.png'),
			mode: '0644',
			why: '',
			bytes: new Uint8Array([1, 2, 3]),
			setting: 'sources'
		},
		textFile(rootPath('/etc/systemd/system/yphos-player.service'), '', lines('programme', '[Unit]'))
	];
	function offer(files: CardFile[], number: number, edit = (text: string): string => text, era = 0): void {
		const pack = packContent(files, { hostName: 'hatch', number, era });
		const manifest = edit(pack.manifest);
		put(join(site, 'manifest.txt'), manifest);
		put(join(site, 'manifest.txt.sig'), createSign('SHA256').update(manifest).sign(privateKey));
		for (const { digest, file } of pack.files) put(join(site, 'files', digest), cardBytes(file));
	}
	const sh = (script: readonly string[], ...args: string[]): Promise<{ code: number; said: string }> =>
		new Promise((done) => {
			const child = spawn('sh', ['-c', script.join('\n'), 'sh', ...args], {
				env: {
					...process.env,
					PATH: `${bin}:${process.env.PATH}`,
					YPHOS_CONTENT: state,
					YPHOS_DELIVERY: own,
					YPHOS_ROOT: root,
					YPHOS_FETCH: fetched,
					YPHOS_ON_AIR: join(top, 'on-air/now.m3u8'),
					YPHOS_NEAR: join(own, 'near'),
					YPHOS_BIN: bin
				}
			});
			let said = '';
			child.stdout.on('data', (piece) => (said += piece));
			child.stderr.on('data', (piece) => (said += piece));
			child.on('close', (code) => done({ code: code ?? -1, said }));
		});
	const renew = () => sh(RENEW);
	const turn = (...args: string[]) => sh(SWITCH_SET, ...args);
	const shown = (): string => readFileSync(join(state, 'now/notices/index.html'), 'utf8').trim();

	it('shows what the card brought, then a set that is fetched, and the one before when asked', async () => {
		await turn('check');
		expect(shown()).toBe('<p>one</p>');
		offer(cardSet('two'), 100);
		expect(await renew()).toEqual({ code: 0, said: '' });
		expect(shown()).toBe('<p>one</p>');
		expect(await turn()).toEqual({ code: 0, said: 'the new set is shown\n' });
		expect(shown()).toBe('<p>two</p>');
		// What the endpoint had already came from nowhere else.
		expect(asked.filter((url) => url.startsWith('/files/'))).toHaveLength(2);
		expect(readFileSync(join(state, 'now/playlist.m3u8'), 'utf8')).toBe(
			'#EXTM3U\n/var/lib/yphos-content/now/media/a b.png\n'
		);
		expect(readFileSync(join(state, 'now/media/a b.png'))).toEqual(Buffer.from([1, 2, 3]));
		await turn('back');
		expect(shown()).toBe('<p>one</p>');
		await turn('back');
		expect(shown()).toBe('<p>two</p>');
	});

	it('asks for nothing when the set is what is shown, and keeps no more than two', async () => {
		await turn('check');
		for (const [number, word] of [
			[100, 'two'],
			[101, 'three'],
			[102, 'four']
		] as const) {
			offer(cardSet(word), number);
			await renew();
			await turn();
			expect(shown()).toBe(`<p>${word}</p>`);
		}
		expect(readdirSync(join(state, 'sets')).sort()).toEqual(['0-101', '0-102']);
		expect(readdirSync(fetched)).toEqual([]);
		expect(readdirSync(join(state, 'files'))).toHaveLength(4);
		asked = [];
		offer(cardSet('four'), 103);
		expect(await renew()).toEqual({ code: 0, said: '' });
		expect(asked).toEqual(['/manifest.txt', '/manifest.txt.sig']);
	});

	it.each<[string, (text: string) => string, RegExp]>([
		['another endpoint\u2019s', (text) => text.replace('for hatch', 'for lamp'), /is for another endpoint/],
		['cut off', (text) => text.slice(0, -5), /not whole/],
		['without a number', (text) => text.replace(/number .*\n/, ''), /not whole/],
		['of another kind', (text) => text.replace('yphos-content 1', 'yphos-content 2'), /kind that is not known/],
		[
			'that climbs out',
			(text) => text.replace('notices/index.html', 'notices/../../x'),
			/names a file that climbs out/
		],
		['that brings a unit', (text) => text.replace('notices/index.html', 'etc/x.service'), /is no content/],
		['with a command for a digest', (text) => text.replace(/file [0-9a-f]{4}/, 'file $(x)'), /no digest/],
		['for other units', (text) => text.replace(/needs [0-9a-f]{4}/, 'needs 0000'), /needs another \/etc\/systemd/],
		[
			'that needs a device',
			(text) => text.replace(/needs (\S+) 0 .*/, 'needs $1 0 /dev/zero'),
			/what no card set brings/
		],
		['with a number without end', (text) => text.replace(/number .*/, `number ${'9'.repeat(30)}`), /gives no number/],
		['with a size without end', (text) => text.replace(/(file \S+) \d+/, `$1 ${'9'.repeat(12)}`), /no size/],
		[
			'of a file that is not so large',
			(text) => text.replace(/(file \S+) \d+/, '$1 999999999'),
			/is not what the manifest says/
		],
		['with a word more', (text) => `also this\n${text}`, /says what is not known here/]
	])('refuses a set %s, signed as it may be', async (_, edit, says) => {
		await turn('check');
		offer(cardSet('two'), 100, edit);
		const { code, said } = await renew();
		expect([code, said]).toEqual([1, expect.stringMatching(says)]);
		expect(said).toContain('what is shown stays');
		await turn();
		expect(shown()).toBe('<p>one</p>');
	});

	it('refuses what is not signed with its key: changed afterwards, signed by another, or not at all', async () => {
		await turn('check');
		offer(cardSet('two'), 100);
		const manifest = readFileSync(join(site, 'manifest.txt'), 'utf8');
		put(join(site, 'manifest.txt'), manifest.replace('number 100', 'number 101'));
		expect((await renew()).said).toContain('not signed with your key');
		const other = generateKeyPairSync('ec', { namedCurve: 'P-256' });
		put(join(site, 'manifest.txt.sig'), createSign('SHA256').update(manifest).sign(other.privateKey));
		put(join(site, 'manifest.txt'), manifest);
		expect((await renew()).said).toContain('not signed with your key');
		rmSync(join(site, 'manifest.txt.sig'));
		expect((await renew()).said).toContain('has no signature');
		expect(readdirSync(fetched)).toEqual([]);
	});

	it('broken off half-way changes nothing, and goes on from there', async () => {
		await turn('check');
		offer(cardSet('two'), 100);
		patience = 1;
		expect((await renew()).said).toMatch(/could not be fetched; what is shown stays/);
		await turn();
		expect(shown()).toBe('<p>one</p>');
		[asked, patience] = [[], Infinity];
		expect((await renew()).code).toBe(0);
		expect(asked.filter((url) => url.startsWith('/files/'))).toHaveLength(1);
		await turn();
		expect(shown()).toBe('<p>two</p>');
	});

	it('takes back a set under which the player does not come to life, and never tries it again', async () => {
		await turn('check');
		offer(cardSet('dead'), 100);
		await renew();
		expect(await turn()).toEqual({ code: 1, said: expect.stringContaining('the one before is shown again') });
		expect(shown()).toBe('<p>one</p>');
		expect((await renew()).said).toMatch(/set 100 is not newer than set 100/);
		offer(cardSet('two'), 101);
		await renew();
		await turn();
		expect(shown()).toBe('<p>two</p>');
	});

	it('finds at the next start that the power went while it tried, or that what was shown is torn', async () => {
		await turn('check');
		offer(cardSet('dead'), 100);
		await renew();
		// The power goes right after the change.
		program('systemctl', 'case $1 in try-restart) kill -9 $PPID ;; esac');
		await turn();
		expect(shown()).toBe('<p>dead</p>');
		program('systemctl', ':');
		await turn('check');
		await turn();
		expect(shown()).toBe('<p>one</p>');
		offer(cardSet('two'), 101);
		await renew();
		await turn();
		offer(cardSet('three'), 102);
		await renew();
		await turn();
		writeFileSync(join(readlinkSync(join(state, 'now')), 'notices/index.html'), '');
		expect((await turn('check')).said).toContain('not whole');
		expect(shown()).toBe('<p>two</p>');
	});

	it('is not shown when a file of it was lost between fetching and showing, and is fetched again', async () => {
		await turn('check');
		offer(cardSet('two'), 100);
		await renew();
		rmSync(
			join(
				fetched,
				readdirSync(fetched).find((name) => name.length === 64)!
			)
		);
		expect(await turn()).toEqual({
			code: 1,
			said: expect.stringMatching(/has not come whole; what is shown stays/) as string
		});
		expect(shown()).toBe('<p>one</p>');
		await renew();
		await turn();
		expect(shown()).toBe('<p>two</p>');
	});

	it('is not shown when there is no room for it, and is once there is', async () => {
		await turn('check');
		offer(cardSet('two'), 100);
		program('ln', 'case $1 in -*) exec /bin/ln "$@" ;; *) echo "No space left on device" >&2; exit 1 ;; esac');
		await renew();
		expect((await turn()).said).toContain('could not be put in its place; what is shown stays');
		expect(readdirSync(join(state, 'sets'))).toEqual([]);
		rmSync(join(bin, 'ln'));
		await renew();
		await turn();
		expect(shown()).toBe('<p>two</p>');
	});

	/** Every one with DAMAGES=all. */
	const STRIDE = process.env.DAMAGES === 'all' ? 1 : 7;
	it('cut at any command, shows the old set or the new one, whole, and tells the truth about which', async () => {
		// The power goes at the so-manieth thing that is done to the disk or the player.
		for (const dead of [false, true])
			for (let most = 1 + (new Date().getUTCDate() % STRIDE); most < 60; most += STRIDE) {
				for (const folder of [state, fetched]) rmSync(folder, { recursive: true, force: true });
				for (const folder of [state, fetched]) mkdirSync(folder);
				program('systemctl', `case $1 in show) echo 0 ;; esac`);
				await turn('check');
				offer(cardSet(dead ? 'dead' : 'two'), 100);
				await renew();
				rmSync(join(top, 'n'), { force: true });
				const cutting = (tool: string): void =>
					program(
						tool,
						`echo x >>${top}/n; [ "$(wc -l <${top}/n)" -lt ${most} ] || { touch ${top}/cut; kill -9 $PPID; exit 1; }\nexec /bin/${tool} "$@"`
					);
				for (const tool of ['mv', 'ln', 'rm', 'sync', 'mkdir']) cutting(tool);
				rmSync(join(top, 'cut'), { force: true });
				await turn();
				for (const tool of ['mv', 'ln', 'rm', 'sync', 'mkdir']) rmSync(join(bin, tool));
				const isCut = existsSync(join(top, 'cut'));
				// The next start: the player begins with what is there, and the set is looked for once more.
				await turn('check');
				expect(['<p>one</p>', '<p>two</p>', '<p>dead</p>'], `${most}`).toContain(shown());
				await turn();
				await renew();
				const last = await turn();
				expect(shown(), `${dead} ${most} ${last.said}`).toBe(dead ? '<p>one</p>' : '<p>two</p>');
				expect(existsSync(join(state, 'trying'))).toBe(false);
				if (!isCut) break;
				expect(most).toBeLessThan(59);
			}
	}, 300_000);

	it('goes back to the one before only where there is one, and a set that failed is none', async () => {
		await turn('check');
		expect(await turn('back')).toEqual({ code: 1, said: expect.stringContaining('no set before this one') as string });
		offer(cardSet('two'), 100);
		await renew();
		await turn();
		offer(cardSet('dead'), 101);
		await renew();
		await turn();
		expect(shown()).toBe('<p>two</p>');
		await turn('back');
		expect(shown()).toBe('<p>one</p>');
	});

	it('goes not back while a newer set is on trial, and is not turned over while somebody goes back', async () => {
		await turn('check');
		offer(cardSet('two'), 100);
		await renew();
		await turn();
		const trial = spawn('flock', [join(state, 'turn'), 'cat'], { stdio: ['pipe', 'pipe', 'ignore'] });
		trial.stdin.write('under way\n');
		await once(trial.stdout, 'data');
		expect(await turn('back')).toEqual({ code: 1, said: expect.stringContaining('another set is on trial') as string });
		expect(shown()).toBe('<p>two</p>');
		offer(cardSet('three'), 101);
		await renew();
		const waiting = turn();
		trial.stdin.end();
		expect(await waiting).toEqual({ code: 0, said: 'the new set is shown\n' });
		await turn('back');
		expect(shown()).toBe('<p>two</p>');
	});

	it.each([
		['begun anew, as the player left by itself', 'list-b', 1, 'something else is on', '<p>two</p>'],
		['begun anew by the rules', 'list-b', -2, '', '<p>two</p>'],
		['stopped, for nothing is on', '', 0, '', '<p>two</p>'],
		['begun anew by nobody', 'list-a', 1, '', '<p>one</p>'],
		['begun anew oftener than the rules wanted', 'list-a', 2, 'something else is on', '<p>one</p>']
	])('while it is on trial, a player is %s', async (_, on, restarts, left, stands) => {
		await turn('check');
		rmSync(join(own, 'shows-pages'), { force: true });
		put(join(top, 'on-air/now.m3u8'), 'list-a\n');
		put(join(top, 'restarts'), '2');
		// While it is waited for the first time, a rule changes.
		program(
			'sleep',
			`[ -e ${top}/slept ] && exit; touch ${top}/slept; echo '${on}' >${top}/on-air/now.m3u8; echo ${2 + restarts} >${top}/restarts`
		);
		program(
			'systemctl',
			`case $1 in show) cat ${top}/restarts ;; is-active) [ ! -e ${top}/slept ] || [ '${on}' ] ;; esac`
		);
		program('journalctl', `[ ! -e ${top}/slept ] || [ -z '${left}' ] || echo '[finish] ${left}'`);
		offer(cardSet('two'), 100);
		await renew();
		await turn();
		expect(shown()).toBe(stands);
	});

	it('takes sets of a new era after one that was packed under a wrong clock, and none of the old era again', async () => {
		await turn('check');
		offer(cardSet('from the future'), 4_102_444_800);
		await renew();
		await turn();
		offer(cardSet('two'), 1_800_000_000);
		expect((await renew()).said).toContain('is not newer than set 4102444800');
		offer(cardSet('two'), 1_800_000_000, undefined, 1);
		expect((await renew()).code).toBe(0);
		await turn();
		expect(shown()).toBe('<p>two</p>');
		// Whoever serves it may put the old one up again: it is signed, and passed over.
		offer(cardSet('from the future'), 4_102_444_800);
		expect((await renew()).said).toContain('is not newer than');
		expect(shown()).toBe('<p>two</p>');
	});

	it('is taken on trust while nothing plays, and what was copied by hand stays with it', async () => {
		await turn('check');
		put(join(root, 'opt/yphos/media/by hand.mp4'), 'film');
		put(join(top, 'silent'), '');
		offer(cardSet('two'), 100);
		await renew();
		expect((await turn()).said).toContain('taken on trust');
		expect(readFileSync(join(state, 'now/media/by hand.mp4'), 'utf8')).toBe('film');
	});

	it('is fetched from a folder as from an address', async () => {
		await turn('check');
		put(join(own, 'from'), `${site}\n`);
		offer(cardSet('two'), 100);
		expect(await renew()).toEqual({ code: 0, said: '' });
		await turn();
		expect(shown()).toBe('<p>two</p>');
		expect(asked).toEqual([]);
	});

	it('openssl itself reads the key and the signature', () => {
		offer(cardSet('two'), 100);
		const args = ['dgst', '-sha256', '-verify', join(own, 'key.pem'), '-signature'];
		const out = execFileSync('openssl', [...args, join(site, 'manifest.txt.sig'), join(site, 'manifest.txt')]);
		expect(out.toString()).toBe('Verified OK\n');
	});
});

describe('findings of the delivery', () => {
	const find = (own: Partial<DeliverySettings>, more: Partial<Plan> = {}) => {
		const { plan: before } = demoWorkshop.endpoints.find(({ id }) => id === ID)!;
		const plan: Plan = {
			...before,
			...more,
			delivery: { used: true, from: FROM, times: ['12:00'], publicKey: KEY, era: 0, ...own }
		};
		const context = contextFor(chain, demoWorkshop, ID);
		const ours = (of: Plan) => assess(judges, of, context).findings.filter(({ link }) => link === 'delivery');
		return { plan, found: ours(plan), after: (fix: Plan) => ours(fix).map(({ id }) => id) };
	};

	it('finds nothing wrong with a signed set by https', () => {
		expect(find({}).found).toEqual([]);
	});

	it.each<[string, Partial<DeliverySettings>, string]>([
		['no place', { from: '' }, 'delivery.from-nowhere'],
		['a folder that is not mounted', { from: '/srv/nowhere' }, 'delivery.not-mounted'],
		['a time twice', { times: ['12:00', '12:00'] }, 'delivery.twice']
	])('of %s, and each fix ends it', (_, own, id) => {
		const { plan, found, after } = find(own);
		const finding = found.find((known) => known.id === id)!;
		expect(finding.fixes.length).toBeGreaterThan(0);
		for (const fix of finding.fixes) expect(after(fix.apply(plan))).not.toContain(id);
	});

	it('asks for a key on an open way, for with one the way does not matter', () => {
		const { found } = find({ from: 'http://files.example/x', publicKey: '' });
		const finding = found.find(({ id }) => id === 'delivery.anyone')!;
		expect([finding.level, finding.setting, finding.fixes]).toEqual(['caution', 'delivery.publicKey', []]);
		expect(find({ from: 'http://files.example/x' }).found.map(({ id }) => id)).not.toContain('delivery.anyone');
	});

	it.each(['ftp://x/y', 'https://x y/z', '/srv/$(id)', 'https://x/?q', '/srv/a b', 'relative'])(
		'takes no %s',
		(from) => {
			expect(deliverySettings.shape.from.safeParse(from).success).toBe(false);
		}
	);
});
