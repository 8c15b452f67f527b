import '$lib/plainZod';
import { expose } from 'comlink';
import { airtime, type Airtime } from '$core/links/programme/rules/year';
import { programmeBook } from '$core/onAir/book';
import type { ProgrammeSettings } from '$core/links/programme/settings';
import type { Venue } from '$core/plan/venue';

/** A year of an endpoint, away from the page. */
const year = (programme: ProgrammeSettings, venue: Venue, fromUtcMs: number, untilUtcMs: number): Airtime =>
	airtime(programmeBook(programme, venue), programme.rules, fromUtcMs, untilUtcMs);

export type YearWorker = { year: typeof year };
expose({ year } satisfies YearWorker);
