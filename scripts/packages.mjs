// Makes src/core/engines/machine/packageTable.ts anew from the real packages of Debian 12: node scripts/packages.mjs (root is not needed).
// For each it keeps what a rehearsal asks about: programs, units, files of configuration, and the users that it makes.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { capture, root, run, tool } from './run.mjs';

/** What a lite image holds before anything is added. */
const IMAGE = [
	...[
		'base-files',
		'bash',
		'coreutils',
		'dash',
		'debianutils',
		'diffutils',
		'dpkg',
		'findutils',
		'grep',
		'gzip',
		'hostname'
	],
	...[
		'init-system-helpers',
		'libc-bin',
		'login',
		'mawk',
		'mount',
		'passwd',
		'perl-base',
		'sed',
		'sysvinit-utils',
		'tar',
		'util-linux'
	],
	...[
		'apt',
		'systemd',
		'systemd-sysv',
		'systemd-timesyncd',
		'udev',
		'dbus',
		'sudo',
		'openssh-server',
		'iproute2',
		'kmod',
		'procps'
	],
	...[
		'adduser',
		'netbase',
		'tzdata',
		'cloud-init',
		'cloud-guest-utils',
		'e2fsprogs',
		'fdisk',
		'network-manager',
		'usbutils',
		'initramfs-tools'
	]
];
/** What plans ask for. */
const ASKED = [
	'mpv',
	'alsa-utils',
	'nftables',
	'avahi-daemon',
	'unattended-upgrades',
	'overlayroot',
	'busybox',
	'locales',
	'libegl-mesa0',
	'libgl1-mesa-dri',
	'v4l-utils',
	'ir-keytable',
	'triggerhappy',
	'socat',
	'gpiod',
	'cifs-utils',
	'nfs-common',
	'libnss-mdns',
	'device-tree-compiler',
	'ffmpeg',
	'bluez',
	'bluez-alsa-utils',
	'bluez-tools',
	'pulseaudio',
	'cage',
	'chromium',
	'seatd',
	'xwayland',
	'curl',
	'openssl',
	'ntfs-3g',
	'fonts-noto-core',
	'fonts-noto-cjk',
	'fonts-noto-color-emoji'
];

const work = mkdtempSync(join(tmpdir(), 'yphos-packages-'));
const rows = { image: {}, asked: {} };
for (const [group, names] of [
	['image', IMAGE],
	['asked', ASKED]
])
	for (const name of names) {
		if (capture('apt-get', ['download', '-qq', name], { cwd: work }).code !== 0) {
			console.error(`${name} cannot be fetched. Run apt-get update first.`);
			process.exit(1);
		}
		const file = capture('sh', ['-c', `ls -t ${name}_*.deb | head -n 1`], { cwd: work }).out.trim();
		const listed = capture('dpkg-deb', ['--contents', file], { cwd: work }).out.split('\n');
		const paths = listed.flatMap((line) => {
			const m = /^([-lh])(\S{9})\s+\S+\s+\d+\s+\S+\s+\S+\s+\.(\/.*?)(?: (?:->|link to) .*)?$/.exec(line);
			return m
				? [{ path: m[3].replace(/^\/(bin|sbin|lib)\//, '/usr/$1/'), runs: m[1] === 'l' || m[2].includes('x') }]
				: [];
		});
		const control = capture('sh', ['-c', `dpkg-deb --ctrl-tarfile ${file} | tar -xO ./conffiles 2>/dev/null`], {
			cwd: work
		}).out;
		const postinst = capture('sh', ['-c', `dpkg-deb --ctrl-tarfile ${file} | tar -xO ./postinst 2>/dev/null`], {
			cwd: work
		}).out;
		rows[group][name] = {
			programs: paths
				.filter(({ path, runs }) => runs && /^\/usr\/s?bin\/[^/]+$/.test(path))
				.map(({ path }) => path)
				.sort(),
			units: paths
				.map(
					({ path }) =>
						/^\/usr\/lib\/systemd\/system\/([^/]+\.(?:service|timer|socket|target|path|mount))$/.exec(path)?.[1]
				)
				.filter(Boolean)
				.sort(),
			conffiles: control
				.split('\n')
				.filter((line) => line.startsWith('/'))
				.sort(),
			users: [
				...new Set(
					[...postinst.matchAll(/adduser\s+(?:--?\S+\s+(?:[^-\s]\S*\s+)?)*([a-z][a-z0-9-]+)/g)].map((m) => m[1])
				)
			]
		};
	}
rmSync(work, { recursive: true });

const release = capture('sh', ['-c', '. /etc/os-release; echo $PRETTY_NAME']).out.trim();
const table = (group) => JSON.stringify(rows[group]);
const target = resolve(root, 'src/core/engines/machine/packageTable.ts');
writeFileSync(
	target,
	`/**
 * What packages bring, as far as a rehearsal asks: programs, units, files of configuration (which dpkg asks about when something
 * else stands in their place), users. Source: the packages themselves, ${release}; made by scripts/packages.mjs.
 */
export interface PackageContents {
	readonly programs: readonly string[];
	readonly units: readonly string[];
	readonly conffiles: readonly string[];
	readonly users: readonly string[];
}

/** There before anything is added: a lite image with a seed. */
export const IMAGE_PACKAGES: Readonly<Record<string, PackageContents>> = ${table('image')};

/** Those that plans ask for. */
export const ASKED_PACKAGES: Readonly<Record<string, PackageContents>> = ${table('asked')};
`
);
run(tool('prettier'), ['--write', target]);
