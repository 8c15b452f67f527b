import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { fromBase64, toBase64 } from '../../../formats/base64';
import { remembered } from '../../../basics/remembered';
import { isBelow, type DiskFile } from '../disk';
import type { Machine } from '../machine';
import { spawn, type Process, type Program } from '../processes';
import { isTimeZone } from '../../../formats/systemd/zone';
import { ACCOUNT_PROGRAMS } from './accounts';
import { fromStream, toStream } from './stream';

/** Stand-ins for the programs of coreutils and their kind, as far as scripts on a card use them. Source: their own man pages. */
type Simple = (process: Process, machine: Machine, args: readonly string[]) => number;

const bytesOf = (file: DiskFile | undefined): Uint8Array => file?.bytes ?? new TextEncoder().encode(file?.text ?? '');
const sizeOf = (file: DiskFile | undefined): number => file?.bytes?.length ?? bytesIn(file?.text ?? '');
/** Bytes of a text: the same feed is measured each time that it is fetched. */
const bytesIn = remembered(50, (text) => new TextEncoder().encode(text).length);
const digests = new WeakMap<Uint8Array, string>();
function digestOf(file: DiskFile | undefined): string {
	const bytes = bytesOf(file);
	let digest = digests.get(bytes);
	if (!digest) digests.set(bytes, (digest = bytesToHex(sha256(bytes))));
	return digest;
}
/** Options first, then operands; "--" ends the options. */
function operands(
	args: readonly string[],
	withValue = ''
): { flags: Set<string>; values: Map<string, string>; rest: string[] } {
	const flags = new Set<string>();
	const values = new Map<string, string>();
	const rest: string[] = [];
	for (let n = 0; n < args.length; n++) {
		const arg = args[n]!;
		if (arg === '--') return { flags, values, rest: [...rest, ...args.slice(n + 1)] };
		if (!arg.startsWith('-') || arg === '-') rest.push(arg);
		else if (arg.startsWith('--')) flags.add(arg);
		else
			for (let k = 1; k < arg.length; k++) {
				const letter = arg[k]!;
				if (withValue.includes(letter)) {
					values.set(letter, arg.slice(k + 1) || args[++n] || '');
					break;
				}
				flags.add(letter);
			}
	}
	return { flags, values, rest };
}
const lines = (text: string): string[] => (text === '' ? [] : text.replace(/\n$/, '').split('\n'));
const missing = (process: Process, path: string): number => {
	process.err(`${process.argv[0]}: ${path}: No such file or directory\n`);
	return 1;
};
/** Why a unit's own settings keep its programs from writing there; null: they do not. */
const mayNot = (process: Process, machine: Machine, path: string): string | null =>
	machine.systemd.mayWrite(process.unit, path);
/** Whether it is kept from a file by its mode, whoever it runs as. */
const mayNotRead = (process: Process, machine: Machine, path: string): boolean => {
	const file = machine.disk.get(path);
	return file !== undefined && !machine.systemd.mayRead(process.unit, file.mode);
};
const refused = (process: Process, path: string, why: string | null): number => {
	if (why === null) return 0;
	process.err(`${process.argv[0]}: ${path}: ${why}\n`);
	return 1;
};
function input(process: Process, machine: Machine, rest: readonly string[]): string | null {
	if (rest.length === 0) return process.stdin;
	let text = '';
	for (const path of rest) {
		const read = mayNotRead(process, machine, path) ? null : machine.disk.read(path);
		if (read === null) return null;
		text += read;
	}
	return text;
}

const BLOCK_BYTES = 4096;
const two = (n: number): string => String(n).padStart(2, '0');
/** What date prints for a letter behind a percent sign: of the clock on the wall, and of the instant. */
const DATE_PARTS: Readonly<Record<string, (wall: Date, utcMs: number) => string>> = {
	u: (wall) => String(((wall.getUTCDay() + 6) % 7) + 1),
	H: (wall) => two(wall.getUTCHours()),
	M: (wall) => two(wall.getUTCMinutes()),
	S: (wall) => two(wall.getUTCSeconds()),
	Y: (wall) => String(wall.getUTCFullYear()),
	m: (wall) => two(wall.getUTCMonth() + 1),
	d: (wall) => two(wall.getUTCDate()),
	s: (_, utcMs) => String(Math.floor(utcMs / 1000)),
	z(wall, utcMs) {
		const aheadMin = Math.round((wall.getTime() - utcMs) / 60_000);
		return `${aheadMin < 0 ? '-' : '+'}${two(Math.floor(Math.abs(aheadMin) / 60))}${two(Math.abs(aheadMin) % 60)}`;
	}
};
/** "+%H:%M" in its parts; null: it asks for what is not known here. */
const dateParts = remembered(50, (format) => {
	const parts = format
		.slice(1)
		.split(/(%.)/)
		.map((part) => (/^%./.test(part) ? DATE_PARTS[part[1]!] : part));
	return format === '' || parts.includes(undefined) ? null : (parts as Exclude<(typeof parts)[number], undefined>[]);
});

const SIMPLE: Readonly<Record<string, Simple>> = {
	cat(process, machine, args) {
		const text = input(process, machine, args);
		if (text === null) return missing(process, args[0]!);
		process.out(text);
		return 0;
	},
	base64(process, machine, args) {
		const text = input(
			process,
			machine,
			args.filter((arg) => arg !== '-d')
		);
		if (text === null) return missing(process, args.at(-1)!);
		if (!args.includes('-d')) return (process.out(`${toBase64(new TextEncoder().encode(text))}\n`), 0);
		const bytes = fromBase64(text);
		if (!bytes) return (process.err('base64: invalid input\n'), 1);
		process.out(new TextDecoder().decode(bytes));
		return 0;
	},
	sha256sum(process, machine, args) {
		const path = args[0] ?? process.stdinFile;
		const file = path === null ? { text: process.stdin, bytes: null } : machine.disk.get(path);
		if (!file) return missing(process, path!);
		process.out(`${digestOf(file as DiskFile)}  ${args[0] ?? '-'}\n`);
		return 0;
	},
	/** So many bytes of what comes in. */
	head(process, machine, args) {
		const { values, rest } = operands(args, 'cn');
		const most = Number(values.get('c') ?? NaN);
		if (Number.isNaN(most)) {
			machine.unknown(`head ${args.join(' ')}`);
			return 1;
		}
		const path = rest[0] ?? process.stdinFile;
		const file = path === null ? undefined : machine.disk.get(path);
		const text = rest[0] === undefined ? process.stdin : machine.disk.read(rest[0]);
		if (text === null) return missing(process, rest[0]!);
		const bytes = bytesOf((file ?? fromStream(text)) as DiskFile);
		process.out(bytes.length > most ? toStream(bytes.slice(0, most)) : file ? toStream(bytes) : text);
		return 0;
	},
	/** One file copied, no more of it than is said; a link is followed unless it is not to be. */
	dd(process, machine, args) {
		const values = new Map(args.map((arg) => arg.split(/=(.*)/s) as [string, string]));
		const flags = values.get('iflag')?.split(',') ?? [];
		if (!flags.includes('count_bytes')) machine.unknown(`dd ${args.join(' ')}`);
		const [from, to] = [values.get('if') ?? '', values.get('of') ?? ''];
		const file = machine.disk.get(from);
		if (!file || (flags.includes('nofollow') && machine.disk.links.has(from))) return missing(process, from);
		const bytes = bytesOf(file).slice(0, Number(values.get('count') ?? Infinity));
		return refused(process, to, mayNot(process, machine, to) ?? machine.disk.tryPut(to, fromStream(toStream(bytes))));
	},
	cut(process, machine, args) {
		const { values, rest } = operands(args, 'cdf');
		const from = /^(\d+)-$/.exec(values.get('f') ?? '');
		if (from && !values.has('d')) {
			// A line without a tab goes through whole.
			for (const line of lines(input(process, machine, rest) ?? ''))
				process.out(
					`${
						line.includes('\t')
							? line
									.split('\t')
									.slice(Number(from[1]) - 1)
									.join('\t')
							: line
					}\n`
				);
			return 0;
		}
		const range = /^(\d+)-(\d+)?$/.exec(values.get('c') ?? '');
		if (!range) {
			machine.unknown(`cut ${args.join(' ')}`);
			return 1;
		}
		for (const line of lines(input(process, machine, rest) ?? ''))
			process.out(`${line.slice(Number(range[1]) - 1, range[2] ? Number(range[2]) : undefined)}\n`);
		return 0;
	},
	cmp(process, machine, args) {
		const { rest } = operands(args, 'n');
		const [a, b] = rest.map((path) => machine.disk.get(path));
		if (!a || !b) return 2;
		return digestOf(a) === digestOf(b) ? 0 : 1;
	},
	stat(process, machine, args) {
		const { flags, values, rest } = operands(args, 'c');
		const [path = ''] = rest;
		if (flags.has('f')) {
			const { freeBytes } = machine.disk;
			// Blocks of 4096 bytes; of a card whose room nobody has told: none known.
			const blocks = Number.isFinite(freeBytes) ? Math.floor(freeBytes / BLOCK_BYTES) : 0;
			process.out(
				`${(values.get('c') ?? '')
					.replace('%T', isBelow(path, machine.bench.firstPartition) ? 'msdos' : 'ext2/ext3')
					.replace('%a', String(blocks))
					.replace('%S', String(BLOCK_BYTES))}\n`
			);
			return 0;
		}
		const isFolder = machine.disk.kind(path) === 'folder';
		const file = isFolder
			? { mode: '0755', owner: machine.disk.folderOwners.get(path) ?? 'root:root' }
			: machine.disk.get(path);
		if (!file) return missing(process, path);
		const [user, group] = file.owner.split(':') as [string, string];
		const text = (values.get('c') ?? '')
			.replace('%04a', file.mode)
			.replace('%a', file.mode.replace(/^0/, ''))
			.replace('%s', String(isFolder ? 4096 : sizeOf(machine.disk.get(path))))
			.replace('%U', user)
			.replace('%G', group);
		process.out(`${text}\n`);
		return 0;
	},
	install(process, machine, args) {
		const { flags, values, rest } = operands(args, 'mog');
		const [from, to] = rest as [string, string];
		const owner = `${values.get('o') ?? 'root'}:${values.get('g') ?? 'root'}`;
		const [user] = owner.split(':') as [string];
		if (user !== 'root' && !machine.disk.accounts.has(user)) {
			process.err(`install: invalid user '${user}'\n`);
			return 1;
		}
		if (flags.has('d')) {
			for (const path of rest) {
				machine.disk.makeFolder(path);
				machine.disk.folderOwners.set(path, owner);
			}
			return 0;
		}
		const file = machine.disk.get(from);
		if (!file) return missing(process, from);
		return refused(
			process,
			to,
			mayNot(process, machine, to) ??
				machine.disk.tryPut(to, {
					text: file.text,
					bytes: file.bytes,
					mode: (values.get('m') ?? '0755').padStart(4, '0'),
					owner
				})
		);
	},
	mv(process, machine, args) {
		const { rest } = operands(args);
		const [from, to] = rest as [string, string];
		const why = mayNot(process, machine, to);
		if (why !== null) return refused(process, to, why);
		return machine.disk.rename(from, to) ? 0 : missing(process, from);
	},
	rm(process, machine, args) {
		const { flags, rest } = operands(args);
		let code = 0;
		for (const path of rest) {
			const why = machine.disk.kind(path) === null ? null : mayNot(process, machine, path);
			if (why !== null) code = refused(process, path, why);
			else if (machine.disk.remove(path)) continue;
			else if (flags.has('r') && machine.disk.kind(path) === 'folder') machine.disk.removeFolder(path);
			else if (!flags.has('f')) code = missing(process, path);
		}
		return code;
	},
	rmdir(process, machine, args) {
		let code = 0;
		for (const path of operands(args).rest) {
			const why =
				machine.disk.kind(path) !== 'folder'
					? 'No such file or directory'
					: machine.disk.list(path).length
						? 'Directory not empty'
						: mayNot(process, machine, path);
			if (why !== null) code = refused(process, path, why);
			else machine.disk.removeFolder(path);
		}
		return code;
	},
	mkdir(process, machine, args) {
		for (const path of operands(args, 'm').rest) {
			const why = machine.disk.kind(path) === 'folder' ? null : mayNot(process, machine, path);
			if (why !== null) return refused(process, path, why);
			machine.disk.makeFolder(path);
		}
		return 0;
	},
	/** A symbolic link to a folder (-n) is followed; one to a file is a file that holds where it leads. A hard link is the file once more. */
	ln(process, machine, args) {
		const { flags, rest } = operands(args);
		const [from = '', to = ''] = rest;
		const why = mayNot(process, machine, to);
		if (why !== null) return refused(process, to, why);
		if (flags.has('s') && flags.has('n')) {
			machine.disk.link(to, from);
			return 0;
		}
		const file = flags.has('s') ? { text: from, bytes: null } : machine.disk.get(from);
		if (!file) return missing(process, from);
		machine.disk.put(to, file);
		return 0;
	},
	cp(process, machine, args) {
		const [from = '', to = ''] = operands(args).rest;
		const file = mayNotRead(process, machine, from) ? undefined : machine.disk.get(from);
		if (!file) return missing(process, from);
		const { text, bytes } = file;
		return refused(process, to, mayNot(process, machine, to) ?? machine.disk.tryPut(to, { text, bytes }));
	},
	readlink(process, machine, args) {
		const [path = ''] = operands(args).rest;
		const to = machine.disk.links.get(path) ?? machine.disk.get(path)?.text;
		if (to === undefined) return 1;
		process.out(`${to}\n`);
		return 0;
	},
	chmod(process, machine, args) {
		const [mode = '', ...paths] = operands(args).rest;
		for (const path of paths) {
			const file = machine.disk.get(path);
			if (file) machine.disk.put(path, { ...file, mode: mode.padStart(4, '0') });
			else if (machine.disk.kind(path) === null) return missing(process, path);
		}
		return 0;
	},
	chown(_, machine, args) {
		const { flags, rest } = operands(args);
		const [owner = '', path = ''] = rest;
		for (const [at, file] of [...machine.disk.files])
			if (at === path || (flags.has('R') && at.startsWith(`${path}/`))) machine.disk.put(at, { ...file, owner });
		return 0;
	},
	touch(process, machine, args) {
		for (const path of operands(args).rest) {
			if (machine.disk.get(path)) continue;
			const why = mayNot(process, machine, path) ?? machine.disk.tryPut(path, { text: '', bytes: null });
			if (why !== null) return refused(process, path, why);
		}
		return 0;
	},
	/** Of what it can do only to take one kind of byte away. Source: tr(1). */
	tr(process, machine, args) {
		const byte = /^\\([0-7]{3})$/.exec(args[1] ?? '');
		if (args[0] !== '-d' || !byte || args.length > 2) machine.unknown(`tr ${args.join(' ')}`);
		process.out(byte ? process.stdin.replaceAll(String.fromCharCode(parseInt(byte[1]!, 8)), '') : process.stdin);
		return 0;
	},
	sync(_, machine) {
		machine.disk.settle();
		return 0;
	},
	/** Of a file that the shell has opened. Here one script alone wants it at a time. Source: flock(1). */
	flock(_, machine, args) {
		if (!/^(?:--wait \d+ |--nonblock )\d$/.test(args.join(' '))) machine.unknown(`flock ${args.join(' ')}`);
		return 0;
	},
	sort(process, machine, args) {
		const { flags, rest } = operands(args);
		const text = input(process, machine, rest);
		if (text === null) return 2;
		const numberOf = (line: string): number => Number(/^\s*-?\d*\.?\d*/.exec(line)?.[0]) || 0;
		const byBytes = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
		const sorted = lines(text).sort((a, b) => (flags.has('n') ? numberOf(a) - numberOf(b) : 0) || byBytes(a, b));
		if (flags.has('r')) sorted.reverse();
		const kept = flags.has('u') ? [...new Set(sorted)] : sorted;
		process.out(kept.map((line) => `${line}\n`).join(''));
		return 0;
	},
	/** In an order of its own, the same at each rehearsal. */
	shuf(process, machine, args) {
		const text = input(process, machine, operands(args).rest);
		if (text === null) return 1;
		const key = (line: string): number => {
			let hash = 0x811c9dc5;
			for (let n = 0; n < line.length; n++) hash = Math.imul(hash ^ line.charCodeAt(n), 0x01000193);
			return hash >>> 0;
		};
		const mixed = lines(text).sort((a, b) => key(a) - key(b));
		process.out(mixed.map((line) => `${line}\n`).join(''));
		return 0;
	},
	/** Whole lines as they stand (-xF), a plain text within them or at their beginning, or any of those in a file (-f); others than they (-v). */
	grep(process, machine, args) {
		const { flags, values, rest } = operands(args, 'f');
		const list = values.get('f');
		const [wanted = '', ...paths] = list === undefined ? rest : ['', ...rest];
		const atBegin = !flags.has('F') && wanted.startsWith('^');
		const plain = atBegin ? wanted.slice(1) : wanted;
		if (list === undefined ? !flags.has('F') && /[.*[\]^$\\+?(){}|]/.test(plain) : !flags.has('x') || !flags.has('F')) {
			machine.unknown(`grep ${args.join(' ')}`);
			return 2;
		}
		const text = input(process, machine, paths);
		const any = list === undefined ? null : input(process, machine, [list]);
		if (text === null || (list !== undefined && any === null)) return 2;
		const all = any === null ? null : new Set(lines(any));
		const fits = (line: string): boolean =>
			all ? all.has(line) : flags.has('x') ? line === plain : atBegin ? line.startsWith(plain) : line.includes(plain);
		const found = lines(text).filter((line) => fits(line) !== flags.has('v'));
		if (!flags.has('q')) process.out(found.map((line) => `${line}\n`).join(''));
		return found.length ? 0 : 1;
	},
	dirname(process, _, args) {
		const path = args.at(-1) ?? '';
		process.out(`${path.includes('/') ? path.slice(0, path.lastIndexOf('/')) || '/' : '.'}\n`);
		return 0;
	},
	basename(process, _, args) {
		process.out(`${(args[0] ?? '').split('/').at(-1)}\n`);
		return 0;
	},
	/** The wall clock of the endpoint, by the formats that scripts of ours ask for. */
	date(process, machine, args) {
		const parts = dateParts(args.find((arg) => arg.startsWith('+')) ?? '');
		if (!parts) {
			machine.unknown(`date ${args.join(' ')}`);
			return 1;
		}
		const { wallClockMs, believedUtcMs } = machine;
		const wall = new Date(wallClockMs);
		process.out(`${parts.map((part) => (typeof part === 'string' ? part : part(wall, believedUtcMs))).join('')}\n`);
		return 0;
	},
	/** The root as it is mounted; a layer in memory comes only with the restart after it was asked for. */
	findmnt(process, { bench }, args) {
		process.out(args.includes('-T') ? `${bench.firstPartition}\n` : 'ext4\n');
		return 0;
	},
	mountpoint: () => 1,
	mount: () => 0,
	umount: () => 0
};

const sleep: Program = (process) => {
	const seconds = Number(process.argv[1]);
	if (!Number.isFinite(seconds) || seconds < 0) return process.exit(1);
	process.after(seconds * 1000, () => process.exit(0));
};

/** Ends another program after a while. Source: timeout(1). */
const timeout: Program = (process, machine) => {
	const [, seconds, ...argv] = process.argv;
	const kill = spawn(machine, { argv, env: process.env, stdin: process.stdin, unit: process.unit }, (ended) => {
		process.out(ended.out);
		process.err(ended.err);
		process.exit(ended.code);
	});
	process.onKill(kill);
	process.after(Number(seconds) * 1000, () => process.exit(124));
};

/** Not for everybody's path. */
const IN_SBIN = ['useradd', 'chpasswd'];

/** Puts the stand-ins for programs that only look at or change files under /usr/bin. Source: POSIX.1-2017, XCU 4; coreutils 9. */
export function addFilePrograms(machine: Machine): void {
	// The zones of tzdata, which every image has.
	machine.disk.mounts.push({
		prefix: '/usr/share/zoneinfo',
		read: (path) => (isTimeZone(path.slice('/usr/share/zoneinfo/'.length)) ? '' : null),
		list: () => []
	});
	machine.disk.mounts.push({
		prefix: '/proc/sys/kernel/random',
		read: (path) => (path.endsWith('/boot_id') ? `${machine.bootId}\n` : null),
		list: () => ['boot_id']
	});
	for (const [name, run] of Object.entries({ ...SIMPLE, ...ACCOUNT_PROGRAMS }))
		machine.programs.set(`/usr/${IN_SBIN.includes(name) ? 'sbin' : 'bin'}/${name}`, (process) =>
			process.exit(run(process, machine, process.argv.slice(1)))
		);
	machine.programs.set('/usr/bin/sleep', sleep);
	machine.programs.set('/usr/bin/timeout', timeout);
}
