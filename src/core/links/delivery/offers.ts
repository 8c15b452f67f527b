declare module '../../facts' {
	interface Facts {
		/** Pages, lists and media may be fetched as a set: the player reads them where the latest is. */
		readonly fetchesContent?: true;
	}
}
export {};
