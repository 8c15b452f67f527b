import type { ScreenWish } from '../../engines/machine/signals';
import type { PlayedPicture } from '../../parts/media';
import type { Change } from '../../changes';

declare module '../../facts' {
	interface Facts {
		/** Something is shown, and on which connector. */
		readonly picture?: {
			readonly connector: string;
			/** So long a still picture stands. */
			readonly stillSec: number;
		};
	}
}
declare module '../../changes' {
	interface Changes {
		/** Adds a picture where there is none. */
		showPicture(): Change;
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** Something to be seen; null: nobody knows how it is made. */
		picture: { readonly shape: PlayedPicture | null };
	}
}

declare module '../../engines/machine/signals' {
	interface Offers {
		/** Opens the display for a player of this unit; a string says why it could not. `show` is called for each thing shown. */
		openScreen?(
			unit: string | null,
			wish: ScreenWish
		): { show(title: string, picture: PlayedPicture, byCircuit: boolean): void; close(): void } | string;
	}
}
