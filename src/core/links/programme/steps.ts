import type { Step } from '../../link';
import { quietInWords } from './quiet';
import type { ProgrammeSettings } from './settings';

/** Somebody is there when quiet hours begin. */
export const programmeSteps = (settings: ProgrammeSettings): Step[] =>
	settings.quiet.length
		? [
				{
					id: 'quiet-check',
					phase: 'live',
					do: `Be there once when quiet hours begin: ${settings.quiet.map(quietInWords).join('; ')}.`,
					expect: 'Silence within a second, and sound again when they end.',
					reading: 'minute of silence'
				}
			]
		: [];
