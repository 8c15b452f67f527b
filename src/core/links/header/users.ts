import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import { onceFor } from '../../basics/onceFor';
import { computeOccupancy, type HeaderUser, type Occupancy } from './occupancy';
import type { HeaderSettings } from './settings';

/** A part that lifts an add-on off the header, by its id in the catalogue. */
export const LIFT = 'stacking-header';

/** What claims the header, each part as often as it is there. */
export const usersOf = (settings: HeaderSettings, context: Context, claims: readonly Claim[]): HeaderUser[] =>
	claimsOn(claims, 'header').map((claim) => ({
		id: claim.part,
		name: context.find(claim.part)?.name ?? claim.what,
		use: claim.use,
		lines: settings.lines[claim.part] ?? []
	}));

export const liftsOf = (context: Context): number =>
	context.facts.parts.also.filter(({ part }) => part === LIFT).reduce((total, { count }) => total + count, 0);

/** The header of this plan: all parts that sit on it, and claims that take a line. */
export const occupancyOf = onceFor((settings: HeaderSettings, context, claims): Occupancy =>
	computeOccupancy(usersOf(settings, context, claims), liftsOf(context))
);

/** Whether the board has a header at all; unknown without a board. */
export const hasHeader = (context: Context): boolean | null => {
	const board = context.part('board', context.facts.parts.board);
	return board ? board.sockets.some(({ plug }) => plug === 'header') : null;
};
