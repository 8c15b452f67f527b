import type { Change } from '../../changes';
import type { EntryPart } from '../../files/entryPart';
import type { PlayedMedia } from '../../parts/media';
import type { SourcesSettings } from './settings';

declare module '../../facts' {
	interface Facts {
		/** How many entries are listed to be played; absent when no list is played. */
		readonly listed?: number;
		/** The entries themselves, for playlists that are made of some of them. */
		readonly entries?: readonly {
			readonly id: string;
			readonly title: string;
			readonly location: string;
			/** null: all of it, as loud as it is. */
			readonly part: EntryPart | null;
		}[];
		/** How many of them are streams that are fetched. */
		readonly streams?: number;
		/** Where the first file of the list lies on the endpoint; null: it has none. */
		readonly firstFile?: string | null;
		/** Shares and sticks that are mounted: where, and what they are called. */
		readonly stores?: readonly { readonly at: string; readonly words: string }[];
		/** Something is waited for that others send. */
		readonly receives?: boolean;
		/** What is played first, how long it takes to open, and whether the player waits for the network before it. */
		readonly beginsWith?: { readonly stream: boolean; readonly waits: boolean; readonly openMs: number };
	}
}
declare module '../../changes' {
	interface Changes {
		carryMedia(carry: SourcesSettings['carry']): Change;
	}
}
declare module '../../engines/machine/signals' {
	interface Offers {
		/** Finds what a playlist entry leads to; `done` is called once, later. */
		openMedia?(location: string, done: (found: PlayedMedia | string) => void): void;
	}
}

declare module '../../link/step' {
	interface Conditions {
		'media there': true;
		'stores ready': true;
		'root open': true;
	}
}
declare module '../../secrets' {
	interface Secrets {
		/** Passwords of shares, by the name of their folder; they stand on the card as they are typed. */
		readonly sharePasswords?: Readonly<Record<string, string>>;
		/** Bytes of media that go on the card, by location. */
		readonly mediaBytes?: ReadonlyMap<string, Uint8Array | Blob>;
	}
}
