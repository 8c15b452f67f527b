/**
 * Rules for what may come in, in nft's own language, and a reader for the part of it that we write. Source: nft(8).
 * Everything is refused but what a rule lets through. Protocols by number: a small system has no list of their names.
 */
export interface Opening {
	readonly port: number;
	readonly protocol: 'tcp' | 'udp';
}

/** Ranges of both versions; an opening is for them alone. */
export function writeNftables(
	openings: readonly Opening[],
	ranges: readonly string[]
): { text: string; about: 'guard' | Opening }[] {
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
		...shape(
			'\tchain input {',
			'\t\ttype filter hook input priority filter; policy drop;',
			'\t\tct state established,related accept',
			'\t\tiif "lo" accept',
			'\t\tmeta l4proto { 1, 58 } accept',
			'\t\tudp dport { 68, 546 } accept'
		),
		...openings.flatMap((opening) => [
			{ text: `\t\tip saddr @near4 ${opening.protocol} dport ${opening.port} accept`, about: opening },
			{ text: `\t\tip6 saddr @near6 ${opening.protocol} dport ${opening.port} accept`, about: opening }
		]),
		...shape('\t}', '}')
	];
}

export interface NftRules {
	readonly near: readonly string[];
	readonly openings: readonly { readonly protocol: string; readonly port: number }[];
	readonly dropsRest: boolean;
}

/** What such a file lets in. Lines that it does not know let nothing in. */
export function readNftables(text: string): NftRules {
	const near = [...text.matchAll(/elements = \{ ([^}]*) \}/g)].flatMap((m) =>
		m[1]!.split(',').map((range) => range.trim())
	);
	const openings = [...text.matchAll(/ip saddr @near4 (tcp|udp) dport (\d+) accept/g)].map((m) => ({
		protocol: m[1]!,
		port: Number(m[2])
	}));
	return { near, openings, dropsRest: /policy drop;/.test(text) };
}
