import type { Page } from './settings';

declare module '../../facts' {
	interface Facts {
		/** Pages that playlists may show. `picture`: where the player finds it; null: a browser shows the page. Absent: there are none. */
		readonly pages?: readonly (Pick<Page, 'id' | 'title' | 'forSec'> & { readonly picture: string | null })[];
		/** A browser has the screen, and follows the rules by itself. */
		readonly pageBrowser?: true;
		/** Pages that somebody with a phone may show at once. Absent: none. */
		readonly byPhone?: readonly Pick<Page, 'id' | 'title'>[];
	}
}
declare module '../../secrets' {
	interface Secrets {
		/** Pictures of pages that were drawn for this set, by name: PNG. */
		readonly pagePictures?: ReadonlyMap<string, Uint8Array>;
	}
}
