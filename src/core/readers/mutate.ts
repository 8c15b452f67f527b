/** A small generator of chance with a seed: the same seed gives the same inputs on every machine. Source: mulberry32, public domain. */
export function chance(seed: number): () => number {
	let state = seed >>> 0;
	return () => {
		state = (state + 0x6d2b79f5) >>> 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
	};
}

/** What upset some reader once, or is likely to. */
const TOKENS = [
	...[
		'\u0000',
		'\u001b]',
		'\u001b[',
		'\ufeff',
		'\ud83c',
		'\ufffe',
		'\r',
		'\n',
		'\t',
		' ',
		'"',
		"'",
		'\\',
		'%',
		'$',
		'&',
		'=',
		'#'
	],
	...[
		'[',
		']',
		'{',
		'}',
		'<',
		'>',
		'<?xml',
		'<!DOCTYPE a [<!ENTITY b "c">]>',
		'&b;',
		'<![CDATA[',
		']]>',
		'<?',
		'--',
		'/',
		'..',
		','
	],
	...[
		'__proto__',
		'constructor',
		'"__proto__":{"x":1},',
		'[__proto__]',
		'1e999',
		'-1',
		'99999999999999999999',
		'NaN',
		'null',
		'0'
	],
	...[
		'#EXTINF:',
		'File1=',
		'===',
		'a@',
		'Device Identifier:',
		'card 0: ',
		'append ',
		'\u2028',
		'\u00e5',
		'\u{1f3b5}',
		' : ',
		'x'.repeat(400)
	]
];
const LONGEST = 60_000;

/** One damaged copy of a sample: one to four of the things that go wrong with text. */
export function mutateText(text: string, random: () => number): string {
	let out = text;
	const at = (): number => Math.floor(random() * (out.length + 1));
	const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
	for (let n = 1 + Math.floor(random() * 4); n > 0; n--) {
		const from = at();
		const piece = out.slice(from, from + 1 + Math.floor(random() * 60));
		switch (Math.floor(random() * 7)) {
			case 0:
				out = out.slice(0, from) + out.slice(from + piece.length);
				break;
			case 1:
				out = out.slice(0, from) + pick(TOKENS) + out.slice(from);
				break;
			case 2:
				out = out.slice(0, from) + pick(TOKENS).repeat(1 + Math.floor(random() ** 3 * 4000)) + out.slice(from);
				break;
			case 3:
				out = out.slice(0, from) + piece.repeat(1 + Math.floor(random() ** 3 * 600)) + out.slice(from);
				break;
			case 4:
				out = out.slice(0, from) + String.fromCharCode(Math.floor(random() * 0x300)) + out.slice(from + 1);
				break;
			case 5:
				out = out.slice(0, from);
				break;
			default: {
				const to = at();
				out = out.slice(0, to) + piece + out.slice(to);
			}
		}
		out = out.slice(0, LONGEST);
	}
	return out;
}

/** A copy with up to a few bytes changed, perhaps cut short. `random` gives 0 to 1. */
export function mutateBytes(bytes: Uint8Array, random: () => number): Uint8Array {
	const out = bytes.slice(0, random() < 0.15 ? Math.floor(random() * bytes.length) : bytes.length);
	for (let n = Math.floor(random() * 24); n > 0 && out.length > 0; n--)
		out[Math.floor(random() ** 2 * out.length)] =
			random() < 0.4 ? (random() < 0.5 ? 0 : 255) : Math.floor(random() * 256);
	return out;
}
