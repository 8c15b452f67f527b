import type { Venue } from '../../plan/venue';
import type { Rulebook } from '../../onAir/onAir';
import { ruleLines } from './ruleLines';
import type { ProgrammeSettings } from './settings';
import { sunTable } from '../../onAir/sun';

const isBySun = ({ from, until }: ProgrammeSettings['rules'][number]): boolean =>
	[from, until].some(({ at }) => at === 'sunrise' || at === 'sunset');

/** The rules of an endpoint at its venue. */
export const bookOf = (
	{ rules, otherwise }: Pick<ProgrammeSettings, 'rules' | 'otherwise'>,
	venue: Venue
): Rulebook => ({
	lines: ruleLines(rules, venue),
	otherwise,
	zone: venue.timeZone,
	sun: venue.place && rules.some(isBySun) ? sunTable(venue.place) : []
});
