import { formatHz, withUnit } from '../../basics/format';
import type { Words } from '../../engines/machine';

/** The sound's events in words, by code. */
export const SOUND_WORDS = {
	found: ({ name, cardId }: { name: string; cardId: string }) => [`${name} found`, cardId],
	muted: () => 'the amplifier is muted',
	'nothing-plays': () => 'nothing is playing',
	plays: ({ title }: { title: string }) => title,
	'is-unplugged': () => 'the converter is unplugged',
	'amplifier-muted': () => 'Amplifier muted',
	'amplifier-open': () => 'Amplifier open again',
	unplugged: () => 'Converter unplugged',
	'plugged-in': () => 'Converter plugged in again',
	'no-control': ({ control }: { control: string }) =>
		`The converter has no control "${control}": the player is not started`,
	'volume-set': ({ db }: { db: number }) => ['Volume set in the converter', withUnit(db, 1, 'dB')],
	'others-get-first': () =>
		'Other programs get the kernel\u2019s first sound card, whichever that is: there is no asound.conf',
	'others-get-nothing': ({ why }: { why: string }) => [
		'Other programs open no sound: their default device leads to no converter',
		why
	],
	'others-get-else': ({ cardId, converts }: { cardId: string; converts: boolean }) => [
		converts
			? 'Other programs find no converter: their default device names a card that is not there'
			: 'Other programs are refused what the converter does not take: nothing converts it',
		cardId
	],
	'mixers-get-else': ({ controls }: { controls: string }) => [
		'A mixer that is asked for no card in particular does not show this converter',
		controls
	],
	opened: (heard: { sampleRateHz: number; bitDepth: number; channels: number; treatment: string }) => [
		`Converter opened: ${formatHz(heard.sampleRateHz)}, ${heard.bitDepth} bit, ${heard.channels} ch`,
		heard.treatment
	]
} as const satisfies Words;

export default SOUND_WORDS;
