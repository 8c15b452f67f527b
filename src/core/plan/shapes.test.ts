import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { chain } from '../chain';
import type { Link } from '../link';
import type { Named } from '../link/wish';
import { emptyPlan } from './plan';
import { migrate } from './migrate';
import { VERSIONS, workshopSchema } from './workshop';

/**
 * The shape of each part at each version that was ever saved, as JSON Schema. `WRITE_SHAPES=1 npx vitest run shapes` adds the
 * newest; what stands there already is never written over.
 */
const FILE = resolve(import.meta.dirname, 'fixtures', 'shapes.json');
type Shapes = Record<string, Record<string, unknown>>;
const known = JSON.parse(readFileSync(FILE, 'utf8')) as Shapes;
const links: readonly Link[] = chain;
const shapeOf = (schema: z.ZodType): unknown =>
	JSON.parse(JSON.stringify(z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' })));
const parts: readonly (readonly [string, z.ZodType])[] = [
	['workshop', workshopSchema.omit({ version: true, endpoints: true })],
	...links.map((link) => [link.id, link.settings] as const)
];

describe('a shape that is saved', () => {
	it.each(parts)(
		'of %s is the one that its version stands for: a change of it takes a new version',
		async (id, schema) => {
			const version = String(VERSIONS[id]);
			if (process.env.WRITE_SHAPES && !known[id]?.[version]) {
				const { writeFileSync } = await import('node:fs');
				known[id] = { ...known[id], [version]: shapeOf(schema) };
				writeFileSync(FILE, `${JSON.stringify(known, null, '\t')}\n`);
			}
			expect(known[id]?.[version], `fixtures/shapes.json has no version ${version} of ${id}`).toBeDefined();
			expect(shapeOf(schema)).toEqual(known[id]![version]);
		}
	);
	it.each(links.map((link) => [link.id, link] as const))('of %s can be reached from each earlier one', (_, link) => {
		for (let v = 1; v < link.version; v++) expect(link.migrations?.[v], `from ${v}`).toBeTypeOf('function');
	});
});

describe('a link that a saved workshop does not know', () => {
	const trial = {
		id: 'to-come',
		version: 1,
		empty: ({ name, kind }: Named) => ({ greeting: `${name} for ${kind}` })
	};
	const plan = emptyPlan('Hall', 'hall', 'film');
	const saved = {
		yphos: 'workshop',
		version: Object.values(VERSIONS).reduce((sum, version) => sum + version, 0),
		links: { ...VERSIONS },
		endpoints: [{ id: 'a', plan }]
	};
	const versions = { ...VERSIONS, 'to-come': 1 };
	it('begins with its own defaults, by what the endpoint is called and wanted for', () =>
		expect(migrate(saved, { links: [...links, trial], versions })).toMatchObject({
			ok: true,
			value: { links: versions, endpoints: [{ plan: { ...plan, 'to-come': { greeting: 'Hall for film' } } }] }
		}));
	it('is brought on by its own migrations alone', () => {
		const later = {
			...trial,
			version: 3,
			migrations: { 1: (s: object) => ({ ...s, a: 1 }), 2: (s: object) => ({ ...s, b: 2 }) }
		};
		const first = migrate(saved, { links: [...links, trial], versions });
		if (!first.ok) throw new Error('not migrated');
		expect(migrate(first.value, { links: [...links, later], versions: { ...versions, 'to-come': 3 } })).toMatchObject({
			ok: true,
			value: { endpoints: [{ plan: { 'to-come': { greeting: 'Hall for film', a: 1, b: 2 } } }] }
		});
	});
	it('keeps an older Yphos from opening what it would not understand', () => {
		const newer = { ...saved, version: saved.version + 1, links: versions };
		expect(migrate(newer)).toMatchObject({ ok: false, faults: [{ code: 'version-newer' }] });
	});
});
