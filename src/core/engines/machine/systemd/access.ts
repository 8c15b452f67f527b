import { isBelow } from '../disk';
import type { UnitFiles } from './unitFiles';

/** What a unit's own settings let its programs do. Source: systemd.exec(5), systemd.resource-control(5). */
export interface Access {
	/** Why a unit may not use a device; null: it may. */
	mayUse(unit: string | null, group: string, device: string): string | null;
	/** Whether it runs as somebody else than the administrator; what belongs to no unit does not. */
	isOther(unit: string | null): boolean;
	/** Whether a unit may read a file of this mode that is not its own. */
	mayRead(unit: string | null, mode: string): boolean;
	/** Why a unit may not write there; null: it may. */
	mayWrite(unit: string | null, path: string): string | null;
}

/** Folders that a unit asks for, by setting, and where they lie: made for it, and writable whatever else is closed. Source: systemd.exec(5). */
const OWN_FOLDERS = { StateDirectory: '/var/lib/', RuntimeDirectory: '/run/' } as const;
/** ProtectSystem=true closes these; full adds /etc; strict closes all but the kernel's own. */
const CLOSED: Readonly<Record<string, readonly string[]>> = {
	full: ['/usr', '/boot', '/efi', '/etc'],
	strict: ['']
};
/** Nodes that udev gives to a group. Source: systemd 252, rules.d/50-udev-default.rules.in. */
const SOUND = { folder: '/dev/snd', group: 'audio', device: 'char-alsa' };
/** Kinds of devices that the kernel knows only once a module is there. */
const MODULES: Readonly<Record<string, string>> = { 'char-alsa': 'snd', 'char-drm': 'drm' };

/** The folders that a unit asks for. */
export const ownFoldersOf = (files: UnitFiles, unit: string): readonly string[] =>
	files.made('own folders', unit, () =>
		Object.entries(OWN_FOLDERS).flatMap(([key, base]) => files.words(unit, key).map((name) => base + name))
	);

/** What a unit's settings let its programs read and write. Source: systemd.exec(5), systemd 252. */
export function accessOf(files: UnitFiles, knewDriver: (unit: string, module: string) => boolean): Access {
	/** As somebody who is not the administrator. */
	const runsAsOther = (unit: string): boolean =>
		files.isOn(unit, 'DynamicUser') || (files.value(unit, 'User') ?? 'root') !== 'root';
	const openedTo = (unit: string): readonly string[] =>
		files.made('opened', unit, () => [
			...ownFoldersOf(files, unit),
			...files.words(unit, 'ReadWritePaths').map((word) => word.replace(/^[-+]+/, ''))
		]);
	const mayUse: Access['mayUse'] = (unit, group, device) => {
		if (unit === null || !runsAsOther(unit)) return null;
		if (![...files.words(unit, 'SupplementaryGroups'), files.value(unit, 'Group')].includes(group))
			return `the unit is not in the group ${group}`;
		const policy = files.value(unit, 'DevicePolicy') ?? 'auto';
		const allowed = files.values(unit, 'DeviceAllow').map((line) => line.split(/\s+/)[0]);
		const limited = policy !== 'auto' || allowed.length > 0;
		if (limited && !allowed.includes(device)) return `DeviceAllow= keeps it from ${device}`;
		// A group of devices is looked up when the unit starts; one that the kernel does not know by then is never let in.
		const module = MODULES[device];
		return limited && module !== undefined && !knewDriver(unit, module)
			? `${device} was not known to the kernel when it started, so DeviceAllow= keeps it from it`
			: null;
	};
	return {
		mayUse,
		isOther: (unit) => unit !== null && runsAsOther(unit),
		mayRead: (unit, mode) => unit === null || !runsAsOther(unit) || (parseInt(mode, 8) & OTHERS_READ) !== 0,
		mayWrite(unit, path) {
			if (unit === null) return null;
			if (isBelow(path, SOUND.folder)) return mayUse(unit, SOUND.group, SOUND.device);
			const opened = openedTo(unit).find((folder) => isBelow(path, folder));
			if (opened !== undefined) {
				// A folder of its own is made its own at each start; what is made writable for it must still let its user in.
				if (ownFoldersOf(files, unit).includes(opened)) return null;
				const mode = parseInt(files.machine.disk.folderModes.get(opened) ?? '0777', 8);
				return runsAsOther(unit) && (mode & OTHERS_WRITE) === 0 ? 'Permission denied' : null;
			}
			if (runsAsOther(unit)) return 'Permission denied';
			const wish = files.value(unit, 'ProtectSystem') ?? 'no';
			const closed = /^(?:yes|true|1|on)$/.test(wish) ? ['/usr', '/boot', '/efi'] : (CLOSED[wish] ?? []);
			const isKernels = ['/dev', '/proc', '/sys'].some((folder) => isBelow(path, folder));
			return !isKernels && closed.some((folder) => isBelow(path, folder)) ? 'Read-only file system' : null;
		}
	};
}

/** Mode bits: whoever is neither owner nor in the group may read, may write. Source: inode(7). */
const OTHERS_WRITE = 0o002;
export const OTHERS_READ = 0o004;
