import type { Claim } from '../../claims';
import { withUnit } from '../../basics/format';
import type { Context, Step } from '../../link';
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
						id: 'measure-supply',
						phase: 'assemble' as const,
						do: 'Before the board is joined, measure the supply at the end of its lead: volts, and which side is plus.',
						expect: `${withUnit(path.supply.volts, 1, 'V')}, a little more without load; plus where the board wants it.`,
						reading: 'volts without load'
					}
				]
			: []),
		...(hub.length
			? [
					{
						id: 'fill-hub',
						phase: 'assemble' as const,
						do: `Plug into the hub with its own supply: ${hub.join('; ')}. The rest goes into the board.`,
						expect: 'The hub\u2019s own light is on before the board starts.'
					}
				]
			: []),
		{
			id: 'power-last',
			phase: 'first start',
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

function inletSteps(settings: PowerSettings, context: Context): Step[] {
	const fuse = inletFuse(settings, context);
	if (!fuse) return [];
	return [
		{
			id: 'inlet-tested',
			phase: 'assemble',
			do: `Have the mains inlet tested with nothing behind it: earth to every metal part, insulation from live to earth, and the fuse, ${fuse.fuseA === null ? 'which is still to be chosen' : `${fuse.characteristic} ${fuse.fuseA}\u2009A`}.`,
			expect: 'A written value for earth and for insulation, within the rules where you live.',
			caution:
				'Mains can kill. Only a competent person does this, under local wiring rules, with the plug out of the wall while the box is open.',
			reading: 'earth in Ω, insulation in MΩ'
		}
	];
}
