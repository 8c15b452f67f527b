import type { PlayedMedia } from '../../parts/media';

declare module '../../engines/machine/signals' {
	interface Offers {
		/** Finds what a playlist entry leads to; `done` is called once, later. */
		openMedia?(location: string, done: (found: PlayedMedia | string) => void): void;
	}
}
