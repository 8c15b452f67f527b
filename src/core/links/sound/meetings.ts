import { claimsOn, type Claim } from '../../claims';
import type { SoundShape } from '../../parts/media';
import type { Context } from '../../link/context';
import { routeOf } from './route';
import { treat, type Treatment } from './treatment';
import type { SoundSettings } from './settings';

/** One source as it is made and as it reaches the converter. */
interface Meeting {
	readonly what: string;
	readonly shape: SoundShape | null;
	readonly treatment: Treatment;
}

/** What each source meets; empty until a converter is chosen. */
export function computeMeetings(settings: SoundSettings, context: Context, claims: readonly Claim[]): Meeting[] {
	const route = routeOf(settings, context);
	return route
		? claimsOn(claims, 'sound').map(({ what, shape }) => ({ what, shape, treatment: treat(shape, route) }))
		: [];
}
