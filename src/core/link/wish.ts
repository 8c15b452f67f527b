/** What an endpoint is called and wanted for, before anything else of it is decided. */
export interface Named {
	readonly name: string;
	readonly hostName: string;
	readonly kind: Wish;
}

/** What people want of an endpoint. */
export const WISHES = ['music', 'film', 'photos', 'notices', 'recorder', 'second-screen'] as const;
/** One of the kinds of endpoint. */
export type Wish = (typeof WISHES)[number];
/** Those that play a list of their own. */
export const playsList = (wish: Wish): boolean => wish !== 'recorder';
/** Those that show something. */
export const showsPicture = (wish: Wish): boolean => wish !== 'music' && wish !== 'recorder';
