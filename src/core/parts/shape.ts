import { z } from 'zod';
import { partSchema, type Part, type PartKind } from './schema';

/** What may stand in a field, as a form asks for it. */
export type Shape =
	| { readonly is: 'text' }
	| { readonly is: 'number'; readonly least: number | null }
	| { readonly is: 'yes-no' }
	| { readonly is: 'choice'; readonly options: readonly (string | number)[] }
	/** Something, or nothing. */
	| { readonly is: 'maybe'; readonly of: Shape }
	| { readonly is: 'list'; readonly of: Shape }
	| { readonly is: 'group'; readonly fields: readonly (readonly [name: string, shape: Shape])[] }
	/** So many of them, no more and no fewer. */
	| { readonly is: 'row'; readonly items: readonly Shape[] };

type Json = { readonly [key: string]: unknown };

/** Every field of a kind of part, in the order of its schema. What is ours alone, such as its id, is left out. */
export function shapeOf(kind: PartKind): Extract<Shape, { is: 'group' }> {
	const schema = partSchema.options.find((option) => option.shape.kind.value === kind)!;
	const shape = read(z.toJSONSchema(schema, { io: 'output', unrepresentable: 'any' }) as Json);
	if (shape.is !== 'group') throw new RangeError(`${kind} is no group of fields`);
	return { is: 'group', fields: shape.fields.filter(([name]) => !OURS.has(name)) };
}
const OURS = new Set(['id', 'kind', 'figures']);

function read(json: Json): Shape {
	const either = json.anyOf as readonly Json[] | undefined;
	if (either) {
		const others = either.filter(({ type }) => type !== 'null');
		const consts = others.map((one) => one.const as string | number | undefined);
		const of: Shape = consts.every((value) => value !== undefined)
			? { is: 'choice', options: consts as (string | number)[] }
			: read(others[0]!);
		return others.length < either.length ? { is: 'maybe', of } : of;
	}
	if (json.enum) return { is: 'choice', options: json.enum as string[] };
	switch (json.type) {
		case 'number':
		case 'integer':
			return { is: 'number', least: (json.minimum as number | undefined) ?? null };
		case 'boolean':
			return { is: 'yes-no' };
		case 'array':
			return json.prefixItems
				? { is: 'row', items: (json.prefixItems as Json[]).map(read) }
				: { is: 'list', of: read(json.items as Json) };
		case 'object':
			return {
				is: 'group',
				fields: Object.entries((json.properties ?? {}) as Record<string, Json>).map(([name, field]) => [
					name,
					read(field)
				])
			};
		default:
			return { is: 'text' };
	}
}

/** To begin with: nothing chosen, and the least that is allowed. */
export function blankOf(shape: Shape): unknown {
	switch (shape.is) {
		case 'text':
			return '';
		case 'number':
			return shape.least ?? 0;
		case 'yes-no':
			return false;
		case 'choice':
			return shape.options[0];
		case 'maybe':
			return null;
		case 'list':
			return [];
		case 'row':
			return shape.items.map(blankOf);
		case 'group':
			return Object.fromEntries(shape.fields.map(([name, field]) => [name, blankOf(field)]));
	}
}

/** A part of a kind with nothing in it yet, to be filled in by hand. */
export const blankPart = (kind: PartKind, id: string): Record<string, unknown> => ({
	...(blankOf(shapeOf(kind)) as Record<string, unknown>),
	id,
	kind,
	sure: 'typical',
	source: 'Its data sheet.',
	figures: {}
});

/** Of a copy, what differs from what it was copied from was looked at: those figures are measured, the rest is as sure as before. */
export function measuredWhereChanged(part: Part, from: Part): Part {
	const before = from as unknown as Record<string, unknown>;
	const changed = Object.entries(part).filter(
		([field, value]) =>
			!OURS.has(field) &&
			!['name', 'price', 'sure', 'source'].includes(field) &&
			JSON.stringify(value) !== JSON.stringify(before[field])
	);
	return {
		...part,
		figures: {
			...part.figures,
			...Object.fromEntries(
				changed.map(([field]) => [field, { sure: 'measured', source: 'Yours, as you entered it.' }])
			)
		}
	} as Part;
}
