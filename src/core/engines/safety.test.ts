import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { cardText } from '../files/cardBytes';
import { chain } from '../chain';
import { writers } from '../writers';
import { computeWear, judgeCard } from '../links/card/wear';
import { judgeAddress } from '../links/network/addresses';
import { openWorkshop } from '../plan/open';
import type { Plan } from '../plan/plan';
import { derive } from './derive';
import { contextFor } from './context';
import { write } from './write';

/** What is about safety and secrets, pinned to the letter: a slip here is found by nobody before it hurts. */
const lounge = demoWorkshop.endpoints[0]!;
const context = contextFor(chain, demoWorkshop, lounge.id);
const planWith = (change: { [K in keyof Plan]?: Partial<Plan[K]> }): Plan =>
	Object.fromEntries(
		Object.entries(lounge.plan).map(([key, value]) => [key, { ...value, ...change[key as keyof Plan] }])
	) as Plan;
const SECRETS = { radioPskHex: 'ab'.repeat(32), userPasswordCrypt: '$6$salt$hash' };
const filesOf = (plan: Plan) => new Map(write(writers, plan, context, SECRETS).map((file) => [file.path, file]));
function linesOf(plan: Plan, path: string): string[] {
	const file = filesOf(plan).get(path);
	if (!file || !('lines' in file)) throw new Error(`no ${path}`);
	return cardText(file).trimEnd().split('\n');
}
const ROOT = 'boot/yphos/root/etc/';
const radio = planWith({ network: { way: 'radio', ssid: 'Skerrin', countryCode: 'FO' } });

describe('secrets', () => {
	it('a profile with a key is for the administrator alone, on the card and on the endpoint', () => {
		const profile = `${ROOT}NetworkManager/system-connections/yphos-radio.nmconnection`;
		expect(filesOf(radio).get(profile)!.mode).toBe('0600');
		expect(linesOf(radio, 'boot/yphos/apply.sh').find((line) => line.endsWith('yphos-radio.nmconnection'))).toMatch(
			/^place 0600 root:root - /
		);
		// Whoever has its digest can try keys against it.
		expect(filesOf(radio).get('boot/yphos/secrets.txt')!.mode).toBe('0600');
		expect(linesOf(radio, 'boot/yphos/secrets.txt')).toEqual([
			expect.stringMatching(/^[0-9a-f]{64} {2}etc\/NetworkManager\/system-connections\/yphos-radio\.nmconnection$/)
		]);
	});
	it('stand in no file but their own', () => {
		for (const [path, file] of filesOf(radio)) {
			const text = 'lines' in file ? cardText(file) : '';
			if (!path.endsWith('.nmconnection')) expect(text, path).not.toContain(SECRETS.radioPskHex);
			if (path !== 'boot/user-data') expect(text, path).not.toContain(SECRETS.userPasswordCrypt);
		}
	});
});

describe('who gets in', () => {
	const sshd = `${ROOT}ssh/sshd_config.d/`;
	const dropIn = (plan: Plan): string[] =>
		linesOf(
			plan,
			[...filesOf(plan).keys()].find((path) => path.startsWith(sshd))!
		);
	it.each([
		['password', ['PasswordAuthentication yes', 'PubkeyAuthentication no'], 'ALL=(ALL) ALL', 'lock_passwd: false'],
		['key', ['PasswordAuthentication no', 'PubkeyAuthentication yes'], 'ALL=(ALL) NOPASSWD:ALL', 'lock_passwd: true'],
		['both', ['PasswordAuthentication yes', 'PubkeyAuthentication yes'], 'ALL=(ALL) ALL', 'lock_passwd: false']
	] as const)('by %s: never the administrator, never with an empty password', (login, expected, sudo, lock) => {
		const plan = planWith({ network: { login } });
		expect(dropIn(plan)).toEqual(
			expect.arrayContaining([
				...expected,
				'PermitRootLogin no',
				'KbdInteractiveAuthentication no',
				'PermitEmptyPasswords no',
				`AllowUsers ${plan.network.user}`
			])
		);
		const seed = linesOf(plan, 'boot/user-data').join('\n');
		expect(seed).toContain(`sudo: "${sudo}"`);
		expect(seed).toContain(lock);
		expect(seed).toContain(`ssh_pwauth: ${login !== 'key'}`);
	});
});

describe('what keeps an endpoint alive', () => {
	it('the watchdog has a time, and reboots', () =>
		expect(linesOf(planWith({ card: { watchdog: true } }), `${ROOT}systemd/system.conf.d/yphos-watchdog.conf`)).toEqual(
			['[Manager]', 'RuntimeWatchdogSec=15s', 'RebootWatchdogSec=2min']
		));
	it('quiet hours begin to the second', () =>
		expect(linesOf(lounge.plan, `${ROOT}systemd/system/yphos-quiet-begins.timer`)).toContain('AccuracySec=1s'));
	it('verify.sh fails when one thing is wrong, and only then', () => {
		const lines = linesOf(lounge.plan, 'boot/yphos/verify.sh').filter(
			(line) => !/^check(?:_playing)? '/.test(line) && !line.includes('probe.sh')
		);
		const dir = mkdtempSync(join(tmpdir(), 'yphos-verify-'));
		const ended = (...checks: string[]): number | null => {
			const at = lines.findIndex((line) => line.startsWith('exit'));
			writeFileSync(join(dir, 'v.sh'), lines.toSpliced(at, 0, ...checks).join('\n'));
			return spawnSync('bash', [join(dir, 'v.sh')]).status;
		};
		expect([ended(), ended('check a true'), ended('check a false', 'check b true')]).toEqual([0, 0, 1]);
	});
});

describe('figures at their edges', () => {
	it('little writes cost six times what they are, long ones a fifth more', () => {
		const card = context.part('card', lounge.plan.parts.card)!;
		const plan = planWith({ card: { dailyMb: 10, logsInMemory: true, root: 'writable' } });
		const claims = derive(chain, plan, context).claims.filter(({ on }) => on !== 'wear');
		expect(computeWear(plan.card, card, claims).writtenMb).toBe(60);
		const long = [...claims, { on: 'wear', from: 'card', what: 'x', bytesPerDay: 100e6 } as const];
		expect(computeWear(plan.card, card, long).writtenMb).toBeCloseTo(180, 9);
		expect(computeWear(planWith({ card: { dailyMb: 10, logsInMemory: false } }).card, card, claims).givenMb).toBe(40);
	});
	it('a card is slow below 70 % of its class, and has not written at all above 170 MB/s', () => {
		const verdict = (mbps: number) => judgeCard(mbps * 60e6, 1, { writeMBps: 10 }).verdict;
		expect([6.9, 7.1, 169, 171].map(verdict)).toEqual(['slow', 'as-promised', 'as-promised', 'too-fast']);
	});
	it('the pool of the router holds its own first and last address', () => {
		const at = (ip: string) =>
			judgeAddress(
				planWith({ network: { address: { kind: 'fixed', ip } } }).network,
				derive(chain, lounge.plan, context).context
			);
		expect(['192.168.40.99', '192.168.40.100', '192.168.40.199', '192.168.40.200'].map(at)).toEqual([
			null,
			'in-pool',
			'in-pool',
			null
		]);
		expect([at('192.168.40.1'), at('192.168.40.255'), at('192.168.41.2')]).toEqual([
			'gateway',
			'not-a-host',
			'outside'
		]);
	});
	it('what nobody chose in an older file stays off', () => {
		const old = structuredClone(demoWorkshop) as unknown as {
			version: number;
			endpoints: { plan: { network: { updates?: unknown } } }[];
		};
		old.version = 4;
		for (const endpoint of old.endpoints) delete endpoint.plan.network.updates;
		const opened = openWorkshop(JSON.stringify(old), 'UTC');
		expect(opened.ok && opened.value.workshop.endpoints.every(({ plan }) => !plan.network.updates.nightly)).toBe(true);
	});
});
