import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link';
import { onceFor } from '../../onceFor';
import type { Plan } from '../../plan/plan';
import { computeOccupancy, type HeaderUser, type Occupancy } from './occupancy';

/** A part that lifts an add-on off the header, by its id in the catalogue. */
export const LIFT = 'stacking-header';

/** What claims the header, each part as often as it is there. */
export const usersOf = (plan: Plan, context: Context, claims: readonly Claim[]): HeaderUser[] =>
	claimsOn(claims, 'header').map((claim) => ({
		id: claim.part,
		name: context.find(claim.part)?.name ?? claim.what,
		use: claim.use,
		lines: plan.header.lines[claim.part] ?? []
	}));

export const liftsOf = (plan: Plan): number =>
	plan.parts.also.filter(({ part }) => part === LIFT).reduce((total, { count }) => total + count, 0);

export const occupancyOf = onceFor((plan, context, claims): Occupancy =>
	computeOccupancy(usersOf(plan, context, claims), liftsOf(plan))
);

/** Whether the board has a header at all; unknown without a board. */
export const hasHeader = (plan: Plan, context: Context): boolean | null => {
	const board = context.part('board', plan.parts.board);
	return board ? board.sockets.some(({ plug }) => plug === 'header') : null;
};
