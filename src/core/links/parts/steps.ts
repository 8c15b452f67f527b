import type { Context, Step } from '../../link';
import { chosenOf } from '../../parts/chosen';
import { computeJoints } from './joints';
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
			do: 'Touch bare metal that is earthed and hold the board by its edges. Then join what follows, one after another. Power comes last.',
			expect: 'Every plug sits without force.',
			caution:
				'Static can kill a bare board. Keep the amplifier switched off while you join its leads, and follow its own manual for anything inside it.'
		},
		...joints.map(({ from, to, by, missing, ends }, n): Step => {
			const leads = by ?? missing ?? [];
			return {
				id: `joint-${n}`,
				phase: 'assemble',
				do: `${from.name} to ${to.name}: ${leads.length ? leads.map(({ name }) => name).join(', then ') : 'plug together directly'}.`,
				expect: `${ends.charAt(0).toUpperCase()}${ends.slice(1)}; it sits firmly and pulls at nothing.`
			};
		})
	];
}
