import type { Page } from './settings';

declare module '../../facts' {
	interface Facts {
		/** Pages that playlists may show: a browser has the screen, and follows the rules by itself. Absent: there are none. */
		readonly pages?: readonly Pick<Page, 'id' | 'title' | 'forSec'>[];
		/** Pages that somebody with a phone may show at once. Absent: none. */
		readonly byPhone?: readonly Pick<Page, 'id' | 'title'>[];
	}
}
