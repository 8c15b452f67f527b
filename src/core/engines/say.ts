import { SYSTEM_WORDS, type Said, type Sentence, type Words } from './machine';

/** Who tells of something, and its words by code. */
export interface Speaking {
	readonly id: string;
	readonly words?: Words;
}

/** Words for what a rehearsal tells: text, and the reading beside it. Only the edge asks: screen, command line, tests. */
export function say(links: readonly Speaking[], { from, code, data }: Said): readonly [text: string, reading: string] {
	const words: Words | undefined = from === 'system' ? SYSTEM_WORDS : links.find(({ id }) => id === from)?.words;
	const sentence: Sentence = words?.[code]?.(data as never) ?? code;
	return typeof sentence === 'string' ? [sentence, ''] : sentence;
}

/** Events with their words, for whoever reads them without the links. */
export const inWords = <E extends Said>(
	links: readonly Speaking[],
	events: readonly E[]
): (E & { readonly text: string; readonly reading: string })[] =>
	events.map((event) => {
		const [text, reading] = say(links, event);
		return { ...event, text, reading };
	});
