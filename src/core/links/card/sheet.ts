import { lines, textFile } from '../../cardFile';
import type { CardFile, Context, SettingPath } from '../../link';
import type { Plan } from '../../plan/plan';
import { escapeHtml } from '../../html';

const STYLE =
	'body{font:16px/1.45 sans-serif;max-width:44em;margin:1em auto;padding:0 1em;color:#1d2a24}th{text-align:left;font-weight:400;padding:.3em 1em .3em 0;vertical-align:top}td{font-family:monospace;padding:.3em 0;overflow-wrap:anywhere}tr{border-bottom:1px solid #d6cdb8}table{border-collapse:collapse;width:100%}';

/** What to enter into the pages of a ready-made image, by the words that such pages use. It holds no password. */
export function settingsSheet(plan: Plan, context: Context): CardFile {
	const { network, sound, card } = plan;
	const rows: [SettingPath, string, string][] = [
		['network.hostName', 'Name of the device, host name', network.hostName],
		['programme.quiet', 'Time zone', context.venue.timeZone],
		['network.locale', 'Language', network.locale],
		['network.keyboard', 'Keyboard', network.keyboard],
		['network.way', 'Network', { wired: 'cable', radio: 'radio', none: 'none' }[network.way]],
		...(network.way === 'radio'
			? ([
					['network.ssid', 'Radio network', network.ssid],
					['network.countryCode', 'Radio country', network.countryCode || 'not set']
				] as [SettingPath, string, string][])
			: []),
		...(network.address.kind === 'fixed' && context.venue.lan
			? ([
					[
						'network.address',
						'Address, range, router',
						`${network.address.ip}, ${context.venue.lan.cidr}, ${context.venue.lan.gateway}`
					]
				] as [SettingPath, string, string][])
			: []),
		['network.user', 'User', network.user || 'as the image brings; give it another password'],
		['sound.cardId', 'Sound output', sound.cardId || 'not chosen yet'],
		[
			'sound.volumeAt',
			'Volume',
			{ fixed: 'fixed, full', player: 'by the player', converter: 'in the converter' }[sound.volumeAt]
		],
		[
			'card.system',
			'Kind of image',
			{ plain: 'plain system', player: 'player with its own pages', platform: 'application platform' }[card.system]
		]
	];
	return textFile('docs/settings-sheet.html', 'What to enter where an image has pages of its own.', [
		...lines(
			'card.system',
			'<!doctype html>',
			'<html lang="en">',
			'<meta charset="utf-8">',
			'<meta name="viewport" content="width=device-width">'
		),
		...lines('brief.name', `<title>Settings: ${escapeHtml(plan.brief.name)}</title>`),
		...lines('card.system', `<style>${STYLE}</style>`),
		...lines('brief.name', `<h1>${escapeHtml(plan.brief.name)}</h1>`),
		...lines(
			'card.system',
			'<p>Passwords are not here. Give each one anew, and none that an image brings.</p>',
			'<table>'
		),
		...rows.flatMap(([setting, label, value]) =>
			lines(setting, `<tr><th scope="row">${escapeHtml(label)}</th><td>${escapeHtml(value)}</td></tr>`)
		),
		...lines('card.system', '</table>')
	]);
}
