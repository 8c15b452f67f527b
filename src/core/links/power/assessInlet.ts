import { withUnit } from '../../basics/format';
import { changing } from '../../changes';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import { inletFuse } from './figures';
import type { PowerSettings } from './settings';

const own = changing<PowerSettings>('power');
const withoutInlet: Fix = {
	label: 'Use a ready-made supply instead',
	apply: own({ inlet: null })
};

/** Work on mains is judged strictly, and the way round it is always offered. */
export function assessInlet(settings: PowerSettings, context: Context): Finding[] {
	const { inlet } = settings;
	if (!inlet) return [];
	const missing = [
		...(inlet.earthed ? [] : ['protective earth on every metal part that can be touched']),
		...(inlet.strainRelief ? [] : ['relief of strain on the cable']),
		...(inlet.touchSafe ? [] : ['covers over everything that is live, which only a tool opens'])
	];
	const fuse = inletFuse(settings, context)!;
	return [
		...(missing.length
			? [
					{
						id: 'power.inlet-unsafe',
						level: 'stop' as const,
						title: 'The mains inlet is not safe',
						why: `It lacks ${missing.join('; ')}. This is work for a competent person under the wiring rules of your country. A ready-made supply in a wall socket needs none of it.`,
						setting: 'power.inlet' as const,
						fixes: [withoutInlet]
					}
				]
			: []),
		...(fuse.fuseA === null
			? [
					{
						id: 'power.inlet-too-much',
						level: 'stop' as const,
						title: `${withUnit(fuse.neededA, 1, 'A')} are too much for such an inlet`,
						why: 'No miniature fuse is rated for so much. Feed the parts from several ready-made supplies.',
						setting: 'power.inlet' as const,
						fixes: [withoutInlet]
					}
				]
			: []),
		{
			id: 'power.inlet-care',
			level: 'caution',
			title: 'Mains in a box of one\u2019s own',
			why: 'Only for a competent person, under local wiring rules, tested before first use: earth, insulation, fuse. The alternative costs a few coins: a ready-made supply outside the box, and only 5\u2009V inside it.',
			setting: 'power.inlet',
			fixes: [withoutInlet]
		}
	];
}
