import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { fanLine } from './fan';
import type { HeatSettings } from './settings';

/** What cools it is fitted, and what came of it is read. */
export function heatSteps(_: HeatSettings, context: Context): Step[] {
	const cooler = context.part('cooler', context.facts.parts.cooler);
	const box = context.part('case', context.facts.parts.case);
	return [
		...(cooler
			? [
					{
						id: 'pad',
						phase: 'assemble' as const,
						needs: ['earthed'] as const,
						makes: ['cooled'] as const,
						do: `Wipe the chip, peel the foil from both sides of the pad, and set ${cooler.name} down in one movement.`,
						expect: 'It sits flat on the chip and touches nothing beside it.',
						caution: 'A heatsink that slips onto other parts makes a short circuit. It can get too hot to touch.'
					}
				]
			: []),
		...(box
			? [
					{
						id: 'spacers',
						phase: 'assemble' as const,
						needs: ['earthed', 'cooled', 'on header'] as const,
						makes: ['boxed'] as const,
						do: `Screw the board onto the spacers of ${box.name}; use those at the corners only.`,
						expect: `At least ${box.spacersMm}\u2009mm of air below it; no foot stands on a part, and the card can still be drawn out.`
					}
				]
			: []),
		...(fanLine(context)?.way === 'pwm'
			? [
					{
						id: 'pwm-named',
						phase: 'set up' as const,
						needs: ['logged in'] as const,
						do: `Tell the board\u2019s own start file to make GPIO ${fanLine(context)!.gpio} a PWM output, as its documentation says. Without that the fan\u2019s unit is passed over, and the fan stands.`,
						expect: 'One line more in that file. After the restart verify.sh says that the fan is under control.',
						needsRestart: true as const
					}
				]
			: []),
		{
			id: 'read-heat',
			phase: 'check',
			needs: ['verified', 'heard'],
			makes: ['readings taken'],
			do: 'Read the chip\u2019s temperature 5 minutes after a cold start, and again after an hour, while it plays.',
			command: 'cat /sys/class/thermal/thermal_zone0/temp',
			expect: 'Thousandths of a degree Celsius. Enter both under Heat: the figures become those of your own board.',
			reading: 'two temperatures and their minutes'
		}
	];
}
