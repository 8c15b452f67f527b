import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
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
import { applySeed, cardTree, Disk, type Bench } from '../../engines/machine';
import { readUserData } from '../../formats/seed/userData';
import { rehearse } from '../../engines/rehearse';
import { inWords } from '../../engines/say';
import { speaking } from '../../speaking';
import { runSheet } from '../../engines/runSheet';
import { write } from '../../engines/write';
import { sha512crypt } from '../../formats/crypt/sha512crypt';
import type { Secrets } from '../../secrets';
import type { Plan } from '../../plan/plan';
import { computeRadio, computeWire } from './capacity';
import type { Visitor } from './bench';
import { needsPassword } from './login';
import { logInAtScreen } from './knock';
import { pathOverDay } from './need';

const lounge = demoWorkshop.endpoints[0]!;
const over = (plan: Plan, isQuietAt: (hour: number) => boolean) => {
	const here = derive(chain, plan, context);
	return pathOverDay(plan.network, here.context, here.claims, isQuietAt)!;
};
const context = contextFor(chain, demoWorkshop, lounge.id);
const withNetwork = (change: Partial<Plan['network']>): Plan => ({
	...lounge.plan,
	network: { ...lounge.plan.network, ...change }
});
const found = (change: Partial<Plan['network']>) =>
	assess(judges, withNetwork(change), context).findings.filter(({ link }) => link === 'network');
const ids = (change: Partial<Plan['network']>) => found(change).map(({ id }) => id.replace('network.', ''));
const textOf = (plan: Plan, path: string, secrets: Secrets = {}): string => {
	const file = write(writers, plan, context, secrets).find((known) => known.path.endsWith(path));
	return file && 'lines' in file ? cardText(file) : '';
};
const at = (ip: string, kind: 'fixed' | 'reserved' = 'fixed') => ({ address: { kind, ip } });

describe('findings of the network', () => {
	it.each([
		['address-outside', at('10.0.0.9')],
		['address-no-host', at('192.168.40.255')],
		['address-gateway', at('192.168.40.1')],
		['address-in-pool', at('192.168.40.150')],
		['same-address', at('192.168.40.120')],
		['no-address', at('')],
		['no-key', { login: 'key' as const, sshKeys: [] }],
		['no-user', { user: '' }],
		['default-user', { user: 'admin' }],
		['exposed', { guard: { limited: true, ranges: [], exposed: true } }],
		['unguarded', { guard: { limited: false, ranges: [], exposed: false } }],
		['wide-range', { guard: { limited: true, ranges: ['8.0.0.0/8'], exposed: false } }],
		['open-page', { pages: [{ what: 'Player', port: 80, tls: false, password: false }] }],
		[
			'too-slow',
			{
				way: 'radio' as const,
				ssid: 'x',
				countryCode: 'FO',
				radio: { bandGhz: 2.4 as const, widthMhz: 20 as const, streams: 1 as const, signalDbm: -95, othersPercent: 40 }
			}
		]
	])('%s is found, and a fix takes it away', (id, change) => {
		expect(ids({})).not.toContain(id);
		expect(ids(change)).toContain(id);
		const fix = found(change).find((finding) => finding.id === `network.${id}`)!.fixes[0];
		if (!fix) return;
		const after = assess(judges, fix.apply(withNetwork(change)), context).findings.map((finding) => finding.id);
		expect(after).not.toContain(`network.${id}`);
	});
	it('a second screen by Wi-Fi answers late, by cable it does not', () => {
		const late = (way: 'wired' | 'radio'): boolean => {
			const plan = withNetwork({ way, ssid: 'x', countryCode: 'FO' });
			return assess(judges, { ...plan, brief: { ...plan.brief, kind: 'second-screen' } }, context).findings.some(
				({ id }) => id === 'network.late-answers'
			);
		};
		expect([late('wired'), late('radio')]).toEqual([false, true]);
	});
	it('a reserved address may lie in the pool', () =>
		expect(ids(at('192.168.40.150', 'reserved'))).not.toContain('address-in-pool'));
});

describe('what goes on the card', () => {
	it('tells the radio its country', () =>
		expect(textOf(withNetwork({ way: 'radio', ssid: 'x', countryCode: 'FO' }), 'yphos-country.conf')).toBe(
			'options cfg80211 ieee80211_regdom=FO\n'
		));
	it('names the keeper with the key, and takes no password', () => {
		const seed = textOf(lounge.plan, 'user-data');
		expect(seed).toContain('ssh_pwauth: false');
		expect(seed).toContain('lock_passwd: true');
		expect(seed).toMatch(/ssh_authorized_keys:\n {6}- "ssh-ed25519 AAAA/);
		expect(textOf(lounge.plan, 'sshd_config.d/yphos.conf')).toContain('PasswordAuthentication no');
	});
	it('holds a password only as the system keeps it, on a line that is never shown', () => {
		const crypt = sha512crypt('lantern keeps the night', 'saltsalt');
		if (!crypt.ok) throw new Error('no crypt');
		const plan = withNetwork({ login: 'password' });
		const files = write(writers, plan, context, { userPasswordCrypt: crypt.value });
		const lines = files.flatMap((file) =>
			'lines' in file ? file.lines.filter(({ text }) => text.includes('$6$')) : []
		);
		expect(lines).toEqual(
			[`    hashed_passwd: "${crypt.value}"`, `crypt='${crypt.value}'`].map((text) => ({
				text,
				setting: 'network.login',
				secret: true
			}))
		);
		expect(JSON.stringify(files.map((file) => ('lines' in file ? file.lines : 0)))).not.toContain('lantern');
	});
	it('makes a keeper with a password for its own screen where there is no network, whatever he used to log in by', () => {
		for (const login of ['password', 'key', 'none'] as const) {
			const plan = withNetwork({ way: 'none', login });
			const seed = textOf(plan, 'user-data');
			expect(seed).toContain('ssh_pwauth: false');
			expect(seed).toContain('lock_passwd: false');
			expect(seed).not.toContain('ssh_authorized_keys');
			expect(needsPassword(plan.network)).toBe(true);
		}
		const nobody = withNetwork({ way: 'none', user: '' });
		expect(textOf(nobody, 'user-data')).not.toContain('lock_passwd');
		expect(assess(judges, nobody, context).findings.map(({ id }) => id)).toContain('network.no-user');
	});
	it('lets the keeper in, by name and at the planned hour, also from an image that reads no seed', () => {
		for (const login of ['key', 'password'] as const) {
			const plan = withNetwork({ login });
			const card = cardTree(write(writers, plan, context, { userPasswordCrypt: '$6$saltsalt$x' }));
			const bench = { ...benchFor(writers, plan, context), readsSeed: false };
			const run = (tree: typeof card) =>
				rehearse({
					links: rehearsed,
					card: tree,
					bench,
					startUtcMs: Date.parse('2026-11-24T12:00:00Z'),
					forMs: 60_000
				});
			const words = (tree: typeof card) => run(tree).tracks.find(({ id }) => id === 'reach')?.verdict?.words;
			expect(words(card)).toContain(`as lounge.local; 192.168.40.254 logs in by ${login}`);
			expect(run(card).timeZone).toBe('Atlantic/Faroe');
			const without = new Map(card);
			without.delete('boot/yphos/setup.sh');
			expect(words(without)).toContain('finds no user to log in as');
			expect(run(without).timeZone).toBe('UTC');
		}
	});
	it('takes back the keys that an earlier set gave, of another keeper too, and none that somebody added by hand', () => {
		const top = mkdtempSync(join(tmpdir(), 'yphos-keys-'));
		const [one, two] = ['AAAA', 'BBBB'].map(
			(tail) => `ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAI${tail.padEnd(43, 'A').slice(0, 43)}`
		) as [string, string];
		const keysOf = (user: string): string => join(top, 'home', user, '.ssh/authorized_keys');
		const has = (user: string): string[] =>
			existsSync(keysOf(user)) ? readFileSync(keysOf(user), 'utf8').split('\n').filter(Boolean) : [];
		const apply = (change: Partial<Plan['network']>): number | null => {
			const text = textOf(withNetwork({ login: 'key', ...change }), 'setup.sh');
			const script = [
				...text.split('\n').filter((line) => /^(?:user|keys\+?)=/.test(line)),
				text.slice(text.indexOf('set -euo'), text.indexOf('# The line of the old name')),
				text.slice(text.indexOf('given='))
			]
				.join('\n')
				.replaceAll('/var/lib/', `${top}/`)
				.replaceAll('/home/', `${top}/home/`);
			return spawnSync('bash', ['-c', `chown() { :; }\n${script}`]).status;
		};
		expect(apply({ sshKeys: [one, two] })).toBe(10);
		expect(apply({ sshKeys: [one, two] })).toBe(0);
		writeFileSync(keysOf('keeper'), [...has('keeper'), 'by hand', ''].join('\n'));
		expect(apply({ sshKeys: [two] })).toBe(10);
		expect(has('keeper')).toEqual([two, 'by hand']);
		expect(apply({ sshKeys: [one], user: 'warden' })).toBe(10);
		expect([has('keeper'), has('warden')]).toEqual([['by hand'], [one]]);
		expect(apply({ login: 'password', sshKeys: [one], user: 'warden' })).toBe(10);
		expect(has('warden')).toEqual([]);
		rmSync(top, { recursive: true });
	});
	it('is seen to let the keeper in at its own screen, or not', () => {
		const seed = (text: string) => {
			const disk = new Disk();
			const read = readUserData(text);
			if (read.ok) applySeed(disk, read.value);
			return { disk };
		};
		const good = textOf(withNetwork({ way: 'none' }), 'user-data');
		expect(logInAtScreen(seed(good), 'keeper')).toEqual({ open: true, words: 'logs in at its screen' });
		expect(logInAtScreen(seed(good.replace('lock_passwd: false', 'lock_passwd: true')), 'keeper').open).toBe(false);
		expect(logInAtScreen(seed(good.replace(/users:[^]*?ssh_pw/, 'ssh_pw')), 'keeper').words).toContain('not known');
		expect(logInAtScreen(seed(good.replace(/\n.*sudo:.*/, '')), 'keeper').words).toContain('may change nothing');
	});
	it('takes a fixed address by a profile, with the router and its range', () => {
		const profile = textOf(withNetwork(at('192.168.40.9')), 'yphos-cable.nmconnection');
		expect(profile).toContain('address1=192.168.40.9/24,192.168.40.1');
		expect(textOf(withNetwork(at('192.168.40.9')), 'network-config')).toBe('');
	});
	it('is set up in each of three ways, each with steps of its own', () => {
		const steps = (school: Plan['network']['school']) =>
			runSheet(writers, withNetwork({ school }), context).flatMap((phase) =>
				phase.steps.filter(({ link }) => link === 'network').map(({ id }) => id)
			);
		expect(steps('files')).toEqual(['find-it', 'log-in', 'updates-look']);
		const player = {
			...withNetwork({ way: 'radio', ssid: 'Station' }),
			card: { ...lounge.plan.card, system: 'player' as const }
		};
		const own = runSheet(writers, player, context)
			.flatMap(({ steps: list }) => list)
			.find(({ id }) => id === 'own-files')!;
		expect([own.phase, own.caution]).toEqual(['prepare', expect.stringContaining('in clear')]);
		expect(own.do).toContain('"Station"');
		expect(steps('hotspot')).toContain('hotspot-page');
		expect(steps('screen')).toContain('screen-answers');
	});
});

describe('the rehearsed network', () => {
	function run(plan: Plan, change: (bench: Bench) => void, secrets: Secrets = {}) {
		const bench = structuredClone(benchFor(writers, plan, context));
		change(bench);
		const result = rehearse({
			links: rehearsed,
			card: cardTree(write(writers, plan, context, secrets)),
			bench,
			startUtcMs: Date.parse('2026-11-24T12:00:00Z'),
			forMs: 60_000
		});
		return inWords(speaking, result.events)
			.filter(({ from }) => from === 'network')
			.map(({ text, reading }) => `${text} ${reading}`.trim());
	}
	const visitors =
		(...list: Pick<Visitor, 'from' | 'port' | 'with'>[]) =>
		(bench: Bench) =>
			void (bench.network.visitors = list.map((visitor) => ({ ...visitor, keys: [], welcome: false })));

	it('is joined, takes its address, and answers to its name', () =>
		expect(run(withNetwork(at('192.168.40.9')), visitors())).toEqual([
			'Cable joined 192.168.40.9',
			'Found by name lounge.local'
		]));
	it('joins by Wi-Fi with the derived key alone', () => {
		const plan = withNetwork({ way: 'radio', ssid: 'Skerrin', countryCode: 'FO' });
		const join = (key: string, asked: string) =>
			run(plan, (bench) => (bench.network.radio = { ssid: 'Skerrin', pskHex: asked, assumed: false }), {
				radioPskHex: key
			})[0];
		expect(join('ab'.repeat(32), 'ab'.repeat(32))).toBe('Wi-Fi network joined');
		expect(join('ab'.repeat(32), 'cd'.repeat(32))).toContain('refuses the key');
	});
	it('refuses a wrong password by what stands in the seed, and would let a bad one in', () => {
		const plan = withNetwork({ login: 'password' });
		const knock = (password: string) => {
			const crypt = sha512crypt(password, 'saltsalt');
			return run(plan, visitors({ from: '192.168.40.7', port: 22, with: 'password' }), {
				userPasswordCrypt: crypt.ok ? crypt.value : ''
			}).at(-1);
		};
		expect(knock('three gulls in a row')).toContain('this one is wrong');
		expect(knock('admin')).toContain('is let in with a password that is tried first');
	});
	it('answers only where the rules allow, and as sshd is told', () => {
		const knocks = visitors(
			{ from: '192.168.40.7', port: 22, with: 'key' },
			{ from: '192.168.40.7', port: 22, with: 'password' },
			{ from: '192.168.40.7', port: 80, with: 'nothing' },
			{ from: '203.0.113.9', port: 22, with: 'key' }
		);
		expect(run(lounge.plan, knocks).slice(-4)).toEqual([
			'192.168.40.7 at port 22: logs in by key',
			'192.168.40.7 at port 22: may not use a password',
			'192.168.40.7 at port 80: finds nothing there',
			'203.0.113.9 at port 22: is turned away, not from near'
		]);
		const open = withNetwork({ guard: { limited: false, ranges: [], exposed: false }, login: 'password' });
		expect(run(open, visitors({ from: '203.0.113.9', port: 22, with: 'password' })).at(-1)).toContain(
			'this one is wrong'
		);
	});
});

describe('an adapter on USB', () => {
	it('brings the socket or the Wi-Fi that the board has not', () => {
		const small = (also: string[], way: 'wired' | 'radio') => {
			const plan: Plan = {
				...lounge.plan,
				parts: { ...lounge.plan.parts, board: 'board-small-512', also: also.map((part) => ({ part, count: 1 })) },
				network: { ...lounge.plan.network, way, ssid: 'x', radio: { ...lounge.plan.network.radio, bandGhz: 5 } }
			};
			return assess(judges, plan, contextFor(chain, demoWorkshop, lounge.id)).findings.map(({ id }) => id);
		};
		expect(small([], 'wired')).toContain('network.no-socket');
		expect(small(['net-usb-100'], 'wired')).not.toContain('network.no-socket');
		expect(small([], 'radio')).toContain('network.no-five');
		expect(small(['net-usb-wifi'], 'radio')).not.toContain('network.no-five');
	});
});

describe('what the way carries', () => {
	const radio = { bandGhz: 2.4 as const, widthMhz: 20 as const, streams: 1 as const, signalDbm: -60, othersPercent: 0 };
	it('never gains from less level, and is nothing where nothing arrives', () => {
		fc.assert(
			fc.property(fc.integer({ min: -100, max: -20 }), (signalDbm) => {
				const here = computeRadio({ ...radio, signalDbm }).realBps;
				expect(here).toBeGreaterThanOrEqual(computeRadio({ ...radio, signalDbm: signalDbm - 3 }).realBps);
			})
		);
		expect(computeRadio({ ...radio, signalDbm: -95 }).rateBps).toBe(0);
		expect(computeRadio(radio).rateBps).toBe(65e6);
		expect(computeRadio({ ...radio, bandGhz: 5, widthMhz: 80, signalDbm: -40 }).rateBps).toBeCloseTo(351e6, -6);
		expect(computeWire(100).realBps / 1e6).toBeCloseTo(94.15, 2);
		expect(computeWire(1000).realBps / 1e6).toBeCloseTo(941.5, 1);
		// Too weak for two streams in a wide channel, it goes on in a narrow one.
		const wide = { ...radio, bandGhz: 5, widthMhz: 80, streams: 2, signalDbm: -82 } as const;
		expect(computeRadio(wide).rateBps).toBe(6.5e6);
	});
	it('needs nothing in quiet hours, and gives least in the evening', () => {
		const plan = withNetwork({ way: 'radio', radio: { ...radio, othersPercent: 60 } });
		const day = over(plan, (hour) => hour < 7);
		expect(day).toHaveLength(24);
		expect(day[2]!.needsBps).toBe(0);
		expect(day[20]!.needsBps).toBeGreaterThan(0);
		expect(Math.min(...day.map(({ givesBps }) => givesBps))).toBe(day[20]!.givesBps);
	});
});

describe('updates', () => {
	const nightly = (at: string) => withNetwork({ updates: { nightly: true, at } });
	const byHand = withNetwork({ updates: { nightly: false, at: '03:30' } });
	const night = (plan: Plan, faults: Parameters<typeof rehearse>[0]['faults'] = []) => {
		const { events } = rehearse({
			links: rehearsed,
			card: cardTree(write(writers, plan, context)),
			bench: benchFor(writers, plan, context),
			startUtcMs: Date.parse('2026-11-24T22:30:00Z'),
			forMs: 8 * 3_600_000,
			faults
		});
		return inWords(speaking, events).filter(({ text }) => /pdates/.test(text));
	};
	it('come at their hour by the venue\u2019s clock, one after the other, and not at all by hand', () => {
		const events = night(nightly('03:30'));
		expect(events.map(({ text }) => text)).toEqual(['Security updates are in']);
		// From 22:30 to 03:30, then fetching and installing.
		expect(Math.floor(events[0]!.atMs / 60_000)).toBe(303);
		expect(night(byHand)).toEqual([]);
	});
	it('say so when the network is not there, and install nothing', () =>
		expect(
			night(nightly('03:30'), [{ name: 'network-late', atMs: 3 * 3_600_000, lastsMs: 4 * 3_600_000 }]).map(
				({ text }) => text
			)
		).toEqual(['No updates: the network is not there']));
	it('take a little of the path, in their own hour and in quiet ones too', () => {
		const need = (plan: Plan, isQuiet: boolean) => over(plan, () => isQuiet).map(({ needsBps }) => needsBps);
		const [without, beside, alone] = [need(byHand, false), need(nightly('03:30'), false), need(nightly('03:30'), true)];
		expect(beside.map((bps, hour) => bps - without[hour]!)).toEqual(alone);
		expect(alone.flatMap((bps, hour) => (bps > 0 ? [hour] : []))).toEqual([3]);
	});
	it('are carried by a timer of ours alone, slowed to what the path can spare', () => {
		const path = (name: string) => textOf(nightly('04:05'), name);
		expect(path('yphos-updates.timer')).toContain('OnCalendar=*-*-* 04:05:00');
		expect(path('52yphos-updates')).toContain('APT::Periodic::Unattended-Upgrade "0";');
		expect(path('updates.conf')).toContain('Acquire::http::Dl-Limit "250";');
		expect(textOf(byHand, 'yphos-updates.timer')).toBe('');
	});
	it.skipIf(spawnSync('apt-config', ['--version']).status !== 0)('are understood by apt itself', () => {
		const file = join(mkdtempSync(join(tmpdir(), 'yphos-apt-')), 'limits');
		writeFileSync(file, textOf(nightly('03:30'), 'updates.conf') + textOf(nightly('03:30'), '52yphos-updates'));
		const read = spawnSync('apt-config', ['dump'], { env: { ...process.env, APT_CONFIG: file }, encoding: 'utf8' });
		expect(read.stderr).toBe('');
		for (const line of ['Acquire::https::Dl-Limit "250"', 'APT::Periodic::Unattended-Upgrade "0"'])
			expect(read.stdout).toContain(`${line};\n`);
	});
	it('are asked of the person by the run sheet when they come by hand, below a read-only root', () => {
		const command = (plan: Plan) =>
			runSheet(writers, plan, context)
				.flatMap(({ steps }) => steps)
				.find(({ id }) => id.startsWith('updates-'))!.command;
		expect(command(nightly('03:30'))).toContain('systemctl status yphos-updates.service');
		expect(command(byHand)).toMatch(/^sudo sh -c 'apt-get update/);
		expect(command({ ...byHand, card: { ...byHand.card, root: 'overlay' } })).toContain('overlayroot-chroot');
	});
});
