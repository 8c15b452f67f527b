import { lines, textFile } from '../files/cardFile';
import type { CardFile } from '../link/file';
import type { SheetPhase, SheetStep } from './runSheet';
import { escapeHtml, pageTop } from '../files/html';

/** The run sheet as a page to print or carry on a phone; it needs nothing but itself. */
export function printRunSheet(name: string, phases: readonly SheetPhase[]): CardFile {
	const step = (s: SheetStep): string =>
		[
			`<li><span class="box"></span>${escapeHtml(s.do)}`,
			s.caution ? `<p class="caution"><strong>Take care.</strong> ${escapeHtml(s.caution)}</p>` : '',
			s.command ? `<code>${escapeHtml(s.command)}</code>` : '',
			s.expect ? `<p>Expect: ${escapeHtml(s.expect)}</p>` : '',
			s.reading ? `<p>Note ${escapeHtml(s.reading)}: <span class="read">&nbsp;</span></p>` : '',
			'</li>'
		].join('');
	return textFile('docs/run-sheet.html', 'The steps to do, to print or to carry.', [
		...pageTop('Run sheet', name),
		...phases.flatMap(({ phase, steps }) => [
			...lines('brief', `<h2>${phase}</h2>`, '<ol>'),
			...steps.map((s) => ({ text: step(s), setting: s.link === 'chain' ? ('brief' as const) : s.link })),
			...lines('brief', '</ol>')
		])
	]);
}
