import fc from 'fast-check';
import { expect, it } from 'vitest';
import { controlWord, readControlWord } from './controlName';

// Expected values by snd_mixer_selem_id_parse of libasound 1.2.8.
it.each([
	['PCM,1', 'PCM,1'],
	["'PCM',1", 'PCM,1'],
	["' PCM  x',0", ' PCM  x'],
	['"it\'s",2', "it's,2"],
	[' PCM', 'PCM'],
	["'A,B',0", 'A,B'],
	['A,B', null],
	['', null]
])('%j is the control %j', (word, control) => expect(readControlWord(word)).toBe(control));

it('carries any name of a control that has not both kinds of quote', () => {
	const name = fc
		.string({ minLength: 1, maxLength: 43 })
		.filter((text) => !(text.includes("'") && text.includes('"')) && !/,\d+$/.test(text) && text.trim() !== '');
	fc.assert(
		fc.property(name, fc.nat(9), (text, number) => {
			const control = number ? `${text},${number}` : text;
			expect(readControlWord(controlWord(control))).toBe(control);
		})
	);
});
