import fc from 'fast-check';
import { afterAll, expect, it } from 'vitest';
import { cardBytes } from '../files/cardBytes';
import { chain } from '../chain';
import { judges } from '../judges';
import { writers } from '../writers';
import { rehearsed } from '../rehearsals';
import { toBase64, writeEdid } from '../formats/edid';
import { catalogue } from '../parts/catalogue';
import { valuesOf, type Places } from '../plan/arbitrary';
import { misfit } from '../plan/misfit';
import { openWorkshop } from '../plan/open';
import { endpointSchema, VERSIONS, workshopSchema, type Workshop } from '../plan/workshop';
import { vicTiming } from '../standards/vicTable';
import { TIME_ZONES } from '../standards/timeZones';
import { assess } from './assess';
import { benchFor } from './benchFor';
import { contextFor } from './context';
import { cardTree } from './machine';
import { rehearse } from './rehearse';
import { runSheet } from './runSheet';
import { costOfUse, shoppingCsv, shoppingList } from './shopping';
import { write } from './write';

/** So many workshops in `npm test`; `npm run fuzz` gives more. */
const WORKSHOPS = Number(process.env.FUZZ_WORKSHOPS ?? 40);
const idsOf = (kind: string): string[] => catalogue.filter((part) => part.kind === kind).map(({ id }) => id);
const every = catalogue.map(({ id }) => id);

const SCREEN = (() => {
	const modes = [16, 31, 4].map((vic) => vicTiming(vic)!.timing);
	const bytes = writeEdid({ name: 'SET', widthMm: 700, heightMm: 400, modes, sound: null, year: 2026 });
	return bytes.ok ? toBase64(bytes.value) : '';
})();

/** Parts that exist at most places, so that the links have something to deal with. */
const places: Places = (path) => {
	const place = /\.plan\.parts\.(\w+)$/.exec(path)?.[1];
	if (place && idsOf(place).length) return fc.option(fc.constantFrom(...idsOf(place)), { freq: 6 });
	if (path.endsWith('.plan.parts.also.*.part')) return fc.constantFrom(...every);
	if (path === '.links') return fc.constant({ ...VERSIONS });
	if (path.endsWith('.timeZone')) return fc.constantFrom(...TIME_ZONES);
	// Its own parser refuses nearly all that chance makes.
	if (path.endsWith('.sshKeys.*'))
		return fc.constant('ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIAsY+gk/mSXIbKws7gQl3MdINidjazRfiNwZNyr9AOFJ me');
	if (path.endsWith('.cidr') || path.endsWith('.ranges.*'))
		return fc.constantFrom('192.168.40.0/24', '10.0.0.0/8', '2001:db8::/32', '192.168.1.1/32');
	if (/\.(?:gateway|poolFrom|poolTo|ip)$/.test(path))
		return fc.constantFrom('192.168.40.1', '192.168.40.77', '10.1.2.3');
	if (path.endsWith('.notices.language')) return fc.constantFrom('en-GB', 'nb-NO', 'is-IS');
	if (path.endsWith('.picture.edid')) return fc.constantFrom('', 'A=', SCREEN, SCREEN.slice(0, 200));
	if (path.endsWith('.volumeDb') || path.endsWith('.loudestDb')) return null;
	return null;
};
const shape = Object.entries(workshopSchema.shape).filter(([key]) => key !== 'endpoints');
const workshops = fc
	.record({
		...Object.fromEntries(shape.map(([key, schema]) => [key, valuesOf(schema, places, `.${key}`)])),
		endpoints: fc.uniqueArray(valuesOf(endpointSchema, places, '.endpoints') as fc.Arbitrary<{ id: string }>, {
			minLength: 1,
			maxLength: 2,
			selector: ({ id }) => id
		})
	})
	.map((value) => workshopSchema.parse(value) as Workshop);

const told = { workshops: 0, fixes: 0, findings: 0 };
afterAll(() =>
	console.info(`any workshop: ${told.workshops} workshops, ${told.findings} findings, ${told.fixes} fixes`)
);

it('any workshop that the schema takes goes through every engine and every fix', { timeout: 3_600_000 }, () => {
	fc.assert(
		fc.property(workshops, (workshop) => {
			told.workshops++;
			const opened = openWorkshop(JSON.stringify(workshop), 'UTC');
			expect(opened).toMatchObject({ ok: true, value: { damaged: [], remarks: [] } });
			const ids = workshop.endpoints.map(({ id }) => id);
			shoppingCsv(shoppingList(chain, workshop, ids), workshop);
			costOfUse(chain, workshop, ids);
			for (const endpoint of workshop.endpoints) goThrough(workshop, endpoint.id);
		}),
		{ numRuns: WORKSHOPS }
	);
});

function goThrough(workshop: Workshop, id: string): void {
	const { plan } = workshop.endpoints.find((endpoint) => endpoint.id === id)!;
	const context = contextFor(chain, workshop, id);
	const { findings } = assess(judges, plan, context);
	runSheet(writers, plan, context);
	const files = write(writers, plan, context);
	for (const { path } of files) {
		expect(path, path).toMatch(/^(?:boot|docs)\//);
		expect(
			path.split('/').some((step) => step === '' || step === '.' || step === '..'),
			path
		).toBe(false);
	}
	expect(new Set(files.map(({ path }) => path.toLowerCase())).size).toBe(files.length);
	for (const file of files) cardBytes(file);
	const bench = benchFor(writers, plan, context);
	rehearse({
		links: rehearsed,
		card: cardTree(files),
		bench,
		startUtcMs: Date.UTC(2026, 10, 26, 18),
		forMs: 90_000,
		faults: []
	});
	for (const finding of findings) {
		told.findings++;
		for (const fix of finding.fixes) {
			told.fixes++;
			const mended = fix.apply(structuredClone(plan));
			const after = {
				...workshop,
				endpoints: workshop.endpoints.map((endpoint) => (endpoint.id === id ? { ...endpoint, plan: mended } : endpoint))
			};
			expect(misfit(workshop, after), `${finding.id}: ${fix.label}`).toBeNull();
			assess(judges, mended, contextFor(chain, after, id));
		}
	}
}
