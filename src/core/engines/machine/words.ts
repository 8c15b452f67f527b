import type { Words } from './timeline';

/** What the machine itself has to say: starting, systemd, programs. */
export const SYSTEM_WORDS = {
	'no-power': () => 'no power',
	starting: () => 'starting',
	'powers-off': () => 'It shuts itself down',
	'not-rehearsed': ({ what }: { what: string }) => `Not rehearsed: ${what}`,
	'no-apply': () => 'There is no apply.sh on the card: nothing is set up',
	'first-start': ({ problem }: { problem: string }) => `First start: ${problem}`,
	'disk-full': () => 'No space is left on the card',
	'unit-missing': ({ unit }: { unit: string }) => `${unit} is enabled but not on the endpoint`,
	'unit-unwanted': ({ unit, by }: { unit: string; by: string }) =>
		`${unit} is not started: only ${by} wants it, which no start reaches`,
	'unit-passed-over': ({ unit, condition }: { unit: string; condition: string }) =>
		`${unit} is passed over: ${condition} does not hold`,
	'unit-unreadable': ({ unit }: { unit: string }) => `${unit}: its command line is not readable`,
	'unit-refused': ({ unit, starts }: { unit: string; starts: number }) =>
		`systemd refuses ${unit}: ${starts === 0 ? 'it starts nothing' : 'only one command may be started where it is no oneshot'}`,
	'timer-unreadable': ({ unit, why }: { unit: string; why: string }) => `${unit}: ${why}`,
	'timer-missed': ({ unit }: { unit: string }) => [`${unit} makes up for what it missed while the board was off`, ''],
	'unit-too-long': ({ unit, limitSec }: { unit: string; limitSec: number }) =>
		`${unit} is ended: it took more than ${limitSec} s`,
	'unit-gave-up': ({ unit }: { unit: string }) => `${unit} has failed too often: systemd starts it no more`,
	'dependency-failed': ({ unit, on }: { unit: string; on: string }) => `${unit} is not started: ${on} failed`,
	'program-missing': ({ path }: { path: string }) => [`${path} is not on the endpoint`, 'exit 203'],
	'program-forbidden': ({ path }: { path: string }) => [`${path} may not be run: its mode forbids it`, 'exit 203'],
	'not-fetched': ({ address, why }: { address: string; why: string }) => `Not fetched: ${address}: ${why}`,
	'program-says': ({ path, last }: { path: string; last: string }) => `${path}: ${last}`
} as const satisfies Words;
