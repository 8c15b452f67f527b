import type { Words } from '../../engines/machine';

/** The programme's events in words, by code. */
export const PROGRAMME_WORDS = {
	'on-air': ({ list, why }: { list: string; why: string }) => [
		`On now: ${list}`,
		why ? `rule: ${why}` : 'no rule holds'
	],
	rests: ({ why }: { why: string }) => ['Nothing is on now', why ? `rule: ${why}` : 'no rule holds'],
	'nothing-on': () => 'nothing is on',
	'include-gone': ({ path }: { path: string }) => `The player finds no options at ${path}, and is as loud as otherwise`,
	'list-gone': ({ path }: { path: string }) => `What is to be on is not there: ${path}`,
	'quiet-begins': () => 'Quiet hours begin',
	'quiet-ends': () => 'Quiet hours end',
	'stays-off': () => 'Quiet hours: the player stays off',
	quiet: () => 'quiet hours',
	'nothing-starts': () => 'Nothing starts the player',
	'is-not-started': () => 'nothing starts the player',
	'held-back': ({ why }: { why: string }) => why,
	'may-not-read': ({ path, mode }: { path: string; mode: string }) =>
		`The player may not read ${path}: its mode is ${mode}`,
	'may-not-open': ({ why }: { why: string }) => `The player may not open the sound hardware: ${why}`,
	'cannot-open': ({ device, why }: { device: string; why: string }) => `The player cannot open ${device}: ${why}`,
	'no-picture': ({ why }: { why: string }) => `The player shows nothing: ${why}`,
	'as-root': () => 'The player runs as the administrator',
	'no-such-output': ({ output }: { output: string }) => `The player has no output called ${output}`,
	'list-unreadable': ({ why }: { why: string }) => why,
	'list-empty': () => 'the playlist is empty',
	'told-silent': ({ option, why }: { option: string; why: string }) => `The player is told ${option}: ${why}`,
	told: ({ why }: { why: string }) => why,
	'none-plays': () => 'none of the sources can be played',
	'list-ends': () => 'The list is at its end',
	'finishes-first': ({ title }: { title: string }) => `Something else is on; ${title} is played to its end first`,
	'makes-way': ({ title }: { title: string }) => `${title} makes way for what is on now`,
	'list-again': () => 'The list begins again',
	'entry-fails': ({ title, why }: { title: string; why: string }) => `${title}: ${why}`,
	'script-gone': ({ path }: { path: string }) => `The player does not find its script ${path}`,
	'stream-gone': ({ title }: { title: string }) => `${title} is gone`,
	'stands-in': ({ path }: { path: string }) => `In its place: ${path.slice(path.lastIndexOf('/') + 1)}`,
	'stream-back': ({ title }: { title: string }) => `${title} is there again`,
	'runs-dry': ({ title }: { title: string }) => `Runs dry: ${title}`,
	begins: ({ title, part }: { title: string; id: string; part: string }) => [`Begins: ${title}`, part]
} as const satisfies Words;

export default PROGRAMME_WORDS;
