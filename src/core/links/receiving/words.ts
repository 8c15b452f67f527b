import type { Words } from '../../engines/machine';

/** The receiving's events in words, by code. */
export const RECEIVING_WORDS = {
	'phone-sends': ({ name }: { name: string }) => `A phone sends its sound to \u201c${name}\u201d`,
	'other-name': ({ wanted, name }: { wanted: string; name: string }) =>
		`The phone looks for \u201c${wanted}\u201d and finds \u201c${name}\u201d`,
	'not-paired': ({ why }: { why: string }) => `The phone cannot pair: ${why}`,
	'as-root': ({ unit }: { unit: string }) => `${unit} runs as the administrator`,
	'phone-stops': () => 'The phone stops',
	'computer-sends': ({ by, port }: { by: string; port: number }) =>
		`A computer sends its sound by ${by} to port ${port}`,
	'computer-stops': () => 'The computer stops',
	'no-adapter': () => 'The phone finds nothing: there is no Bluetooth adapter',
	'not-found': ({ why }: { why: string }) => `The phone finds no place for its sound: ${why}`,
	'not-played': ({ why }: { why: string }) => `What is sent is not heard: ${why}`,
	'kept-out': ({ port }: { port: number }) => `The computer is kept out: port ${port} is closed to it`,
	'nobody-there': ({ port }: { port: number }) => `Nothing answers the computer at port ${port}`,
	rests: () => 'The list rests while somebody sends',
	'goes-on': () => 'The list goes on',
	'rests-why': () => 'somebody sends'
} as const satisfies Words;

export default RECEIVING_WORDS;
