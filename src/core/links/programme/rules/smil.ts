import { escapeHtml } from '../../../files/html';
import type { Rulebook } from '../../../onAir/onAir';
import { piecesOf } from './phases';
import type { Item } from '../../../onAir/item';

/** What one endpoint plays, for an open player. */
export interface Played {
	readonly name: string;
	readonly book: Rulebook;
	items(show: string): readonly Item[];
	/** Where an entry's file or stream is, from the document on. */
	placeOf(item: Item): string;
}

const ELEMENTS = { still: 'img', film: 'video', sound: 'audio', stream: 'audio' } as const;
const instant = (utcMs: number): string => `wallclock(${new Date(utcMs).toISOString().slice(0, 19)}Z)`;
const seconds = (ms: number): string => `${ms / 1000}s`;

/** How long a still stands; of the others from where to where. Source: W3C SMIL 3.0, MediaClipping module. */
const partOf = ({ kind, lastsMs, part }: Item): string =>
	kind === 'still'
		? lastsMs === null
			? ''
			: ` dur="${seconds(lastsMs)}"`
		: [
				...(part?.fromSec ? [` clipBegin="${part.fromSec}s"`] : []),
				...(part && part.untilSec !== null ? [` clipEnd="${part.untilSec}s"`] : [])
			].join('');

/**
 * What is on within that time as a document for open players: of an excl's children the one that began last plays, so each list has the
 * instants at which it comes on. Pages are no media and are left out. Sources: W3C SMIL 3.0, 5.4.5 (excl), 5.4.3 (wallclock values).
 */
export function smilOf({ name, book, items, placeOf }: Played, fromUtcMs: number, untilUtcMs: number): string {
	const begins = new Map<string, number[]>();
	const played = new Map<string, readonly Item[]>();
	for (const { part, items: its, fromUtcMs: at } of piecesOf(book, items, fromUtcMs, untilUtcMs)) {
		played.set(part, its);
		begins.set(part, [...(begins.get(part) ?? []), at]);
	}
	const child = ([part, at]: [string, number[]]): string[] => {
		const when = at.map(instant).join(';');
		const media = played
			.get(part)!
			.flatMap((item) =>
				item.kind === 'page'
					? []
					: [
							`\t\t\t\t<${ELEMENTS[item.kind]} src="${escapeHtml(placeOf(item))}" title="${escapeHtml(item.title)}"${partOf(item)} />`
						]
			);
		// While nothing is on, and where a list holds pages alone, something must take the turn of what was on.
		if (media.length === 0) return [`\t\t\t<par begin="${when}" dur="indefinite" />`];
		return [`\t\t\t<seq begin="${when}" repeatCount="indefinite">`, ...media, '\t\t\t</seq>'];
	};
	return [
		'<?xml version="1.0" encoding="UTF-8"?>',
		'<smil xmlns="http://www.w3.org/ns/SMIL" version="3.0" baseProfile="Language">',
		'\t<head>',
		`\t\t<meta name="title" content="${escapeHtml(name)}" />`,
		`\t\t<meta name="description" content="${escapeHtml(`From ${new Date(fromUtcMs).toISOString()} to ${new Date(untilUtcMs).toISOString()}`)}" />`,
		'\t</head>',
		'\t<body>',
		`\t\t<excl end="${instant(untilUtcMs)}">`,
		...[...begins].flatMap(child),
		'\t\t</excl>',
		'\t</body>',
		'</smil>',
		''
	].join('\n');
}
