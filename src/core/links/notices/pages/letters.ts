/** Which letters the pages hold, and by which typefaces the endpoint draws them. */
import type { Finding } from '../../../link/finding';
import { typefaceFor, type TypefacePackage } from '../../../standards/typefaces';
import { change } from './edits';
import type { NoticesSettings } from '../settings';

const DAY_MS = 86_400_000;
/** Days and months as the page names them. */
function datesIn(language: string): string {
	const format = new Intl.DateTimeFormat(language, { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' });
	return Array.from({ length: 12 }, (_, n) => format.format(n * 31 * DAY_MS)).join('');
}

const held = new WeakMap<object, ReadonlySet<string>>();
/** Characters of something that stays the same object while others change: a feed may hold a book. */
function charactersOf<T extends object>(of: T, text: (of: T) => string): ReadonlySet<string> {
	let characters = held.get(of);
	if (!characters) held.set(of, (characters = new Set(text(of))));
	return characters;
}

/** All that is known to come on the pages: what is typed, what feeds held when they were last read here, and names of days. */
const charactersIn = ({ pages, feeds, language }: NoticesSettings): Set<string> =>
	new Set([
		...pages.flatMap((page) => [
			...charactersOf(page, ({ zones }) => zones.map(({ title, text, words }) => title + text + words).join(''))
		]),
		...feeds.flatMap((feed) => [...charactersOf(feed, ({ text }) => text)]),
		...datesIn(language)
	]);

/** Letters that the endpoint cannot draw, by the package that would; null: none would. */
function lettersLacking(settings: NoticesSettings): ReadonlyMap<TypefacePackage | null, readonly string[]> {
	const lacking = new Map<TypefacePackage | null, string[]>();
	for (const character of charactersIn(settings)) {
		const by = typefaceFor(character);
		if (by === 'there' || (by && settings.fonts.includes(by))) continue;
		const letters = lacking.get(by);
		if (letters) letters.push(character);
		else lacking.set(by, [character]);
	}
	return lacking;
}

/** The text as the endpoint shows it: a box for each letter that it has no typeface for. */
export const asDrawn = (text: string, fonts: readonly TypefacePackage[]): string =>
	Array.from(text, (character) => {
		const by = typefaceFor(character);
		return by === 'there' || (by && fonts.includes(by)) ? character : '\u25a1';
	}).join('');

const SHOWN = 8;
/** Pages whose letters come out as boxes. */
export const assessLetters = (settings: NoticesSettings): Finding[] =>
	settings.shownBy === 'pictures'
		? []
		: [...lettersLacking(settings)].map(([by, letters]): Finding => {
				const some = `${letters.slice(0, SHOWN).join('\u2009')}${letters.length > SHOWN ? '\u2009\u2026' : ''}`;
				return {
					id: `notices.letters-${by ?? 'none'}`,
					level: by === null ? 'note' : 'caution',
					title: `The endpoint has no typeface for ${some}`,
					why: `It draws an empty box for each. The system as it comes draws Latin, Greek, Cyrillic, Armenian, Georgian, Hebrew and Arabic. ${by === null ? 'No package that is known here has these: use other signs.' : `${by} brings these; it is fetched at the first start.`}`,
					setting: by === null ? 'notices.pages' : 'notices.fonts',
					fixes:
						by === null
							? []
							: [
									{
										label: `Install ${by}`,
										apply: change((all) => ({ ...all, fonts: [...all.fonts, by] }))
									}
								]
				};
			});
