import { fromBase64, toBase64 } from '../../../formats/base64';
import type { DiskFile } from '../disk';
import { remembered } from '../../../basics/remembered';
import { bytesOf, digestOf, operands, lines, missing, input, type Simple } from './simple';
import { fromStream, toStream } from './stream';

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

/** Programs that read texts and print them otherwise. Source: POSIX.1-2017, XCU 4; coreutils 9. */
export const TEXT_PROGRAMS: Readonly<Record<string, Simple>> = {
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
	/** Of what it can do only to take one kind of byte away. Source: tr(1). */
	tr(process, machine, args) {
		const byte = /^\\([0-7]{3})$/.exec(args[1] ?? '');
		if (args[0] !== '-d' || !byte || args.length > 2) machine.unknown(`tr ${args.join(' ')}`);
		process.out(byte ? process.stdin.replaceAll(String.fromCharCode(parseInt(byte[1]!, 8)), '') : process.stdin);
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
	}
};
