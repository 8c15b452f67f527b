import { claimsOn, type Claim } from '../../claims';
import type { PartOf } from '../../parts/schema';
import type { CardSettings } from './settings';

/** Cells stand so many writes when nobody says. Typical of three bits a cell. */
const USUAL_CYCLES = 600;
/** What the card writes for each byte it is given: little ones cost whole blocks. Typical of logs and of long files. */
export const AMPLIFICATION = { small: 6, large: 1.2 } as const;
/** A log that is kept, a day. Typical of a quiet system. */
export const LOG_MB = 30;

interface Wear {
	/** As given to the card, and as it arrives in its cells, MB a day. */
	readonly givenMb: number;
	readonly writtenMb: number;
	/** TB that it stands. */
	readonly enduranceTb: number;
	readonly stated: boolean;
	readonly years: number;
}

/** Writes a day against what the card stands. A read-only root is given nothing but recordings. */
export function computeWear(settings: CardSettings, card: PartOf<'card'>, claims: readonly Claim[]): Wear {
	const readOnly = settings.root === 'overlay';
	const small = readOnly ? 0 : settings.dailyMb + (settings.logsInMemory ? 0 : LOG_MB);
	const large = claimsOn(claims, 'wear').reduce((sum, claim) => sum + claim.bytesPerDay, 0) / 1e6;
	const writtenMb = small * AMPLIFICATION.small + large * AMPLIFICATION.large;
	const enduranceTb = card.enduranceTb ?? (card.capacityGb * USUAL_CYCLES) / 1000;
	return {
		givenMb: small + large,
		writtenMb,
		enduranceTb,
		stated: card.enduranceTb !== null,
		years: writtenMb === 0 ? Infinity : (enduranceTb * 1e6) / writtenMb / 365
	};
}

/** Minutes for an image at the speed that the card's class promises. */
export const computeWriteMin = (bytes: number, card: Pick<PartOf<'card'>, 'writeMBps'>): number =>
	bytes / 1e6 / card.writeMBps / 60;

type CardVerdict = 'as-promised' | 'slow' | 'too-fast';
/** No card of these classes writes faster than this: what claims to has not written at all. Typical. */
const FASTEST_MBPS = 170;

/** What the time that writing took says of the card. */
export function judgeCard(
	bytes: number,
	minutes: number,
	card: Pick<PartOf<'card'>, 'writeMBps'>
): { mbps: number; verdict: CardVerdict } {
	const mbps = bytes / 1e6 / (minutes * 60);
	return { mbps, verdict: mbps > FASTEST_MBPS ? 'too-fast' : mbps < card.writeMBps * 0.7 ? 'slow' : 'as-promised' };
}
