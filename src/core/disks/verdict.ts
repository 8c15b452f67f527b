import { formatBytes } from '../basics/format';
import { areTwins, fingerprint, type HostDisk } from './disk';

/** What is known of the card that is looked for. */
export interface Wanted {
	/** What the image takes; null while it is not known. */
	readonly imageBytes: number | null;
	/** What is printed on the card of the plan; null: any. */
	readonly cardGb: number | null;
}
/** What Yphos thinks of one disk, and why. */
export interface Verdict {
	readonly disk: HostDisk;
	readonly verdict: 'card' | 'maybe' | 'never';
	readonly reasons: readonly string[];
}

/** No card is larger, and few drives that people would miss are smaller. */
const LARGEST_CARD_BYTES = 1.1e12;
const SMALLEST_CARD_BYTES = 1.8e9;
/** A card of 32 GB has between this and this part of it. */
const PRINTED = { least: 0.88, most: 1.08 } as const;

function judge(disk: HostDisk, all: readonly HostDisk[], { imageBytes, cardGb }: Wanted): Verdict {
	const { sizeBytes } = disk;
	const size = sizeBytes === null ? 'unknown size' : formatBytes(sizeBytes);
	const never = [
		...(disk.inUse ? ['it holds what this computer runs on, or something that is in use'] : []),
		...(disk.readOnly ? ['it is read-only; a slider at the card\u2019s side may do that'] : []),
		...(sizeBytes !== null && sizeBytes > LARGEST_CARD_BYTES ? [`it is too large for a card: ${size}`] : []),
		...(sizeBytes && imageBytes !== null && sizeBytes < imageBytes ? [`the image does not fit: ${size}`] : []),
		...(sizeBytes === 0 ? ['it is an empty reader'] : []),
		...(isBuiltIn(disk) ? [`it is built in${disk.bus ? ` (${disk.bus})` : ''}`] : [])
	];
	if (never.length) return { disk, verdict: 'never', reasons: never };
	const others = all.filter((other) => other !== disk);
	const doubts = [
		...(disk.inUse === null
			? ['the listing does not say what is in use: run the command as it stands above, and paste all that it prints']
			: []),
		...(others.some(({ id }) => id === disk.id)
			? ['it is listed twice, with different figures: paste one listing only']
			: []),
		...(others.some((other) => other.id !== disk.id && areTwins(other, disk))
			? ['another disk has the same model, serial number and size: take that one out, and paste again']
			: []),
		...(sizeBytes === null ? ['its size is not told'] : []),
		...(sizeBytes !== null && sizeBytes < SMALLEST_CARD_BYTES ? [`it is very small: ${size}`] : []),
		...(cardGb !== null && sizeBytes !== null && !isOfSize(sizeBytes, cardGb)
			? [`it has ${size}, the plan\u2019s card ${cardGb}\u2009GB`]
			: []),
		...(disk.internal === true
			? ['it counts as built in; a card slot may do so too: paste diskutil info of it as well']
			: []),
		...(disk.internal === null && disk.removable !== true ? ['it is not told whether it is built in'] : []),
		...(disk.removable === false ? ['it is a drive that stays in its case, not a card'] : [])
	];
	if (doubts.length) return { disk, verdict: 'maybe', reasons: doubts };
	return {
		disk,
		verdict: 'card',
		reasons: [
			`${size}${cardGb === null ? '' : ', as the plan\u2019s card'}`,
			disk.removable ? 'it can be taken out' : 'it is joined from outside',
			'nothing on it is in use'
		]
	};
}

/** A card slot counts as built in on some computers; what can be taken out of it does not. On macOS only its own word for it is sure. */
const isBuiltIn = ({ internal, removable, system }: HostDisk): boolean =>
	internal === true && (removable === false || (removable === null && system !== 'macos'));

const isOfSize = (bytes: number, gb: number): boolean =>
	bytes >= gb * 1e9 * PRINTED.least && bytes <= gb * 1e9 * PRINTED.most;

/** Every disk with its verdict. Where two could be the card, neither is: pulling it out tells. */
export function judgeDisks(disks: readonly HostDisk[], wanted: Wanted): Verdict[] {
	const verdicts = disks.map((disk) => judge(disk, disks, wanted));
	const cards = verdicts.filter(({ verdict }) => verdict === 'card').length;
	const possible = verdicts.filter(({ verdict }) => verdict !== 'never').length;
	if (cards <= 1 && possible <= 1) return verdicts;
	return verdicts.map((known) =>
		known.verdict === 'card'
			? {
					...known,
					verdict: 'maybe',
					reasons: [...known.reasons, 'another disk could be the card as well: pull the card out and paste again']
				}
			: known
	);
}

/**
 * What was there before and is no longer: the card that was pulled out. Null when nothing went, or more than one thing did,
 * or something new came, or a twin of it stayed, so that nobody could say which of the two went.
 */
export function pulledOut(before: readonly HostDisk[], after: readonly HostDisk[]): HostDisk | null {
	const still = new Set(after.map(fingerprint));
	const was = new Set(before.map(fingerprint));
	const gone = before.filter((disk) => !still.has(fingerprint(disk)));
	const came = after.filter((disk) => !was.has(fingerprint(disk)));
	const [only] = gone;
	if (!only || gone.length > 1 || came.length > 0 || before.length !== after.length + 1) return null;
	return before.some((other) => other !== only && areTwins(other, only)) ? null : only;
}
