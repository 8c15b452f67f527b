/** The brief: what the endpoint must do, and the promises against which the others are judged. */
import type { Link } from '../../link';
import { assessBrief } from './findings';
import { briefSettings, type BriefSettings } from './settings';

export const brief: Link<BriefSettings> = {
	id: 'brief',
	title: 'Brief',
	settings: briefSettings,
	claims: () => [],
	figures: (plan) => [
		{
			id: 'promise',
			label: 'Promise',
			text: `sound within ${plan.brief.soundWithinSec}\u2009s`,
			value: plan.brief.soundWithinSec,
			sure: 'exact',
			from: 'You set it.',
			telling: true
		}
	],
	assess: assessBrief,
	files: () => [],
	steps: (plan) =>
		plan.brief.comesBackAlone
			? [
					{
						id: 'pull-plug',
						phase: 'check',
						do: 'Pull the plug, wait ten seconds, plug in again.',
						expect: `Sound returns by itself within ${plan.brief.soundWithinSec}\u2009s.`,
						reading: 'seconds until sound'
					}
				]
			: [],
	rehearse: () => {}
};
