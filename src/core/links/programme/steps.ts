import type { Context, Step } from '../../link';
import { quietInWords } from './quiet';
import type { ProgrammeSettings } from './settings';
import { standsIn } from './standIn';

const HEARD = {
	list: '',
	back: 'the next entry of the list',
	file: 'the first file of the list, again and again',
	sign: 'a soft tone each ten seconds'
} as const satisfies Record<ProgrammeSettings['whenGone'], string>;

/** Somebody is there when a stream is gone, and when quiet hours begin. */
export const programmeSteps = (settings: ProgrammeSettings, context: Context): Step[] => [
	...(standsIn(settings, context)
		? [
				{
					id: 'gone-check',
					phase: 'live' as const,
					do: 'While a stream plays, take the endpoint off the network for a minute: pull its cable, or switch the access point off. Then join it again.',
					expect: `Once what it had gathered is played, you hear ${HEARD[settings.whenGone]}; a file on a share is gone with the network. Joined again, the stream comes back within ${settings.lookSec}\u2009s and a few more.`,
					reading: 'seconds until the stream is back'
				}
			]
		: []),
	...(settings.quiet.length
		? [
				{
					id: 'quiet-check',
					phase: 'live' as const,
					do: `Be there once when quiet hours begin: ${settings.quiet.map(quietInWords).join('; ')}.`,
					expect: 'Silence within a second, and sound again when they end.',
					reading: 'minute of silence'
				}
			]
		: [])
];
