import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../../../demo/workshop';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { writers } from '../../../writers';
import { rehearsed } from '../../../rehearsals';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree, type Bench } from '../../../engines/machine';
import { rehearse, type PlannedFault } from '../../../engines/rehearse';
import { runSheet } from '../../../engines/runSheet';
import { inWords } from '../../../engines/say';
import { speaking } from '../../../speaking';
import { write } from '../../../engines/write';
import type { Secrets } from '../../../secrets';
import type { Plan } from '../../../plan/plan';
import type { Workshop } from '../../../plan/workshop';
import { readListing } from './storeListing';
import { TRY_WRITE } from './tryWrite';
import { newStore, storeOf, storeSchema, type Store } from './stores';

const SHARE: Store = {
	id: 'a',
	name: 'music',
	kind: 'smb',
	server: 'files.local',
	share: 'media',
	user: 'box',
	version: 'auto',
	access: 'read'
};
const NFS: Store = {
	id: 'b',
	name: 'films',
	kind: 'nfs',
	server: '192.168.40.5',
	share: '/export/films',
	version: '4.2',
	access: 'read'
};
const STICK: Store = { id: 'c', name: 'stick', kind: 'stick', label: 'TIDE-1', fileSystem: 'exfat' };
const FILE: Workshop['media'][number] = {
	...demoWorkshop.media.find(({ location }) => location === 'Night ferry.wav')!,
	kept: 'person'
};
const places = ['/srv/music/Slow tide.wav', '/srv/films/Slow tide.wav', '/srv/stick/Slow tide.wav'];
const workshop: Workshop = {
	...demoWorkshop,
	media: [...demoWorkshop.media, ...places.map((location) => ({ ...FILE, location }))]
};
const ID = 'bunkhouse-lounge';
const lounge = workshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(chain, workshop, ID);
const entry = (location: string, n = 0) => ({
	id: `e${n}`,
	location,
	title: `Entry ${n}`,
	durationSec: null,
	extra: [],
	part: null
});
const planWith = (stores: Store[], locations: string[], change: Partial<Plan['sources']> = {}): Plan => ({
	...lounge,
	programme: { ...lounge.programme, quiet: [] },
	sources: { ...lounge.sources, items: locations.map(entry), stores, waitForNetwork: true, ...change }
});
const secrets: Secrets = { sharePasswords: { music: 'salt & vinegar' } };
const textOf = (plan: Plan, end: string, given: Secrets = secrets): string => {
	const file = write(writers, plan, context, given).find(({ path }) => path.endsWith(end));
	return file && 'lines' in file ? file.lines.map(({ text }) => text).join('\n') : '';
};
const idsOf = (plan: Plan): string[] => assess(judges, plan, context).findings.map(({ id }) => id);
function run(
	plan: Plan,
	{
		faults = [],
		bench = {},
		given = secrets,
		forMs = 240_000
	}: { faults?: PlannedFault[]; bench?: Partial<Bench>; given?: Secrets; forMs?: number } = {}
) {
	const result = rehearse({
		links: rehearsed,
		card: cardTree(write(writers, plan, context, given)),
		bench: { ...benchFor(writers, plan, context), ...bench },
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs,
		faults
	});
	const ear = result.tracks.find(({ id }) => id === 'ear')!;
	return {
		heard: ear.marks.map(({ data }) => (data as { title: string }).title),
		texts: inWords(speaking, result.events)
			.map(({ text }) => text)
			.join('\n'),
		words: result.words.join('\n'),
		lastState: ear.spans.at(-1)?.state
	};
}

describe('a share on the card', () => {
	const plan = planWith([SHARE, NFS, STICK], places);
	it('is mounted read-only, when somebody looks into it, by units of its own name', () => {
		expect(textOf(plan, 'srv-music.mount')).toContain('What=//files.local/media');
		expect(textOf(plan, 'srv-music.mount')).toContain('Options=ro,credentials=/etc/yphos/music.credentials,');
		expect(textOf(plan, 'srv-music.mount')).toContain('StartLimitIntervalSec=0');
		expect(textOf(plan, 'srv-music.automount')).toContain('Where=/srv/music');
		expect(textOf(plan, 'srv-films.mount')).toContain('Options=ro,soft,timeo=100,retrans=2,_netdev,nfsvers=4.2');
		expect(textOf(plan, 'srv-films.mount')).toContain('What=192.168.40.5:/export/films');
		expect(textOf(plan, 'srv-stick.mount')).toContain('What=/dev/disk/by-label/TIDE-1');
		expect(textOf(plan, 'srv-stick.mount')).toContain('WantedBy=dev-disk-by\\x2dlabel-TIDE\\x2d1.device');
		expect(textOf(plan, 'srv-stick.automount')).toBe('');
	});
	it('has its password in a file that only root reads, and nowhere else', () => {
		const files = write(writers, plan, context, secrets);
		const holding = files.filter(
			(file) => 'lines' in file && file.lines.some(({ text }) => text.includes('salt & vinegar'))
		);
		expect(holding.map(({ path, mode }) => [path.split('/').at(-1), mode])).toEqual([['music.credentials', '0600']]);
		expect(
			holding[0] &&
				'lines' in holding[0] &&
				holding[0].lines.every(({ text, secret }) => secret === text.includes('salt') || !text.includes('salt'))
		).toBe(true);
		expect(JSON.stringify(plan)).not.toContain('vinegar');
		expect(textOf(planWith([{ ...SHARE, user: '' }], places), 'srv-music.mount')).toContain('Options=ro,guest,');
	});
	it('asks for the packages that mount it, and for names of the network itself', () => {
		const apply = textOf(plan, 'apply.sh');
		for (const name of ['cifs-utils', 'nfs-common', 'libnss-mdns']) expect(apply).toContain(`package ${name}`);
		expect(textOf(planWith([STICK], places), 'apply.sh')).not.toMatch(/cifs-utils|nfs-common|libnss-mdns/);
	});
	it('is listed from a computer first, and looked into on the endpoint', () => {
		const steps = runSheet(writers, plan, context).flatMap(({ steps: some }) => some);
		const command = (end: string): string | undefined => steps.find(({ id }) => id.endsWith(end))?.command;
		expect(command('share-listed')).toBe('smbclient -L //files.local -U "box"');
		expect(command('share-listed-films')).toBe('showmount -e 192.168.40.5');
		expect(command('store-read')).toBe('ls /srv/music');
	});
	it.each<[string, Store]>([
		['an option in a share', { ...SHARE, share: 'media,exec' }],
		['a specifier of units', { ...NFS, share: '/export/%i' }],
		['an option for a server', { ...SHARE, server: '-oexec' }],
		['a line break in a user', { ...SHARE, user: 'a\nb' }],
		['a comma in a user', { ...SHARE, user: 'a,b' }],
		['a way out of its folder', { ...SHARE, name: '../etc' }],
		['a path for a label', { ...STICK, label: '../sda1' }]
	])('%s is not let in', (_, store) => expect(storeSchema.safeParse(store).success).toBe(false));
	it('what is let in makes one line each, and a unit that mounts what it says', () => {
		const text = fc.string({ maxLength: 40 });
		fc.assert(
			fc.property(text, text, text, (server, share, user) => {
				const store = { ...SHARE, server, share, user };
				if (!storeSchema.safeParse(store).success) return;
				const unit = textOf(planWith([store], places), 'srv-music.mount').split('\n');
				expect(unit.filter((line) => line.startsWith('What='))).toEqual([`What=//${server}/${share}`]);
				expect(unit.find((line) => line.startsWith('Options='))?.split(',')).toHaveLength(7);
			})
		);
	});
});

describe('a share in the rehearsal', () => {
	const plan = planWith([SHARE], [places[0]!, 'http://radio.skerrin.example:8000/harbour']);
	it('is heard once it can be reached', () => {
		const { heard, words } = run(planWith([SHARE], [places[0]!]));
		expect(heard).toContain('Entry 0');
		expect(words).toContain('the password of the share is the right one');
	});
	it.each<[string, Partial<Parameters<typeof run>[1] & object>, RegExp]>([
		['a wrong password', { faults: [{ name: 'share-password', atMs: 0, lastsMs: 900_000 }] }, /mount error\(13\)/],
		['no password at all', { given: {} }, /mount error\(13\)/],
		[
			'a server that sleeps',
			{ faults: [{ name: 'server-asleep', atMs: 0, lastsMs: 900_000 }] },
			/files\.local does not answer/
		],
		[
			'a name that leads nowhere',
			{ faults: [{ name: 'server-unnamed', atMs: 0, lastsMs: 900_000 }] },
			/could not resolve address for files\.local/
		],
		['a share that is not there', { bench: { stores: [] } }, /mount error\(2\)/],
		[
			'another user than the server knows',
			{ bench: { stores: [{ what: '//files.local/media', type: 'cifs', user: 'other' }] } },
			/mount error\(13\)/
		]
	])('%s is told, and the next entry plays', (_, how, said) => {
		const { texts, heard } = run(plan, how);
		expect(texts).toMatch(said);
		expect(heard).toEqual(['Entry 1']);
	});
	it('a server that wakes is heard afterwards', () => {
		const { heard } = run(planWith([SHARE], [places[0]!]), {
			faults: [{ name: 'server-asleep', atMs: 0, lastsMs: 90_000 }],
			forMs: 400_000
		});
		expect(heard).toContain('Entry 0');
	});
	it('a package that was forgotten is missed', () => {
		const files = write(writers, plan, context, secrets).map((file) =>
			file.path.endsWith('apply.sh') && 'lines' in file
				? { ...file, lines: file.lines.filter(({ text }) => !text.includes('cifs-utils')) }
				: file
		);
		const result = rehearse({
			links: rehearsed,
			card: cardTree(files),
			bench: benchFor(writers, plan, context),
			startUtcMs: Date.UTC(2026, 10, 26, 9),
			forMs: 120_000,
			faults: []
		});
		expect(
			inWords(speaking, result.events)
				.map(({ text }) => text)
				.join()
		).toContain('cifs-utils');
	});
	it('a stick plays, is missed when it is pulled, and plays again', () => {
		const { heard, texts } = run(planWith([STICK], [places[2]!, 'Night ferry.wav']), {
			faults: [{ name: 'stick-out', atMs: 60_000, lastsMs: 30_000 }]
		});
		expect(heard).toContain('Entry 0');
		expect(texts).toContain('The stick is pulled out');
		expect(texts).toContain('nothing is mounted there');
		const wrong = run(planWith([STICK], [places[2]!]), {
			bench: { stores: [{ what: '/dev/disk/by-label/TIDE-1', type: 'vfat', user: null }] }
		});
		expect(wrong.heard).toEqual([]);
		expect(wrong.texts).toContain('wrong fs type');
	});
});

describe('a share that is written to', () => {
	const WRITTEN: Store = { ...SHARE, access: 'write' };
	const plan = planWith([WRITTEN], [places[0]!]);
	const forMs = 1_800_000;
	const damaged = (from: string, to: string): string => {
		const result = rehearse({
			links: rehearsed,
			card: cardTree(
				write(writers, plan, context, secrets).map((file) =>
					'lines' in file
						? {
								...file,
								lines: file.lines.map((line) => ({
									...line,
									text: line.text.replace(from, to).replace('|| [[ $(sha256sum', '|| false && [[ $(sha256sum')
								}))
							}
						: file
				)
			),
			bench: benchFor(writers, plan, context),
			startUtcMs: Date.UTC(2026, 10, 26, 9),
			forMs,
			faults: []
		});
		return inWords(speaking, result.events)
			.map(({ text }) => text)
			.join('\n');
	};
	it('is mounted so, with modes that let services in, and tried at each start', () => {
		expect(textOf(plan, 'srv-music.mount')).toContain('Options=rw,');
		expect(textOf(plan, 'srv-music.mount')).toContain('file_mode=0666,dir_mode=0777');
		expect(textOf(plan, 'yphos-try-music.service')).toContain('ReadWritePaths=-/srv/music');
		expect(textOf(planWith([SHARE], [places[0]!]), 'yphos-try-music.service')).toBe('');
		const { texts, words } = run(plan, { forMs });
		expect(texts).not.toContain('cannot be written');
		expect(words).toContain('the file server lets the endpoint write');
	});
	it.each([
		['share-read-only', '/srv/music/.yphos-1000: Permission denied'],
		['share-full', 'No space left on device']
	])('%s is told at the start', (name, said) => {
		const { texts, heard } = run(plan, { faults: [{ name, atMs: 0, lastsMs: 900_000 }], forMs });
		expect(texts).toContain('/srv/music cannot be written');
		expect(texts).toContain(said);
		// What only reads is none the worse for it.
		expect(heard).toContain('Entry 0');
	});
	it.each([
		['a mode that was left out', ',dir_mode=0777', '', 'Permission denied'],
		['read-only by mistake', 'Options=rw', 'Options=ro', 'Read-only file system']
	])('%s is told', (_, from, to, said) => {
		const texts = damaged(from, to);
		expect(texts).toContain('/srv/music cannot be written');
		expect(texts).toContain(said);
	});
	it('is tried by the run sheet too', () => {
		const steps = runSheet(writers, plan, context).flatMap(({ steps: some }) => some);
		expect(steps.find(({ id }) => id.endsWith('store-written'))?.command).toBe(
			'sudo systemctl restart yphos-try-music.service'
		);
	});
	it('its script, in a real shell, on folders that can be written, cannot, and are full', () => {
		const folder = mkdtempSync(join(tmpdir(), 'yphos-write-'));
		const attempt = (where: string, before = '') =>
			spawnSync('sh', ['-c', `${before}${TRY_WRITE.join('\n')}`, 'try-write.sh', where], { encoding: 'utf8' });
		expect(attempt(folder)).toMatchObject({ status: 0, stderr: '' });
		expect(readdirSync(folder)).toEqual([]);
		expect(attempt(`${folder}/none`)).toMatchObject({
			status: 1,
			stderr: expect.stringContaining('cannot be written')
		});
		// A file may not grow any more: as far as the program can tell, the disk is full.
		expect(attempt(folder, 'trap "" XFSZ; ulimit -f 0\n')).toMatchObject({ status: 1 });
		rmSync(folder, { recursive: true });
	});
});

describe('findings of shares', () => {
	it.each<[string, Plan, Plan]>([
		[
			'sources.share-offline',
			{ ...planWith([SHARE], [places[0]!]), network: { ...lounge.network, way: 'none' } },
			planWith([SHARE], [places[0]!])
		],
		[
			'sources.share-early',
			planWith([SHARE], [places[0]!], { waitForNetwork: false }),
			planWith([SHARE], ['Night ferry.wav', places[0]!], { waitForNetwork: false })
		],
		['sources.share-password-music', planWith([SHARE], [places[0]!]), planWith([{ ...SHARE, user: '' }], [places[0]!])],
		['sources.store-unused-films', planWith([NFS], ['Night ferry.wav']), planWith([NFS], [places[1]!])],
		['sources.stick-alone', planWith([STICK], [places[2]!]), planWith([STICK], [places[2]!, 'Night ferry.wav'])],
		[
			'sources.share-written-music',
			planWith([{ ...SHARE, access: 'write' }], [places[0]!]),
			planWith([SHARE], [places[0]!])
		],
		['sources.elsewhere', planWith([], [places[0]!]), planWith([SHARE], [places[0]!])]
	])('%s comes and goes, and its fixes cure it', (id, bad, good) => {
		const found = assess(judges, bad, context).findings.find((finding) => finding.id === id);
		expect(found).toBeDefined();
		expect(idsOf(good)).not.toContain(id);
		for (const fix of found!.fixes) expect(idsOf(fix.apply(structuredClone(bad))), fix.label).not.toContain(id);
	});
	it('folders do not meet', () => {
		expect(newStore('smb', 'x', [SHARE]).name).toBe('music-2');
		expect(storeOf([SHARE], '/srv/musical/x.wav')).toBeUndefined();
		const two = { ...lounge.sources, stores: [SHARE, { ...NFS, name: 'music' }] };
		expect(chain.find(({ id }) => id === 'sources')!.settings.safeParse(two).success).toBe(false);
	});
});

describe('what a server says that it has', () => {
	// As smbclient 4.17 printed it.
	const TABLE =
		'\n\tSharename       Type      Comment\n\t---------       ----      -------\n\tmedia           Disk      Films and music of the house\n\tphoto archive   Disk      \n\tIPC$            IPC       IPC Service (files)\nSMB1 disabled -- no workgroup available\n';
	it.each([
		['smbclient -L', TABLE, ['media', 'photo archive']],
		['the same from Windows\u2019 line ends', TABLE.replaceAll('\n', '\r\n'), ['media', 'photo archive']],
		[
			'smbclient -L with a long name',
			TABLE.replace('photo archive   Disk', 'a name that is longer than its column Disk'),
			['media', 'a name that is longer than its column']
		],
		['smbclient -g -L', 'Disk|media|Films | music\nIPC|IPC$|IPC Service\nSMB1 disabled\n', ['media']],
		[
			'showmount -e',
			'Export list for files.local:\n/export/films 192.168.40.0/24\n/export       *\n',
			['/export/films', '/export']
		],
		[
			'mount',
			'proc on /proc type proc (rw)\n//files.local/media on /srv/music type cifs (ro,relatime,vers=3.1.1)\n',
			['//files.local/media']
		]
	])('by %s', (_, text, names) => {
		const read = readListing(text);
		expect(read.ok && read.value.shares.map(({ name }) => name)).toEqual(names);
	});
	it.each([
		['session setup failed: NT_STATUS_LOGON_FAILURE', 'user or password'],
		['do_connect: Connection to 127.0.0.1 failed (Error NT_STATUS_CONNECTION_REFUSED)', 'No server answers'],
		['tree connect failed: NT_STATUS_BAD_NETWORK_NAME', 'no share of that name'],
		['clnt_create: RPC: Program not registered', 'NFS 4'],
		['', 'no list of shares'],
		['hello', 'no list of shares'],
		['x'.repeat(200_001), 'far longer']
	])('%s is explained', (text, words) => {
		const read = readListing(text);
		expect(read.ok).toBe(false);
		if (!read.ok) expect(read.faults[0]!.message).toContain(words);
	});
	it('ten thousand damaged ones end, and throw nothing', () => {
		fc.assert(
			fc.property(
				fc.array(fc.nat({ max: TABLE.length - 1 }), { maxLength: 8 }),
				fc.string({ maxLength: 6 }),
				(places, put) => {
					let text = TABLE;
					for (const at of places) text = text.slice(0, at) + put + text.slice(at + 1);
					expect(typeof readListing(text).ok).toBe('boolean');
				}
			),
			{ numRuns: 10_000 }
		);
	});
});
