import { NO_SPACE, tellerFor, type Machine, type Teller } from '../../../engines/machine';
import type { MountWish } from '../../../engines/machine/signals';
import { KERNEL_FILE_SYSTEMS } from '../../../standards/kernelFileSystems';
import { linesOf } from '../../../formats/lines';
import { unescapeUnitText } from '../../../formats/systemd/escape';
import { GIVES_UP_SEC } from './storeFiles';
import { SOURCES_WORDS } from '../words';

/** To agree with a server, and to mount a stick. Typical. */
const MOUNT_MS = 700;
/** Until a name is given up on; until a network that is not there is reported. Typical. */
const NAME_MS = 5000;
const OFFLINE_MS = 3000;
/** A device that never comes is waited for so long. Source: systemd-system.conf(5), DefaultTimeoutStartSec. */
const DEVICE_MS = 90_000;
/** Who mounts what, besides the kernel. Source: mount(8), external helpers. */
const HELPERS: Readonly<Record<string, { path: string; of: string }>> = {
	cifs: { path: '/usr/sbin/mount.cifs', of: 'cifs-utils' },
	nfs: { path: '/usr/sbin/mount.nfs', of: 'nfs-common' }
};
/** Those that a program does in the kernel's stead. Source: mount.ntfs-3g(8). */
const BY_PROGRAM: typeof HELPERS = { 'ntfs-3g': { path: '/usr/sbin/mount.ntfs-3g', of: 'ntfs-3g' } };

/** What the endpoint's own units mount, and whether it is there. */
export interface Mounts {
	/** Calls back once it is known whether what lies at this path can be read; null: it can, or no mount covers it. */
	reach(path: string, done: (why: string | null) => void): void;
	/** One of the units is to mount there. */
	covers(path: string): boolean;
}

/** The file server, and whoever plugs sticks in: as the bench has them, faults too. */
export function rehearseStores(machine: Machine): Mounts {
	const tell = tellerFor(machine, 'sources', SOURCES_WORDS);
	const mounted = new Map<string, MountWish>();
	const waiting = new Map<string, ((why: string | null) => void)[]>();
	machine.on('mains-off', () => {
		mounted.clear();
		waiting.clear();
	});
	/** What is written there lies on the server: nobody on the endpoint gives it away, whatever happens to the board. */
	const written = new Map<string, string>();
	function openShare({ where, type, options }: MountWish): void {
		const { disk } = machine;
		const chosen = options.split(',');
		// The modes of NFS are the server's own. Source: mount.cifs(8), file_mode and dir_mode; nfs(5).
		const mode = chosen.find((option) => option.startsWith('dir_mode='))?.slice('dir_mode='.length);
		disk.folderModes.set(where, type === 'cifs' ? (mode ?? '0755') : '0777');
		if (disk.mounts.some(({ prefix }) => prefix === where) || !(type in HELPERS)) return;
		disk.mounts.push({
			prefix: where,
			read: (path) => (mounted.has(where) ? (written.get(path) ?? null) : null),
			list: (folder) =>
				[...written.keys()]
					.filter((path) => path.startsWith(`${folder}/`))
					.map((path) => path.slice(folder.length + 1)),
			write(path, text) {
				const why = keepsOut(machine, mounted.get(where));
				if (why !== null) return why;
				machine.assumed.add('the file server lets the endpoint write');
				written.set(path, text);
				return null;
			},
			remove: (path) => keepsOut(machine, mounted.get(where)) === null && written.delete(path)
		});
	}
	machine.offers.mount = (wish, done) => {
		const finish = (why: string | null): void => {
			if (why === null) {
				mounted.set(wish.where, wish);
				openShare(wish);
			}
			done(why);
			const asked = waiting.get(wish.where) ?? [];
			waiting.delete(wish.where);
			for (const tell of asked) tell(why);
		};
		const { afterMs, why } = attempt(machine, wish);
		machine.after(afterMs, () => finish(why));
	};
	hearFaults(machine, tell, mounted);
	return {
		covers: (path) => unitsOf(machine).some(({ where }) => path.startsWith(`${where}/`)),
		reach(path, done) {
			const unit = unitsOf(machine).find(({ where }) => path.startsWith(`${where}/`));
			if (!unit) return done(null);
			const there = mounted.get(unit.where);
			if (there) return done(lost(machine, there));
			const automount = unit.unit.replace(/\.mount$/, '.automount');
			const isAuto = machine.systemd.isActive(automount) && saysOf(machine, automount)('Where') === unit.where;
			// Without an automount the folder is empty until the mount is there.
			if (!isAuto || !unit.isRight) return done('nothing is mounted there');
			const asked = waiting.get(unit.where);
			if (asked) asked.push(done);
			else {
				waiting.set(unit.where, [done]);
				machine.systemd.stop(unit.unit);
				machine.systemd.start(unit.unit);
			}
		}
	};
}

/** What befalls the server and whoever plugs sticks in. */
function hearFaults(machine: Machine, tell: Teller<typeof SOURCES_WORDS>, mounted: Map<string, MountWish>): void {
	machine.on('fault', ({ name, on }) => {
		if (name === 'server-asleep') tell.event(on ? 'server-sleeps' : 'server-wakes', 'fault');
		if (name === 'server-unnamed') tell.event(on ? 'name-gone' : 'name-back', 'fault');
		if (name === 'share-read-only') tell.event(on ? 'share-closed' : 'share-opened', 'fault');
		if (name === 'share-full') tell.event(on ? 'share-filled' : 'share-emptied', 'fault');
		if (name === 'share-password') tell.event(on ? 'password-refused' : 'password-taken', 'fault');
		if (name !== 'stick-out') return;
		tell.event(on ? 'stick-gone' : 'stick-back', 'fault');
		for (const { unit, what, where } of unitsOf(machine)) {
			if (!what.startsWith('/dev/disk/')) continue;
			mounted.delete(where);
			machine.systemd.stop(unit);
			// The device wants it mounted when it comes. Source: systemd.device(5).
			if (!on && machine.powered && isWanted(machine, unit)) machine.systemd.start(unit);
		}
	});
}

interface MountUnit {
	readonly unit: string;
	readonly what: string;
	/** By its name, which Where= must agree with. Source: systemd.mount(5). */
	readonly where: string;
	readonly isRight: boolean;
}

/** What a unit says of a setting; "": nothing. */
const saysOf = (machine: Machine, unit: string) => {
	const lines = linesOf(machine.disk.unit(unit)?.text ?? '');
	return (key: string): string => lines.findLast((line) => line.startsWith(`${key}=`))?.slice(key.length + 1) ?? '';
};

const UNITS = '/etc/systemd/system/';
const known = new WeakMap<Machine, { readonly version: number; readonly units: MountUnit[] }>();

/** Mounts that the card set brings; looked through again only when something on the disk has changed. */
function unitsOf(machine: Machine): MountUnit[] {
	const { version } = machine.world;
	const before = known.get(machine);
	if (before?.version === version) return before.units;
	const units: MountUnit[] = [];
	for (const path of machine.disk.files.keys()) {
		if (!path.startsWith(UNITS) || !path.endsWith('.mount')) continue;
		const unit = path.slice(UNITS.length);
		const name = unescapeUnitText(unit.slice(0, -'.mount'.length));
		if (unit.includes('/') || !name.ok) continue;
		const value = saysOf(machine, unit);
		const where = `/${name.value}`;
		units.push({ unit, what: value('What'), where, isRight: value('Where') === where });
	}
	known.set(machine, { version, units });
	return units;
}

const isWanted = (machine: Machine, unit: string): boolean => machine.disk.enabled.includes(unit);

/** What was mounted and cannot be read any more. */
const lost = (machine: Machine, { type }: MountWish): string | null =>
	type in HELPERS && machine.activeFaults.has('server-asleep') ? 'the server does not answer' : null;

/** Why nothing can be written there; null: it can. Source: mount(8), ro; errno(3). */
function keepsOut(machine: Machine, wish: MountWish | undefined): string | null {
	if (!wish) return 'nothing is mounted there';
	const gone = lost(machine, wish);
	if (gone !== null) return gone;
	if (wish.options.split(',').includes('ro')) return 'Read-only file system';
	if (machine.activeFaults.has('share-read-only')) return 'Permission denied';
	return machine.activeFaults.has('share-full') ? NO_SPACE : null;
}

/** Options that card sets use. Source: mount.cifs(8), nfs(5). */
const OPTIONS: ReadonlySet<string> = new Set([
	...['ro', 'rw', 'credentials', 'guest', 'file_mode', 'dir_mode', 'iocharset', 'echo_interval', '_netdev', 'vers'],
	...['soft', 'timeo', 'retrans', 'nfsvers']
]);

/** How mounting ends, as the programs themselves say it. Source: mount.cifs(8), mount.nfs(8), mount(8). */
function attempt(machine: Machine, { what, type, options }: MountWish): { afterMs: number; why: string | null } {
	const helper = HELPERS[type];
	const no = (afterMs: number, why: string): { afterMs: number; why: string } => ({ afterMs, why });
	const { activeFaults, bench, disk } = machine;
	const store = bench.stores.find((known) => known.what === what);
	if (!helper) {
		if (!store || activeFaults.has('stick-out')) return no(DEVICE_MS, `${what}: the device does not come`);
		const program = BY_PROGRAM[type];
		if (program ? !disk.isExecutable(program.path) : !Object.hasOwn(KERNEL_FILE_SYSTEMS, type))
			return no(MOUNT_MS, `unknown filesystem type '${type}'`);
		return store.type === type
			? { afterMs: MOUNT_MS, why: null }
			: no(MOUNT_MS, 'wrong fs type, bad option, bad superblock');
	}
	if (!disk.isExecutable(helper.path)) return no(0, `you might need ${helper.path}, of ${helper.of}`);
	const server = /^(?:\/\/)?([^/:]+)/.exec(what)?.[1] ?? '';
	const odd = options.split(',').find((option) => !OPTIONS.has(option.split('=', 1)[0]!));
	if (odd !== undefined)
		return no(0, type === 'nfs' ? 'an incorrect mount option was specified' : 'mount error(22): Invalid argument');
	if (!machine.online) return no(OFFLINE_MS, 'mount error(101): Network is unreachable');
	const isNumber = /^[\d.]+$/.test(server);
	const isFound = isNumber || !server.endsWith('.local') || disk.packages.get('libnss-mdns') === 'installed';
	if (!isNumber && (!isFound || activeFaults.has('server-unnamed')))
		return no(NAME_MS, `could not resolve address for ${server}`);
	if (activeFaults.has('server-asleep')) return no(GIVES_UP_SEC * 1000, `${server} does not answer`);
	if (!store || store.type !== type) return no(MOUNT_MS, 'mount error(2): No such file or directory');
	if (type === 'cifs' && !letsIn(machine, store.user, options.split(',')))
		return no(MOUNT_MS, 'mount error(13): Permission denied');
	return { afterMs: MOUNT_MS, why: null };
}

/** A user and a password that the server knows, or a guest where it takes guests. */
function letsIn(machine: Machine, user: string | null, options: readonly string[]): boolean {
	const path = options.find((option) => option.startsWith('credentials='))?.slice('credentials='.length);
	if (path === undefined) return user === null && options.includes('guest');
	const known = new Map(
		linesOf(machine.disk.read(path) ?? '').map((line) => {
			const at = line.indexOf('=');
			return [line.slice(0, at), line.slice(at + 1)];
		})
	);
	if (!known.get('password') || machine.activeFaults.has('share-password')) return false;
	machine.assumed.add('the password of the share is the right one');
	return known.get('username') === user;
}
