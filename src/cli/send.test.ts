import {
	chmodSync,
	cpSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readFileSync,
	readlinkSync,
	rmSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { createVerify } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { keyLines } from '$core/links/delivery/settings';
import type { Workshop } from '$core/plan/workshop';
import { demoWorkshop } from '../../demo/workshop';
import { runsIn } from './here';

const dir = mkdtempSync(join(tmpdir(), 'yphos-send-'));
const [set, home, bin, now] = ['partition/yphos', 'home', 'bin', 'now'].map((name) => join(dir, name)) as [
	string,
	string,
	string,
	string
];
const plan = join(dir, 'plan.json');

const run = runsIn(dir, {
	PATH: `${bin}:${process.env.PATH}`,
	YPHOS_SET: set,
	YPHOS_CONTENT_NOW: now,
	YPHOS_APPLIED: join(dir, 'applied.json'),
	HOME: home
});
afterAll(() => rmSync(dir, { recursive: true }));

async function yphos(...args: string[]) {
	const { code, out, err } = await run(args);
	return { code, said: out + err };
}
const program = (name: string, script: string): void => {
	mkdirSync(bin, { recursive: true });
	writeFileSync(join(bin, name), `#!/bin/sh\n${script}\n`);
	chmodSync(join(bin, name), 0o755);
};
const save = (change: (hatch: Workshop['endpoints'][number]['plan']) => void): void => {
	const workshop = structuredClone(demoWorkshop);
	change(workshop.endpoints.find(({ id }) => id === 'ticket-hatch')!.plan);
	writeFileSync(plan, JSON.stringify(workshop));
};
const hatch = ['--endpoint', 'ticket-hatch'];
const send = (...more: string[]) => yphos('send', plan, ...hatch, '--ssh', join(bin, 'ssh'), ...more);

describe('yphos send', () => {
	beforeEach(async () => {
		for (const folder of [set, home, now]) rmSync(folder, { recursive: true, force: true });
		mkdirSync(home, { recursive: true });
		// An endpoint that is this computer: its shell runs what is asked for, in a home of its own.
		program('ssh', `[ "$1" = -- ] && shift; echo "$1" >${dir}/asked; shift; cd ${home} && exec bash -c "$*"`);
		program('sudo', 'exec "$@"');
		program('systemctl', `echo "$*" >>${dir}/systemctl`);
		// In the place of apply.sh, which would change this computer.
		program(
			'systemd-run',
			`[ ! -e ${dir}/fails ] || { echo 'no room on the root' >&2; exit 1; }; echo applied; echo "$*" >${dir}/applied; cp ${set}/manifest.json ${dir}/applied.json`
		);
		for (const name of ['systemctl', 'applied', 'applied.json', 'fails']) rmSync(join(dir, name), { force: true });
		save(() => {});
		expect((await yphos('write', plan, ...hatch, '--out', join(dir, 'card'))).code).toBe(0);
		cpSync(join(dir, 'card/boot/yphos'), set, { recursive: true });
	});

	it('sends nothing where nothing has changed', async () => {
		expect(await send('--yes')).toEqual({ code: 0, said: 'The endpoint has this very set: nothing to send.\n' });
		expect(readFileSync(join(dir, 'asked'), 'utf8')).toBe('keeper@hatch.local\n');
	});

	it('shows what changes, and sends only that: after another page the player begins anew, with what was sent', async () => {
		save((known) => (known.notices.pages[0]!.title = 'Tides today'));
		symlinkSync('/var/lib/yphos-content/sets/0-4102444800', now);
		const before = readFileSync(join(set, 'root/opt/yphos/notices/index.html'), 'utf8');
		expect((await send()).said).toContain('Nobody is there to agree');
		expect(readFileSync(join(set, 'root/opt/yphos/notices/index.html'), 'utf8')).toBe(before);
		const { code, said } = await send('--yes', '--to', 'somebody@10.0.0.9');
		expect([code, said]).toEqual([0, expect.stringContaining('changed  /opt/yphos/notices/index.html')]);
		// The phone's page names it as well, and nothing begins anew for that.
		expect(said).toContain('2 files, ');
		expect(said).toContain('then the player begins anew');
		expect(said).toContain('packed 2100-01-01 00:00 UTC, which is yet to come. What you send takes its place');
		expect(readFileSync(join(set, 'root/opt/yphos/notices/index.html'), 'utf8')).toContain('Tides today');
		expect(readFileSync(join(dir, 'applied'), 'utf8')).toContain(`bash ${set}/apply.sh`);
		expect(readFileSync(join(dir, 'systemctl'), 'utf8')).toBe('try-restart yphos-player.service\n');
		expect(readlinkSync(now)).toBe('/opt/yphos');
		expect(existsSync(join(home, 'yphos-sent'))).toBe(false);
		expect((await send('--yes')).said).toContain('this very set');
	});

	it('sends once more what could not be put in place, and shows what is sent where more than content changes too', async () => {
		save((known) => (known.card.watchdog = false));
		symlinkSync('/var/lib/yphos-content/sets/0-1700000000', now);
		writeFileSync(join(dir, 'applied.json'), readFileSync(join(set, 'manifest.json')));
		writeFileSync(join(dir, 'fails'), '');
		expect(await send('--yes')).toMatchObject({
			code: 1,
			said: expect.stringContaining('no room on the root') as string
		});
		expect(readlinkSync(now)).toBe('/var/lib/yphos-content/sets/0-1700000000');
		rmSync(join(dir, 'fails'));
		const { code, said } = await send('--yes');
		expect([code, said]).toEqual([
			0,
			expect.stringContaining('goes     /etc/systemd/system.conf.d/yphos-watchdog.conf')
		]);
		expect(readlinkSync(now)).toBe('/opt/yphos');
		expect((await send('--yes')).said).toContain('this very set');
	});

	it('takes away what is gone, and says when the endpoint must be restarted', async () => {
		save((known) => {
			known.network.updates.nightly = false;
			known.card.watchdog = false;
		});
		const { code, said } = await send('--yes');
		expect([code, said]).toEqual([
			0,
			expect.stringContaining('goes     /etc/systemd/system.conf.d/yphos-watchdog.conf')
		]);
		expect(said).toContain('It counts from the next start: ssh keeper@hatch.local sudo systemctl reboot');
		expect(existsSync(join(set, 'root/etc/systemd/system.conf.d/yphos-watchdog.conf'))).toBe(false);
		expect(existsSync(join(dir, 'systemctl'))).toBe(false);
	});

	it.each([
		['broken off on the way', 'tar', 'head -c 4000 | exec /usr/bin/tar "$@"'],
		['spoilt on the way', 'tar', '/usr/bin/tar "$@" && case $1 in -x) echo x >>yphos-sent/set/apply.sh ;; esac'],
		['without room', 'install', 'exit 1']
	])('%s, changes nothing, and says so', async (_, name, script) => {
		save((known) => (known.notices.pages[0]!.title = 'Tides today'));
		// Packed here by the real one; unpacked there by this.
		program(name, name === 'tar' ? `case $1 in -c) exec /usr/bin/tar "$@" ;; esac; ${script}` : script);
		const { code, said } = await send('--yes');
		rmSync(join(bin, name));
		expect([code === 0, said]).toEqual([false, expect.stringMatching(/nothing was changed/)]);
		expect(readFileSync(join(set, 'root/opt/yphos/notices/index.html'), 'utf8')).not.toContain('Tides today');
		expect(existsSync(join(dir, 'applied'))).toBe(false);
		expect((await send('--yes')).code).toBe(0);
	});

	it('refuses a plan with a stop, an address that is none, and an endpoint without a card set', async () => {
		save((known) => (known.delivery.from = ''));
		expect((await send('--yes')).said).toContain('has a stop: New content is to be fetched from nowhere');
		save(() => {});
		expect((await send('--yes', '--to', '-oProxyCommand=x')).said).toContain('is no USER@HOST');
		rmSync(set, { recursive: true });
		expect((await send('--yes')).said).toContain('has no card set at');
	});
});

describe('yphos pack', () => {
	it('signs with the key that yphos key made, as anybody can check, and writes over neither', async () => {
		rmSync(join(dir, 'own.pem'), { force: true });
		const { code, said } = await yphos('key', 'own.pem');
		expect(code).toBe(0);
		expect((await yphos('key', 'own.pem')).code).not.toBe(0);
		const publicKey = said.split('\n')[0]!;
		save((known) => (known.delivery.publicKey = publicKey));
		expect((await yphos('pack', plan, ...hatch, '--out', 'site')).said).toContain('Add --sign-key FILE');
		await yphos('key', 'other.pem');
		expect((await yphos('pack', plan, ...hatch, '--out', 'site', '--sign-key', 'other.pem')).said).toContain(
			'another key'
		);
		expect((await yphos('pack', plan, ...hatch, '--out', 'site', '--sign-key', 'plan.json')).said).toContain(
			'no private key'
		);
		// Signatures differ in length by what they are; each must be read.
		for (let n = 0; n < 6; n++) {
			expect((await yphos('pack', plan, ...hatch, '--out', 'site', '--sign-key', 'own.pem')).said).toContain(
				', signed'
			);
			const [text, signature] = ['manifest.txt', 'manifest.txt.sig'].map((name) =>
				readFileSync(join(dir, 'site', name))
			);
			expect(createVerify('SHA256').update(text!).verify(keyLines(publicKey).join('\n'), signature!)).toBe(true);
		}
	});

	it('refuses an endpoint that fetches nothing', async () => {
		save((known) => (known.delivery.used = false));
		expect((await yphos('pack', plan, ...hatch, '--out', 'site')).said).toContain('fetches no content');
	});
});
