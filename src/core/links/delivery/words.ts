import type { Words } from '../../engines/machine';

/** What becomes of new content, in words. */
export const DELIVERY_WORDS = {
	'set-there': ({ address }: { address: string }) => `New content stands at ${address}`,
	'breaks-off': () => 'The connection breaks off',
	'comes-back': () => 'The connection is there again',
	spoilt: () => 'A file of it is spoilt',
	forged: () => 'It is signed by somebody else',
	endless: () => 'Whoever answers there sends without end',
	dead: () => 'It does not play',
	'shows-card': () => 'Shown is what the card brought',
	'shows-set': ({ set }: { set: string }) => `Shown is set ${set}`
} as const satisfies Words;

export default DELIVERY_WORDS;
