import type { Context, Step } from '../../link';
import { convertSteps, copySteps } from './copy';
import { receiveSteps } from './receive';
import type { SourcesSettings } from './settings';
import { storeSteps } from './storeSteps';

/** Media made anew and copied, shares tried, what is sent, and the law. */
export const sourcesSteps = (settings: SourcesSettings, context: Context): Step[] => [
	...convertSteps(settings, context),
	...copySteps(settings, context),
	...storeSteps(settings, context),
	...receiveSteps(settings, context),
	{
		id: 'licence',
		phase: 'check',
		do: 'If guests can hear it, check what your local law asks for playing music in company.',
		expect: 'A licence, or the certainty that none is needed.'
	}
];
