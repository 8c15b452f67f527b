import type { Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { clockOf } from '../../parts/chosen';
import { pinOf } from './occupancy';
import type { HeaderSettings } from './settings';
import { usersOf } from './users';

/** What is fitted on the header, wired, and told to the system. */
export function headerSteps(settings: HeaderSettings, context: Context, claims: readonly Claim[]): Step[] {
	const users = usersOf(settings, context, claims);
	if (users.length === 0) return [];
	const wired = users.flatMap(({ name, use, lines }) =>
		use.movable.map(
			({ what, suggested }, n) =>
				`${name}: ${what} to pin ${pinOf(lines[n] ?? suggested)} (GPIO ${lines[n] ?? suggested})`
		)
	);
	const clock = clockOf(context);
	const fans = users.filter(
		({ use }) => use.movable.some(({ what }) => what.startsWith('fan')) || use.milliamperes5V > 0
	);
	return [
		{
			id: 'fit-header',
			phase: 'assemble',
			needs: ['earthed', 'cooled'],
			makes: ['on header'],
			do: `With the board unplugged, fit on the header: ${users.map(({ name }) => name).join('; ')}. Pin 1 is the corner with the square pad; count from there.`,
			expect: 'Every pin is covered, none stands beside its hole, and nothing touches the board underneath.',
			caution:
				'One row off puts 5\u2009V on a 3.3\u2009V line and ends the board. Look from two sides before power comes.'
		},
		...(wired.length
			? [
					{
						id: 'wire-lines',
						phase: 'assemble' as const,
						needs: ['on header', 'boxed'] as const,
						makes: ['joined'] as const,
						do: `Join single wires. ${wired.join('. ')}.`,
						expect: 'Each wire sits on the pin that the drawing shows.'
					}
				]
			: []),
		...(fans.some(({ id }) => context.find(id)?.kind === 'fan')
			? [
					{
						id: 'fan-wires',
						phase: 'assemble' as const,
						needs: ['boxed'] as const,
						makes: ['joined'] as const,
						do: 'Fan: red to pin 4 (5\u2009V), black to pin 6 (ground), the third wire, when there is one, to its control pin.',
						expect: 'It turns, and blows onto the heatsink or out of the case.',
						caution: 'A fan wired the wrong way round does not turn, and may be ruined. Red is plus.'
					}
				]
			: []),
		...(clock
			? [
					{
						id: 'clock-named',
						phase: 'set up' as const,
						do: `Tell the system of ${clock.name}, in the board\u2019s own start file, as its leaflet says.`,
						expect: 'One line more in that file.',
						needsRestart: true as const
					},
					{
						id: 'clock-set',
						phase: 'check' as const,
						needs: ['verified'] as const,
						makes: ['clock set'] as const,
						do: 'Set the clock once, while the system knows the time from the network.',
						command: 'sudo hwclock --systohc && sudo hwclock --show',
						expect:
							'The time of day. "Cannot access the hardware clock" means that the start file does not name it yet.'
					}
				]
			: [])
	];
}
