import type { Words } from '../../engines/machine';

/** The card's events in words, by code. */
export const CARD_WORDS = {
	'kernel-starts': () => 'Firmware done, kernel starts',
	'stops-torn': () => 'The card is torn and nothing mends it: the start stops and waits for a keyboard',
	'torn-unmended': () => 'the card is torn, and nothing mends it',
	mends: () => 'The card was torn by the cut and is being mended',
	'was-torn': () => 'torn by a power cut',
	'files-torn': ({ paths }: { paths: readonly string[] }) =>
		`${paths.length === 1 ? `${paths[0]} was` : `${paths.length} files were`} being written when power went: ${paths.length === 1 ? 'it is' : 'they are'} empty now`,
	mounted: () => 'Card mounted, services begin',
	'mounted-read-only': () => 'Card mounted read-only, services begin',
	whole: () => 'everything on it can be read',
	full: () => 'The card is full: nothing more can be written',
	'is-full': () => 'no room is left on it',
	'room-again': () => 'There is room on the card again'
} as const satisfies Words;

export default CARD_WORDS;
