import { z } from 'zod';

const CONTROL = /[\u0000-\u001f\u007f\u0085\u2028\u2029]/;
const LONE_SURROGATE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** One line that a person typed. Anything printable is allowed and arrives exactly; line breaks and half characters are refused. */
export const lineText = (maxLength = 200) =>
	z
		.string()
		.max(maxLength, `At most ${maxLength} characters.`)
		.refine((text) => !CONTROL.test(text), 'A line break, tab or control character is in it. Remove it.')
		.refine(
			(text) => !LONE_SURROGATE.test(text),
			'Half of a character is in it, perhaps from a bad copy. Type it again.'
		);

/** A wall clock's hours and minutes. */
export const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Hours and minutes, such as 22:00.');
