import { fault, ok, type Result } from '../../basics/result';
import { contains, readAddress, readCidr } from '../ip/cidr';
import { linesOf } from '../lines';

/**
 * Rules for what may come in, in nft's own language, and a reader for the part of it that we write. Source: nft(8).
 * Everything is refused but what a rule lets through. Protocols by number: a small system has no list of their names.
 */
export interface Opening {
	readonly port: number;
	readonly protocol: 'tcp' | 'udp';
	/** New connections of one source, a minute; absent: any number. */
	readonly perMinute?: number;
}

/** Ranges of both versions; an opening is for them alone. */
export function writeNftables<O extends Opening>(
	openings: readonly O[],
	ranges: readonly string[]
): { text: string; about: 'guard' | O }[] {
	const v4 = ranges.filter((range) => !range.includes(':'));
	const v6 = ranges.filter((range) => range.includes(':'));
	const set = (name: string, type: string, elements: readonly string[]) => [
		{ text: `\tset ${name} {`, about: 'guard' as const },
		{ text: `\t\ttype ${type}`, about: 'guard' as const },
		{ text: '\t\tflags interval', about: 'guard' as const },
		...(elements.length ? [{ text: `\t\telements = { ${elements.join(', ')} }`, about: 'guard' as const }] : []),
		{ text: '\t}', about: 'guard' as const }
	];
	const shape = (...lines: string[]) => lines.map((text) => ({ text, about: 'guard' as const }));
	return [
		...shape('#!/usr/sbin/nft -f', 'table inet yphos', 'delete table inet yphos', 'table inet yphos {'),
		...set('near4', 'ipv4_addr', v4),
		...set('near6', 'ipv6_addr', v6),
		...openings.flatMap((opening) => (opening.perMinute ? [...counters(4, opening), ...counters(6, opening)] : [])),
		...shape(
			'\tchain input {',
			'\t\ttype filter hook input priority filter; policy drop;',
			'\t\tct state established,related accept',
			'\t\tiif "lo" accept',
			'\t\tmeta l4proto { 1, 58 } accept',
			'\t\tudp dport { 68, 546 } accept'
		),
		...openings.flatMap((opening) => [
			...(opening.perMinute ? [4 as const, 6 as const].map((version) => tooOften(version, opening)) : []),
			{ text: `\t\tip saddr @near4 ${opening.protocol} dport ${opening.port} accept`, about: opening },
			{ text: `\t\tip6 saddr @near6 ${opening.protocol} dport ${opening.port} accept`, about: opening }
		]),
		...shape('\t}', '}')
	];
}

/** Whoever knocks is counted for a minute; so many of them at most, so that counting takes no memory without end. */
function counters<O extends Opening>(version: 4 | 6, opening: O): { text: string; about: O }[] {
	const lines = [`type ipv${version}_addr`, 'size 4096', 'flags dynamic,timeout', 'timeout 1m'];
	return [`\tset knocks${opening.port}v${version} {`, ...lines.map((line) => `\t\t${line}`), '\t}'].map((text) => ({
		text,
		about: opening
	}));
}
const tooOften = <O extends Opening>(version: 4 | 6, opening: O): { text: string; about: O } => ({
	text: `\t\t${opening.protocol} dport ${opening.port} ct state new update @knocks${opening.port}v${version} { ${version === 4 ? 'ip' : 'ip6'} saddr limit rate over ${opening.perMinute}/minute burst ${opening.perMinute} packets } drop`,
	about: opening
});

/** Something that comes in. */
interface Packet {
	/** IPv4 or IPv6 address as text. */
	readonly from: string;
	readonly protocol: 'tcp' | 'udp' | 'icmp';
	/** Of the endpoint; of no meaning to ICMP. */
	readonly port: number;
	/** An answer to what the endpoint asked. */
	readonly isAnswer?: true;
	/** From a program of the endpoint itself. */
	readonly isOwn?: true;
}
type Rule = (packet: Packet) => boolean;

/** What such a file makes of what comes in. */
export interface NftRules {
	accepts(packet: Packet): boolean;
	/** The ranges that it knows, of both versions. */
	readonly near: readonly string[];
}

const PROTOCOLS: Readonly<Record<string, string>> = { '6': 'tcp', '17': 'udp', '1': 'icmp', '58': 'icmp' };

/**
 * Reads what `nft -f` would take of it: it takes a file whole or not at all. Faults: `nft-syntax`, with the line.
 * Only what card sets write is known here; anything else counts as a mistake.
 */
export function readNftables(text: string): Result<NftRules> {
	const sets = new Map<string, readonly string[]>();
	const rules: Rule[] = [];
	let policy: 'accept' | 'drop' = 'accept';
	let hooked = false;
	const tables = new Set<string>();
	const blocks: string[] = [];
	let set: { name: string; type: string; flags: boolean; counts: boolean; elements: readonly string[] } | null = null;
	const lines = linesOf(text);
	for (const [n, raw] of lines.entries()) {
		const line = raw.trim();
		const bad = (why: string): Result<never> => fault('nft-syntax', `line ${n + 1}: ${why}: ${line.slice(0, 60)}`);
		if (line === '' || line.startsWith('#')) continue;
		const at = blocks.at(-1);
		if (line === '}') {
			if (at === undefined) return bad('a brace too many');
			blocks.pop();
			if (at === 'set' && set) {
				if (set.type === '') return bad('a set without a type');
				if (set.elements.some((element) => element.includes('/')) && !set.flags)
					return bad('ranges want flags interval');
				sets.set(set.name, set.elements);
				set = null;
			}
		} else if (at === undefined) {
			if (/^table inet [a-z]+ \{$/.test(line)) blocks.push('table');
			else {
				const named = /^(delete )?table inet ([a-z]+)$/.exec(line);
				if (!named) return bad('not understood');
				if (named[1] && !tables.has(named[2]!)) return bad('no such table to be deleted');
				if (named[1]) tables.delete(named[2]!);
				else tables.add(named[2]!);
			}
		} else if (at === 'table') {
			const name = /^set ([a-z0-9]+) \{$/.exec(line)?.[1];
			if (name !== undefined) {
				set = { name, type: '', flags: false, counts: false, elements: [] };
				blocks.push('set');
			} else if (/^chain [a-z]+ \{$/.test(line)) blocks.push('chain');
			else return bad('not understood');
		} else if (at === 'set' && set) {
			const type = /^type (ipv4_addr|ipv6_addr)$/.exec(line)?.[1];
			const elements = /^elements = \{ ([^{}]*) \}$/.exec(line)?.[1];
			if (type !== undefined) set.type = type;
			else if (line === 'flags interval') set.flags = true;
			else if (/^(?:flags dynamic,timeout|timeout \d+[smh]|size \d+)$/.test(line)) set.counts = true;
			else if (elements !== undefined) {
				set.elements = elements.split(',').map((element) => element.trim());
				if (set.elements.some((element) => element.includes(':') !== (set!.type === 'ipv6_addr')))
					return bad('an element of another kind than the set');
			} else return bad('not understood');
		} else {
			const hook = /^type filter hook input priority filter; policy (accept|drop);$/.exec(line)?.[1];
			const rule = hook === undefined ? readRule(line, sets) : null;
			if (hook !== undefined) {
				hooked = true;
				policy = hook as typeof policy;
			} else if (rule) rules.push(rule);
			else return bad('not understood');
		}
	}
	if (blocks.length) return fault('nft-syntax', `line ${lines.length}: the file ends within a block`);
	return ok({
		// A chain without a hook sees nothing.
		accepts: (packet) => !hooked || policy === 'accept' || rules.some((rule) => rule(packet)),
		near: [...sets.values()].flat()
	});
}

/** One rule that lets something in; null: not understood. Source: nft(8), EXPRESSIONS. */
function readRule(line: string, sets: ReadonlyMap<string, readonly string[]>): Rule | null {
	if (line === 'ct state established,related accept') return ({ isAnswer }) => isAnswer === true;
	if (line === 'iif "lo" accept') return ({ isOwn }) => isOwn === true;
	const numbers = /^meta l4proto \{ ([\d, ]+) \} accept$/.exec(line)?.[1]?.split(', ');
	if (numbers) return ({ protocol }) => numbers.some((number) => PROTOCOLS[number] === protocol);
	// Who knocks too often; one who knocks once passes.
	const counted =
		/^(?:tcp|udp) dport \d+ ct state new update @([a-z0-9]+) \{ ip6? saddr limit rate over \d+\/minute burst \d+ packets \} drop$/.exec(
			line
		);
	if (counted) return sets.has(counted[1]!) ? () => false : null;
	const ports = /^(tcp|udp) dport \{ ([\d, ]+) \} accept$/.exec(line);
	if (ports) return ({ protocol, port }) => protocol === ports[1] && ports[2]!.split(', ').includes(String(port));
	const near = /^(ip6?) saddr @([a-z0-9]+) (tcp|udp) dport (\d+) accept$/.exec(line);
	const ranges = near && sets.get(near[2]!);
	if (!near || !ranges) return null;
	return ({ from, protocol, port }) =>
		protocol === near[3] &&
		port === Number(near[4]) &&
		from.includes(':') === (near[1] === 'ip6') &&
		isIn(from, ranges);
}

function isIn(text: string, ranges: readonly string[]): boolean {
	const address = readAddress(text);
	return (
		address.ok &&
		ranges.some((range) => {
			const network = readCidr(range.includes('/') ? range : `${range}/${range.includes(':') ? 128 : 32}`);
			return network.ok && contains(network.value, address.value);
		})
	);
}
