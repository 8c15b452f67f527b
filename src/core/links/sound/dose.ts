/**
 * How long a day may be spent in a sound before it is too much: 85 dB(A) for eight hours, half as long for each 3 dB more.
 * Source: Directive 2003/10/EC, 3 (upper exposure action value); ISO 1999:2013 (equal energy). Rules differ between countries.
 */
const DAY = { levelDb: 85, hours: 8, halvedByDb: 3 };

/** Minutes a day; music's level is taken as A-weighted, which overstates it by a few dB. */
export const minutesADay = (levelDb: number): number =>
	(DAY.hours * 60) / 2 ** ((levelDb - DAY.levelDb) / DAY.halvedByDb);

/** Above this a day's share is gone within half a minute: nobody plans such a level. */
export const HARMFUL_DB = 115;
