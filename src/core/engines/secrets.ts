import { ok, type Result } from '../basics/result';
import type { Link } from '../link';
import type { Surroundings } from '../link/context';
import type { Plan } from '../plan/plan';
import type { Asked, Secrets } from '../secrets';
import { derive, sliceOf } from './derive';

/** All that is asked for when the card set of a plan is written, in the chain's order. */
export function askedFor(chain: readonly Link[], plan: Plan, surroundings: Surroundings): readonly Asked[] {
	const { links, context } = derive(chain, plan, surroundings);
	return links.flatMap((link) => link.secrets?.of(sliceOf(plan, link), context) ?? []);
}

/** Of two links that give one by the same name, each a record, all entries count. */
function joined(all: readonly Secrets[]): Secrets {
	const out: Record<string, unknown> = {};
	for (const one of all)
		for (const [name, value] of Object.entries(one))
			out[name] = typeof value === 'object' && typeof out[name] === 'object' ? { ...out[name], ...value } : value;
	return out as Secrets;
}

/** What the writers take of what was typed, by id; else what is wrong with the first that is not good. */
export function takeSecrets(
	asked: readonly Asked[],
	typed: Readonly<Record<string, string>>,
	random: () => Uint8Array
): Result<Secrets> {
	const taken: Secrets[] = [];
	for (const one of asked) {
		const result = one.take(typed[one.id] ?? '', random());
		if (!result.ok) return { ok: false, faults: result.faults.map((f) => ({ ...f, where: one.id })) };
		taken.push(result.value);
	}
	return ok(joined(taken));
}
