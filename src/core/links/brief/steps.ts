import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import type { BriefSettings } from './settings';

/** Pull the plug, and see whether it comes back. */
export const briefSteps = (settings: BriefSettings, { facts }: Context): Step[] =>
	settings.comesBackAlone
		? [
				{
					id: 'pull-plug',
					phase: 'check',
					needs: ['heard', 'alone', 'clock set'],
					do: 'Pull the plug, wait ten seconds, plug in again.',
					expect:
						facts.cardId === undefined
							? 'It is at work again by itself.'
							: `Sound returns by itself within ${settings.soundWithinSec}\u2009s.`,
					reading: facts.cardId === undefined ? 'seconds until it works' : 'seconds until sound'
				}
			]
		: [];
