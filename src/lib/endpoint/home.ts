import { chain } from '$core/chain';
import { isUsed } from '$core/engines/derive';
import type { Link } from '$core/link';
import type { Plan } from '$core/plan/plan';

/** Where an endpoint opens: at the end of its chain that it is there for. */
export const homeOf = (id: string, plan: Plan): string =>
	`/endpoint/${id}/plan/${(chain as readonly Link[]).find((link) => link.place.end && isUsed(link, plan))?.id ?? 'brief'}`;
