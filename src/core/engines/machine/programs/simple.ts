import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { remembered } from '../../../basics/remembered';
import type { DiskFile } from '../disk';
import type { Machine } from '../machine';
import type { Process } from '../processes';

/** Stand-ins for the programs of coreutils and their kind, as far as scripts on a card use them. Source: their own man pages. */
export type Simple = (process: Process, machine: Machine, args: readonly string[]) => number;

export const bytesOf = (file: DiskFile | undefined): Uint8Array =>
	file?.bytes ?? new TextEncoder().encode(file?.text ?? '');
export const sizeOf = (file: DiskFile | undefined): number => file?.bytes?.length ?? bytesIn(file?.text ?? '');
/** Bytes of a text: the same feed is measured each time that it is fetched. */
const bytesIn = remembered(50, (text) => new TextEncoder().encode(text).length);
const digests = new WeakMap<Uint8Array, string>();
export function digestOf(file: DiskFile | undefined): string {
	const bytes = bytesOf(file);
	let digest = digests.get(bytes);
	if (!digest) digests.set(bytes, (digest = bytesToHex(sha256(bytes))));
	return digest;
}
/** Options first, then operands; "--" ends the options. */
export function operands(
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
export const lines = (text: string): string[] => (text === '' ? [] : text.replace(/\n$/, '').split('\n'));
export const missing = (process: Process, path: string): number => {
	process.err(`${process.argv[0]}: ${path}: No such file or directory\n`);
	return 1;
};
/** Why a unit's own settings keep its programs from writing there; null: they do not. */
export const mayNot = (process: Process, machine: Machine, path: string): string | null =>
	machine.systemd.mayWrite(process.unit, path);
/** Whether it is kept from a file by its mode, whoever it runs as. */
export const mayNotRead = (process: Process, machine: Machine, path: string): boolean => {
	const file = machine.disk.get(path);
	return file !== undefined && !machine.systemd.mayRead(process.unit, file.mode);
};
export const refused = (process: Process, path: string, why: string | null): number => {
	if (why === null) return 0;
	process.err(`${process.argv[0]}: ${path}: ${why}\n`);
	return 1;
};
export function input(process: Process, machine: Machine, rest: readonly string[]): string | null {
	if (rest.length === 0) return process.stdin;
	let text = '';
	for (const path of rest) {
		const read = mayNotRead(process, machine, path) ? null : machine.disk.read(path);
		if (read === null) return null;
		text += read;
	}
	return text;
}
