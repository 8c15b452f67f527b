import { lines, textFile } from '../../files/cardFile';
import { claimsOn, type Claim } from '../../claims';
import { groupBy } from '../../basics/groupBy';
import { escapeHtml, pageTop } from '../../files/html';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import type { SettingPath } from '../../link/setting';
import { filesToFetch, KEYS } from './ready';
import type { CardSettings } from './settings';

interface Row {
	readonly setting: SettingPath;
	readonly label: string;
	readonly value: string;
}
const ofCard = ([label, value]: readonly [string, string]): Row => ({ setting: 'card.system', label, value });

const table = (title: string, rows: readonly Row[]): CardLine[] =>
	rows.length === 0
		? []
		: [
				...lines('card.system', `<h2>${escapeHtml(title)}</h2>`, '<table>'),
				...rows.flatMap(({ setting, label, value }) =>
					lines(setting, `<tr><th scope="row">${escapeHtml(label)}</th><td>${escapeHtml(value)}</td></tr>`)
				),
				...lines('card.system', '</table>')
			];

/** What no image gets right by itself, each to be tried once. */
const CHECKS: readonly (readonly [string, string])[] = [
	['Sound', 'from the output named above, and from no other'],
	['Name', 'its page answers by name, and by number'],
	['Passwords', 'none that the image brought lets anybody in'],
	['Power', 'pulled and put back: it plays again by itself']
];

/** What to enter into the pages of a ready-made image, as each link claims it, and what to try at the end. It holds no password. */
export function settingsSheet(settings: CardSettings, context: Context, claims: readonly Claim[]): CardFile {
	const groups = groupBy(claimsOn(claims, 'entry'), ({ what }) => what);
	return textFile('docs/settings-sheet.html', 'What to enter where an image has pages of its own.', [
		...pageTop('Settings', context.facts.endpointName),
		...lines('card.system', '<p>Passwords are not here. Give each one anew, and none that an image brings.</p>'),
		...table(
			'files, and where each goes',
			filesToFetch(settings, context).map(({ what, goes }) => ofCard([what, goes]))
		),
		...table('keys in place of a remote', settings.system === 'platform' ? KEYS.map(ofCard) : []),
		...[...groups].flatMap(([what, entries]) => table(what, entries)),
		...table('checks at the end', CHECKS.map(ofCard))
	]);
}
