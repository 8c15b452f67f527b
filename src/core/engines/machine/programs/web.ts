import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Machine } from '../machine';
import type { Process, Program } from '../processes';
import { toStream } from './stream';

/** What an address gives: a file, or why it gives none. */
export type WebAnswer =
	| { readonly text: string; readonly bytes: Uint8Array | null; /** It never ends. */ readonly endless?: true }
	| { readonly code: number; readonly why: string; readonly afterMs?: number };

/** So much of what never ends is enough to be too much. */
const ENDLESS_BYTES = 2_000_000;
/** To ask, and to be refused. Typical. */
const ASKS_MS = 600;
const REFUSED_MS = 400;
/** What a home's line gives, bytes per ms. Typical. */
const BYTES_PER_MS = 2000;

/** Options of curl that scripts of ours use; others are said to be left out. Source: curl(1). */
const SWITCHES = new Set(['--disable', '--silent', '--show-error', '--fail', '--location', '--globoff']);
const VALUES = new Set([
	...['--max-redirs', '--proto', '--max-time', '--output', '--connect-timeout'],
	...['--speed-limit', '--speed-time', '--max-filesize', '--noproxy', '--resolve', '--write-out']
]);

const curl: Program = (process, machine) => {
	const values = new Map<string, string>();
	let address = '';
	const args = process.argv.slice(1);
	for (let n = 0; n < args.length; n++) {
		const arg = args[n]!;
		if (VALUES.has(arg)) values.set(arg, args[++n] ?? '');
		else if (!arg.startsWith('-')) address = arg;
		else if (!SWITCHES.has(arg)) machine.unknown(`curl ${arg}`);
	}
	const fails = (code: number, why: string, afterMs = REFUSED_MS): void => {
		process.err(`curl: (${code}) ${why}\n`);
		machine.say('not-fetched', 'bad', { address, why });
		process.after(afterMs, () => process.exit(code));
	};
	const [scheme = ''] = address.split(':', 1);
	const proto = values.get('--proto')?.replace(/^=/, '').split(',');
	if (proto && !proto.includes(scheme)) return fails(1, `Protocol "${scheme}" not supported or disabled in libcurl`);
	const answer = answerOf(machine, process, scheme, address);
	if ('why' in answer) return fails(answer.code, answer.why, answer.afterMs);
	const size = answer.bytes?.length ?? answer.text.length;
	if (size > Number(values.get('--max-filesize') ?? Infinity)) return fails(63, 'Maximum file size exceeded');
	const output = values.get('--output');
	const says = values.get('--write-out')?.startsWith('%{stderr}') ? '\n200 \n' : '';
	process.after(ASKS_MS + size / BYTES_PER_MS, () => {
		if (output === undefined) {
			process.out(answer.endless ? 'x'.repeat(ENDLESS_BYTES) : answer.bytes ? toStream(answer.bytes) : answer.text);
			process.err(says);
			return process.exit(answer.endless ? 23 : 0);
		}
		if (answer.endless) machine.disk.freeBytes = 0;
		const why = machine.systemd.mayWrite(process.unit, output) ?? machine.disk.tryPut(output, answer);
		if (why !== null) return fails(23, `Failure writing output to destination: ${why}`);
		process.exit(0);
	});
};

function answerOf(machine: Machine, process: Process, scheme: string, address: string): WebAnswer {
	if (scheme === 'file') {
		const path = decodeURIComponent(address.slice('file://'.length));
		const file = machine.disk.get(path);
		if (file && machine.systemd.mayRead(process.unit, file.mode)) return { text: file.text, bytes: file.bytes };
	} else if (!machine.online) return { code: 6, why: 'Could not resolve host' };
	for (const site of machine.web) {
		const answer = site(address);
		if (answer) return answer;
	}
	return scheme === 'file'
		? { code: 37, why: `Couldn't open file ${address.slice('file://'.length)}` }
		: { code: 6, why: 'Could not resolve host' };
}

/**
 * A signature of the bench says who made it, and of what: it stands in for one that is reckoned. Whether the key on the card is the
 * signer's, and the file the one that was signed, is looked up as openssl would find it. Source: openssl-dgst(1).
 */
const openssl: Program = (process, machine) => {
	const args = process.argv.slice(1);
	const value = (name: string): string => args[args.indexOf(name) + 1] ?? '';
	if (args[0] === 'passwd' && args.includes('-6') && args.includes('-stdin')) {
		process.out(`${passwordHash(`$6$${value('-salt')}$`, process.stdin)}\n`);
		return process.after(ASKS_MS, () => process.exit(0));
	}
	const known =
		args[0] === 'dgst' && args.includes('-sha256') && args.includes('-verify') && args.includes('-signature');
	if (!known) machine.unknown(`openssl ${args.join(' ')}`);
	const key = machine.disk.read(value('-verify'));
	const signature = machine.disk.read(value('-signature'));
	const signed = machine.disk.get(args.at(-1) ?? '');
	const isGood = known && key !== null && signed && signature === signatureBy(key, signed.text);
	process.out(isGood ? 'Verified OK\n' : 'Verification failure\n');
	process.after(ASKS_MS / 10, () => process.exit(isGood ? 0 : 1));
};

const digestOf = (text: string): string => bytesToHex(sha256(new TextEncoder().encode(text)));
/** The bench's stand-in for a signature of a text by the owner of a public key. */
export const signatureBy = (publicKey: string, text: string): string => `${digestOf(publicKey)} ${digestOf(text)}\n`;

/** The stand-in's hash of a password under the settings and salt of another hash: another for every password. Source: openssl-passwd(1). */
export const passwordHash = (of: string, password: string): string =>
	`${/^\$6\$(?:rounds=\d+\$)?[^$]*\$/.exec(of)?.[0] ?? ''}${digestOf(password)}`;

/** What units have written to the log, lately. Source: journalctl(1). */
const journalctl: Program = (process, machine) => {
	const args = process.argv.slice(1);
	const value = (...names: string[]): string | null => {
		const at = args.findIndex((arg) => names.includes(arg));
		return at < 0 ? null : (args[at + 1] ?? '');
	};
	const unit = value('--unit', '-u');
	const since = value('--since') ?? '';
	const sinceMs = since.startsWith('@')
		? Number(since.slice(1)) * 1000
		: /^-\d+s$/.test(since)
			? machine.believedUtcMs + Number(since.slice(0, -1)) * 1000
			: -Infinity;
	for (const line of machine.journal)
		if ((unit === null || line.unit === unit) && line.utcMs >= sinceMs) process.out(`${line.text}\n`);
	process.after(ASKS_MS / 10, () => process.exit(0));
};

/** Puts the stand-ins for curl, openssl and journalctl under /usr/bin. Source: their manual pages in Debian 12. */
export function addWebPrograms(machine: Machine): void {
	machine.programs.set('/usr/bin/curl', curl);
	machine.programs.set('/usr/bin/openssl', openssl);
	machine.programs.set('/usr/bin/journalctl', journalctl);
}
