import fc, { type Arbitrary } from 'fast-check';
import type { z } from 'zod';

/* For tests: values that a schema takes, made from the schema itself, so that a new setting is tried without anybody thinking of it. */

interface Check {
	_zod: {
		def: {
			check: string;
			format?: string;
			pattern?: RegExp;
			value?: number;
			maximum?: number;
			minimum?: number;
			inclusive?: boolean;
		};
	};
}
interface Def {
	type: string;
	checks?: Check[];
	shape?: Record<string, z.ZodType>;
	element?: z.ZodType;
	innerType?: z.ZodType;
	options?: z.ZodType[];
	entries?: Record<string, string>;
	values?: unknown[];
	keyType?: z.ZodType;
	valueType?: z.ZodType;
	getter?: () => z.ZodType;
	in?: z.ZodType;
	items?: z.ZodType[];
}
const defOf = (schema: z.ZodType): Def => schema._zod.def as unknown as Def;

/** Words at certain places in place of any: ids of parts that exist, so that plans hang together. */
export type Places = (path: string) => Arbitrary<unknown> | null;

const LINE = fc.oneof(
	fc.string({ unit: 'grapheme-ascii', maxLength: 12 }),
	fc.string({ unit: 'grapheme', maxLength: 8 }),
	fc.constantFrom(
		'',
		' ',
		'"',
		"'",
		'%n $HOME `x`',
		'\\',
		'# ; =',
		'<b>&amp;',
		'-rf /',
		'../..',
		'\u{1f3b5}',
		'[x]',
		'__proto__',
		'constructor'
	)
);

/** Values of any kind that a schema takes, for properties; `places` says what stands at a path. */
export function valuesOf(schema: z.ZodType, places: Places = () => null, path = ''): Arbitrary<unknown> {
	const made = places(path) ?? make(schema, places, path);
	// What a refinement refuses beyond the shape is left out here.
	return made.filter((value) => schema.safeParse(value).success);
}

function make(schema: z.ZodType, places: Places, path: string): Arbitrary<unknown> {
	const def = defOf(schema);
	const inner = (next: z.ZodType, step = ''): Arbitrary<unknown> =>
		valuesOf(next, places, step ? `${path}.${step}` : path);
	switch (def.type) {
		case 'object':
			return fc.record(Object.fromEntries(Object.entries(def.shape!).map(([key, next]) => [key, inner(next, key)])));
		case 'array':
			return fc.array(inner(def.element!, '*'), { minLength: least(def, 0), maxLength: Math.min(3, most(def, 3)) });
		case 'tuple':
			return fc.tuple(...def.items!.map((next, n) => inner(next, String(n))));
		case 'record':
			return fc.dictionary(inner(def.keyType!, 'key') as Arbitrary<string>, inner(def.valueType!, '*'), { maxKeys: 2 });
		case 'string':
			return text(def);
		case 'number':
			return number(def);
		case 'boolean':
			return fc.boolean();
		case 'null':
			return fc.constant(null);
		case 'literal':
			return fc.constantFrom(...def.values!);
		case 'enum':
			return fc.constantFrom(...Object.values(def.entries!));
		case 'union':
			return fc.oneof(...def.options!.map((next) => inner(next)));
		case 'nullable':
			return fc.option(inner(def.innerType!), { freq: 3 });
		case 'optional':
		case 'default':
		case 'prefault':
		case 'nonoptional':
			return inner(def.innerType!);
		case 'lazy':
			return inner(def.getter!());
		case 'pipe':
			return inner(def.in!);
		default:
			throw new Error(`No values are known for ${def.type} at ${path}: add them here.`);
	}
}

const least = (def: Def, otherwise: number): number =>
	Math.max(
		otherwise,
		...(def.checks ?? []).map(({ _zod }) => (_zod.def.check.startsWith('min_') ? (_zod.def.minimum ?? 0) : 0))
	);
const most = (def: Def, otherwise: number): number =>
	Math.min(
		otherwise,
		...(def.checks ?? []).map(({ _zod }) =>
			_zod.def.check.startsWith('max_') ? (_zod.def.maximum ?? otherwise) : otherwise
		)
	);

function text(def: Def): Arbitrary<string> {
	const pattern = (def.checks ?? []).find(({ _zod }) => _zod.def.format === 'regex')?._zod.def.pattern;
	if (pattern) return fc.stringMatching(pattern);
	return LINE.map((line) => line.slice(0, most(def, 40)));
}

function number(def: Def): Arbitrary<number> {
	const checks = (def.checks ?? []).map(({ _zod }) => _zod.def);
	const isWhole = checks.some(({ format }) => format === 'safeint');
	const from = Math.max(
		-1e6,
		...checks
			.filter(({ check }) => check === 'greater_than')
			.map(({ value, inclusive }) => value! + (inclusive ? 0 : isWhole ? 1 : 1e-6))
	);
	const to = Math.min(
		1e12,
		...checks
			.filter(({ check }) => check === 'less_than')
			.map(({ value, inclusive }) => value! - (inclusive ? 0 : isWhole ? 1 : 1e-6))
	);
	const edges = fc.constantFrom(from, to);
	return fc.oneof(
		edges,
		isWhole ? fc.integer({ min: Math.ceil(from), max: Math.floor(to) }) : fc.double({ min: from, max: to, noNaN: true })
	);
}
