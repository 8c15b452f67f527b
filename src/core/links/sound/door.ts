import { readAlsaConf, type AlsaBlock } from '../../formats/alsa/conf';
import { readDeviceName } from '../../formats/alsa/deviceName';
import type { Route } from './treatment';

/** The way that asound.conf opens from a device's name to the hardware. */
export interface Door {
	readonly door: Route['door'];
	readonly cardId: string;
	readonly deviceNumber: number;
	readonly rateHz: number | null;
	/** Several programs at once: the way leads through a mixing device. */
	readonly mixes: boolean;
	/** Samples that the hardware does not take are converted on the way. */
	readonly converts: boolean;
}

/** What a device of each kind may say of itself; anything else, and alsa-lib opens none of it. Source: alsa-lib, src/pcm/pcm_plug.c, pcm_direct.c, pcm_hw.c. */
const FIELDS: Readonly<Record<string, readonly string[]>> = {
	plug: ['type', 'comment', 'slave', 'ttable', 'route_policy', 'rate_converter'],
	hw: ['type', 'comment', 'card', 'device', 'subdevice', 'nonblock', 'rate', 'format', 'channels'],
	dmix: ['type', 'comment', 'ipc_key', 'ipc_key_add_uid', 'ipc_gid', 'ipc_perm', 'slave', 'bindings', 'slowptr']
};
const DEEPEST = 8;
/** A group that every image has, or a number. */
const GROUPS = /^(?:audio|\d+)$/;

/** Follows a device name through asound.conf to the hardware; a string says where the path ends. alsa-lib reads the whole file before it opens anything, hardware by its own name too. */
export function findDoor(asoundConf: string | null, name: string): Door | string {
	const conf = readAlsaConf(asoundConf ?? '');
	return conf.ok ? follow(conf.value, name, 0) : conf.faults[0]!.message;
}

function follow(conf: AlsaBlock, name: string, depth: number): Door | string {
	const { plugin, cardId, deviceNumber } = readDeviceName(name);
	if (plugin === 'hw' || plugin === 'iec958' || plugin === 'hdmi')
		return cardId
			? { door: plugin, cardId, deviceNumber, rateHz: null, mixes: false, converts: false }
			: `"${name}" names no card`;
	const pcm = blockOf(blockOf(conf.pcm)?.[plugin]);
	if (!pcm || depth > DEEPEST) return `asound.conf knows no device "${plugin}"`;
	if (typeof pcm.type !== 'string') return `the device "${plugin}" does not say of which type it is`;
	const known = Object.hasOwn(FIELDS, pcm.type) ? FIELDS[pcm.type]! : null;
	if (!known) return `the device "${plugin}" is of the type ${pcm.type}, which is not known here`;
	const odd = Object.keys(pcm).find((field) => !known.includes(field));
	if (odd !== undefined) return `the device "${plugin}" has a field ${odd}, which ${pcm.type} does not take`;
	if (pcm.ipc_gid !== undefined && !GROUPS.test(String(pcm.ipc_gid)))
		return `the device "${plugin}" is for a group ${String(pcm.ipc_gid)}, which is not known here`;
	if (pcm.type === 'dmix' && pcm.ipc_key === undefined) return `the device "${plugin}" has no ipc_key`;
	const slave = blockOf(pcm.slave);
	if (typeof slave?.pcm !== 'string') return `the device "${plugin}" leads nowhere`;
	const next = follow(conf, slave.pcm, depth + 1);
	if (typeof next === 'string') return next;
	return {
		...next,
		rateHz: next.rateHz ?? (slave.rate ? Number(slave.rate) : null),
		mixes: next.mixes || pcm.type === 'dmix',
		converts: next.converts || pcm.type === 'plug'
	};
}

/** The card whose controls a mixer shows that asks for none in particular; "": asound.conf does not say. */
export function findControls(asoundConf: string): string {
	const conf = readAlsaConf(asoundConf);
	const controls = conf.ok ? blockOf(blockOf(conf.value.ctl)?.default) : null;
	return controls?.type === 'hw' && typeof controls.card === 'string' ? controls.card : '';
}

const blockOf = (value: AlsaBlock[string] | undefined): AlsaBlock | null => (typeof value === 'object' ? value : null);
