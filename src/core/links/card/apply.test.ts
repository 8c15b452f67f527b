import { spawnSync } from 'node:child_process';
import {
	chmodSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	statSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { cardBytes } from '../../files/cardBytes';
import { chain } from '../../chain';
import { writers } from '../../writers';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree, Machine, spawn } from '../../engines/machine';
import { imageDisk } from '../../engines/machine/image';
import type { Ended } from '../../engines/machine/shell';
import { write } from '../../engines/write';
import type { Plan } from '../../plan/plan';

const lounge = demoWorkshop.endpoints[0]!;
const isRoot = process.getuid?.() === 0;

/** The real apply.sh on a real file system, with "/" turned into a folder and the tools that need a running system noted down. */
describe.skipIf(!isRoot)('apply.sh', () => {
	let dir = '';
	beforeEach(() => {
		dir = mkdtempSync(join(tmpdir(), 'yphos-apply-'));
		mkdirSync(join(dir, 'bin'));
		mkdirSync(join(dir, 'system/run'), { recursive: true });
		const tool = (name: string, body: string): void =>
			writeFileSync(join(dir, 'bin', name), `#!/bin/sh\n${body}\n`, { mode: 0o755 });
		tool(
			'systemctl',
			`echo "systemctl $*" >>${dir}/log\ncase $1 in is-enabled) grep -q "systemctl enable -- $4" ${dir}/log ;; esac`
		);
		tool('dpkg', 'true');
		tool('dpkg-query', 'printf installed');
		// A root below a layer in memory, once it is told to be so; what runs below it sees a plain root.
		tool('findmnt', `case $* in *-T*) echo /firmware ;; *) cat ${dir}/fstype$BELOW 2>/dev/null || echo ext4 ;; esac`);
		tool('mountpoint', 'false');
		for (const name of ['mount', 'umount']) tool(name, `echo "${name} $*" >>${dir}/log`);
		tool('overlayroot-chroot', `echo "below: $2" >>${dir}/log; BELOW=- exec "$@"`);
		tool('apt-get', `echo "apt-get $*" >>${dir}/log`);
		// Users are lines of a file here: name, and what the hash begins with.
		tool(
			'getent',
			`line=$(grep "^$2:" ${dir}/users 2>/dev/null) || exit 2\n[ $1 = shadow ] && echo "$line:20000" || echo "$2:x:1000:1000::/home/$2:/bin/sh"`
		);
		tool('useradd', `for name; do :; done\nmkdir -p ${dir}/system/home/$name\necho "$name:!" >>${dir}/users`);
		tool('chpasswd', `cat >${dir}/users`);
		tool('chown', 'true');
	});

	function place(plan: Plan): void {
		rmSync(join(dir, 'card'), { recursive: true, force: true });
		for (const folder of ['etc/sudoers.d', 'home']) mkdirSync(join(dir, 'system', folder), { recursive: true });
		const mediaBytes = new Map([['Night ferry.wav', demoMediaBytes('Night ferry.wav')!]]);
		for (const file of write(writers, plan, contextFor(chain, demoWorkshop, lounge.id), { mediaBytes })) {
			const path = join(dir, 'card', file.path);
			mkdirSync(dirname(path), { recursive: true });
			writeFileSync(path, cardBytes(file));
			chmodSync(path, parseInt(file.mode, 8));
		}
		const script = join(dir, 'card/boot/yphos/apply.sh');
		const text = readFileSync(script, 'utf8')
			.replaceAll('"/$path"', '"$SYSTEM/$path"')
			.replaceAll("printf '/%s/", `printf "$SYSTEM"'/%s/`)
			.replaceAll('/var/lib/yphos-card', '$SYSTEM/var/lib/yphos-card')
			.replaceAll('/run/yphos-restart', '$SYSTEM/run/yphos-restart')
			// No keeper lives on this machine; a folder of theirs is made within the test's own.
			.replaceAll('"${folders[i + 1]}"', '"$SYSTEM${folders[i + 1]}"')
			.replaceAll(/^folder keeper /gm, 'folder root ')
			.replaceAll('/media/root-ro', '$SYSTEM/low')
			.replaceAll('$below$here', '$here');
		const setup = join(dir, 'card/boot/yphos/setup.sh');
		const sets = readFileSync(setup, 'utf8')
			.replaceAll(/(?<![\w/.])\/(etc|home)\//g, '$SYSTEM/$1/')
			.replace(/\n\n$/, '\n');
		expect(sets).not.toMatch(/(?<!SYSTEM)\/(?:etc|home|var|root)\//);
		writeFileSync(setup, sets);
		// Nothing of it may reach this machine's own system.
		expect(text).not.toMatch(
			/"\/\$path"|printf '\/%s|[^M]\/var\/lib\/yphos|[^M]\$\{folders\[i \+ 1\]\}" [2\]]|-- "\$\{folders/
		);
		writeFileSync(script, text);
	}
	function apply(): { code: number | null; out: string; err: string } {
		const done = spawnSync('bash', [join(dir, 'card/boot/yphos/apply.sh')], {
			encoding: 'utf8',
			env: { ...process.env, SYSTEM: join(dir, 'system'), PATH: `${join(dir, 'bin')}:${process.env.PATH}` }
		});
		return { code: done.status, out: done.stdout, err: done.stderr };
	}
	const there = (path: string): string => join(dir, 'system', path);
	const filesOf = (root: string): string[] =>
		readdirSync(root, { recursive: true, withFileTypes: true })
			.filter((entry) => entry.isFile())
			.map((entry) => relative(root, join(entry.parentPath, entry.name)))
			.filter((path) => path !== 'run/yphos-restart')
			.sort();
	const linkTool = (tool: string): void => {
		const here = join(dir, 'bin', tool);
		if (!existsSync(here)) symlinkSync(join('/bin', tool), here);
	};

	it('places every file with its mode, and a second run changes nothing', () => {
		place(lounge.plan);
		const first = apply();
		expect(first).toMatchObject({ code: 0, err: '' });
		expect(first.out).toMatch(/done: restart once\n$/);
		expect(statSync(there('opt/yphos/bin/may-sound.sh')).mode & 0o777).toBe(0o755);
		expect(readFileSync(there('opt/yphos/media/Night ferry.wav')).length).toBe(
			demoMediaBytes('Night ferry.wav')!.length
		);
		expect(existsSync(there('run/yphos-restart'))).toBe(true);
		expect(apply().out).toBe('done: nothing to change\n');
	});

	it('mends a file that was changed or has the wrong mode, and only that', () => {
		place(lounge.plan);
		apply();
		writeFileSync(there('etc/asound.conf'), 'pcm.!default null\n');
		chmodSync(there('opt/yphos/bin/may-sound.sh'), 0o600);
		expect(
			apply()
				.out.match(/^placed .*/gm)
				?.sort()
		).toEqual(['placed /etc/asound.conf', 'placed /opt/yphos/bin/may-sound.sh']);
	});

	it('does in the rehearsal what it does under bash: the same calls in the same order, the same words, the same end', async () => {
		place(lounge.plan);
		// What the image brings is installed, here as there.
		const installed =
			'#!/bin/sh\ncase $* in *openssh-server | *network-manager) printf installed ;; *) exit 1 ;; esac\n';
		writeFileSync(join(dir, 'bin/dpkg-query'), installed, { mode: 0o755 });
		for (const name of ['nmcli', 'nm-online'])
			writeFileSync(join(dir, 'bin', name), `#!/bin/sh\necho "${name} $*" >>${dir}/log\n`, { mode: 0o755 });
		const real = apply();
		const calls = readFileSync(join(dir, 'log'), 'utf8').trim().split('\n');

		const mediaBytes = new Map([['Night ferry.wav', demoMediaBytes('Night ferry.wav')!]]);
		const card = cardTree(write(writers, lounge.plan, contextFor(chain, demoWorkshop, lounge.id), { mediaBytes }));
		const bench = benchFor(chain, lounge.plan, contextFor(chain, demoWorkshop, lounge.id));
		const machine = new Machine({ card, disk: imageDisk(card, bench), bench, startUtcMs: 0, timeZone: 'UTC' });
		const noted: string[] = [];
		for (const name of ['systemctl', 'apt-get', 'nmcli', 'nm-online']) {
			const program = machine.programs.get(`/usr/bin/${name}`)!;
			machine.programs.set(`/usr/bin/${name}`, (process, on) => {
				noted.push([name, ...process.argv.slice(1)].join(' '));
				program(process, on);
			});
		}
		const ours = await new Promise<Ended>((done) => {
			machine.mains(true);
			machine.setOnline(true);
			spawn(machine, { argv: ['bash', '/boot/firmware/yphos/apply.sh'], env: new Map(), stdin: '' }, done);
			machine.clock.runUntil(3_600_000);
		});
		expect(noted).toEqual(calls);
		expect([ours.code, ours.out]).toEqual([real.code, real.out]);
		const placed = filesOf(there('')).filter((path) => !path.startsWith('var/lib/yphos-card/'));
		for (const path of placed) {
			const file = machine.disk.get(`/${path}`);
			expect(file?.mode, path).toBe(`0${(statSync(there(path)).mode & 0o777).toString(8)}`);
			expect(file?.bytes ? Buffer.from(file.bytes) : Buffer.from(file!.text), path).toEqual(readFileSync(there(path)));
		}
		expect(placed.length).toBeGreaterThan(8);
		expect([...machine.notRehearsed]).toEqual([]);
	});

	it('takes away what an earlier set placed and this one no longer has', () => {
		place(lounge.plan);
		apply();
		place({ ...lounge.plan, programme: { ...lounge.plan.programme, quiet: [] } });
		expect(apply().out).toContain('removed /etc/systemd/system/yphos-quiet-begins.timer');
		expect(existsSync(there('opt/yphos/quiet-hours.txt'))).toBe(false);
		expect(readFileSync(join(dir, 'log'), 'utf8')).toContain('systemctl disable --now -- yphos-quiet-begins.timer');
		expect(apply().out).toBe('done: nothing to change\n');
	});

	it('names an add-on in the start file by one block of its own, and takes it away again', async () => {
		const plan: Plan = {
			...lounge.plan,
			parts: { ...lounge.plan.parts, converter: 'conv-header-small' },
			card: { ...lounge.plan.card, bootStyle: 'cmdline' },
			sound: { ...lounge.plan.sound, overlay: 'plain-dac,gain=2' }
		};
		const start = join(dir, 'card/boot/config.txt');
		const image = '# as it came\r\n[pi-like]\ndtparam=x\n';
		place(plan);
		writeFileSync(start, image);
		expect(apply().code).toBe(0);
		expect(readFileSync(start, 'utf8')).toBe(`${image}# yphos begin\n[all]\ndtoverlay=plain-dac,gain=2\n# yphos end\n`);
		expect(apply().out).toBe('done: nothing to change\n');
		const written = readFileSync(start, 'utf8');
		place(lounge.plan);
		writeFileSync(start, written);
		expect(apply().out).toContain('changed ');
		expect(readFileSync(start, 'utf8')).toBe(image);
		rmSync(start);
		place(plan);
		expect(apply().err).toMatch(/config\.txt is not there: this board starts another way/);
	});

	it('works below a layer in memory, leaves nothing mounted, and says what became of it', () => {
		place(lounge.plan);
		writeFileSync(join(dir, 'fstype'), 'overlay\n');
		mkdirSync(there('low'));
		expect(apply()).toMatchObject({ code: 0, err: '' });
		// Here nothing closes the folder again, as nothing can where a replaced file is still shown.
		expect(apply().out).toMatch(/^done: nothing to change\nThe card stays open for writing until the restart/);
		const log = readFileSync(join(dir, 'log'), 'utf8');
		expect(log).toContain(`below: ${join(dir, 'card/boot/yphos/apply.sh')}`);
		const [mounted, freed] = ['mount --bind \\S+', 'umount'].map((words) =>
			[...log.matchAll(new RegExp(`^${words} (\\S+)$`, 'gm'))].map(([, at]) => at)
		);
		expect(mounted).toEqual([...Array(2)].flatMap(() => [there('low/dev'), there('low/firmware')]));
		expect(freed).toEqual(mounted);
	});

	it('cut off at any file and followed by another set, leaves nothing of the first behind', () => {
		const quiet = { ...lounge.plan, programme: { ...lounge.plan.programme, quiet: [] } };
		place(quiet);
		apply();
		const clean = filesOf(there(''));
		for (const stopAt of [1, 4, 7]) {
			rmSync(join(dir, 'system'), { recursive: true });
			rmSync(join(dir, 'users'));
			mkdirSync(there('run'), { recursive: true });
			place(lounge.plan);
			// The power goes while the so-manieth file is being put in its place.
			writeFileSync(
				join(dir, 'bin/mv'),
				`#!/bin/sh\ncase $* in *.yphos-new*) echo x >>${dir}/moves${stopAt}; [ $(wc -l <${dir}/moves${stopAt}) -lt ${stopAt} ] || exit 9 ;; esac\nexec /bin/mv "$@"\n`,
				{ mode: 0o755 }
			);
			expect(apply().code).toBe(9);
			rmSync(join(dir, 'bin/mv'));
			place(quiet);
			expect(apply().code).toBe(0);
			expect(filesOf(there(''))).toEqual(clean);
		}
	});

	it('on a full card keeps the file that was there, whole, and says so', () => {
		place(lounge.plan);
		apply();
		writeFileSync(there('etc/asound.conf'), 'the old one\n');
		writeFileSync(
			join(dir, 'bin/install'),
			'#!/bin/sh\nfor last; do :; done\nprintf half >"$last"\necho "No space left on device" >&2\nexit 1\n',
			{ mode: 0o755 }
		);
		const done = apply();
		expect(done.code).toBe(1);
		expect(done.err).toContain('/etc/asound.conf could not be written; what was there is as it was');
		expect(readFileSync(there('etc/asound.conf'), 'utf8')).toBe('the old one\n');
		expect(filesOf(there('')).filter((path) => path.endsWith('.yphos-new'))).toEqual([]);
	});

	it('without a tool that it needs names the tool, and calls no file damaged', () => {
		place(lounge.plan);
		for (const tool of readdirSync('/bin')) if (tool !== 'sha256sum') linkTool(tool);
		const done = spawnSync('/bin/bash', [join(dir, 'card/boot/yphos/apply.sh')], {
			encoding: 'utf8',
			env: { SYSTEM: join(dir, 'system'), PATH: join(dir, 'bin') }
		});
		expect(done.status).toBe(1);
		expect(done.stderr).toContain('sha256sum is missing on this system');
		expect(done.stderr).not.toContain('damaged');
	});

	it('touches nothing when one file of the copy is damaged', () => {
		place(lounge.plan);
		const victim = join(dir, 'card/boot/yphos/root/opt/yphos/playlist.m3u8');
		writeFileSync(victim, `${readFileSync(victim, 'utf8')}x`);
		const done = apply();
		expect(done.code).toBe(1);
		expect(done.err).toContain('The copy of opt/yphos/playlist.m3u8 on the card is damaged. Copy the card set again.');
		expect(filesOf(there(''))).toEqual([]);
	});
});
