import type { Claim } from '../../claims';
import { withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import type { PartOf } from '../../parts/schema';
import { inletFuse } from './figures';
import { computePath } from './powerPath';
import type { PowerSettings } from './settings';

/** What is done and measured before the board is joined to its supply. */
export function powerSteps(settings: PowerSettings, context: Context, claims: readonly Claim[]): Step[] {
	const path = computePath(settings, context, claims);
	const hub = path?.usbPlaces.some(({ at }) => at === 'powered hub')
		? path.usbPlaces.filter(({ at }) => at === 'powered hub').map(({ what }) => what)
		: [];
	return [
		...inletSteps(settings, context),
		...(path
			? [
					{
						...measureStep(path.supply),
						reading: 'volts'
					}
				]
			: []),
		...(hub.length
			? [
					{
						id: 'fill-hub',
						phase: 'assemble' as const,
						needs: ['earthed', 'boxed', 'card in board'] as const,
						makes: ['joined'] as const,
						do: `Plug into the hub with its own supply: ${hub.join('; ')}. The rest goes into the board.`,
						expect: 'The hub\u2019s own light is on before the board starts.'
					}
				]
			: []),
		{
			id: 'power-last',
			phase: 'first start',
			makes: ['powered'],
			do: 'Plug in the supply, last of all.',
			expect: path?.at.typical
				? `About ${withUnit(path.at.typical.boardV, 2, 'V')} at the board; its light shows life within seconds.`
				: 'Its light shows life within seconds.',
			caution:
				'Use a supply with a safety mark for your country. Mains wiring is work for a competent person under local rules.',
			reading: 'volts at the board, if you can measure'
		}
	];
}

/** A USB-C supply gives nothing until a device asks for it. Source: USB Type-C 2.0, 4.5.2 (a source that nothing is attached to keeps vSafe0V). */
const measureStep = ({ sockets, volts }: PartOf<'supply'>): Step =>
	sockets.some(({ way, plug }) => way === 'out' && plug === 'usb-c')
		? {
				id: 'measure-supply',
				phase: 'first start',
				needs: ['powered'],
				do: 'Measure with a USB meter plugged in between supply and board, or at the header\u2019s 5\u2009V pin: a USB-C supply gives nothing before a device asks for it.',
				expect: `${withUnit(volts, 1, 'V')} at the meter; what arrives at the board is said above.`
			}
		: {
				id: 'measure-supply',
				phase: 'assemble',
				needs: ['mains tested'],
				makes: ['supply measured'],
				do: 'Before the board is joined, measure the supply alone at the end of its cable: volts, and which side is plus. Then pull it out again.',
				expect: `${withUnit(volts, 1, 'V')}, a little more without load; plus where the board wants it.`
			};

function inletSteps(settings: PowerSettings, context: Context): Step[] {
	const fuse = inletFuse(settings, context);
	if (!fuse) return [];
	return [
		{
			id: 'inlet-tested',
			phase: 'assemble',
			makes: ['mains tested'],
			do: `Have the mains inlet tested with nothing behind it: earth to every metal part, insulation from live to earth, and the fuse, ${fuse.fuseA === null ? 'which is still to be chosen' : `${fuse.characteristic} ${fuse.fuseA}\u2009A`}.`,
			expect: 'A written value for earth and for insulation, within the rules where you live.',
			caution:
				'Mains can kill. Only a competent person does this, under local wiring rules, with the plug out of the wall while the box is open.',
			reading: 'earth in Ω, insulation in MΩ'
		}
	];
}
