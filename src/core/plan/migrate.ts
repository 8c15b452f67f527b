import { each, type Saved } from './saved';
import { fault, ok, type Result } from '../result';
import { partsFromCatalogue } from './migrate2';
import { firstStart } from './migrate3';
import { updatesByHand } from './migrate4';
import { withinBounds } from './migrate5';
import { WORKSHOP_VERSION } from './workshop';

/** Each step takes version n to n + 1 and never looks at anything else. */
export type Migration = (saved: Saved) => Saved;

/** Keyed by the version they start from. */
export const migrations: Readonly<Record<number, Migration>> = {
	// Version 1 kept no readings of run-sheet steps.
	1: (saved) => ({ ...saved, endpoints: each(saved.endpoints, (endpoint) => ({ done: {}, ...endpoint })) }),
	2: partsFromCatalogue,
	3: firstStart,
	4: updatesByHand,
	5: withinBounds
};

/**
 * Brings a saved workshop to the newest version, without judging its contents.
 * Faults: `not-a-workshop`, `version-newer` (written by a later Yphos), `version-unknown`, `version-step`.
 */
export function migrate(saved: unknown, steps = migrations, newest: number = WORKSHOP_VERSION): Result<Saved> {
	if (typeof saved !== 'object' || saved === null || (saved as Saved).yphos !== 'workshop')
		return fault('not-a-workshop', 'This file is not a Yphos workshop. Choose a file that ends in .yphos.json.');
	let current = saved as Saved;
	const version = current.version;
	if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
		return fault('version-unknown', 'The file does not say which version wrote it, so it cannot be read safely.');
	if (version > newest)
		return fault(
			'version-newer',
			`The file was written by a later Yphos (version ${version}, this one knows ${newest}). Update Yphos, then open it.`
		);
	for (let v = version; v < newest; v++) {
		const step = steps[v];
		if (!step) return fault('version-unknown', `No way is known from version ${v} to ${v + 1}.`);
		try {
			current = { ...step(current), version: v + 1 };
		} catch (error) {
			// A stranger's file may be torn in ways that a step does not expect.
			return fault(
				'version-step',
				`It could not be brought from version ${v} to ${v + 1}: ${(error as Error).message}.`
			);
		}
	}
	return ok(current);
}
