import { z } from 'zod';
import { fault, ok, type Result } from '../result';
import { partSchema, type Part, type PartKind } from './schema';

export const PARTS_FILE_VERSION = 1;

/** The shape of a file of parts; published as `docs/parts.schema.json`. */
export const partsFileSchema = z.object({
	yphos: z.literal('parts'),
	version: z.literal(PARTS_FILE_VERSION),
	parts: z.array(partSchema)
});

/** The published JSON Schema: what may be written into such a file, defaults left out. */
export const partsJsonSchema = (): unknown => ({
	title: 'Yphos parts',
	...z.toJSONSchema(partsFileSchema, { io: 'input' })
});

export const writePartsFile = (parts: readonly Part[]): string =>
	`${JSON.stringify({ yphos: 'parts', version: PARTS_FILE_VERSION, parts }, null, '\t')}\n`;

export interface ReadParts {
	readonly parts: readonly Part[];
	/** Parts that are missing a figure or have an absurd one, by name, with what is wrong. */
	readonly refused: readonly { readonly name: string; readonly why: string }[];
}

/**
 * Reads a file of parts, a bare list of them, or the parts of an exported workshop. Sound parts are taken, the others refused by name.
 * Faults: `not-json`, `not-parts`.
 */
export function readPartsFile(text: string): Result<ReadParts> {
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch (error) {
		return fault('not-json', `The file is not readable as JSON: ${(error as Error).message}.`);
	}
	const list = Array.isArray(value) ? value : (value as { parts?: unknown } | null)?.parts;
	if (!Array.isArray(list))
		return fault(
			'not-parts',
			'There is no list of parts in this file. It should hold {"yphos": "parts", "version": 1, "parts": […]}.'
		);
	const parts: Part[] = [];
	const refused: ReadParts['refused'][number][] = [];
	list.forEach((raw: unknown, n) => {
		const read = readPart(raw);
		if (read.ok) parts.push(read.value);
		else refused.push({ name: nameOf(raw) ?? `part ${n + 1}`, why: read.faults[0]!.message });
	});
	return ok({ parts, refused });
}

const nameOf = (raw: unknown): string | null => {
	const { name, id } = (raw ?? {}) as { name?: unknown; id?: unknown };
	return typeof name === 'string' && name ? name : typeof id === 'string' && id ? id : null;
};

/** The words that a field of this kind of part may hold; null where anything may stand. */
export function choicesOf(kind: PartKind, field: string): readonly string[] | null {
	const schema = partSchema.options.find((option) => option.shape.kind.value === kind);
	const type: unknown = (schema?.shape as Record<string, unknown> | undefined)?.[field];
	return type instanceof z.ZodEnum ? (type.options as string[]) : null;
}

/** One part, judged by its schema. Fault: `bad-part`, which names the figure. */
export function readPart(raw: unknown): Result<Part> {
	const parsed = partSchema.safeParse(raw);
	if (parsed.success) return ok(parsed.data);
	const issue = parsed.error.issues[0]!;
	return fault('bad-part', `${issue.path.length ? `${issue.path.join('.')}: ` : ''}${issue.message}`);
}
