/** The parts: which thing from the drawer fills which place, what they draw, and whether the board on the bench is the one meant. */
import type { Link } from '../../link';
import { assessParts } from './findings';
import { places } from './places';
import { partsSettings, type PartsSettings } from './settings';

export const parts: Link<PartsSettings> = {
	id: 'parts',
	title: 'Parts',
	settings: partsSettings,
	claims(plan, context) {
		const board = context.part('board', plan.parts.board);
		const converter = context.part('converter', plan.parts.converter);
		const converterW = converter ? (converter.volts * converter.milliamperes) / 1000 : 0;
		return [
			...(board
				? [
						{
							on: 'power',
							from: 'parts',
							what: board.name,
							typicalW: board.idleW + 0.25 * (board.peakW - board.idleW),
							peakW: board.peakW
						} as const
					]
				: []),
			...(converter && converterW > 0
				? [{ on: 'power', from: 'parts', what: converter.name, typicalW: converterW * 0.8, peakW: converterW } as const]
				: [])
		];
	},
	figures(plan, context) {
		const board = context.part('board', plan.parts.board);
		const chosen = places.flatMap(({ kind, key }) => context.part(kind, plan.parts[key]) ?? []);
		const prices = chosen.flatMap((part) => (part.price === null ? [] : [part.price]));
		const total = prices.reduce((sum, price) => sum + price, 0);
		const memoryMb = context.probe?.memoryMb ?? board?.memoryMb ?? null;
		return [
			{
				id: 'board',
				label: 'Board',
				text: board && memoryMb ? `${(memoryMb / 1024).toFixed(memoryMb < 1024 ? 1 : 0)}\u2009GB board` : 'none chosen',
				value: memoryMb,
				sure: context.probe?.memoryMb ? 'measured' : 'typical',
				from: context.probe?.memoryMb ? 'Memory as the board itself reported.' : 'Memory of the board class.',
				telling: true
			},
			{
				id: 'price',
				label: 'Parts together',
				text: `${total.toFixed(2)} ${context.venue.currency}`,
				value: total,
				sure: 'typical',
				from: `${prices.length} of ${chosen.length} chosen parts have a price.`
			}
		];
	},
	assess: assessParts,
	files: () => [],
	steps(plan, context) {
		const chosen = places.flatMap(({ kind, key }) => context.part(kind, plan.parts[key]) ?? []);
		return [
			{
				id: 'lay-out',
				phase: 'gather',
				do: `Lay out: ${chosen.map((part) => part.name).join('; ') || 'nothing chosen yet'}.`,
				expect: 'Nothing is missing.'
			},
			{
				id: 'join',
				phase: 'assemble',
				do: 'Touch bare metal that is earthed, then join converter, amplifier and speakers. Power comes last.',
				expect: 'Every plug sits without force.',
				caution:
					'Static can kill a bare board. Keep the amplifier switched off while you join its leads, and follow its own manual for anything inside it.'
			}
		];
	},
	rehearse: () => {}
};
