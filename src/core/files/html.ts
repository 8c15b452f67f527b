import { lines } from './cardFile';
import type { CardLine } from '../link/file';

/** What a person typed, as text in a page. */
export const escapeHtml = (text: string): string =>
	text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

const STYLE = [
	'body{font:16px/1.45 sans-serif;max-width:44em;margin:1em auto;padding:0 1em;color:#1d2a24}',
	'h2{border-bottom:1px solid #8f8871}h2::first-letter{text-transform:uppercase}',
	'li{margin:0 0 .9em;break-inside:avoid}code{display:block;background:#ebe5d4;padding:.3em .5em;overflow-wrap:anywhere}',
	'table{border-collapse:collapse;width:100%}tr{border-bottom:1px solid #d6cdb8;break-inside:avoid}',
	'th{text-align:left;font-weight:400;padding:.3em 1em .3em 0;vertical-align:top}td{font-family:monospace;padding:.3em 0;overflow-wrap:anywhere}',
	'.caution{border-left:4px solid #8a5200;padding-left:.6em}.box{display:inline-block;width:.8em;height:.8em;border:1px solid #1d2a24;margin-right:.5em}',
	'.read{border-bottom:1px solid #8f8871;display:inline-block;min-width:9em}'
];

/** How each page of a card set begins: a page to print or to carry on a phone, that needs nothing but itself. */
export const pageTop = (kind: string, endpoint: string): CardLine[] => [
	...lines(
		'brief',
		'<!doctype html>',
		'<html lang="en">',
		'<meta charset="utf-8">',
		'<meta name="viewport" content="width=device-width">'
	),
	...lines('brief.name', `<title>${kind}: ${escapeHtml(endpoint)}</title>`),
	...lines('brief', `<style>${STYLE.join('')}</style>`),
	...lines('brief.name', `<h1>${escapeHtml(endpoint)}</h1>`)
];
