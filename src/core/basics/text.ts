import { z } from 'zod';

/** Line breaks, controls, and the two code points that are no characters and that XML cannot hold. */
const CONTROL = /[\u0000-\u001f\u007f\u0085\u2028\u2029\ufffe\uffff]/;
const LONE_SURROGATE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** One line that a person typed. Anything printable is allowed and arrives exactly; line breaks and half characters are refused. */
export const lineText = (maxLength = 200) =>
	z
		.string()
		.max(maxLength, `At most ${maxLength} characters.`)
		.refine((text) => !CONTROL.test(text), 'Line breaks and control characters are not possible here.')
		.refine(
			(text) => !LONE_SURROGATE.test(text),
			'Half of a character is in it, perhaps from a bad copy. Type it again.'
		);

/** The same text as a line that fits: controls become spaces, half characters go, and what is too long is cut between characters. */
export const fitLine = (text: string, maxLength: number): string => {
	const clean = text
		.replace(/[\u0000-\u001f\u007f\u0085\u2028\u2029\ufffe\uffff]+/g, ' ')
		.replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, '')
		.trim();
	if (clean.length <= maxLength) return clean;
	const cut = clean.slice(0, maxLength);
	return (LONE_SURROGATE.test(cut) ? cut.slice(0, -1) : cut).trimEnd();
};

const ID = /^[A-Za-z0-9][A-Za-z0-9_-]{0,79}$/;
/** Ids become folders, addresses and keys: a narrow alphabet, and no word that every object of a program already has. */
export const isId = (text: string): boolean => ID.test(text) && !(text in {});
/** An id: short, plain letters, fit for a file name and an address. */
export const idText = z
	.string()
	.regex(ID, 'An id has letters, digits, hyphens and underscores, a letter or digit first, at most 80.')
	.refine((text) => !(text in {}), 'This word has a meaning of its own in programs. Take another id.');

/** The nearest id that is allowed and not taken: other characters become hyphens, a number sets it apart. */
export function freeId(wanted: string, taken: ReadonlySet<string>): string {
	const plain = wanted
		.replace(/[^A-Za-z0-9_-]+/g, '-')
		.replace(/^[-_]+/, '')
		.slice(0, 70);
	const base = isId(plain) ? plain : `id-${plain}`.slice(0, 70);
	if (!taken.has(base)) return base;
	let number = 2;
	while (taken.has(`${base}-${number}`)) number++;
	return `${base}-${number}`;
}

/** What is asked of a list besides its entries, so that a change to one entry need not judge all the others again. */
export interface ListRule {
	readonly entry: z.ZodType;
	readonly most: number;
	readonly key: (item: never) => string;
	readonly message: string;
}
const rules = new WeakMap<z.ZodType, ListRule>();
/** What a list of ours may hold and how its entries are told apart; undefined: no such list. */
export const listRuleOf = (schema: z.ZodType): ListRule | undefined => rules.get(schema);

/** A list whose entries are told apart by one field: each later one with a field that is taken is refused at its place. */
export function uniqueList<T extends z.ZodType>(
	entry: T,
	most: number,
	key: (item: z.infer<T>) => string,
	message: string
) {
	const schema = z
		.array(entry)
		.max(most, `At most ${most}.`)
		.check(({ value, issues }) => {
			const seen = new Set<string>();
			value.forEach((item, n) => {
				if (seen.has(key(item))) issues.push({ code: 'custom', message, path: [n], input: item });
				seen.add(key(item));
			});
		});
	rules.set(schema, { entry, most, key: key as ListRule['key'], message });
	return schema;
}

/** A wall clock's hours and minutes. */
export const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Hours and minutes, such as 22:00.');
