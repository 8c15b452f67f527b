import { resolve, type OnAir, type Rulebook } from '../../../onAir/onAir';
import type { ProgrammeSettings } from '../settings';

/** The week that is looked ahead for the next change. */
const AHEAD_MS = 8 * 86_400_000;

/** What is on at an instant, and the instant at which that changes; null: not within a week. */
export function whatsOn(book: Rulebook, utcMs: number): OnAir & { readonly untilUtcMs: number | null } {
	const { show, line, untilUtcMs } = resolve(book, utcMs, utcMs + AHEAD_MS)[0]!;
	return { show, line, untilUtcMs: untilUtcMs < utcMs + AHEAD_MS ? untilUtcMs : null };
}

/** What is shown, in words. */
export function showWords(show: string, { lists }: Pick<ProgrammeSettings, 'lists'>, listTitle: string): string {
	switch (show) {
		case 'all':
			return listTitle || 'the whole list';
		case 'rest':
			return 'nothing';
		case 'quiet':
			return 'quiet';
		case 'off':
			return 'not by itself';
		default:
			return lists.find(({ id }) => id === show)?.title || show;
	}
}

/** Why it is on, in words. */
export function becauseWords({ show, line }: OnAir, { lines }: Rulebook): string {
	if (line) return line.show === 'quiet' ? 'quiet hours' : `rule: ${line.title || line.rule}`;
	if (show === 'off') return 'nothing starts it';
	return lines.some((known) => known.show !== 'quiet') ? 'no rule holds' : 'at any hour';
}

const SILENT = ['quiet', 'rest', 'off'];
/** What is on is that nothing is. */
export const nothingPlays = (show: string): boolean => SILENT.includes(show);
