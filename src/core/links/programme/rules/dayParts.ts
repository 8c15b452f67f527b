import { oneLine, writeM3u, writeXspf, type PlaylistEntry } from '../../../formats/playlist';
import { unitText } from '../../../formats/systemd/unit';
import { piecesOf } from './phases';
import type { Played } from './smil';
import { nothingPlays } from './whatsOn';

/** A text file of the folder. */
export interface PartFile {
	readonly path: string;
	readonly text: string;
}

/** What the units of a part are called. */
const unitOf = (show: string): string => `part-${show}`;
const lines = (...texts: string[]): string => `${texts.join('\n')}\n`;
const time = (utcMs: number): string => `${new Date(utcMs).toISOString().slice(0, 19).replace('T', ' ')} UTC`;

/**
 * Playlists as M3U and XSPF, and for each a service and a timer that begins it whenever it comes on within that time, for a user of any
 * system with systemd and mpv. What is on begins what ends it: services of the parts exclude one another. Pages are no media and are
 * left out. Source: systemd.unit(5), Conflicts=; systemd.timer(5); systemd.time(7).
 */
export function dayPartsOf({ name, book, items, placeOf }: Played, fromUtcMs: number, untilUtcMs: number): PartFile[] {
	const begins = new Map<string, number[]>();
	const entries = new Map<string, PlaylistEntry[]>();
	for (const piece of piecesOf(book, items, fromUtcMs, untilUtcMs)) {
		const its = entriesOf(piece.items, placeOf);
		const part = nothingPlays(piece.show) || its.length === 0 ? 'nothing' : piece.part;
		entries.set(part, its);
		begins.set(part, [...(begins.get(part) ?? []), piece.fromUtcMs]);
	}
	const parts = [...begins.keys()].sort();
	return [
		{ path: 'README.txt', text: readme(name, fromUtcMs, untilUtcMs) },
		...parts
			.filter((part) => part !== 'nothing')
			.flatMap((part): PartFile[] => {
				const list = { title: `${oneLine(name)}: ${part}`, entries: entries.get(part)! };
				return [
					{ path: `${part}.m3u8`, text: writeM3u(list) },
					{ path: `${part}.xspf`, text: writeXspf(list) }
				];
			}),
		...parts.flatMap((part): PartFile[] => {
			const others = parts.filter((other) => other !== part).map((other) => `${unitOf(other)}.service`);
			return [
				{
					path: `systemd/${unitOf(part)}.service`,
					text: lines(
						'[Unit]',
						`Description=${unitText(`${oneLine(name)}: ${part}`)}`,
						...(others.length ? [`Conflicts=${others.join(' ')}`] : []),
						'',
						'[Service]',
						...(part === 'nothing'
							? ['Type=oneshot', 'ExecStart=/usr/bin/true']
							: [
									`ExecStart=/usr/bin/mpv --loop-playlist=inf --playlist=%h/playlists/${part}.m3u8`,
									'Restart=on-failure'
								])
					)
				},
				{
					path: `systemd/${unitOf(part)}.timer`,
					text: lines(
						'[Unit]',
						`Description=${unitText(`When ${part} comes on`)}`,
						'',
						'[Timer]',
						...begins.get(part)!.map((at) => `OnCalendar=${time(at)}`),
						'AccuracySec=1s',
						'',
						'[Install]',
						'WantedBy=timers.target'
					)
				}
			];
		})
	];
}

const entriesOf = (items: ReturnType<Played['items']>, placeOf: Played['placeOf']): PlaylistEntry[] =>
	items
		.filter(({ kind }) => kind !== 'page')
		.map((item) => ({
			location: placeOf(item),
			title: item.title,
			durationSec: item.lastsMs === null ? null : Math.round(item.lastsMs / 1000),
			extra: []
		}));

const readme = (name: string, fromUtcMs: number, untilUtcMs: number): string =>
	lines(
		`What ${oneLine(name)} plays, from ${time(fromUtcMs)} to ${time(untilUtcMs)}.`,
		'',
		'The playlists (.m3u8, .xspf) open in any player. Their files belong into the folder "media" beside them.',
		'Such lists have no place for beginnings, ends and levels of single entries: each is played whole.',
		'',
		'To have them played by the clock on a system with systemd and mpv, as the user who is to hear them:',
		'  cp -r . ~/playlists && cp systemd/* ~/.config/systemd/user/ && systemctl --user daemon-reload',
		'  systemctl --user enable --now ~/.config/systemd/user/part-*.timer',
		'Each begins when it comes on next; to hear one at once: systemctl --user start part-NAME.service',
		'After the last time nothing more happens by itself: export again.'
	);
