import { lines, textFile } from '../cardFile';
import type { CardFile } from '../link';
import type { SheetPhase, SheetStep } from './runSheet';
import { escapeHtml } from '../html';

const STYLE =
	'body{font:16px/1.45 sans-serif;max-width:44em;margin:1em auto;padding:0 1em;color:#1d2a24}h2{border-bottom:1px solid #8f8871;text-transform:capitalize}li{margin:0 0 .9em;break-inside:avoid}code{display:block;background:#ebe5d4;padding:.3em .5em;overflow-wrap:anywhere}.caution{border-left:4px solid #8a5200;padding-left:.6em}.box{display:inline-block;width:.8em;height:.8em;border:1px solid #1d2a24;margin-right:.5em}.read{border-bottom:1px solid #8f8871;display:inline-block;min-width:9em}';

/** The run sheet as a page to print or carry on a phone; it needs nothing but itself. */
export function printRunSheet(name: string, phases: readonly SheetPhase[]): CardFile {
	const head = [
		'<!doctype html>',
		'<html lang="en">',
		'<meta charset="utf-8">',
		'<meta name="viewport" content="width=device-width">'
	];
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
		...lines('brief.name', ...head, `<title>Run sheet: ${escapeHtml(name)}</title>`),
		...lines('brief', `<style>${STYLE}</style>`),
		...lines('brief.name', `<h1>${escapeHtml(name)}</h1>`),
		...phases.flatMap(({ phase, steps }) => [
			...lines('brief', `<h2>${phase}</h2>`, '<ol>'),
			...steps.map((s) => ({ text: step(s), setting: s.link === 'chain' ? ('brief' as const) : s.link })),
			...lines('brief', '</ol>')
		])
	]);
}
