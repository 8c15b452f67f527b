import { z } from 'zod';
import type { Bench } from './machine';
import type { Link } from '../link';
import type { Surroundings } from '../link/context';
import type { Plan } from '../plan/plan';
import { derive, sliceOf } from './derive';

/** The surroundings as a file has them: the shapes of all links joined. What a file leaves out is not there. */
export const benchSchemaOf = (chain: readonly Link[]): z.ZodType<Bench> =>
	z.object(Object.assign({}, ...chain.map((link) => link.bench?.shape ?? {}))) as unknown as z.ZodType<Bench>;

/** Surroundings in which nothing is there. */
const bareBench = (chain: readonly Link[]): Bench => benchSchemaOf(chain).parse({});

/** The surroundings that a plan expects, each part of them told by the link that deals in it. */
export function benchFor(chain: readonly Link[], plan: Plan, surroundings: Surroundings): Bench {
	const { links, context, claims } = derive(chain, plan, surroundings);
	return Object.assign(
		bareBench(chain),
		...links.map((link) => link.bench?.of?.(sliceOf(plan, link), context, claims) ?? {})
	) as Bench;
}
