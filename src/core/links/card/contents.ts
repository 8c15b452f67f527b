import { claimsOn, type Claim } from '../../claims';
import { PACKAGE_LISTS_BYTES, packageBytes } from '../../files/packageRoom';
import type { Context } from '../../link/context';
import type { PartOf } from '../../parts/schema';
import { computeCardRoom } from './room';
import type { CardSettings } from './settings';

/** A plain system without a desktop; a ready-made player; an application platform with its second archive. Typical. */
const SYSTEM_GB = { plain: 2.4, player: 3.5, platform: 6 } as const;
/** A log that is kept grows to this. Source: the journald drop-in that we write, SystemMaxUse. */
const LOG_GB = 0.2;

/** One part of what lies on the card, in bytes. */
export interface Piece {
	readonly name: string;
	readonly bytes: number;
	readonly kind: 'system' | 'media' | 'reserve' | 'free';
}

/** How the card's bytes are shared out. */
export interface Room {
	readonly card: PartOf<'card'>;
	readonly pieces: readonly Piece[];
	/** What claims ask for: media and recordings. */
	readonly neededBytes: number;
	readonly freeBytes: number;
}

/** What lies on the card, in the order in which it comes. Null without a card. */
export function computeRoom(settings: CardSettings, context: Context, claims: readonly Claim[]): Room | null {
	const card = context.part('card', context.facts.parts.card);
	if (!card) return null;
	const stores = claimsOn(claims, 'store');
	const packages = [...new Set(claimsOn(claims, 'package').map(({ name }) => name))];
	const packagesGb =
		packages.length && settings.system === 'plain'
			? (PACKAGE_LISTS_BYTES + packages.reduce((sum, name) => sum + packageBytes(name), 0)) / 1e9
			: 0;
	const neededBytes = stores.reduce((sum, claim) => sum + claim.bytes, 0);
	const systemGb =
		SYSTEM_GB[settings.system] + packagesGb + settings.swapMb / 1000 + (settings.logsInMemory ? 0 : LOG_GB);
	const { usableBytes } = computeCardRoom({
		capacityGb: card.capacityGb,
		reservedPercent: settings.reservePercent,
		systemGb
	});
	const piece = (name: string, gb: number, kind: Piece['kind']): Piece[] =>
		gb > 0 ? [{ name, bytes: gb * 1e9, kind }] : [];
	const freeBytes = usableBytes - neededBytes;
	return {
		card,
		neededBytes,
		freeBytes,
		pieces: [
			...piece('system', SYSTEM_GB[settings.system], 'system'),
			...piece('packages', packagesGb, 'system'),
			...piece('swap', settings.swapMb / 1000, 'system'),
			...piece('logs', settings.logsInMemory ? 0 : LOG_GB, 'system'),
			...piece('media', neededBytes / 1e9, 'media'),
			...piece('kept free', (card.capacityGb * settings.reservePercent) / 100, 'reserve'),
			...piece('left', Math.max(0, freeBytes) / 1e9, 'free')
		]
	};
}
