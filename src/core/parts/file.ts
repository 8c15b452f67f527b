import { z } from 'zod';
import { readJson } from '../formats/json/json';
import { fault, ok, type Result } from '../basics/result';
import { partSchema, type Part } from './schema';
import { safely } from '../basics/safely';

const PARTS_FILE_VERSION = 1;

/** The shape of a file of parts; published as `docs/parts.schema.json`. */
const partsFileSchema = z.object({
	yphos: z.literal('parts'),
	version: z.literal(PARTS_FILE_VERSION),
	parts: z.array(partSchema)
});

/** The published JSON Schema: what may be written into such a file, defaults left out. */
export const partsJsonSchema = (): unknown => ({
	title: 'Yphos parts',
	...z.toJSONSchema(partsFileSchema, { io: 'input' })
});

/** Parts as JSON, as `docs/parts.schema.json` describes it. */
export const writePartsFile = (parts: readonly Part[]): string =>
	`${JSON.stringify({ yphos: 'parts', version: PARTS_FILE_VERSION, parts }, null, '\t')}\n`;

interface ReadParts {
	readonly parts: readonly Part[];
	/** Parts that are missing a figure or have an absurd one, by name, with what is wrong. */
	readonly refused: readonly { readonly name: string; readonly why: string }[];
}

/**
 * Reads a file of parts, a bare list of them, or the parts of an exported workshop. Sound parts are taken, the others refused by name.
 * Of two parts with one id the second is refused. Faults: those of `readJson`; `parts-version`, `not-parts`.
 */
export function readPartsFile(text: string): Result<ReadParts> {
	const read = readJson(text, { characters: 20_000_000, depth: 64 });
	if (!read.ok) return read;
	const frame = (typeof read.value === 'object' ? read.value : null) as {
		yphos?: unknown;
		version?: unknown;
		parts?: unknown;
	} | null;
	const isParts = frame !== null && frame.yphos === 'parts';
	if (isParts && frame.version !== PARTS_FILE_VERSION)
		return fault(
			'parts-version',
			`This file of parts is of version ${String(frame.version).slice(0, 20)}; this Yphos reads version ${PARTS_FILE_VERSION}. Export it again, or update Yphos.`
		);
	const list = Array.isArray(read.value) ? (read.value as unknown[]) : frame?.parts;
	if (!Array.isArray(list))
		return fault(
			'not-parts',
			'There is no list of parts in this file. It should hold {"yphos": "parts", "version": 1, "parts": […]}.'
		);
	const parts: Part[] = [];
	const refused: ReadParts['refused'][number][] = [];
	const ids = new Set<string>();
	list.forEach((raw: unknown, n) => {
		const one = readPart(raw);
		if (one.ok && ids.has(one.value.id))
			refused.push({ name: one.value.name, why: `another part of the file has the id ${one.value.id}` });
		else if (one.ok) {
			ids.add(one.value.id);
			parts.push(one.value);
		} else refused.push({ name: nameOf(raw) ?? `part ${n + 1}`, why: one.faults[0]!.message });
	});
	return ok({ parts, refused });
}

const nameOf = (raw: unknown): string | null => {
	const { name, id } = (raw ?? {}) as { name?: unknown; id?: unknown };
	return typeof name === 'string' && name ? name.slice(0, 80) : typeof id === 'string' && id ? id.slice(0, 80) : null;
};

/** One part, judged by its schema. Fault: `bad-part`, which names the figure. */
export function readPart(raw: unknown): Result<Part> {
	const parsed = safely(partSchema, raw);
	if (parsed.success) return ok(parsed.data);
	const issue = parsed.error.issues[0]!;
	return fault('bad-part', `${issue.path.length ? `${issue.path.join('.')}: ` : ''}${issue.message}`);
}
