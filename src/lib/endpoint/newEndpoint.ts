import { goto } from '$app/navigation';
import type { Wish } from '$core/link/wish';
import { emptyPlan } from '$core/plan/plan';
import { store } from '$lib/store/workshop.svelte';

/** Adds an endpoint of a kind, under a host name that nobody has yet, and opens it. */
export function newEndpoint(kind: Wish): void {
	const hostNames = new Set(store.workshop!.endpoints.map(({ plan }) => plan.network.hostName));
	let number = store.workshop!.endpoints.length + 1;
	while (hostNames.has(`endpoint-${number}`)) number++;
	const id = crypto.randomUUID();
	const plan = emptyPlan(`Endpoint ${number}`, `endpoint-${number}`, kind);
	const refused = store.change('new endpoint', (workshop) => ({
		...workshop,
		endpoints: [...workshop.endpoints, { id, plan, probe: null, written: null, done: {} }]
	}));
	if (refused === null) void goto(`/endpoint/${id}/plan/brief`);
}
