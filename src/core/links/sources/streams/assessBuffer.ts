import { changing } from '../../../changes';
import type { Context } from '../../../link/context';
import type { Finding } from '../../../link/finding';
import { expectedDropouts, leastBuffer, pausesOf } from './buffer';
import { isFetched } from './receive';
import type { SourcesSettings } from '../settings';

const own = changing<SourcesSettings>('sources');

/** Rounded, it is heard once a day at most. */
const MOST_A_DAY = 1.5;

/** Streams that break off more than once a day. */
export function assessBuffer(settings: SourcesSettings, context: Context): Finding[] {
	const pauses = pausesOf(settings, context);
	if (!pauses || !settings.items.some(isFetched)) return [];
	const perDay = expectedDropouts(pauses, settings.bufferSec);
	if (perDay <= MOST_A_DAY) return [];
	const sec = leastBuffer(pauses, MOST_A_DAY);
	return [
		{
			id: 'sources.buffer-thin',
			level: 'note',
			title: `A stream breaks off about ${perDay.toFixed(0)} times a day`,
			why: `They stand still ${pauses.perHour} times an hour for ${pauses.meanSec}\u2009s on average${settings.pauses ? '' : ', as is usual of this way'}, and the player holds too little to bridge that. After each dropout it stays as much further behind and bears a longer pause; so most of them are in the first hours after a start. ${sec === null ? 'No buffer that can be set bridges them: mend the way.' : `Gathered before, ${sec}\u2009s bridge them from the start; they are waited for at each start, and a live programme comes as much later.`}`,
			setting: 'sources.bufferSec',
			fixes: sec === null ? [] : [{ label: `Gather ${sec}\u2009s before`, apply: own({ bufferSec: sec }) }]
		}
	];
}
