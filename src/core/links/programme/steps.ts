import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { quietInWords } from './quiet';
import { momentWords } from './rules/ruleWords';
import { NOW_PATH, WHY_PATH } from './service';
import { finishes } from './lists/finish';
import type { ProgrammeSettings } from './settings';
import { standsIn } from './lists/standIn';

const HEARD = {
	list: '',
	back: 'the next entry of the list',
	file: 'the first file of the list, again and again',
	sign: 'a soft tone each ten seconds'
} as const satisfies Record<ProgrammeSettings['whenGone'], string>;

/** A sheet of paper holds so many rules. */
const NAMED = 4;

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
	...(settings.rules.length
		? [
				{
					id: 'rules-check',
					phase: 'check' as const,
					needs: ['applied' as const],
					makes: ['readings taken' as const],
					do: `Ask the endpoint what is on now, and by which rule. Yphos says the same under Week: compare them.`,
					command: `cat ${WHY_PATH} ${NOW_PATH}`,
					expect: `The title of the rule, or an empty line while none holds; then the list that plays, or an empty line while nothing is on. An old rule: the clock is wrong, "timedatectl" says so.`
				},
				{
					id: 'rules-live',
					phase: 'live' as const,
					do: `Be there once when what is on changes: ${settings.rules
						.slice(0, NAMED)
						.map((rule) => `“${rule.title || rule.id}” from ${momentWords(rule.from)}`)
						.join(
							'; '
						)}${settings.rules.length > NAMED ? '; and others' : ''}. On the day after the clock is put forward or back, look once more.`,
					expect: finishes(settings, context)
						? 'What plays is played to its end; a stream is cut off within a few seconds. Then the new list begins at its first entry, or nothing plays any more.'
						: 'Within a few seconds the new list begins at its first entry, or nothing plays any more.',
					reading: 'minute of the change'
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
