import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { chosenOf } from '../../parts/chosen';
import { computeJoints } from './joints';
import { driverOf } from '../../parts/amplifier';
import type { PartsSettings } from './settings';

/** Lay out, look at each thing alone, then join in the order of the signal; power comes last. */
export function partsSteps(settings: PartsSettings, context: Context): Step[] {
	const chosen = chosenOf(settings, context);
	const joints = computeJoints(settings, context).filter(({ cargo }) => cargo !== 'power');
	const list = chosen.map(({ part, count }) => (count > 1 ? `${count} × ${part.name}` : part.name));
	return [
		{
			id: 'lay-out',
			phase: 'gather',
			do: `Lay out: ${list.join('; ') || 'nothing chosen yet'}.`,
			expect: 'Nothing is missing.'
		},
		{
			id: 'join',
			phase: 'assemble',
			makes: ['earthed'],
			do: 'Touch bare metal that is earthed and hold the board by its edges. Then do what follows, one after another. Power comes last.',
			expect: 'Every plug sits without force.',
			caution:
				'Static can kill a bare board. Keep the amplifier switched off while you join its leads, and follow its own manual for anything inside it.'
		},
		...joints.map(({ from, to, by, missing, ends }, n): Step => {
			const leads = by ?? missing ?? [];
			const way = leads.length ? leads.map(({ name }) => name).join(', then ') : 'plug together directly';
			const step: Step = {
				id: `joint-${n}`,
				phase: 'assemble',
				needs: ['earthed', 'cooled', 'on header', 'boxed', 'card in board', 'supply measured'],
				makes: ['joined'],
				do: `${from.name} to ${to.name}: ${way}.`,
				expect: `${ends.charAt(0).toUpperCase()}${ends.slice(1)}; it sits firmly and pulls at nothing.`
			};
			return to.kind === 'speakers' ? { ...step, ...speakerWires(from.name, to.name, way, context) } : step;
		})
	];
}

/** Polarity, and no short circuit: what ends amplifiers. */
const speakerWires = (
	from: string,
	to: string,
	way: string,
	context: Context
): Pick<Step, 'do' | 'expect' | 'caution'> => ({
	do: `${from} to ${to}: ${way}. Red to red, black to black, the same way round on every speaker.`,
	expect: 'No strand of one wire touches another terminal. Pull gently at each.',
	caution: `The amplifier is off and out of the wall. A short circuit can end it.${driverOf(context)?.bridged ? ' Both wires of each of its outputs are driven: never join any two of them, nor one to ground.' : ''}`
});
