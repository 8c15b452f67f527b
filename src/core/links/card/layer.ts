import { claimsOn, type Claim } from '../../claims';
import type { PartOf } from '../../parts/schema';
import { LOG_MB } from './wear';
import type { CardSettings } from './settings';

/** The layer over a read-only root is a tmpfs, which takes half of the memory at most. Source: tmpfs(5), size. */
const SHARE_OF_MEMORY = 0.5;

/** The layer in memory over a read-only root, in MB. */
export interface Layer {
	readonly roomMb: number;
	/** What is written into it, MB a day: nothing leaves it before a restart. */
	readonly dailyMb: number;
	readonly daysUntilFull: number;
}

/** How long a layer in memory holds what is written. The log has a place in memory of its own, unless it is kept. */
export function computeLayer(
	settings: CardSettings,
	board: Pick<PartOf<'board'>, 'memoryMb'>,
	claims: readonly Claim[]
): Layer {
	const recorded = claimsOn(claims, 'wear').reduce((sum, claim) => sum + claim.bytesPerDay, 0) / 1e6;
	const dailyMb = settings.dailyMb + (settings.logsInMemory ? 0 : LOG_MB) + recorded;
	const roomMb = board.memoryMb * SHARE_OF_MEMORY;
	return { roomMb, dailyMb, daysUntilFull: dailyMb === 0 ? Infinity : roomMb / dailyMb };
}
