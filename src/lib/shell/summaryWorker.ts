import '$lib/plainZod';
import { expose } from 'comlink';
import { chain } from '$core/chain';
import { assess } from '$core/engines/assess';
import { surroundingsOf, type Shared } from '$core/engines/context';
import { summarise, type Summary } from '$core/engines/summary';
import type { Surroundings } from '$core/link';
import { assessNotices } from '$core/links/notices/findings';
import { handIn } from '$core/links/notices/later';
import type { Endpoint } from '$core/plan/workshop';

handIn(assessNotices);
let shared: Shared;

/** Judges endpoints that are not open, away from the page. */
const judge = {
	/** What all of them share; said again when it changes. */
	share: (what: Shared): void => void (shared = what),
	of: ({ plan, probe }: Endpoint, others: Surroundings['others']): Summary =>
		summarise(assess(chain, plan, surroundingsOf(shared, probe, others)))
};

export type SummaryWorker = typeof judge;
expose(judge);
