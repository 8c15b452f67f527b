import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { archiveOf } from '$core/plan/archive';
import { zipFiles } from '$core/formats/zip/zip';
import { demoMediaBytes } from '../../demo/media';
import { demoWorkshop } from '../../demo/workshop';
import type { Workshop } from '$core/plan/workshop';
import { runsIn } from './here';

const dir = mkdtempSync(join(tmpdir(), 'yphos-cli-'));
const root = resolve(import.meta.dirname, '../..');
const checkCard = resolve(root, '../shared/conformance/check-card.sh');

const yphos = runsIn(dir);

const planFile = (name: string, change: (workshop: Workshop) => void): string => {
	const workshop = structuredClone(demoWorkshop);
	change(workshop);
	writeFileSync(join(dir, name), JSON.stringify(workshop));
	return join(dir, name);
};

describe('yphos', () => {
	it('check ends with 1 on a stop and names its fixes', async () => {
		expect((await yphos(['check', 'demo', '--endpoint', 'bunkhouse-lounge'])).code).toBe(0);
		const { code, out } = await yphos(['check', 'demo', '--endpoint', 'fog-horn-room', '--json']);
		expect(code).toBe(1);
		expect(
			(JSON.parse(out) as { findings: { id: string; fixes: string[] }[] }[])[0]!.findings.find(
				(f) => f.id === 'sound.no-way'
			)!.fixes
		).toEqual(['Use plain samples']);
	});

	it('misses media that are nowhere, and finds them in a folder or in the archive that they came in', async () => {
		const bytes = demoMediaBytes('Night ferry.wav')!;
		const kept = { ...demoWorkshop.media.find(({ location }) => location === 'Night ferry.wav')!, location: 'own.wav' };
		const own = structuredClone(demoWorkshop);
		own.media.push({ ...kept, kept: 'browser' });
		const lounge = own.endpoints[0]!.plan.sources;
		lounge.items = [{ ...lounge.items[0]!, location: 'own.wav' }];
		const media = new Map([['own.wav', bytes]]);
		writeFileSync(join(dir, 'own.json'), JSON.stringify(own));
		writeFileSync(
			join(dir, 'own.zip'),
			Buffer.from(await new Response(zipFiles(archiveOf(own, media)) as BodyInit).arrayBuffer())
		);
		mkdirSync(join(dir, 'media'), { recursive: true });
		writeFileSync(join(dir, 'media/own.wav'), bytes);
		const checked = (...args: string[]) => yphos(['check', ...args, '--endpoint', 'bunkhouse-lounge']);
		expect(await checked('own.json')).toMatchObject({
			code: 1,
			out: expect.stringContaining('One file of the list is not here') as string
		});
		expect((await checked('own.json', '--media', 'media')).code).toBe(0);
		expect((await checked('own.zip')).code).toBe(0);
		const written = await yphos([
			'write',
			'own.zip',
			'--endpoint',
			'bunkhouse-lounge',
			'--out',
			join(dir, 'own-set'),
			'--even-so'
		]);
		expect(written.err).toBe('');
		expect(readFileSync(join(dir, 'own-set/boot/yphos/root/opt/yphos/media/own.wav'))).toEqual(Buffer.from(bytes));
		writeFileSync(join(dir, 'torn.zip'), readFileSync(join(dir, 'own.zip')).subarray(0, 900));
		expect(await checked('torn.zip')).toMatchObject({
			code: 2,
			err: expect.stringContaining('There is no whole workshop.yphos.json') as string
		});
	});

	it('check --fix presses one fix and writes the mended workshop; what cannot be pressed is refused', async () => {
		const out = join(dir, 'mended.json');
		const fixed = (...args: string[]) =>
			yphos(['check', 'demo', '--endpoint', 'fog-horn-room', '--out', out, '--fix', ...args]);
		expect((await fixed('sound.no-way')).out).toContain('fog-horn-room: Use plain samples.');
		const after = (await yphos(['check', out, '--endpoint', 'fog-horn-room', '--json'])).out;
		expect(after).not.toContain('sound.no-way');
		expect(after).toContain('header.');
		expect((await fixed('sound.gone')).err).toContain('has no finding sound.gone. It has: ');
		expect((await fixed('sound.no-way:7')).err).toContain('number 7 is none of them');
		expect((await yphos(['check', 'demo', '--fix', 'sound.no-way', '--out', out])).err).toContain('--endpoint');
		expect((await yphos(['check', 'demo', '--endpoint', 'lamp-room', '--fix', 'a'])).err).toContain(
			'--out FILE is missing'
		);
	});

	it('write refuses a plan with a stop, and otherwise writes files with their modes', async () => {
		const refused = await yphos(['write', 'demo', '--endpoint', 'fog-horn-room', '--out', join(dir, 'fog')]);
		expect(refused.code).toBe(1);
		expect(refused.err).toContain('There is no iec958 way to this converter');
		expect(existsSync(join(dir, 'fog'))).toBe(false);
		expect((await yphos(['write', 'demo', '--endpoint', 'test-bench', '--out', join(dir, 'bench')])).code).toBe(0);
		expect(statSync(join(dir, 'bench/boot/yphos/apply.sh')).mode & 0o777).toBe(0o755);
	});

	it('rehearse says the same of a written folder as of the plan', async () => {
		const at = ['--at', '2026-11-24T18:40:00Z', '--fault', 'power-cut@40s+4s'];
		await yphos(['write', 'demo', '--endpoint', 'test-bench', '--out', join(dir, 'same')]);
		const folder = (await yphos(['rehearse', join(dir, 'same'), ...at])).out.split('\n').slice(1);
		expect(folder.join('\n')).toContain('Sound after 9.2');
		expect((await yphos(['rehearse', 'demo', '--endpoint', 'test-bench', ...at])).out.split('\n').slice(1)).toEqual(
			folder
		);
	});

	it('probe says what a report says', async () => {
		const { out } = await yphos(['probe', resolve(root, 'src/core/probe/fixtures/emulated.txt')]);
		expect(out).toContain('Sound: hw:CARD=Field24,DEV=0  Emulated USB Audio  48000 Hz, S16_LE, 2 channels');
	});

	it.each([
		[['check', 'nowhere.json'], 'cannot be read'],
		[['check', 'demo', '--endpoint', 'attic'], 'There is no endpoint attic'],
		[['write', 'demo'], '--out DIR is missing'],
		[['rehearse', 'demo', '--fault', 'flood@3s'], 'converter-unplugged'],
		[['rehearse', 'demo', '--for', 'long'], 'no length of time'],
		[['rehearse', 'demo', '--at', 'noon'], 'is no time'],
		[['calc', 'tides'], 'There is no calculation tides'],
		[['calc', 'constructor'], 'There is no calculation constructor'],
		[['rehearse', 'demo', '--fault', 'constructor@1s'], 'converter-unplugged'],
		[['dance'], 'not a command'],
		[['check', '--loud'], 'not known']
	])('%j is refused with what to do', async (args, says) => {
		const { code, err } = await yphos(args);
		expect(code).toBe(2);
		expect(err).toContain(says);
		expect(err).not.toContain('    at ');
	});

	it('writes nowhere but below --out, and lets no control character reach the terminal', async () => {
		const plan = planFile('escaped.json', (w) => {
			w.endpoints = [structuredClone(w.endpoints[0]!), structuredClone(w.endpoints[0]!)];
			w.endpoints[0]!.id = '../../escaped';
			w.endpoints[1]!.id = 'test';
			(w.endpoints[1]!.plan.sources.items[0] as { title: unknown }).title = '\u001b]0;owned\u0007';
		});
		writeFileSync(join(dir, 'password'), 'three gulls in a row\n');
		const out = join(dir, 'deep/er/out');
		const args = ['write', plan, '--out', out, '--even-so', '--password-file', join(dir, 'password')];
		const done = await yphos(args);
		expect(done.code).toBe(0);
		expect(done.err).toContain('left out endpoints[1]');
		expect(existsSync(join(dir, 'deep/escaped'))).toBe(false);
		const written = readdirSync(dir, { recursive: true }).filter((path) => String(path).endsWith('verify.sh'));
		expect(written.filter((path) => String(path).startsWith('deep/er/out'))).toHaveLength(1);
		const checked = await yphos(['check', plan]);
		expect(checked.err).toContain('left out endpoints[1]');
		expect(checked.err).toContain('is called escaped now');
		expect(checked.out + checked.err).not.toMatch(/[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/);
		const odd = join(dir, 'odd.txt');
		writeFileSync(odd, 'card 0: A [\u009b31mred], device 0: B [\u001b]x]\n\u001b]0;owned\u0007');
		expect((await yphos(['probe', odd])).out).not.toMatch(/[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/);
	});

	it.each([
		['no-such-browser', 'name another with --browser'],
		['/bin/true', 'ended before the pages were drawn']
	])('pages as pictures are not written without a browser: %s', async (browser, says) => {
		const plan = planFile('pictures.json', (w) => {
			w.endpoints = w.endpoints.filter(({ id }) => id === 'ticket-hatch');
			Object.assign(w.endpoints[0]!.plan.notices, { shownBy: 'pictures', picturesFrom: '2026-11-27', picturesDays: 1 });
		});
		const out = join(dir, 'undrawn');
		const done = await yphos(['write', plan, '--out', out, '--browser', browser]);
		expect([done.code, existsSync(out)]).toEqual([2, false]);
		expect(done.err).toContain(says);
	});

	it('asks for the pass phrase of a Wi-Fi network by file, and writes only the key', async () => {
		const plan = planFile('radio.json', (w) =>
			Object.assign(w.endpoints[0]!.plan.network, {
				way: 'radio',
				ssid: 'Skerrin "guests" \u{1f3b5}; 100%',
				countryCode: 'FO'
			})
		);
		const args = ['write', plan, '--endpoint', 'bunkhouse-lounge', '--out', join(dir, 'radio')];
		expect((await yphos(args)).err).toContain('--passphrase-file');
		writeFileSync(join(dir, 'pass.txt'), 'lantern and lens\n');
		expect((await yphos([...args, '--passphrase-file', join(dir, 'pass.txt')])).code).toBe(0);
		const profile = readFileSync(
			join(dir, 'radio/boot/yphos/root/etc/NetworkManager/system-connections/yphos-radio.nmconnection'),
			'utf8'
		);
		expect(profile).toMatch(/^psk=[0-9a-f]{64}$/m);
		expect(profile).not.toContain('lantern');
		if (existsSync(checkCard))
			expect(spawnSync('bash', [checkCard, join(dir, 'radio')], { encoding: 'utf8' }).stdout).toMatch(
				/\n\d+ passed, 0 failed/
			);
	});

	it('asks for the password of the page for a phone, and writes a slow hash of it, each time the same', async () => {
		const plan = planFile('phone.json', (w) => {
			const hatch = w.endpoints.find(({ id }) => id === 'ticket-hatch')!.plan;
			hatch.picture.phonePassword = hatch.notices.showByPhone = true;
		});
		const out = join(dir, 'phone');
		const args = ['write', plan, '--endpoint', 'ticket-hatch', '--out', out, '--even-so'];
		expect((await yphos(args)).err).toContain('--phone-password-file FILE');
		writeFileSync(join(dir, 'phone-word'), 'abc\n');
		args.push('--phone-password-file', join(dir, 'phone-word'));
		expect((await yphos(args)).err).toContain('takes 8 to 100');
		writeFileSync(join(dir, 'phone-word'), 'gulls and terns\n');
		const kept = async (): Promise<string> => {
			expect((await yphos(args)).code).toBe(0);
			const path = readdirSync(out, { recursive: true }).find((name) => String(name).endsWith('phone/password'));
			return readFileSync(join(out, String(path)), 'utf8');
		};
		expect(await kept()).toMatch(/^\$6\$rounds=50000\$/);
		expect(await kept()).toBe(await kept());
	});
	it.skipIf(!existsSync(checkCard))('writes what the real programs accept, whatever a person has typed', async () => {
		const awkward = 'He said "%n $HOME \\ #1; \'x\' {b} \u{1f3b5}" -- \\';
		const plan = planFile('awkward.json', (w) => {
			const lounge = w.endpoints[0]!.plan;
			lounge.brief.name = awkward;
			lounge.sound.travel = 'shared';
			lounge.sound.mixerName = 'Master "A" %i $X \\';
			lounge.sources.listTitle = awkward;
			lounge.sources.items = [
				'#1 "best" of: <us> & 100%.wav',
				'-start \\ here?.wav',
				'http://radio.example/a%20b?c="d"&e=#f'
			].map((location, n) => ({
				id: String(n),
				location,
				title: awkward,
				durationSec: 3,
				extra: ['#EXTGRP:x, "y"'],
				part: { fromSec: 1, untilSec: 2.5, quieterDb: n }
			}));
		});
		expect(
			(await yphos(['write', plan, '--endpoint', 'bunkhouse-lounge', '--out', join(dir, 'awkward'), '--even-so'])).code
		).toBe(0);
		expect(spawnSync('bash', [checkCard, join(dir, 'awkward')], { encoding: 'utf8' }).stdout).toMatch(
			/\n\d+ passed, 0 failed/
		);
	});
	it('on-air --smil gives open players what is on, of one endpoint', async () => {
		const at = ['--at', '2026-11-24T00:00:00Z', '--for', '2d', '--smil'];
		const { code, out } = await yphos(['on-air', 'demo', '--endpoint', 'bunkhouse-lounge', ...at]);
		expect([code, out]).toEqual([
			0,
			expect.stringMatching(/^<\?xml [^]*<smil xmlns[^]*<audio src="https?:[^]*<\/smil>\n$/)
		]);
		expect((await yphos(['on-air', 'demo', ...at])).err).toContain('--endpoint ID');
	});

	it('look says what files say of themselves', async () => {
		const [tone] = [...['Night ferry.wav']].map((name) => {
			writeFileSync(join(dir, name), demoMediaBytes(name)!);
			return join(dir, name);
		});
		const { code, out } = await yphos(['look', tone!]);
		expect(code).toBe(0);
		expect(out).toMatch(/Sound {5}pcm, 48.kHz, 16 bit, stereo[\s\S]*Length {4}3\.0.s \(3\.000.s\)/);
		writeFileSync(join(dir, 'notes.txt'), 'no sound at all');
		const none = await yphos(['look', '--json', tone!, join(dir, 'notes.txt')]);
		expect(none.code).toBe(1);
		expect((JSON.parse(none.out) as { facts: unknown }[]).map(({ facts }) => facts === null)).toEqual([false, true]);
		expect((await yphos(['look', join(dir, 'gone.wav')])).code).toBe(2);
	});
});
