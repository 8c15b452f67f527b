import { DEJAVU } from './dejavuTable';

/** Packages of typefaces for scripts that the system as it comes cannot draw. */
export const TYPEFACE_PACKAGES = ['fonts-noto-core', 'fonts-noto-cjk', 'fonts-noto-color-emoji'] as const;
/** One of them. */
export type TypefacePackage = (typeof TYPEFACE_PACKAGES)[number];

const ranges = DEJAVU.split(' ').map((range) => {
	const [from, until] = range.split('-');
	return [parseInt(from!, 16), parseInt(until ?? from!, 16)] as const;
});
const isThere = (point: number): boolean => {
	let [low, high] = [0, ranges.length - 1];
	while (low <= high) {
		const middle = (low + high) >> 1;
		const [from, until] = ranges[middle]!;
		if (point < from) high = middle - 1;
		else if (point > until) low = middle + 1;
		else return true;
	}
	return false;
};

/** What they draw, by script. Source: the character sets of their files in Debian 12, compared by fc-query: 87 to 100 of each hundred. */
const EAST_ASIAN =
	/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Bopomofo}\u3000-\u303f\uff00-\uffef]/u;
const PICTURED = /\p{Emoji_Presentation}/u;
const OTHERS =
	/[\p{Script=Latin}\p{Script=Cyrillic}\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Armenian}\p{Script=Georgian}\p{Script=Lao}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Gurmukhi}\p{Script=Gujarati}\p{Script=Oriya}\p{Script=Tamil}\p{Script=Telugu}\p{Script=Kannada}\p{Script=Malayalam}\p{Script=Sinhala}\p{Script=Thai}\p{Script=Tibetan}\p{Script=Myanmar}\p{Script=Ethiopic}\p{Script=Cherokee}\p{Script=Khmer}\p{Script=Mongolian}\u2600-\u26ff]/u;

/** What is not drawn by itself: spaces, marks of direction, joiners, variants. */
const UNSEEN = /[\p{White_Space}\p{Cc}\p{Cf}\ufe00-\ufe0f]/u;

/** The package that a character needs on the endpoint; "there": none; null: nobody here has it. */
export function typefaceFor(character: string): TypefacePackage | 'there' | null {
	if (UNSEEN.test(character) || isThere(character.codePointAt(0)!)) return 'there';
	if (PICTURED.test(character)) return 'fonts-noto-color-emoji';
	if (EAST_ASIAN.test(character)) return 'fonts-noto-cjk';
	return OTHERS.test(character) ? 'fonts-noto-core' : null;
}
