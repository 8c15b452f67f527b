import type { ScreenWish } from '../../engines/machine/signals';
import type { PlayedPicture } from '../../parts/media';
import type { Context } from '../../link/context';
import type { Change } from '../../changes';
import type { DrawnScreen } from '../../standards/legibility';
import type { PictureSettings } from './settings';

declare module '../../facts' {
	interface Facts {
		/** Something is shown, and how. */
		readonly picture?: Pick<
			PictureSettings,
			'mode' | 'turn' | 'writesEdid' | 'stillSec' | 'shifts' | 'controls' | 'offBy' | 'hours' | 'darkWhileResting'
		> & {
			/** The screen as those who draw for it see it. */
			screen(context: Context): DrawnScreen;
		};
	}
}
declare module '../../changes' {
	interface Changes {
		/** Adds a picture where there is none. */
		showPicture(): Change;
		/** Leaves only the keys and buttons that ask for these. */
		keepControls(actions: readonly string[]): Change;
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
		):
			| {
					show(what: Shown, picture: PlayedPicture, byCircuit: boolean): void;
					/** Black, because nothing is on. */
					blank(): void;
					close(): void;
			  }
			| string;
	}
}

declare module '../../link/step' {
	interface Conditions {
		'screen set': true;
		'edges read': true;
		seen: true;
	}
}
declare module '../../secrets' {
	interface Secrets {
		/** Password of the page for a phone, as it is typed; a digest of it goes on the card. */
		readonly phonePassword?: string;
	}
}
