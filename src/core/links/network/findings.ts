import type { Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Finding } from '../../link/finding';
import type { Judge } from '../../manifest';
import { assessGuard, assessKeeper, assessLogin, assessSeen, assessUpdates } from './assessAccess';
import { assessCapacity, assessLatency } from './assessPath';
import { assessFetching } from './fetching';
import { assessAddress, assessName, assessSchool, assessWay } from './assessReach';
import type { NetworkSettings } from './settings';

/** All findings of the network, worst cause first within each room. */
export const assessNetwork = (settings: NetworkSettings, context: Context, claims: readonly Claim[]): Finding[] => [
	...assessWay(settings, context, claims),
	...assessName(settings, context),
	...(settings.way === 'none'
		? assessKeeper(settings)
		: [
				...assessSchool(settings, context),
				...assessAddress(settings, context),
				...assessLogin(settings),
				...assessGuard(settings),
				...assessSeen(settings, context),
				...assessUpdates(settings, context),
				...assessCapacity(settings, context, claims),
				...assessLatency(settings, context),
				...assessFetching(settings, claims)
			])
];

export default assessNetwork satisfies Judge<NetworkSettings>;
