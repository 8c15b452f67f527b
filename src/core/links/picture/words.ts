import type { Words } from '../../engines/machine';
import type { Seen } from './seen';

/** The picture's events in words, by code. */
export const PICTURE_WORDS = {
	'no-screen': () => 'No screen is connected',
	'screen-asleep': () => 'The screen is off',
	'lead-out': () => 'The screen cable is out',
	'after-cut': () => 'The set waits for its button: its mains were away',
	'by-cec': () => 'CEC has put the set to sleep',
	'by-socket': () => 'The set has no mains: its socket is off',
	'phone-asked': () => 'Somebody presses "shut down" on the phone\u2019s page',
	'phone-shows': ({ words }: { words: string }) => `Somebody presses "${words}" on the phone\u2019s page`,
	'phone-nobody': () => 'A phone asks for the page, and nobody answers',
	'phone-refused': ({ answer }: { answer: string }) => `The phone is told: ${answer}`,
	'wrong-input': () => 'The set shows another input',
	'nothing-on': () => 'nothing is on',
	'console-why': () => 'the console shows, no player',
	'screen-on': () => 'The screen is there',
	'screen-gone': () => 'The screen is gone',
	'edid-forced': ({ file }: { file: string }) => `The kernel takes ${file} for the screen\u2019s EDID`,
	'edid-missing': ({ file }: { file: string }) => `The kernel finds no /lib/firmware/${file}`,
	'edid-bad': ({ file }: { file: string }) => `The kernel takes no EDID from ${file}: it is damaged`,
	'edid-none': () => 'The screen says nothing of itself: the kernel offers only modes that any screen takes',
	'forced-on': ({ connector }: { connector: string }) => `${connector} is switched on by force`,
	opened: ({ mode }: { mode: string }) => [`The player opens the screen in ${mode}`, mode] as const,
	shows: ({ title, mode }: { title: string; mode: string; seen: Seen }) => [`Shows: ${title}`, mode] as const,
	'not-taken': ({ mode, why }: { mode: string; why: string }) => `The screen does not take ${mode}: ${why}`,
	cut: ({ percent }: { percent: string }) => `The set cuts ${percent} of the picture off`,
	twice: () => 'The edges are left free twice, by the kernel and by who draws: the picture is too small',
	turned: ({ degrees }: { degrees: number }) => `The picture stands turned by ${degrees}°`,
	drops: ({ shown, wanted }: { shown: string; wanted: string }) =>
		`Only ${shown} of ${wanted} frames a second are shown: decoding is too slow`,
	uneven: ({ fps, hz }: { fps: string; hz: string }) => `${fps} frames on ${hz} refreshes a second: movement stutters`,
	whole: () => 'the picture is whole',
	wakes: ({ seconds }: { seconds: string }) => `The set wakes after ${seconds}`,
	'no-signal': () => 'no signal'
} as const satisfies Words;

export default PICTURE_WORDS;
