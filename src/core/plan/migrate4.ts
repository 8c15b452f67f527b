import { each, fill, isSaved, type Saved } from './saved';

/** Version 4 knew nothing of updates: they stay with whoever looks after the endpoint. */
export const updatesByHand = (saved: Saved): Saved => ({
	...saved,
	endpoints: each(saved.endpoints, (endpoint) =>
		isSaved(endpoint.plan)
			? { ...endpoint, plan: { ...endpoint.plan, network: fill(endpoint.plan.network, UPDATES) } }
			: endpoint
	)
});

const UPDATES = { updates: { nightly: false, at: '03:30' } };
