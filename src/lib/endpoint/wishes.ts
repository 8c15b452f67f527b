import type { Wish } from '$core/link/wish';

/** The kinds of endpoint, as people name them. */
export const WISH_WORDS: readonly { readonly value: Wish; readonly text: string }[] = [
	{ value: 'music', text: 'Music and radio' },
	{ value: 'film', text: 'Films and television' },
	{ value: 'photos', text: 'Photographs in turn' },
	{ value: 'notices', text: 'Notices and announcements' },
	{ value: 'recorder', text: 'Recording broadcasts' },
	{ value: 'second-screen', text: 'A second screen for a computer' }
];
