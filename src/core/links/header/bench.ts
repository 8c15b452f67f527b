import { z } from 'zod';
import { claimsOn, type Claim } from '../../claims';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { headerUseSchema } from '../../parts/schema';
import type { HeaderSettings } from './settings';
import { liftsOf, usersOf } from './users';

/** What sits on the header, and the sound card that is missing when it cannot have its pins. */
const header = z.object({
	lifts: z.number().int().min(0),
	users: z.array(
		z.object({
			id: z.string(),
			name: z.string(),
			use: headerUseSchema,
			lines: z.array(z.number().int()),
			cardId: z.string().nullable()
		})
	)
});

declare module '../../engines/machine/bench' {
	interface Bench {
		header: z.infer<typeof header> | null;
	}
}
/** What a rehearsal knows of the pins: who drives which, and which control chips answer. */
export const headerBenchShape = { header: header.nullable().default(null) };

/** The bench's header, as the chosen parts wire it. */
export function headerBench(settings: HeaderSettings, context: Context, claims: readonly Claim[]): Partial<Bench> {
	const makers = new Set(claimsOn(claims, 'header').flatMap((claim) => (claim.makesSound ? [claim.part] : [])));
	return {
		header: {
			lifts: liftsOf(context),
			users: usersOf(settings, context, claims).map((user) => ({
				...user,
				lines: [...user.lines],
				cardId: makers.has(user.id) ? context.facts.cardId || null : null
			}))
		}
	};
}
