import type { Claim } from '../../claims';
import type { Context, Finding } from '../../link';
import type { Plan } from '../../plan/plan';
import { assessGuard, assessLogin, assessUpdates } from './assessAccess';
import { assessCapacity, assessLatency } from './assessPath';
import { assessAddress, assessName, assessSchool, assessWay } from './assessReach';

export const assessNetwork = (plan: Plan, context: Context, claims: readonly Claim[]): Finding[] => [
	...assessWay(plan, context, claims),
	...assessName(plan, context),
	...(plan.network.way === 'none'
		? []
		: [
				...assessSchool(plan, context),
				...assessAddress(plan, context),
				...assessLogin(plan),
				...assessGuard(plan),
				...assessUpdates(plan),
				...assessCapacity(plan, context, claims),
				...assessLatency(plan, context)
			])
];
