import { claimsOn, type Claim, type SoundShape } from '../../claims';
import type { Context } from '../../link';
import type { Plan } from '../../plan/plan';
import { routeOf } from './route';
import { treat, type Treatment } from './treatment';

/** One source as it is made and as it reaches the converter. */
export interface Meeting {
	readonly what: string;
	readonly shape: SoundShape | null;
	readonly treatment: Treatment;
}

/** What each source meets; empty until a converter is chosen. */
export function computeMeetings(plan: Plan, context: Context, claims: readonly Claim[]): Meeting[] {
	const route = routeOf(plan, context);
	return route
		? claimsOn(claims, 'sound').map(({ what, shape }) => ({ what, shape, treatment: treat(shape, route) }))
		: [];
}
