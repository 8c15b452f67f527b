import '$lib/plainZod';
import { expose } from 'comlink';
import { assess } from '$core/engines/assess';
import { surroundingsOf, type Shared } from '$core/engines/context';
import { summarise, type Summary } from '$core/engines/summary';
import { judges } from '$core/judges';
import type { Surroundings } from '$core/link/context';
import type { Endpoint } from '$core/plan/workshop';

let shared: Shared;

/** Judges endpoints that are not open, away from the page. */
const judge = {
	/** What all of them share; said again when it changes. */
	share: (what: Shared): void => void (shared = what),
	of: ({ plan, probe }: Endpoint, others: Surroundings['others']): Summary =>
		summarise(assess(judges, plan, surroundingsOf(shared, probe, others)))
};

export type SummaryWorker = typeof judge;
expose(judge);
