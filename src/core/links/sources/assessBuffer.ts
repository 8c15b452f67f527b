import { changing } from '../../changes';
import type { Context, Finding } from '../../link';
import { expectedDropouts, leastBuffer, OWN_BUFFER_SEC, pausesOf } from './buffer';
import { isFetched } from './receive';
import type { SourcesSettings } from './settings';

const own = changing<SourcesSettings>('sources');

/** Streams that break off more than once a day. */
export function assessBuffer(settings: SourcesSettings, context: Context): Finding[] {
	const pauses = pausesOf(settings, context);
	if (!pauses || !settings.items.some(isFetched)) return [];
	const perHour = expectedDropouts(pauses, Math.max(OWN_BUFFER_SEC, settings.bufferSec));
	if (perHour * 24 <= 1) return [];
	const sec = leastBuffer(pauses);
	return [
		{
			id: 'sources.buffer-thin',
			level: 'note',
			title:
				perHour >= 1
					? `Streams break off ${perHour.toFixed(0)} times an hour`
					: `Streams break off every ${(1 / perHour).toFixed(0)} hours`,
			why: `They stand still ${pauses.perHour} times an hour for ${pauses.meanSec}\u2009s on average${settings.pauses ? '' : ', as is usual of this way'}, and the player holds too little to bridge that. Gathered before, ${sec}\u2009s do; they are waited for at each start, and a live programme comes as much later.`,
			setting: 'sources.bufferSec',
			fixes: sec <= 60 ? [{ label: `Gather ${sec}\u2009s before`, apply: own({ bufferSec: sec }) }] : []
		}
	];
}
