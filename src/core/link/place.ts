import type { LinkId } from '../plan/plan';

/** Where a link stands in the drawing of the chain, and what runs from it to which other. */
export interface Place {
	/** The world outside, what is played, the board, and what leaves it. */
	readonly column: 'world' | 'content' | 'board' | 'out';
	/** Small is above. */
	readonly row: number;
	/** It shares its row with another. */
	readonly half?: 'left' | 'right';
	/** The board itself: everything meets there. */
	readonly centre?: true;
	/** From here to another link, or from another to here: whichever end is the newer one names both. */
	readonly wires: readonly ({ readonly carries: 'power' | 'data' | 'signal' | 'rule' } & (
		{ readonly to: LinkId } | { readonly from: LinkId }
	))[];
	/** What stands at the end of the signal, with the figure that says what arrives there. */
	readonly end?: {
		readonly sense: 'eye' | 'ear' | 'store';
		readonly figure: string;
		readonly words: string;
		/** Beside the end when there is no such figure. */
		readonly without: string;
	};
}
