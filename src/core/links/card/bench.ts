import { z } from 'zod';
import { FIRST_PARTITION_AT } from '../../files/cardFile';
import type { Claim } from '../../claims';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import { computeRoom } from './contents';
import type { CardSettings } from './settings';
import { startFileOf } from './startFile';

/** What the card has room for besides the system as it comes; null: enough. */
const card = z.object({ roomBytes: z.number().min(0) });

declare module '../../engines/machine/bench' {
	interface Bench {
		/** The image reads a seed at its first start; else the person runs apply.sh. */
		readsSeed: boolean;
		/** Where the image shows the first partition. */
		firstPartition: CardSettings['firstPartition'];
		/** Where the board's firmware looks for overlays: a file of its own, or extlinux.conf; null: nobody has said. */
		startFile: 'config.txt' | 'extlinux.conf' | null;
		card: z.infer<typeof card> | null;
	}
}
/** What a rehearsal knows of the card's room and of how a cut tears it. */
export const cardBenchShape = {
	card: card.nullable().default(null),
	readsSeed: z.boolean().default(true),
	firstPartition: z.enum(FIRST_PARTITION_AT).default(FIRST_PARTITION_AT[0]),
	startFile: z.enum(['config.txt', 'extlinux.conf']).nullable().default(null)
};

/** The bench's card as the plan's own part has it; nothing until one is chosen. */
export function cardBench(settings: CardSettings, context: Context, claims: readonly Claim[]): Partial<Bench> {
	const room = computeRoom(settings, context, claims);
	const image: Partial<Bench> = {
		readsSeed: settings.image?.takesSeed !== false,
		firstPartition: settings.firstPartition,
		startFile: startFileOf(settings)
	};
	if (!room) return image;
	const isRoom = ({ name, kind }: { name: string; kind: string }): boolean => kind !== 'system' || name === 'packages';
	return {
		...image,
		card: {
			roomBytes: Math.max(
				0,
				Math.round(room.pieces.filter(isRoom).reduce((sum, { bytes }) => sum + bytes, Math.min(0, room.freeBytes)))
			)
		}
	};
}
