import { readdirSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { demoMediaBytes } from '../../../../demo/media';
import { demoWorkshop } from '../../../../demo/workshop';
import { ScratchRoot } from '../../../../tests/scratchRoot';
import { cardBytes } from '../../files/cardBytes';
import { chain } from '../../chain';
import { writers } from '../../writers';
import { benchFor } from '../../engines/benchFor';
import { contextFor } from '../../engines/context';
import { cardTree, Machine, spawn } from '../../engines/machine';
import { imageDisk } from '../../engines/machine/image';
import type { Ended } from '../../engines/machine/shell';
import { write } from '../../engines/write';
import type { CardFile } from '../../link/file';
import type { Secrets } from '../../secrets';
import type { Plan } from '../../plan/plan';

const lounge = demoWorkshop.endpoints[0]!;
const SET = '/boot/firmware/yphos';
const APPLY = `${SET}/apply.sh`;
const mediaBytes = new Map([['Night ferry.wav', demoMediaBytes('Night ferry.wav')!]]);
const setOf = (plan: Plan, secrets: Secrets = {}): CardFile[] =>
	write(writers, plan, contextFor(chain, demoWorkshop, lounge.id), { mediaBytes, ...secrets });
const quietless: Plan = { ...lounge.plan, programme: { ...lounge.plan.programme, quiet: [] } };
const twoShares: Plan = {
	...lounge.plan,
	sources: {
		...lounge.plan.sources,
		stores: [
			...lounge.plan.sources.stores,
			{
				id: 's2',
				name: 'music-2',
				kind: 'smb',
				server: 'files.local',
				share: 'more',
				user: 'keeper',
				version: 'auto',
				access: 'write'
			}
		]
	}
};

/** The real apply.sh on a root of its own; programs that need a running system are stand-ins that note down what they were asked. */
describe.skipIf(!ScratchRoot.isPossible)('apply.sh', () => {
	let root: ScratchRoot;
	beforeEach(() => {
		root = new ScratchRoot();
		root.put('/etc/os-release', 'PRETTY_NAME="Debian GNU/Linux 12 (bookworm)"\nVERSION_ID="12"\n');
		root.put('/etc/sudoers.d/README', '');
		root.standIn(
			'systemctl',
			`echo "systemctl $*" >>/stand-ins/log
for unit; do :; done
case $1 in
is-enabled) [ -e "/etc/enabled/$unit" ] && { [ "$2" = --quiet ] || echo enabled; } ;;
enable) mkdir -p /etc/enabled; : >"/etc/enabled/$unit" ;;
disable) rm -f "/etc/enabled/$unit" ;;
esac`
		);
		root.standIn('dpkg', 'true');
		root.standIn('dpkg-query', 'printf installed');
		root.standIn(
			'update-initramfs',
			'echo "update-initramfs $*" >>/stand-ins/log; echo "x$(cat /lib/firmware/edid/* 2>/dev/null)" >/boot/initrd'
		);
		root.standIn('nmcli', 'echo "nmcli $*" >>/stand-ins/log');
		root.standIn('nm-online', 'echo "nm-online $*" >>/stand-ins/log');
		root.standIn('apt-get', 'echo "apt-get $*" >>/stand-ins/log');
		root.standIn('timedatectl', 'echo yes');
		root.standIn('sleep', 'echo "sleep $*" >>/stand-ins/log');
		// A root below a layer in memory, once it is told to be so; what runs below it sees a plain root. The first partition is FAT.
		root.standIn(
			'findmnt',
			'case $* in *-T*) echo /boot/firmware ;; *) cat /stand-ins/fstype$BELOW 2>/dev/null || echo ext4 ;; esac'
		);
		root.standIn('stat', '[ "$1" != -f ] || { echo msdos; exit; }\nexec /usr/bin/stat "$@"');
	});
	afterEach(() => root.remove());

	function place(plan: Plan, secrets: Secrets = {}): void {
		rmSync(root.at(SET), { recursive: true, force: true });
		for (const file of setOf(plan, secrets))
			if (file.path.startsWith('boot/'))
				root.put(`/boot/firmware/${file.path.slice('boot/'.length)}`, cardBytes(file), parseInt(file.mode, 8));
	}
	const apply = () => root.run(['bash', APPLY]);
	/** All that is left of it, without what a keeper's account and the card itself are. */
	const state = (): Map<string, string> =>
		new Map(
			[...root.left()].filter(
				([path]) => !/^boot\/firmware\/|^etc\/(?:passwd|shadow|group|gshadow|sub[ug]id)-?$|^home/.test(path)
			)
		);

	it('places every file with its mode, and a second run changes nothing; the restart is owed until it was', () => {
		place(lounge.plan);
		const first = apply();
		expect(first).toMatchObject({ code: 0, err: '' });
		expect(first.out).toMatch(/done: restart once\n$/);
		expect(statSync(root.at('/opt/yphos/bin/may-sound.sh')).mode & 0o777).toBe(0o755);
		expect(root.has('/run/yphos-restart')).toBe(true);
		expect(root.read('/etc/systemd/system/boot-firmware.mount.d/yphos.conf')).toBe('[Mount]\nOptions=umask=0077\n');
		expect(apply().out).toBe('done: nothing to change; the restart is still owed\n');
		root.restart();
		expect(apply().out).toBe('done: nothing to change\n');
	});

	it('mends a file that was changed or has the wrong mode, and only that', () => {
		place(lounge.plan);
		apply();
		root.put('/etc/asound.conf', 'pcm.!default null\n');
		root.put('/opt/yphos/bin/may-sound.sh', root.read('/opt/yphos/bin/may-sound.sh'), 0o600);
		const placed = apply().out.match(/^placed .*/gm);
		expect(placed?.sort()).toEqual(['placed /etc/asound.conf', 'placed /opt/yphos/bin/may-sound.sh']);
	});

	it('does in the rehearsal what it does under bash: the same calls in the same order, the same words, the same end', async () => {
		place(lounge.plan);
		// What the image brings is installed, here as there.
		root.standIn('dpkg-query', 'case $* in *openssh-server | *network-manager) printf installed ;; *) exit 1 ;; esac');
		const real = apply();
		const calls = root.read('/stand-ins/log').trim().split('\n');

		const card = cardTree(setOf(lounge.plan));
		const bench = benchFor(writers, lounge.plan, contextFor(chain, demoWorkshop, lounge.id));
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
			spawn(machine, { argv: ['bash', APPLY], env: new Map(), stdin: '' }, done);
			machine.clock.runUntil(3_600_000);
		});
		expect([...machine.notRehearsed]).toEqual([]);
		expect(noted).toEqual(calls);
		expect(ours.err).toBe(real.err);
		expect([ours.code, ours.out]).toEqual([real.code, real.out]);
		const placed = [...root.left(['etc', 'opt'])].filter(
			([path]) => /yphos|asound|nftables/.test(path) && !path.endsWith('/')
		);
		for (const [path, left] of placed) {
			if (path.startsWith('etc/enabled') || path.startsWith('etc/sudoers')) continue;
			const file = machine.disk.get(`/${path}`);
			const text = file?.bytes
				? Buffer.from(file.bytes).toString('latin1')
				: Buffer.from(file?.text ?? '').toString('latin1');
			expect(`${file?.mode.replace(/^0/, '')} ${text}`, path).toBe(left);
		}
		expect(placed.length).toBeGreaterThan(8);
		expect([...machine.notRehearsed]).toEqual([]);
	});

	it('takes away what an earlier set placed and this one no longer has, and what it began with the board', () => {
		place(lounge.plan);
		apply();
		place(quietless);
		expect(apply().out).toContain('removed /etc/systemd/system/yphos-quiet-begins.timer');
		expect(root.has('/opt/yphos/quiet-hours.txt')).toBe(false);
		expect(root.read('/stand-ins/log')).toContain('systemctl disable --now -- yphos-quiet-begins.timer');
		// The unit stays, and no longer begins by itself.
		const waits = { ...quietless, programme: { ...quietless.programme, startAtBoot: false } };
		place(waits);
		expect(root.has('/etc/enabled/yphos-player.service')).toBe(true);
		expect(apply().out).toContain('no longer begins with the board: yphos-player.service');
		expect(root.has('/etc/enabled/yphos-player.service')).toBe(false);
		root.restart();
		expect(apply().out).toBe('done: nothing to change\n');
	});

	it('leaves after one set, another and the first again what the first alone leaves', () => {
		const picture = demoWorkshop.endpoints.find(({ id }) => id === 'lamp-room')?.plan ?? lounge.plan;
		const others: Plan[] = [
			quietless,
			twoShares,
			{ ...lounge.plan, programme: { ...lounge.plan.programme, startAtBoot: false } },
			{ ...lounge.plan, card: { ...lounge.plan.card, root: 'overlay', logsInMemory: false, watchdog: false } },
			{ ...lounge.plan, card: { ...lounge.plan.card, bootStyle: 'cmdline', bootText: 'console=tty1' } },
			{ ...lounge.plan, receiving: { ...lounge.plan.receiving, used: true, server: true, bluetooth: true } },
			{
				...lounge.plan,
				network: {
					...lounge.plan.network,
					hostName: 'elsewhere',
					guard: { ...lounge.plan.network.guard, limited: false }
				}
			},
			picture
		];
		place(lounge.plan);
		apply();
		apply();
		const alone = state();
		for (const other of others) {
			place(other);
			expect(apply()).toMatchObject({ code: 0, err: '' });
			place(lounge.plan);
			expect(apply()).toMatchObject({ code: 0, err: '' });
			expect(state()).toEqual(alone);
		}
		expect(alone.size).toBeGreaterThan(30);
	});

	it('killed at any command and run again, comes to the same end and still owes the restart and the initial root', () => {
		const edid: Plan = { ...quietless, card: { ...quietless.card, bootStyle: 'cmdline', bootText: 'console=tty1' } };
		const lines = (): string[] => root.read(APPLY).split('\n');
		const whole = (): void => {
			for (const folder of ['etc', 'opt', 'var', 'usr', 'lib', 'home', 'run', 'boot'])
				rmSync(root.at(`/${folder}`), { recursive: true, force: true });
			root.put('/etc/os-release', 'VERSION_ID="12"\n');
			root.put('/etc/sudoers.d/README', '');
			rmSync(root.at('/stand-ins/log'), { force: true });
			place(edid);
			// As a set with an EDID has it: a file that the kernel needs before the root is there.
			root.put(APPLY, root.read(APPLY).replace(/^package /m, 'ramdisk /etc/asound.conf\npackage '), 0o755);
		};
		whole();
		// Each command of the main part in turn: the shell counts them, and is killed at the so-manieth.
		const begins = lines().findIndex((line) => line.startsWith('release ')) + 1;
		const counted = (most: number) =>
			root.run([
				'bash',
				'-c',
				`n=0; BASH_ARGV0=${APPLY}; set -T; trap '((LINENO < ${begins})) || { ((++n <= ${most})) || kill -9 $$; }; echo $n >/stand-ins/n' DEBUG; . ${APPLY}`
			]);
		expect(counted(1e9).code).toBe(0);
		const clean = state();
		const count = Number(root.read('/stand-ins/n'));
		expect(count).toBeGreaterThan(300);
		const every = process.env.DAMAGES === 'all' ? 1 : Math.ceil(count / 12);
		for (let most = new Date().getUTCDate() % every; most < count; most += every) {
			whole();
			expect(counted(most).code, `${most}`).not.toBe(0);
			const again = apply();
			expect(again, `${most}`).toMatchObject({ code: 0 });
			expect(again.out, `${most}`).toMatch(/restart once|still owed/);
			expect(state(), `${most}`).toEqual(clean);
			expect(root.read('/stand-ins/log'), `${most}`).toContain('update-initramfs -u');
		}
	});

	it('waits for whoever holds the locks of apt and dpkg, in words, and not for ever', () => {
		place(lounge.plan);
		root.standIn('dpkg-query', 'exit 1');
		// As dpkg 1.21 and apt 2.6 say it.
		const busy = (words: string, code: number): string =>
			`n=$(cat /stand-ins/busy); [ "$n" -gt 0 ] || exit 0; echo $((n - 1)) >/stand-ins/busy; echo "${words}" >&2; exit ${code}`;
		root.standIn('dpkg', busy('dpkg: error: dpkg frontend lock was locked by another process with pid 7436', 2));
		root.standIn(
			'apt-get',
			busy('E: Could not get lock /var/lib/apt/lists/lock. It is held by process 7436 (apt)', 100)
		);
		root.put('/stand-ins/busy', '3\n');
		const done = apply();
		expect(done).toMatchObject({ code: 0, err: '' });
		expect(done.out).toContain('another program is installing: waiting for it, ten minutes at most\n');
		expect(root.read('/stand-ins/log').match(/sleep 10/g)).toHaveLength(3);
		root.put('/stand-ins/busy', '1000\n');
		expect(apply()).toMatchObject({ code: 1, err: expect.stringContaining('held for ten minutes') as string });
		// Whatever else is wrong is said at once.
		root.standIn('dpkg', 'echo "dpkg: error: disk full" >&2; exit 2');
		expect(apply()).toMatchObject({ code: 2, err: 'dpkg: error: disk full\n' });
	});

	it('refuses another release than it was written for, before anything is touched', () => {
		place(lounge.plan);
		root.put('/etc/os-release', 'PRETTY_NAME="Debian GNU/Linux 13 (trixie)"\nVERSION_ID="13"\n');
		const done = apply();
		expect(done.code).toBe(1);
		expect(done.err).toContain(
			'written for Debian 12 (bookworm), and this system is another: PRETTY_NAME="Debian GNU/Linux 13'
		);
		expect(root.has('/opt/yphos')).toBe(false);
	});

	it('places under its own name what the first partition cannot call so', () => {
		place(twoShares);
		const names = readdirSync(root.at(SET), { recursive: true }) as string[];
		expect(names.filter((name) => /[\\:*?"<>|]/.test(name))).toEqual([]);
		expect(apply().code).toBe(0);
		expect(root.read('/etc/systemd/system/srv-music\\x2d2.mount')).toContain('Where=/srv/music-2');
		expect(root.has('/etc/enabled/srv-music\\x2d2.automount')).toBe(true);
		place(lounge.plan);
		expect(apply().out).toContain('removed /etc/systemd/system/srv-music\\x2d2.mount');
		expect(root.has('/etc/enabled/srv-music\\x2d2.automount')).toBe(false);
	});

	it('takes passwords and keys off the first partition where the plan says so, and can still be run again', () => {
		const plan = { ...twoShares, card: { ...twoShares.card, secretsLeave: true } };
		const secrets = { sharePasswords: { 'music-2': 'hunter2 and more' } };
		place(plan, secrets);
		root.put('/boot/firmware/user-data', '#cloud-config\n    hashed_passwd: "x"\nruncmd: []\n');
		expect(apply().out).toContain('taken off the first partition: root/etc/yphos/music-2.credentials');
		for (const [path, left] of root.left(['boot'])) expect(left.includes('hunter2'), path).toBe(false);
		expect(root.read('/boot/firmware/user-data')).toBe('#cloud-config\nruncmd: []\n');
		expect(root.has(`${SET}/manifest.json`)).toBe(false);
		expect(root.read('/etc/yphos/music-2.credentials')).toContain('hunter2 and more');
		root.restart();
		expect(apply().out).toBe('done: nothing to change\n');
		// One that stands in user-data alone goes just as well.
		place(plan);
		root.put('/boot/firmware/user-data', '#cloud-config\n    hashed_passwd: "x"\n');
		expect(apply().out).toContain('taken off the first partition: the password in user-data');
		expect(root.read('/boot/firmware/user-data')).toBe('#cloud-config\n');
		// Another password comes with another set.
		place(plan, { sharePasswords: { 'music-2': 'another' } });
		expect(apply().code).toBe(0);
		expect(root.read('/etc/yphos/music-2.credentials')).toContain('another');
	});

	it('gives the kernel what is wanted and takes back what an earlier set had added, and nothing of the image’s own', () => {
		const wanted: Plan = { ...lounge.plan, card: { ...lounge.plan.card, bootStyle: 'extlinux', bootText: 'label x' } };
		const file = '/boot/firmware/extlinux/extlinux.conf';
		const image = 'label debian\n\tlinux /vmlinuz\n\tappend root=/dev/mmcblk0p2 quiet\n';
		place(wanted);
		root.put(file, image);
		expect(apply().out).toContain(`changed ${file}`);
		expect(root.read(file)).toContain('\tappend root=/dev/mmcblk0p2 quiet fsck.repair=yes panic=10\n');
		place({ ...wanted, card: { ...wanted.card, mendAtStart: false } });
		root.put(file, image.replace('quiet', 'quiet fsck.repair=yes panic=10'));
		apply();
		expect(root.read(file)).toContain('\tappend root=/dev/mmcblk0p2 quiet panic=10 fsck.mode=skip\n');
		place({ ...wanted, card: { ...wanted.card, bootStyle: 'none' } });
		root.put(file, image.replace('quiet', 'quiet panic=10 fsck.mode=skip'));
		apply();
		expect(root.read(file)).toBe(image);
	});

	it('names an add-on in the start file by one block of its own, and takes it away again', () => {
		const plan: Plan = {
			...lounge.plan,
			parts: { ...lounge.plan.parts, converter: 'conv-header-small' },
			card: { ...lounge.plan.card, bootStyle: 'cmdline' },
			sound: { ...lounge.plan.sound, overlay: 'plain-dac,gain=2' }
		};
		const start = '/boot/firmware/config.txt';
		const image = '# as it came\r\n[pi-like]\ndtparam=x\n';
		place(plan);
		root.put(start, image);
		expect(apply().code).toBe(0);
		expect(root.read(start)).toBe(`${image}# yphos begin\n[all]\ndtoverlay=plain-dac,gain=2\n# yphos end\n`);
		root.restart();
		expect(apply().out).toBe('done: nothing to change\n');
		place(lounge.plan);
		expect(apply().out).toContain('changed ');
		expect(root.read(start)).toBe(image);
		rmSync(root.at(start));
		place(plan);
		expect(apply().err).toMatch(/config\.txt is not there: this board starts another way/);
	});

	it('works below a layer in memory, leaves nothing mounted, and says what became of it', () => {
		place(lounge.plan);
		for (const name of ['mount', 'umount']) root.standIn(name, `echo "${name} $*" >>/stand-ins/log`);
		root.standIn('mountpoint', 'false');
		root.standIn('overlayroot-chroot', 'echo "below: $2" >>/stand-ins/log; BELOW=- exec "$@"');
		root.put('/stand-ins/fstype', 'overlay\n');
		root.put(`/media/root-ro${APPLY}`, '');
		expect(apply()).toMatchObject({ code: 0, err: '' });
		root.restart();
		// Here nothing closes the folder again, as nothing can where a replaced file is still shown.
		expect(apply().out).toMatch(/^done: nothing to change\nThe card stays open for writing until the restart/);
		const log = root.read('/stand-ins/log');
		expect(log).toContain(`below: ${APPLY}`);
		const [mounted, freed] = ['mount --bind \\S+', 'umount'].map((words) =>
			[...log.matchAll(new RegExp(`^${words} (\\S+)$`, 'gm'))].map(([, at]) => at)
		);
		expect(mounted).toEqual([...Array(2)].flatMap(() => ['/media/root-ro/dev', '/media/root-ro/boot/firmware']));
		expect(freed).toEqual(mounted);
	});

	it('on a full card keeps the file that was there, whole, and says so', () => {
		place(lounge.plan);
		apply();
		root.put('/etc/asound.conf', 'the old one\n');
		root.standIn('install', 'for last; do :; done\nprintf half >"$last"\necho "No space left on device" >&2\nexit 1');
		const done = apply();
		expect(done.code).toBe(1);
		expect(done.err).toContain('/etc/asound.conf could not be written; what was there is as it was');
		expect(root.read('/etc/asound.conf')).toBe('the old one\n');
		expect([...root.left().keys()].filter((path) => path.endsWith('.yphos-new'))).toEqual([]);
	});

	it('without a tool that it needs names the tool, and calls no file damaged', () => {
		place(lounge.plan);
		root.put('/few/x', '');
		root.run([
			'sh',
			'-c',
			'for t in bash dirname cut cmp stat install mv grep sort; do ln -s "$(command -v $t)" /few/$t; done'
		]);
		const done = root.run(['/bin/bash', APPLY], { env: { PATH: '/few' } });
		expect(done.code).toBe(1);
		expect(done.err).toContain('sha256sum is missing on this system');
		expect(done.err).not.toContain('damaged');
	});

	it('touches nothing when one file of the copy is damaged', () => {
		place(lounge.plan);
		const victim = join(SET, 'root/opt/yphos/playlist.m3u8');
		root.put(victim, `${root.read(victim)}x`);
		const done = apply();
		expect(done.code).toBe(1);
		expect(done.err).toContain('The copy of opt/yphos/playlist.m3u8 on the card is damaged. Copy the card set again.');
		expect(root.has(dirname('/opt/yphos/playlist.m3u8'))).toBe(false);
	});
});
