import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { convertSteps, copySteps } from './stores/copy';
import { receiveSteps } from './streams/receive';
import { CHOOSE_UNIT, LISTS_DIR } from './lists/rules';
import type { SourcesSettings } from './settings';
import { storeSteps } from './stores/storeSteps';

/** What was chosen is looked at once, and what is new is chosen. */
const ruleSteps = ({ rules }: SourcesSettings): Step[] =>
	rules.length === 0
		? []
		: [
				{
					id: 'choose-check',
					phase: 'check',
					needs: ['verified'],
					do: 'Let the endpoint choose by its rules now, and look at what it chose.',
					command: `sudo systemctl start ${CHOOSE_UNIT} && head -n 20 ${LISTS_DIR}/*.m3u8`,
					expect:
						'The files that you expect, in the order that you expect. "Nothing can be read" in journalctl -u yphos-choose means that a folder is mistyped, or its server away.',
					reading: 'seconds until it is done'
				}
			];

/** Media made anew and copied, shares tried, what is sent, and the law. */
export const sourcesSteps = (settings: SourcesSettings, context: Context): Step[] => [
	...convertSteps(settings, context),
	...copySteps(settings, context),
	...storeSteps(settings, context),
	...ruleSteps(settings),
	...receiveSteps(settings, context),
	{
		id: 'licence',
		phase: 'check',
		do: 'If guests can hear it, check what your local law asks for playing music in company.',
		expect: 'A licence, or the certainty that none is needed.'
	}
];
