import { each, type Saved } from './saved';
import { fault, ok, type Result } from '../basics/result';
import { partsFromCatalogue } from './migrate2';
import { firstStart } from './migrate3';
import { updatesByHand } from './migrate4';
import { withinBounds } from './migrate5';
import { chain } from '../chain';
import type { Link } from '../link';
import type { Named, Wish } from '../link/wish';
import { WISHES } from '../link/wish';
import { isSaved } from './saved';
import { VERSIONS } from './workshop';

/** Each step takes version n to n + 1 and never looks at anything else. */
type Migration = (saved: Saved) => Saved;

/** Of the workshop as a whole, keyed by the version they start from. */
export const migrations: Readonly<Record<number, Migration>> = {
	// Version 1 kept no readings of run-sheet steps.
	1: (saved) => ({ ...saved, endpoints: each(saved.endpoints, (endpoint) => ({ done: {}, ...endpoint })) }),
	2: partsFromCatalogue,
	3: firstStart,
	4: updatesByHand,
	5: withinBounds,
	6: eachLinkByItself,
	// Amplifiers, converters and speakers gained figures; the schema knows what to take where nothing is said.
	7: (saved) => saved,
	// Media were known by their names alone.
	8: (saved) => ({ ...saved, media: each(saved.media, (media) => ({ sha256: '', ...media })) }),
	// Parts gained figures of the picture, media what they show; the schema knows what to take where nothing is said.
	9: (saved) => saved,
	// Media say more of themselves, where somebody has looked into them.
	10: (saved) => saved,
	// Boards and add-ons say whether they have Bluetooth.
	11: (saved) => saved,
	// The venue gained opening hours, holidays and its place; the schema knows what to take where nothing is said.
	12: (saved) => saved,
	// The venue gained a theme for its notices; the schema knows what to take where nothing is said.
	13: (saved) => saved,
	// Cases say whether they are sealed; the schema knows what to take where nothing is said.
	14: (saved) => saved
};
/** From here on the workshop and each link count their shapes by themselves. */
const COUNTED_APART = 7;
const FIRST_LINKS = ['brief', 'parts', 'header', 'power', 'heat', 'card', 'network', 'sources', 'sound', 'programme'];

function eachLinkByItself(saved: Saved): Saved {
	return { ...saved, links: { workshop: COUNTED_APART, ...Object.fromEntries(FIRST_LINKS.map((id) => [id, 1])) } };
}

/**
 * Brings a saved workshop to the newest shapes, without judging its contents: first as a whole, then the settings of each link
 * by the link's own migrations. A link that did not exist yet begins with its own defaults.
 * Faults: `not-a-workshop`, `version-newer` (written by a later Yphos), `version-unknown`, `version-step`.
 */
export function migrate(
	saved: unknown,
	{ steps = migrations, links = chain, versions = VERSIONS }: MigrateOptions = {}
): Result<Saved> {
	if (!isSaved(saved) || saved.yphos !== 'workshop')
		return fault('not-a-workshop', 'This file is not a Yphos workshop. Choose a file that ends in .yphos.json.');
	const { version } = saved;
	if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
		return fault('version-unknown', 'The file does not say which version wrote it, so it cannot be read safely.');
	const newest = Object.values(versions).reduce((sum, known) => sum + known, 0);
	const had = versionsOf(saved, version, versions);
	const later = Object.keys(had).find((part) => had[part]! > (versions[part] ?? 0));
	if (version > newest || later !== undefined)
		return fault(
			'version-newer',
			`The file was written by a later Yphos (version ${version}, this one knows ${newest}). Update Yphos, then open it.`
		);
	try {
		let current: Saved = saved;
		for (let v = had.workshop!; v < versions.workshop!; v++) {
			const step = steps[v];
			if (!step) return fault('version-unknown', `No way is known from version ${v} to ${v + 1}.`);
			current = step(current);
		}
		const of = { ...(isSaved(current.links) ? current.links : versions), workshop: versions.workshop } as Record<
			string,
			number
		>;
		const endpoints = each(current.endpoints, (endpoint) =>
			isSaved(endpoint.plan) ? { ...endpoint, plan: bringLinks(endpoint.plan, of, links) } : endpoint
		);
		return ok({
			...current,
			...(current.endpoints === undefined ? {} : { endpoints }),
			links: { ...versions },
			version: newest
		});
	} catch (error) {
		// A stranger's file may be torn in ways that a step does not expect.
		return fault(
			'version-step',
			`It could not be brought from version ${version} to ${newest}: ${(error as Error).message}.`
		);
	}
}

/** Another chain, for tests; the chain of today otherwise. */
interface MigrateOptions {
	readonly steps?: Readonly<Record<number, Migration>>;
	readonly links?: readonly Pick<Link, 'id' | 'version' | 'migrations' | 'empty'>[];
	readonly versions?: Readonly<Record<string, number>>;
}

/** Until the parts were counted apart, one number stood for all. */
function versionsOf(saved: Saved, version: number, versions: Readonly<Record<string, number>>): Record<string, number> {
	if (version < COUNTED_APART) return { workshop: version };
	if (!isSaved(saved.links)) return { ...versions };
	return Object.fromEntries(Object.entries(saved.links).filter(([, known]) => typeof known === 'number')) as Record<
		string,
		number
	>;
}

function bringLinks(
	plan: Saved,
	had: Readonly<Record<string, number>>,
	links: NonNullable<MigrateOptions['links']>
): Saved {
	const brought: Saved = { ...plan };
	for (const { id, version, migrations: own = {}, empty } of links) {
		const from = had[id];
		if (from === undefined && brought[id] === undefined) brought[id] = empty(namedBy(plan));
		for (let v = from ?? version; v < version; v++) {
			const step = own[v];
			if (!step) throw new RangeError(`no way is known for ${id} from ${v} to ${v + 1}`);
			if (isSaved(brought[id])) brought[id] = step(brought[id]);
		}
	}
	return brought;
}

/** What is known of an endpoint before its plan is understood. */
function namedBy({ brief }: Saved): Named {
	const known = isSaved(brief) ? brief : {};
	const isWish = (value: unknown): value is Wish => WISHES.includes(value as Wish);
	return {
		name: typeof known.name === 'string' ? known.name : 'Endpoint',
		hostName: 'endpoint',
		kind: isWish(known.kind) ? known.kind : 'music'
	};
}
