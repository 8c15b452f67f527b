/**
 * The parts: which thing from the drawer fills which place, what each asks of the others, and how they are joined.
 * The drawer itself is `core/parts`; start at `joints.ts` and `chooser.ts`.
 */
import type { Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Figure } from '../../link/figure';
import type { Link } from '../../link';
import { chosenOf } from '../../parts/chosen';
import { playLoad } from '../../parts/playLoad';
import { figureSource, type Draw, type PartOf, type VideoShape } from '../../parts/schema';
import { computeJoints } from './joints';
import { partsSettings, type PartsSettings } from './settings';
import { partsChanges } from './change';
import './offers';

/** A board draws by how hard it works. */
function boardDraw(board: PartOf<'board'>, film: VideoShape | null): Draw {
	const share = Math.min(1, playLoad(board, film).share);
	return {
		via: 'board',
		idleW: board.idleW,
		typicalW: board.idleW + share * (board.peakW - board.idleW),
		peakW: board.peakW,
		surgeW: board.surgeW
	};
}

function claims(settings: PartsSettings, context: Context): Claim[] {
	const board = context.part('board', settings.board);
	return chosenOf(settings, context).flatMap(({ part, count }): Claim[] => {
		const by = { from: 'parts', what: part.name, part: part.id } as const;
		const draw = part.id === board?.id ? boardDraw(board, context.facts.film) : part.draw;
		const { header } = part;
		return [
			{ on: 'shop', ...by, count },
			...(draw ? [{ on: 'power', ...by, count, ...draw } as const] : []),
			...(part.kind === 'converter' && part.amplifier?.draw
				? [{ on: 'power', ...by, what: `the amplifier of ${part.name}`, count, ...part.amplifier.draw } as const]
				: []),
			...(header
				? Array.from(
						{ length: count },
						() => ({ on: 'header', ...by, use: header, makesSound: part.id === settings.converter }) as const
					)
				: [])
		];
	});
}

function figures(settings: PartsSettings, context: Context): Figure[] {
	const board = context.part('board', settings.board);
	const chosen = chosenOf(settings, context);
	const priced = chosen.flatMap(({ part, count }) => (part.price === null ? [] : [part.price * count]));
	const total = priced.reduce((sum, price) => sum + price, 0);
	const joints = computeJoints(settings, context);
	const made = joints.filter(({ by }) => by !== null).length;
	const memory = board && figureSource(board, 'memoryMb');
	const screens = context.probe?.connectors ?? [];
	return [
		{
			id: 'board',
			setting: 'parts.board',
			label: 'Board',
			text: board ? `${(board.memoryMb / 1024).toFixed(board.memoryMb < 1024 ? 1 : 0)}\u2009GB board` : 'none chosen',
			value: board?.memoryMb ?? null,
			sure: memory?.sure === 'measured' ? 'measured' : 'typical',
			from: memory?.sure === 'measured' ? 'Memory as the board itself reported.' : 'Memory of the board class.',
			telling: true
		},
		{
			id: 'price',
			setting: 'parts.also',
			label: 'Parts together',
			text: `${total.toFixed(2)} ${context.venue.currency}`,
			value: total,
			sure: 'typical',
			from: `${priced.length} of ${chosen.length} chosen parts have a price. What is there already is taken off in the shopping list.`
		},
		{
			id: 'joints',
			setting: 'parts.also',
			label: 'Joints made',
			text: joints.length ? `${made} of ${joints.length}` : 'none needed',
			value: made,
			sure: 'exact',
			from: 'Which plug meets which, out of the leads on the list.'
		},
		...(screens.length
			? [
					{
						id: 'screen-sockets',
						setting: 'parts.board' as const,
						label: 'Screen sockets',
						text: `${screens.length}, ${screens.filter(({ connected }) => connected).length || 'none'} in use`,
						value: screens.length,
						sure: 'measured' as const,
						from: 'As the board itself reported.'
					}
				]
			: []),
		...(context.probe?.usbDevices.length
			? [
					{
						id: 'usb-devices',
						setting: 'parts.board' as const,
						label: 'Found on USB',
						text: String(context.probe.usbDevices.length),
						value: context.probe.usbDevices.length,
						sure: 'measured' as const,
						from: context.probe.usbDevices.join('; ')
					}
				]
			: [])
	];
}

/** The link that holds the chosen parts. */
export const parts: Link<'parts', PartsSettings> = {
	id: 'parts',
	title: 'Parts',
	settings: partsSettings,
	version: 1,
	empty: () => ({
		board: null,
		supply: null,
		lead: null,
		card: null,
		converter: null,
		amplifier: null,
		speakers: null,
		screen: null,
		case: null,
		cooler: null,
		also: []
	}),
	key: 'p',
	place: { column: 'board', row: 1, centre: true, wires: [] },
	publish: (settings) => ({ parts: settings }),
	changes: partsChanges,
	claims,
	figures
};
