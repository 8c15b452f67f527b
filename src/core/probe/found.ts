import type { ProbeFacts } from '../parts/probeFacts';
import { noFacts } from '../parts/probeFacts';

/** One of a USB device's alternate settings: a format with its rates and channels. */
export interface StreamSetting {
	readonly format: string;
	readonly channels: number;
	readonly ratesHz: readonly number[];
}

/** A sound card, while its sections are being read. */
export interface FoundCard {
	id: string | null;
	name: string | null;
	usbSpeed: 'full' | 'high' | 'super' | null;
	/** Where it hangs, as the kernel says: joins listings that name no index. */
	usbPlace: string | null;
	devices: Map<number, string>;
	settings: StreamSetting[];
	mixers: { name: string; lowestDb: number | null; nowDb: number | null }[];
}

/** What the readers gather while they go through a report. Cards go by the kernel's index here, and by their id ever after. */
export class Found {
	readonly facts: ProbeFacts = noFacts();
	readonly cards = new Map<number, FoundCard>();
	readonly doors = new Map<string, Set<string>>();
	/** Listings of a USB device whose card is not known yet, by place. */
	readonly loose: FoundCard[] = [];
	readonly understood = new Set<string>();

	card(index: number): FoundCard {
		let card = this.cards.get(index);
		if (!card) this.cards.set(index, (card = emptyCard()));
		return card;
	}
}

/** A card of which nothing is known yet. */
export const emptyCard = (): FoundCard => ({
	id: null,
	name: null,
	usbSpeed: null,
	usbPlace: null,
	devices: new Map(),
	settings: [],
	mixers: []
});
