import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { plainHatchWorkshop as demoWorkshop } from '../../../../../demo/plainHatch';
import { demoWorkshop as workshopWithPage } from '../../../../../demo/workshop';
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
import { BY_HAND_PATH, readByHand } from '../../../files/byHand';
import { checkPhonePassword } from '../../../files/phonePassword';
import type { Facts } from '../../../facts';
import type { CardFile } from '../../../link/file';
import type { Plan } from '../../../plan/plan';
import { newRule, type Moment } from '../../../onAir/when';
import { controlFiles } from '../controls/controlFiles';
import { ACTIONS } from '../controls/controls';
import { phoneFiles } from '../controls/phone';
import { SCREEN_HOURS, WAIT_FOR_SCREEN } from '../scripts';
import type { PictureSettings } from '../settings';

const HOUR_MS = 3_600_000;
const hatch = demoWorkshop.endpoints.find(({ id }) => id === 'ticket-hatch')!.plan;
const context = contextFor(chain, demoWorkshop, 'ticket-hatch');
const withPicture = (change: Partial<PictureSettings>, also: string[] = []): Plan => ({
	...hatch,
	parts: { ...hatch.parts, also: [...hatch.parts.also, ...also.map((part) => ({ part, count: 1 }))] },
	picture: { ...hatch.picture, ...change }
});
/** From 09:00 on a winter's day of the venue: what the eye sees at a moment, and at the end. */
const run = (
	plan: Plan,
	{ forMs = 300_000, faults = [] as PlannedFault[], screen = {} as Partial<NonNullable<Bench['screen']>> } = {}
) => {
	const bench = benchFor(writers, plan, context);
	const mediaBytes = demoMediaOf(plan.sources.items);
	const result = rehearse({
		links: rehearsed,
		card: cardTree(write(writers, plan, context, { mediaBytes })),
		bench: { ...bench, screen: { ...bench.screen!, ...screen } },
		startUtcMs: Date.UTC(2026, 10, 26, 9),
		forMs,
		faults
	});
	const eye = result.tracks.find(({ id }) => id === 'eye')!;
	return {
		texts: inWords(speaking, result.events).map(({ text }) => text),
		at: (ms: number): string | undefined => eye.spans.find(({ fromMs, toMs }) => fromMs <= ms && ms < toMs)?.state,
		last: eye.spans.at(-1)?.state
	};
};
const folder = mkdtempSync(join(tmpdir(), 'yphos-switching-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const program = (path: string, text: string): void => {
	writeFileSync(path, text);
	chmodSync(path, 0o755);
};

describe('screen.sh in a real shell', () => {
	const script = join(folder, 'screen.sh');
	const bin = join(folder, 'bin');
	beforeAll(() => {
		mkdirSync(bin);
		program(script, `${SCREEN_HOURS.join('\n')}\n`);
		for (const name of ['cec-ctl', 'systemctl', 'sleep'])
			program(
				join(bin, name),
				// As cec-ctl of v4l-utils 1.22 prints it; the set is there once it was woken.
				`#!/bin/sh\necho "${name} $*" >&2\n[ "$3" = --playback ] || exit 0\naddress=f.f.f.f\n[ -e ${join(folder, 'awake')} ] && address=2.0.0.0\n: >${join(folder, 'awake')}\nprintf 'Driver Info:\\n\\tDriver Name                : vc4_hdmi\\n\\tPhysical Address           : %s\\n\\tLogical Address Mask       : 0x0010\\n' $address\n`
			);
	});
	beforeEach(() => rmSync(join(folder, 'awake'), { force: true }));
	const asked = (from: string, until: string, how: string, now: string) => {
		const { stdout, stderr } = spawnSync('sh', [script, from, until, how], {
			encoding: 'utf8',
			env: { PATH: `${bin}:/usr/bin:/bin`, YPHOS_TIME: now }
		});
		return { says: stdout.trim(), does: stderr.trim().split('\n') };
	};
	const clock = fc
		.integer({ min: 0, max: 1439 })
		.map((minutes) => `${String(Math.floor(minutes / 60)).padStart(2, '0')}${String(minutes % 60).padStart(2, '0')}`);
	it('agrees with walking through the day minute by minute, over midnight too', () => {
		fc.assert(
			fc.property(clock, clock, clock, (from, until, now) => {
				fc.pre(from !== until);
				let on = false;
				for (let at = Number(from.slice(0, 2)) * 60 + Number(from.slice(2)); ; at = (at + 1) % 1440) {
					const text = `${String(Math.floor(at / 60)).padStart(2, '0')}${String(at % 60).padStart(2, '0')}`;
					if (text === until) break;
					if (text === now) on = true;
				}
				expect(asked(from, until, 'cec1', now).says, `${from} ${until} ${now}`).toBe(on ? 'screen on' : 'screen off');
			}),
			{ numRuns: 60 }
		);
	});
	it.each([
		['cec0', '0900', 'cec-ctl -d 0 --to 0 --image-view-on'],
		['cec1', '0900', 'cec-ctl -d 1 --active-source phys-addr=2.0.0.0'],
		['cec1', '2100', 'cec-ctl -d 1 --to 0 --standby'],
		['socket', '0800', 'systemctl start yphos-socket.service'],
		['socket', '2000', 'systemctl stop yphos-socket.service']
	])('by %s at %s: %s', (how, now, does) => expect(asked('0800', '2000', how, now).does).toContain(does));
	it('that is to wake the set at each start is always on', () => {
		for (const now of ['0000', '1200', '2359']) expect(asked('0000', '2400', 'cec0', now).says).toBe('screen on');
	});
});

describe('a set', () => {
	const hours = { from: '08:00', until: '20:00' };
	it('sleeps and wakes by CEC at its hours', () => {
		const { at } = run(withPicture({ hours, offBy: 'cec' }), { forMs: 25 * HOUR_MS });
		const local = (hour: number): number => (hour - 9) * HOUR_MS;
		expect([at(local(19.9)), at(local(20.2)), at(local(31.9)), at(local(32.2))]).toEqual([
			'picture',
			'resting',
			'resting',
			'picture'
		]);
	});
	it('that was put on another input is called back by CEC at its hour, on its own adapter and no other', () => {
		const faults = [{ name: 'screen-wrong-input', atMs: HOUR_MS, lastsMs: 30 * HOUR_MS }];
		const local = (hour: number): number => (hour - 9) * HOUR_MS;
		for (const connector of ['HDMI-A-1', 'HDMI-A-2']) {
			const plan = withPicture({ hours, offBy: 'cec', connector });
			const unit = write(writers, plan, context).find(({ path }) => path.endsWith('yphos-screen.service'))!;
			expect(JSON.stringify(unit)).toContain(` cec${connector.endsWith('1') ? 0 : 1}`);
			const { at } = run(plan, { forMs: 25 * HOUR_MS, faults });
			expect([at(local(12)), at(local(32.2))], connector).toEqual(['dark', 'picture']);
		}
	});
	const clock = (time: string): Moment => ({ at: 'clock', time, offsetMin: 0 });
	const shows = (plan: Plan): Plan => ({
		...plan,
		programme: {
			...plan.programme,
			quiet: [{ weekdays: [], from: '12:00', until: '13:00' }],
			rules: [{ ...newRule('day', 'all', 'By day'), from: clock('08:00'), until: clock('14:00') }],
			otherwise: 'rest'
		}
	});
	const local = (hour: number): number => (hour - 9) * HOUR_MS;
	it.each(['cec', 'signal'] as const)(
		'is off while nothing is on, by %s, and lit again with the next rule',
		(offBy) => {
			const plan = shows(withPicture({ darkWhileResting: true, offBy }));
			const { at } = run(plan, { forMs: 24 * HOUR_MS });
			expect([11.9, 12.2, 12.9, 13.2, 13.9, 14.2, 31.9, 32.2].map((hour) => at(local(hour)))).toEqual([
				...['picture', 'resting', 'resting', 'picture'],
				...['picture', 'resting', 'resting', 'picture']
			]);
		}
	);
	it('is off with a page that is black, by its rules and quiet hours, and within its own hours alone', () => {
		const page = workshopWithPage.endpoints.find(({ id }) => id === 'ticket-hatch')!.plan;
		const picture = {
			...page.picture,
			darkWhileResting: true,
			offBy: 'cec' as const,
			hours: { from: '09:30', until: '22:00' }
		};
		const around = contextFor(chain, workshopWithPage, 'ticket-hatch');
		const plan = shows({ ...page, picture });
		const its = write(writers, plan, around, { mediaBytes: demoMediaOf(plan.sources.items) });
		const heard: string[] = [];
		const { tracks, events } = rehearse({
			links: rehearsed,
			card: cardTree(its),
			bench: benchFor(writers, plan, around),
			startUtcMs: Date.UTC(2026, 10, 26, 9),
			forMs: 6 * HOUR_MS,
			faults: []
		});
		for (const { text } of inWords(speaking, events)) heard.push(text);
		const { spans } = tracks.find(({ id }) => id === 'eye')!;
		const at = (hour: number) => spans.find(({ fromMs, toMs }) => fromMs <= local(hour) && local(hour) < toMs)?.state;
		expect([9.4, 9.6, 12.2, 12.9, 13.2, 14.2].map(at)).toEqual([
			...['resting', 'picture', 'resting'],
			...['resting', 'picture', 'resting']
		]);
		expect(heard.join('\n')).not.toContain('What is to be on is not there');
		// It has no sound, and rests no more for that.
		const ear = tracks.find(({ id }) => id === 'ear')!;
		expect(ear.spans.at(-1)?.state).toBe('unused');
	});
	it('is switched off once by the run sheet, in the way in which it will be', () => {
		const step = (plan: Plan) =>
			runSheet(writers, plan, context)
				.flatMap(({ steps }) => [...steps])
				.find(({ id }) => id === 'screen-off-once');
		expect(step(withPicture({ darkWhileResting: true, hours: null, offBy: 'signal' }))?.command).toMatch(
			/screen\.sh 0000 0001 signal && .* start yphos-screen$/
		);
		expect(step(withPicture({ hours, offBy: 'cec' }))?.do).toContain('its hours');
		expect(step(withPicture({ hours: null, offBy: 'cec' }))).toBeUndefined();
	});
	it('that is to follow a programme which never rests is told, and cured', () => {
		const plan = withPicture({ darkWhileResting: true });
		const never = { ...plan, programme: { ...plan.programme, rules: [], quiet: [] } };
		const ids = (one: Plan) => assess(judges, one, context).findings.map(({ id }) => id);
		const finding = assess(judges, never, context).findings.find(({ id }) => id === 'picture.never-rests')!;
		for (const { apply } of finding.fixes) expect(ids(apply(never))).not.toContain('picture.never-rests');
		expect(ids(shows(plan))).not.toContain('picture.never-rests');
	});
	it('on a switched socket has mains at its hours, and none where another line is driven', () => {
		const plan = withPicture({ hours, offBy: 'socket', afterCut: 'comes-on' }, ['socket-switched']);
		const { at, last } = run(plan, { forMs: 14 * HOUR_MS });
		expect(at(HOUR_MS)).toBe('picture');
		expect(last).toBe('resting');
		const wrong = run(plan, { screen: { socketLine: 22 } });
		expect(wrong.last).toBe('resting');
		expect(wrong.texts.some((text) => text.includes('no socket hangs on that line'))).toBe(true);
	});
	it('whose socket nothing switches hangs on the wall, and a power cut that waits for its button is told', () => {
		const plan = withPicture({ hours: null, offBy: 'socket', afterCut: 'stays-off' }, ['socket-switched']);
		expect(run(plan).last).toBe('picture');
		expect(assess(judges, plan, context).findings.map(({ id }) => id)).toContain('picture.cut-stays-off');
	});
	it('that waits for its button never comes back on its socket', () => {
		const plan = withPicture({ hours, offBy: 'socket', afterCut: 'comes-on' }, ['socket-switched']);
		expect(run(plan, { screen: { afterCut: 'stays-off' } }).last).toBe('dark');
	});
	it('that stays off after a power cut is woken by CEC, and only by CEC', () => {
		const faults = [{ name: 'power-cut', atMs: 120_000, lastsMs: 5000 }];
		const after = (change: Partial<PictureSettings>) =>
			run(withPicture({ hours: null, ...change }), { forMs: 400_000, faults }).last;
		expect(after({ offBy: 'cec', afterCut: 'stays-off' })).toBe('picture');
		expect(after({ offBy: 'signal', afterCut: 'stays-off' })).toBe('dark');
		expect(after({ offBy: 'signal', afterCut: 'comes-on' })).toBe('picture');
	});
});

const textOf = (files: readonly CardFile[], end: string): string => {
	const file = files.find(({ path }) => path.endsWith(end));
	if (!file || !('lines' in file)) throw new Error(end);
	return file.lines.map(({ text }) => text).join('\n');
};

const PAGES = [{ id: 'page-tides', title: 'Tides & times' }];
/** Of the facts only these are asked for. */
const HATCH = { endpointName: 'Hatch' } as unknown as Facts;

describe('what keys and phones ask for, in a real shell', () => {
	const dir = join(folder, 'keys');
	const files = controlFiles(
		{ controls: [{ action: 'next', by: 'phone', key: '', scancode: '' }], connector: '' },
		HATCH
	);
	beforeAll(() => {
		mkdirSync(join(dir, 'asked'), { recursive: true });
		for (const name of ['socat', 'systemctl'])
			program(join(dir, name), `#!/bin/sh\necho "${name} $* $([ ${name} = socat ] && cat)" >>${dir}/log\n`);
		program(join(dir, 'control.sh'), textOf(files, 'control.sh'));
		writeFileSync(join(dir, 'actions.txt'), `${textOf(files, 'actions.txt')}\n`);
		program(
			join(dir, 'asked.sh'),
			textOf(
				phoneFiles({ controls: [{ action: 'next', by: 'phone', key: '', scancode: '' }], phonePassword: false }, HATCH),
				'asked.sh'
			)
				.replaceAll('/run/yphos-asked', join(dir, 'asked'))
				.replaceAll('/opt/yphos/bin/control.sh', join(dir, 'control.sh'))
		);
	});
	const done = (script: string, ...args: string[]): string => {
		writeFileSync(join(dir, 'log'), '');
		spawnSync('sh', [join(dir, script), ...args], {
			env: { PATH: `${dir}:/usr/bin:/bin`, YPHOS_ACTIONS: join(dir, 'actions.txt') }
		});
		return readFileSync(join(dir, 'log'), 'utf8');
	};
	it.each(Object.entries(ACTIONS))('%s', (action, { command }) => {
		const log = done('control.sh', action);
		if (command === null)
			expect(log).toMatch(action === 'shut-down' ? /^systemctl poweroff/ : /^systemctl restart yphos-player/);
		else expect(log).toContain(`{"command":${command}}`);
	});
	it('is nothing where nobody knows the word, and each word is taken up once', () => {
		expect(done('control.sh', '$(reboot)')).toBe('');
		for (const word of ['pause', 'no-such-word']) writeFileSync(join(dir, 'asked', word), '');
		expect(done('asked.sh').match(/socat/g)).toHaveLength(1);
		expect(readdirSync(join(dir, 'asked'))).toEqual([]);
		expect(done('asked.sh')).toBe('');
	});
	it('a screen is waited for as long as it may take, and no longer', () => {
		const at = join(dir, 'drm', 'card0-HDMI-A-1');
		mkdirSync(at, { recursive: true });
		program(join(dir, 'wait.sh'), WAIT_FOR_SCREEN.join('\n').replace('/sys/class/drm', join(dir, 'drm')));
		const wait = (status: string): number | null => {
			writeFileSync(join(at, 'status'), `${status}\n`);
			return spawnSync('sh', [join(dir, 'wait.sh'), 'HDMI-A-1', '1']).status;
		};
		expect([wait('connected'), wait('disconnected')]).toEqual([0, 1]);
	});
	it('leaves for the page what it is to show, for half an hour, and takes it back', () => {
		const now = join(dir, 'now');
		const both = controlFiles({ controls: [], connector: '' }, { ...HATCH, byPhone: PAGES });
		expect(both.map(({ path }) => path)).toContain('boot/yphos/root/etc/tmpfiles.d/yphos-show.conf');
		writeFileSync(now, 'none 0\n');
		const script = textOf(both, 'control.sh').replaceAll(BY_HAND_PATH, now);
		const ask = (word: string): string => {
			execFileSync('sh', ['-c', script, 'control.sh', word], { stdio: ['ignore', 'ignore', 'ignore'] });
			return readFileSync(now, 'utf8');
		};
		const read = readByHand(ask('show-page-tides'))!;
		expect(read.id).toBe('page-tides');
		expect(Math.abs(read.untilUtcMs - Date.now() - 30 * 60_000)).toBeLessThan(5000);
		expect(readByHand(ask('back-to-rules'))).toBeNull();
		for (const text of [null, '', 'x', 'page-tides', 'page-tides soon', '../x 99', `page ${'9'.repeat(13)}`])
			expect(readByHand(text)).toBeNull();
	});
});

describe('the page for a phone', () => {
	const controls: PictureSettings['controls'] = [
		{ action: 'pause', by: 'phone', key: '', scancode: '' },
		{ action: 'shut-down', by: 'phone', key: '', scancode: '' }
	];
	const files = phoneFiles({ controls, phonePassword: false }, { ...HATCH, endpointName: 'Hatch <1>', byPhone: PAGES });
	const asked = join(folder, 'asked');
	const own = readFileSync('/etc/hostname', 'utf8').trim();
	beforeAll(() => {
		mkdirSync(asked);
		writeFileSync(join(folder, 'page.html'), textOf(files, 'page.html'));
		program(
			join(folder, 'phone.sh'),
			textOf(files, 'phone.sh').replace('/opt/yphos/phone', folder).replace('/run/yphos-asked', asked)
		);
	});
	/** What a request is answered, and what it left word of. */
	const knock = (request: string) => {
		for (const name of readdirSync(asked)) rmSync(join(asked, name));
		const out = execFileSync('sh', [join(folder, 'phone.sh')], { input: request, encoding: 'utf8' });
		return { status: /^HTTP\/1\.1 (\d+)/.exec(out)?.[1] ?? '', out, word: readdirSync(asked) };
	};
	const post = (path: string, host = `${own}.local:8080`, origin = `http://${host}`): string =>
		[`POST ${path} HTTP/1.1`, `Host: ${host}`, ...(origin ? [`Origin: ${origin}`] : []), '', ''].join('\r\n');
	it('is given to who asks by its name or number', () => {
		for (const host of [`${own}:8080`, `${own}.local:8080`, '192.168.40.9:8080', '[fe80::1]:8080', '127.0.0.1:8080']) {
			const { status, out, word } = knock(`GET / HTTP/1.1\r\nHost: ${host}\r\n\r\n`);
			expect(status, host).toBe('200');
			expect(out).toContain('Hatch &lt;1&gt;');
			expect(out.split('\r\n\r\n')).toHaveLength(2);
			expect(word).toEqual([]);
		}
	});
	it('leaves word of what its own buttons ask', () => {
		expect(knock(post('/pause'))).toMatchObject({ status: '303', word: ['pause'] });
		expect(knock(post('/pause')).out).toContain('\r\nLocation: /\r\n');
		expect(knock(post('/shut-down'))).toMatchObject({ status: '200', word: ['shut-down'] });
	});
	it('leaves word of a page to be shown, and of the way back; of no page that is not there', () => {
		expect(knock(post('/show-page-tides'))).toMatchObject({ status: '303', word: ['show-page-tides'] });
		expect(knock(post('/back-to-rules'))).toMatchObject({ status: '303', word: ['back-to-rules'] });
		expect(knock(post('/show-page-other'))).toMatchObject({ status: '404', word: [] });
		expect(textOf(files, 'page.html')).toContain('<button>Tides &amp; times</button>');
	});
	it.each<readonly [string, string, string]>([
		['a page from elsewhere', post('/shut-down', undefined, 'http://bad.example'), '403'],
		['a form of nobody', post('/shut-down', undefined, ''), '403'],
		['another name for this address', post('/shut-down', 'bad.example:8080'), '403'],
		...[
			'1.2.3.4.evil.example:8080',
			'1.2.3.evil:8080',
			'1.2.3.4.5:8080',
			'1..3.4:8080',
			'[evil.example]:8080',
			'[::1].evil:8080',
			`${own}.evil.example:8080`,
			`evil.${own}:8080`,
			own,
			`${own}:80`,
			`${own}:8080:8080`,
			''
		].map((host) => [`"${host}" for its name`, post('/shut-down', host), '403'] as const),
		['what has no button', post('/restart'), '404'],
		['a way out of its folder', post('/../../etc/hostname'), '404'],
		['another page', `GET /etc/passwd HTTP/1.1\r\nHost: ${own}:8080\r\n\r\n`, '404'],
		['another method', `DELETE / HTTP/1.1\r\nHost: ${own}:8080\r\n\r\n`, '405'],
		['a reading for a button', `GET /shut-down HTTP/1.1\r\nHost: ${own}:8080\r\n\r\n`, '404'],
		['headers without an end', `POST /pause HTTP/1.1\r\n${'X: y\r\n'.repeat(500)}`, '403']
	])('refuses %s', (_, request, status) => expect(knock(request)).toMatchObject({ status, word: [] }));
	it('that asks for a password opens to that alone, under any name', () => {
		const guarded = phoneFiles(
			{ controls, phonePassword: true },
			{ ...HATCH, hostName: own },
			{ phonePassword: 'g\u00fcll: 7' }
		);
		const at = (name: string): string => join(folder, name);
		const script = textOf(guarded, 'phone.sh')
			.replaceAll('/opt/yphos/phone', folder)
			.replace('/run/yphos-asked', asked);
		program(at('guarded.sh'), script);
		const ask = (lines: string[]) => {
			for (const name of readdirSync(asked)) rmSync(join(asked, name));
			const input = [`Host: ${own}:8080`, `Origin: http://${own}:8080`, ...lines, '', ''].join('\r\n');
			const out = execFileSync('sh', [at('guarded.sh')], {
				input: `POST /pause HTTP/1.1\r\n${input}`,
				encoding: 'utf8',
				stdio: ['pipe', 'pipe', 'ignore'],
				env: { ...process.env, CREDENTIALS_DIRECTORY: folder }
			});
			return { status: /^HTTP\/1\.1 (\d+)/.exec(out)?.[1], word: readdirSync(asked), out };
		};
		const said = (text: string): string[] => [`Authorization: Basic ${Buffer.from(text).toString('base64')}`];
		// Without what it compares with it opens to nobody.
		rmSync(at('phone-password'), { force: true });
		expect(ask(said(': '))).toMatchObject({ status: '401', word: [] });
		writeFileSync(at('phone-password'), textOf(guarded, 'phone/password'));
		expect(ask([])).toMatchObject({ status: '401', word: [] });
		expect(ask([]).out).toContain(`\r\nWWW-Authenticate: Basic realm="${own}", charset="UTF-8"\r\n\r\n`);
		for (const wrong of ['anna:other', ':', '', 'g\u00fcll: 7'])
			expect(ask(said(wrong)), wrong).toMatchObject({ status: '401', word: [] });
		for (const name of ['anna', ''])
			expect(ask(said(`${name}:g\u00fcll: 7`)), name).toMatchObject({ status: '303', word: ['pause'] });
		expect(textOf(guarded, 'phone/password')).toMatch(/^\$6\$rounds=50000\$[^$]{16}\$[^$]{86}$/);
		expect(guarded.find(({ path }) => path.endsWith('phone/password'))!.mode).toBe('0600');
		expect(
			checkPhonePassword('abcdefg').ok ||
				checkPhonePassword('abcd\tefgh').ok ||
				checkPhonePassword('\u{1f3b5}'.repeat(90)).ok
		).toBe(false);
		expect(checkPhonePassword('abcdefgh').ok).toBe(true);
	});
	it('is opened with its password in the rehearsal', () => {
		const faults = [{ name: 'phone-shut-down', atMs: 120_000, lastsMs: 60_000 }];
		const plan = withPicture({ hours: null, afterCut: 'comes-on', controls, phonePassword: true });
		expect(run(plan, { faults }).texts).toContain('It shuts itself down');
		expect(assess(judges, plan, context).findings.some(({ id }) => id === 'picture.phone-shows')).toBe(false);
	});
	it('survives whatever comes', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (noise) => {
				expect(knock(noise.replaceAll('\0', '')).word).toEqual([]);
			}),
			{ numRuns: 40 }
		);
	});
	it('shuts the endpoint down in the rehearsal, which comes back; one without a page does not', () => {
		const faults = [{ name: 'phone-shut-down', atMs: 120_000, lastsMs: 60_000 }];
		const { texts, at, last } = run(withPicture({ hours: null, afterCut: 'comes-on', controls }), { faults });
		expect(texts).toContain('It shuts itself down');
		expect(at(150_000)).toBe('off');
		expect(last).toBe('picture');
		const without = run(withPicture({ hours: null, controls: [] }), { faults });
		expect(without.texts).toContain('A phone asks for the page, and nobody answers');
		expect(without.at(150_000)).toBe('picture');
	});
});

describe('verify.sh, of a set without a signal', () => {
	const controls: PictureSettings['controls'] = [{ action: 'pause', by: 'phone', key: '', scancode: '' }];
	const plan = withPicture({ offBy: 'signal', controls, phonePassword: true });
	const files = write(writers, plan, context, { mediaBytes: demoMediaOf(plan.sources.items) });
	const lineWith = (words: string): string =>
		textOf(files, 'verify.sh')
			.split('\n')
			.find((line) => line.includes(words)) ?? 'false';
	const bin = join(folder, 'verifying');
	const isWell = (player: 'active' | 'inactive', log: string): boolean => {
		mkdirSync(bin, { recursive: true });
		program(join(bin, 'systemctl'), `#!/bin/sh\n[ ${player} = active ]\n`);
		program(join(bin, 'journalctl'), `#!/bin/sh\necho '${log}'\n`);
		const line = lineWith('while the screen is on').replace(/\/opt\/yphos\/bin\/may-play\.sh/, 'true');
		const script = `check() { shift; "$@" >/dev/null; }\n${line}\n`;
		return spawnSync('bash', ['-c', script], { env: { PATH: `${bin}:/usr/bin:/bin` } }).status === 0;
	};
	it('takes a player for right that rests with the screen, and for wrong that rests while it is on', () => {
		expect(isWell('active', 'screen on')).toBe(true);
		expect(isWell('inactive', 'screen on\nscreen off')).toBe(true);
		expect(isWell('inactive', 'screen off\nscreen on')).toBe(false);
		expect(isWell('inactive', '')).toBe(false);
	});
	it('asks whether a page with a password keeps everybody out who has none', () => {
		expect(lineWith('asks for its password')).toContain("grep -q ' 401 '");
		expect(lineWith('the page for a phone answers')).not.toContain("' 200 '");
	});
});
