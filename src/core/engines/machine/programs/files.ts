import { isBelow } from '../disk';
import type { Machine } from '../machine';
import { spawn, type Program } from '../processes';
import { isTimeZone } from '../../../formats/systemd/zone';
import { ACCOUNT_PROGRAMS } from './accounts';
import { bytesOf, sizeOf, operands, missing, mayNot, mayNotRead, refused, type Simple } from './simple';
import { fromStream, toStream } from './stream';
import { TEXT_PROGRAMS } from './text';

const BLOCK_BYTES = 4096;
const FILE_PROGRAMS: Readonly<Record<string, Simple>> = {
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
	sync(_, machine) {
		machine.disk.settle();
		return 0;
	},
	/** Of a file that the shell has opened. Here one script alone wants it at a time. Source: flock(1). */
	flock(_, machine, args) {
		if (!/^(?:--wait \d+ |--nonblock )\d$/.test(args.join(' '))) machine.unknown(`flock ${args.join(' ')}`);
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
	for (const [name, run] of Object.entries({ ...TEXT_PROGRAMS, ...FILE_PROGRAMS, ...ACCOUNT_PROGRAMS }))
		machine.programs.set(`/usr/${IN_SBIN.includes(name) ? 'sbin' : 'bin'}/${name}`, (process) =>
			process.exit(run(process, machine, process.argv.slice(1)))
		);
	machine.programs.set('/usr/bin/sleep', sleep);
	machine.programs.set('/usr/bin/timeout', timeout);
}
