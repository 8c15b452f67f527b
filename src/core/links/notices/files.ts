import { PLAYER_FONTS, PLAYER_SCRIPT, PLAYER_STYLE } from 'virtual:player';
import { lines, rootPath, textFile } from '../../files/cardFile';
import type { CardFile } from '../../link/file';
import type { Context } from '../../link/context';
import type { Secrets } from '../../secrets';
import { aliveFiles } from './kiosk/alive';
import type { Claim } from '../../claims';
import { fetchFiles } from './feeds/fetching';
import { pictureFiles } from './drawn/pictureFiles';
import { POLICY } from './pages/policy';
import type { NoticesSettings } from './settings';
import { PAGE_DIR, PAGE_PATH } from './places';
import { showOf, type Show } from './pages/show';

/** Text in the place of another that stands in a page: no mark of it ends the element. */
const inPage = (text: string): string =>
	text.replaceAll('<', '\\u003c').replaceAll('\u2028', '\\u2028').replaceAll('\u2029', '\\u2029');

/** index.html: its show in it, a line for each page, feed and list, so that each knows its setting. */
export function pageLines(show: Show): CardFile & { readonly lines: readonly unknown[] } {
	const { pages, feeds, ...rest } = show;
	const head = inPage(JSON.stringify(rest));
	const list = (values: readonly unknown[]): string[] =>
		values.map((value, n) => `${inPage(JSON.stringify(value))}${n < values.length - 1 ? ',' : ''}`);
	return textFile(rootPath(PAGE_PATH), 'The page that the browser shows, with all that it is to show.', [
		...lines(
			'notices',
			'<!doctype html>',
			`<html lang="${show.language}">`,
			'<head>',
			'<meta charset="utf-8">',
			`<meta http-equiv="Content-Security-Policy" content="${POLICY}">`,
			'<meta name="viewport" content="width=device-width">',
			'<title>Notices</title>',
			'<link rel="stylesheet" href="style.css">',
			'<script src="player.js" defer></script>',
			'</head>',
			'<body>',
			'<script type="application/json" id="show">',
			`${head.slice(0, -1)},"pages":[`
		),
		...list(pages).flatMap((text, n) => lines(`notices.pages.${n}`, text)),
		...lines('notices', '],"feeds":['),
		...list(feeds).flatMap((text, n) => lines(`notices.feeds.${n}`, text)),
		...lines('notices', ']}', '</script>', '</body>', '</html>')
	]) as CardFile & { readonly lines: readonly unknown[] };
}

/** Pages as pictures, or the folder that the browser shows, with what fetches feeds. */
export const noticesFiles = (
	settings: NoticesSettings,
	context: Context,
	_: readonly Claim[],
	secrets: Secrets
): CardFile[] =>
	settings.shownBy === 'pictures'
		? pictureFiles(settings, context, secrets)
		: [...pageFolder(settings, context), ...aliveFiles(), ...fetchFiles(settings, context)];

/** The folder that the browser shows: page, script, style sheet, typefaces. */
export function pageFolder(settings: NoticesSettings, context: Context): CardFile[] {
	return [
		pageLines(showOf(settings, context)),
		{
			path: rootPath(`${PAGE_DIR}/player.js`),
			mode: '0644',
			why: 'The program of the page.',
			bytes: bytesOf(PLAYER_SCRIPT),
			setting: 'notices'
		},
		{
			path: rootPath(`${PAGE_DIR}/style.css`),
			mode: '0644',
			why: 'How the pages look.',
			bytes: bytesOf(`${PAGE_ITSELF}${PLAYER_STYLE}`),
			setting: 'notices'
		},
		...PLAYER_FONTS.map(({ file, base64 }): CardFile => ({
			path: rootPath(`${PAGE_DIR}/fonts/${file}`),
			mode: '0644',
			why: 'A typeface of the pages.',
			bytes: fontBytes(file, base64),
			setting: 'notices'
		}))
	];
}

/** Nothing of a browser is seen: no scroll bar, no pointer, no white before the first page. */
const PAGE_ITSELF = `html, body { margin: 0; height: 100%; background: #000; overflow: hidden; cursor: none; user-select: none; }
#show { display: none; }
.notice-stage, .notice-goes { position: absolute; left: 0; top: 0; overflow: hidden; transform-origin: 0 0; }
`;

const encoded = new Map<string, Uint8Array>();
function once(key: string, make: () => Uint8Array): Uint8Array {
	let bytes = encoded.get(key);
	if (!bytes) encoded.set(key, (bytes = make()));
	return bytes;
}
const bytesOf = (text: string): Uint8Array => once(text, () => new TextEncoder().encode(text));
const fontBytes = (file: string, base64: string): Uint8Array =>
	once(file, () => Uint8Array.from(atob(base64), (byte) => byte.charCodeAt(0)));
