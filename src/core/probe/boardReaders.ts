import { z } from 'zod';
import { jsonValuesIn } from '../formats/json/values';
import type { Reader } from './soundReaders';
import { safely } from '../basics/safely';

const filled = (lines: readonly string[]): string[] =>
	lines
		.map((line) => line.trim())
		.filter((line) => line !== '' && !/^\((?:not installed|none|ended with code \d+)\)$/.test(line));

const useAll = (lines: readonly string[], used: Set<number>): void => lines.forEach((_, n) => used.add(n));

/** Flags of the firmware, now and since the start: bits 0 and 16, and 2, 3, 18, 19. */
const TOO_LITTLE_VOLTAGE = 0x1_0001;
const SLOWED = 0xc_000c;

/** Files of one value each: only their path says what the value means. */
const ONE_VALUE: readonly {
	readonly path: RegExp;
	readonly what: string;
	read(values: string[], found: Parameters<Reader>[1], m: RegExpExecArray): void;
}[] = [
	{
		path: /(?:device-tree\/model|dmi\/id\/product_name)$/,
		what: 'model',
		read: ([model], { facts }) => (facts.model ??= model ?? null)
	},
	{
		path: /drm\/card\d+-([\w-]+)\/status$/,
		what: 'screen sockets',
		read: ([status], { facts }, m) =>
			void facts.connectors.push({ name: m[1]!, connected: status === 'connected', modes: [], edidHex: null })
	},
	{
		path: /drm\/card\d+-([\w-]+)\/modes$/,
		what: 'screen modes',
		read: (modes, { facts }, m) => facts.connectors.find((c) => c.name === m[1])?.modes.push(...new Set(modes))
	},
	{
		path: /net\/(\w+)\/speed$/,
		what: 'link speed',
		read: ([mbps], { facts }, m) => Number(mbps) > 0 && facts.linkMbps.push({ name: m[1]!, mbps: Number(mbps) })
	},
	{
		path: /(thermal_zone\d+)\/type$/,
		what: 'temperatures',
		read: ([type], { facts }, m) => void facts.temperaturesC.push({ name: `${m[1]} ${type ?? ''}`, celsius: NaN })
	},
	{
		path: /(thermal_zone\d+)\/temp$/,
		what: 'temperatures',
		read([text], { facts }, m) {
			const known = facts.temperaturesC.find((t) => t.name.startsWith(`${m[1]} `));
			const celsius = Number(text) / 1000;
			if (known) {
				known.celsius = celsius;
				known.name = known.name.slice(m[1]!.length + 1) || m[1]!;
			} else facts.temperaturesC.push({ name: m[1]!, celsius });
		}
	},
	{
		path: /hwmon\d+\/in\w*_alarm$/,
		what: 'supply alarms',
		read: ([text], { facts }) => (facts.supplyAlarm = (facts.supplyAlarm ?? false) || text === '1')
	},
	{
		path: /get_throttled$/,
		what: 'throttle flags',
		read([text], { facts }) {
			const flags = parseInt(text ?? '0', 16);
			facts.supplyAlarm = (facts.supplyAlarm ?? false) || (flags & TOO_LITTLE_VOLTAGE) !== 0;
			facts.throttled = (facts.throttled ?? false) || (flags & SLOWED) !== 0;
		}
	}
];

/** Sections that are the contents of one file of the kernel, such as its model or temperature. */
export const readOneValue: Reader = ({ heading, lines }, found, used) => {
	const path = /^cat (\S+)$/.exec(heading)?.[1];
	if (!path) return;
	for (const rule of ONE_VALUE) {
		const m = rule.path.exec(path);
		if (!m) continue;
		const values = filled(lines);
		if (values.length) {
			rule.read(values, found, m);
			found.understood.add(rule.what);
		}
		useAll(lines, used);
	}
	if (/hwmon\d+\/name$/.test(path)) useAll(lines, used);
};

/** EDID as hexadecimal bytes. */
export const readEdidHex: Reader = ({ heading, lines }, found, used) => {
	const name = /^od .*card\d+-([\w-]+)\/edid$/.exec(heading)?.[1];
	if (!name) return;
	const hex = lines.join('').replace(/\s/g, '');
	const connector = found.facts.connectors.find((c) => c.name === name);
	if (connector && /^([0-9a-f]{2})+$/.test(hex)) {
		connector.edidHex = hex;
		found.understood.add('screen identity');
	}
	useAll(lines, used);
};

/** Memory, system and time of the report, each known by its own words. */
export const readSystem: Reader = ({ heading, lines }, { facts, understood }, used) => {
	lines.forEach((line, n) => {
		const memory =
			/^MemTotal:\s+(\d+) kB$/.exec(line)?.[1] ??
			(/^Mem:\s+(\d+)/.exec(line)?.[1] && heading === 'free' ? /^Mem:\s+(\d+)/.exec(line)![1] : undefined);
		const usb = /^Bus \d+ Device \d+: ID ([0-9a-f]{4}):[0-9a-f]{4}(.*)$/.exec(line);
		const system = /^PRETTY_NAME="?(.*?)"?$/.exec(line)?.[1];
		if (memory !== undefined) {
			facts.memoryMb = Math.round(Number(memory) / 1024);
			understood.add('memory');
		} else if (usb) {
			// 1d6b: the kernel's own root hubs.
			if (usb[1] !== '1d6b') facts.usbDevices.push(usb[2]!.trim() || 'unnamed device');
			understood.add('USB devices');
		} else if (system !== undefined) {
			facts.system = system;
			understood.add('system');
		} else if (/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$/.test(line)) facts.takenUtc = line;
		else if (
			!/^\w[\w()]*:\s+\d+(?: kB)?$|^[A-Z][A-Z_]*=|^Linux version |^(?:x86_64|aarch64|armv\w+|riscv64)$|^\((?:not installed|none|ended with code \d+)\)$/.test(
				line
			)
		)
			return;
		used.add(n);
	});
	if (heading.startsWith('ls /dev/dvb') || heading.startsWith('iw ')) {
		for (const line of filled(lines)) if (/^adapter\d+$/.test(line)) facts.tuners.push(line);
		useAll(lines, used);
	}
};

const lsblk = z.object({
	blockdevices: z.array(
		z.object({
			name: z.string(),
			size: z.union([z.number(), z.string().transform(Number)]),
			type: z.string(),
			mountpoints: z.array(z.string().nullable()).optional(),
			mountpoint: z.string().nullable().optional(),
			rm: z.union([z.boolean(), z.string().transform((v) => v === '1')]).optional(),
			children: z.unknown().optional()
		})
	)
});
const addresses = z.array(
	z.object({
		ifname: z.string(),
		operstate: z.string().optional(),
		addr_info: z.array(z.object({ local: z.string().optional(), prefixlen: z.number().optional() })).optional()
	})
);

/** JSON listings: `lsblk -J -b` and `ip -j addr`, wherever they begin a line of the text. */
export const readJsonListings: Reader = ({ lines }, found, used) => {
	// Where each line begins in the joined text.
	const starts: number[] = [];
	let length = 0;
	for (const line of lines) {
		starts.push(length);
		length += line.length + 1;
	}
	let n = 0;
	for (const { read, from, to } of jsonValuesIn(lines.join('\n'))) {
		while (n + 1 < starts.length && starts[n + 1]! <= from) n++;
		if (starts[n] !== from || !read.ok || !takeJson(read.value, found)) continue;
		for (let line = n; line < starts.length && starts[line]! <= to; line++) used.add(line);
	}
};

function takeJson(value: unknown, { facts, understood }: Parameters<Reader>[1]): boolean {
	const disks = safely(lsblk, value);
	if (disks.success) {
		facts.disks.push(
			...disks.data.blockdevices.map((d) => ({
				name: d.name,
				sizeBytes: d.size,
				type: d.type,
				mountPoints: (d.mountpoints ?? [d.mountpoint ?? null]).flatMap((point) => point ?? []),
				removable: d.rm ?? false
			}))
		);
		understood.add('disks');
		return true;
	}
	const nets = safely(addresses, value);
	if (!nets.success || nets.data.length === 0) return false;
	for (const net of nets.data)
		for (const info of net.addr_info ?? [])
			if (info.local && net.ifname !== 'lo')
				facts.addresses.push({
					name: net.ifname,
					address: info.local,
					up: net.operstate === 'UP',
					prefixLength: info.prefixlen ?? null
				});
	understood.add('addresses');
	return true;
}
