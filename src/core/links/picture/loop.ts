import type { Context } from '../../link/context';
import { SEAM_MS } from '../../onAir/item';

/** From one pass of the list to the next. */
export interface LoopGap {
	readonly gapMs: number;
	readonly why: string;
}

/**
 * What stands still between the end and the beginning, ms. Going back within one open file costs the decoder's start alone; opening
 * it anew costs its container and its first group of pictures too. Typical: taken from real starts of the player on small boards.
 */
const SEEK_MS = 120;
const REOPEN_MS = 450;

/** The gap at the seam of a loop; null: it does not loop. */
export function loopGap({ facts }: Context): LoopGap | null {
	const { programme, listed } = facts;
	if (!programme || programme.loop === 'once' || !listed) return null;
	if (programme.loop === 'one')
		return { gapMs: SEEK_MS, why: 'One file goes back to its beginning and stays open: only the decoder begins anew.' };
	return listed === 1
		? {
				gapMs: REOPEN_MS,
				why: 'The file is closed and opened anew at each pass. "Repeat the first" goes back within it.'
			}
		: {
				gapMs: SEAM_MS,
				why: 'The next file is opened while one still plays; its decoder begins when it is its turn. One long file has no seam but one.'
			};
}
