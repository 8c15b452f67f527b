import type { Context } from '../link/context';
import { chosenParts } from './chosen';
import type { PartOf } from './schema';

/** Ways to a network that board and adapters bring together. */
export interface NetworkWays {
	/** The fastest socket, Mbit/s; 0: one whose speed nobody has said; null: none. */
	readonly wiredMbps: number | null;
	/** The best Wi-Fi; null: none. */
	readonly radio: Pick<PartOf<'board'>, 'fiveGhz' | 'radioWidthMhz' | 'radioStreams'> | null;
}

/** What the chosen board and its adapters can do; null until a board is chosen. */
export function networkWays(context: Context): NetworkWays | null {
	const board = context.part('board', context.facts.parts.board);
	if (!board) return null;
	const adapters = chosenParts(context).flatMap(({ part }) => (part.kind === 'network-adapter' ? [part] : []));
	const sockets = [
		...(board.wired ? [board.wiredMbps ?? 0] : []),
		...adapters.flatMap(({ wiredMbps }) => (wiredMbps === null ? [] : [wiredMbps]))
	];
	// An adapter is bought because the board's own does not do.
	const [radio = null] = [...adapters, board].filter((part) => part.radio);
	return { wiredMbps: sockets.length ? Math.max(...sockets) : null, radio };
}
