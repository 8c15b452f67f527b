import { fault, ok, type Result } from '../basics/result';

/** A line beyond this is no line of a listing; what is beyond is cut, so that no reader can be held up by one. */
const LONGEST_LINE = 1100;

/** Lines of a text, whichever system ended them. */
export const linesOf = (text: string): string[] => text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/);

/** A line, no longer than the longest that is ever looked at. */
export const cutLine = (line: string): string => (line.length > LONGEST_LINE ? line.slice(0, LONGEST_LINE) : line);

/** A text that is short enough to be read. Fault: `text-long`. */
export const boundedText = (text: string, most: number): Result<string> =>
	text.length <= most
		? ok(text)
		: fault(
				'text-long',
				`It has ${text.length} characters; more than ${most} are not read. Paste only what the command printed.`
			);
