import { withUnit } from '../../basics/format';

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

/** The same in words: "all day", "7 h", "28 min", "30 s". */
export function shareInWords(levelDb: number): string {
	const minutes = minutesADay(levelDb);
	if (minutes >= 24 * 60) return 'all day';
	if (minutes >= 90) return withUnit(minutes / 60, 0, 'h');
	return minutes >= 1.5 ? withUnit(minutes, 0, 'min') : withUnit(minutes * 60, 0, 's');
}
