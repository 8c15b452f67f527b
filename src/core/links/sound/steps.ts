import { claimsOn, type Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { driverOf, type Driver } from '../../parts/amplifier';
import { isUnnamed } from './route';
import type { SoundSettings } from './settings';

/** Nothing may be loud before somebody's hand is on the knob: what drives the speakers stays off until all else is right. */
export function soundSteps(settings: SoundSettings, context: Context, claims: readonly Claim[]): Step[] {
	const driver = driverOf(context);
	const [first] = claimsOn(claims, 'sound');
	return [
		...(driver ? amplifierSteps(driver) : []),
		...overlaySteps(settings, context),
		{
			id: 'first-sound',
			phase: 'check',
			needs: ['verified', 'amplifier on'],
			makes: ['heard'],
			do: driver && !isOwn(driver) ? 'Turn the knob up slowly.' : 'Listen from a distance first, then come nearer.',
			expect: first ? `You hear "${first.what}".` : 'You hear the first entry of the list.',
			caution: 'A full-scale tone through an open amplifier can harm ears and speakers. Begin quietly.',
			reading: driver && !isOwn(driver) ? 'position of the knob' : 'how loud it is'
		},
		...(settings.cardId
			? [
					{
						id: 'rate-light',
						phase: 'check' as const,
						needs: ['heard'] as const,
						makes: ['readings taken'] as const,
						do: 'While it plays, read what rate the converter really gets.',
						command: `cat /proc/asound/${settings.cardId}/pcm${settings.deviceNumber}p/sub0/hw_params`,
						expect: 'The rate and format that the rehearsal foretold.',
						reading: 'rate and format'
					}
				]
			: [])
	];
}

/** Where the card set cannot name what sits on the header, a person does, while the card is in the computer. */
function overlaySteps({ overlay }: SoundSettings, context: Context): Step[] {
	const { startsBy, system } = context.facts;
	if (!isUnnamed(context) || system !== 'plain' || (startsBy !== null && overlay !== '')) return [];
	const name = context.part('converter', context.facts.parts.converter)!.name;
	return [
		{
			id: 'name-converter',
			phase: 'prepare',
			needs: ['set on card', 'card in computer'],
			makes: ['converter named'],
			do: `Tell the board what sits on its header: ${name} carries no memory that would. Where the first partition has config.txt, add at its end the line [all], and below it dtoverlay=${overlay || 'NAME'}; where it has extlinux/extlinux.conf, add fdtoverlays and ${overlay || 'the file that its maker names'}, below the label.`,
			expect: `The file is saved.${overlay ? '' : ' NAME is what the maker of the converter prints there.'}`
		}
	];
}

/** Part of the converter, so without a knob. */
const isOwn = ({ part }: Driver): boolean => part.kind === 'converter';

const amplifierSteps = (driver: Driver): Step[] => [
	{
		id: 'amplifier-down',
		phase: 'assemble',
		needs: ['joined'],
		makes: ['amplifier down'],
		do: driver.feed
			? `Leave the supply of ${isOwn(driver) ? 'the amplifier on ' : ''}${driver.name} out of the wall for now${isOwn(driver) ? '' : ', and turn its knob right down'}.`
			: `${driver.name}: turn its volume right down, choose the input that the lead goes to, and leave it switched off.`,
		expect: 'Nothing can be loud when the endpoint begins to play by itself.'
	},
	{
		id: 'amplifier-on',
		phase: 'check',
		needs: ['verified'],
		makes: ['amplifier on'],
		do: driver.feed
			? 'Plug in the amplifier\u2019s own supply.'
			: `Switch on ${driver.name}, its volume still right down.`,
		expect: 'No hum, no smell, nothing warm. Otherwise switch it off and look at the leads again.'
	}
];
