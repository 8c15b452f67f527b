import { z } from 'zod';
import type { Claim } from '../../claims';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link';
import { computeRoom } from './contents';
import type { CardSettings } from './settings';

/** What the card has room for besides the system as it comes; null: enough. */
const card = z.object({ roomBytes: z.number().min(0) });

declare module '../../engines/machine/bench' {
	interface Bench {
		/** The image reads a seed at its first start; else the person runs apply.sh. */
		readsSeed: boolean;
		card: z.infer<typeof card> | null;
	}
}
/** What a rehearsal knows of the card's room and of how a cut tears it. */
export const cardBenchShape = { card: card.nullable().default(null), readsSeed: z.boolean().default(true) };

/** The bench's card as the plan's own part has it; nothing until one is chosen. */
export function cardBench(settings: CardSettings, context: Context, claims: readonly Claim[]): Partial<Bench> {
	const room = computeRoom(settings, context, claims);
	const readsSeed = settings.image?.takesSeed !== false;
	if (!room) return { readsSeed };
	const isRoom = ({ name, kind }: { name: string; kind: string }): boolean => kind !== 'system' || name === 'packages';
	return {
		readsSeed,
		card: {
			roomBytes: Math.max(
				0,
				Math.round(room.pieces.filter(isRoom).reduce((sum, { bytes }) => sum + bytes, Math.min(0, room.freeBytes)))
			)
		}
	};
}
