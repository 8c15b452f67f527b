import { placeKind } from '../../files/mediaPlace';
import type { Context } from '../../link/context';
import type { Finding } from '../../link/finding';
import { change, fromToday, regridded } from './pages/edits';
import { noticeScreen } from './pages/screen';
import { GRIDS, type NoticesSettings } from './settings';

/** Memory that a system with a compositor and a browser of one plain page takes, MB. Typical; a real start of it takes some 400. */
const LEAST_MEMORY_MB = 900;

/** What a key or button may ask for whatever shows the screen. */
const PAGE_ACTIONS: readonly string[] = ['restart', 'shut-down'];

/** What pages need around them: a screen, rules, memory, hours, and nothing that a browser does not play. */
export function assessPlace({ grid, pages, shownBy }: NoticesSettings, context: Context): Finding[] {
	const byBrowser = shownBy === 'browser';
	const { facts, change: changes, venue } = context;
	const out: Finding[] = [];
	const screen = noticeScreen(context);
	if (!screen)
		out.push({
			id: 'notices.no-picture',
			level: 'stop',
			title: 'Pages, and nothing to show them on',
			why: 'This endpoint does without a picture, so the browser finds no screen.',
			setting: 'notices',
			fixes: [{ label: 'Add a picture', apply: changes.showPicture() }]
		});
	if (!facts.programme)
		out.push({
			id: 'notices.no-programme',
			level: 'stop',
			title: 'Nothing says when the pages are shown',
			why: 'Pages are shown by the programme, as playlists are; this endpoint does without one.',
			setting: 'notices',
			fixes: [{ label: 'Add a programme', apply: changes.use('programme') }]
		});
	if (byBrowser) out.push(...assessMemory(context));
	if (screen) out.push(...assessShape(grid, screen));
	if (pages.some(({ zones }) => zones.some(({ shows }) => shows === 'hours')) && venue.opening.length === 0)
		out.push({
			id: 'notices.no-hours',
			level: 'caution',
			title: 'Opening hours are to be shown, and the venue has none',
			why: 'The zone stays empty. Say under Venue when it is open.',
			setting: 'notices.pages',
			fixes: []
		});
	if (byBrowser) out.push(...assessBrowser(context, screen !== null));
	return out;
}

/** A browser needs more memory than a player. */
function assessMemory(context: Context): Finding[] {
	const out: Finding[] = [];
	const { facts, change: changes } = context;
	const board = context.part('board', facts.parts.board);
	if (board && board.memoryMb < LEAST_MEMORY_MB) {
		const stronger = context.drawer
			.flatMap((part) =>
				part.kind === 'board' && part.memoryMb >= LEAST_MEMORY_MB && part.wired === board.wired ? [part] : []
			)
			.sort((a, b) => a.memoryMb - b.memoryMb)[0];
		out.push({
			id: 'notices.memory',
			level: 'stop',
			title: 'The board has too little memory for a browser',
			why: `${board.name} has ${board.memoryMb}\u2009MB; the system, a compositor and a browser with one page take some ${LEAST_MEMORY_MB / 2}, and twice as much for a moment. It would be ended again and again. The plain player shows pictures of the pages on any board.`,
			setting: 'parts.board',
			fixes: [
				{ label: 'Show pictures of the pages, from today on', apply: fromToday(context) },
				...(stronger ? [{ label: `Take ${stronger.name}`, apply: changes.choosePart('board', stronger.id) }] : [])
			]
		});
	}
	return out;
}

/** Cells are about as wide as high. */
function assessShape(
	grid: NoticesSettings['grid'],
	screen: { readonly widthPx: number; readonly heightPx: number }
): Finding[] {
	const out: Finding[] = [];
	const shape = screen.widthPx >= screen.heightPx ? 'landscape' : 'portrait';
	const cell = screen.widthPx / grid.columns / (screen.heightPx / grid.rows);
	if (cell > 2 || cell < 0.5) {
		const to = GRIDS[shape];
		out.push({
			id: 'notices.grid-shape',
			level: 'caution',
			title: `The grid is made for a screen of another shape`,
			why: `${grid.columns} by ${grid.rows} on ${screen.widthPx} \u00d7 ${screen.heightPx} pixels: cells are ${cell > 1 ? `${cell.toFixed(1)} times as wide as high` : `${(1 / cell).toFixed(1)} times as high as wide`}, and zones with them.`,
			setting: 'notices.grid',
			fixes: [
				{
					label: `Use ${to.columns} by ${to.rows}`,
					apply: change((all) => ({ ...all, grid: to, pages: regridded(all.pages, all.grid, to) }))
				}
			]
		});
	}
	return out;
}

/** What a browser does not do: another mode, streams, keys. */
function assessBrowser({ facts, change: changes }: Context, hasScreen: boolean): Finding[] {
	const out: Finding[] = [];
	if (facts.picture && hasScreen && !facts.picture.writesEdid && facts.picture.mode !== null)
		out.push({
			id: 'notices.own-mode',
			level: 'note',
			title: 'The browser takes the mode that the screen prefers',
			why: 'A mode of your own choice reaches the compositor only with an EDID on the card that prefers it.',
			setting: 'picture.writesEdid',
			fixes: []
		});
	const wanted = facts.entries ?? [];
	const streams = wanted.filter(({ location }) => placeKind(location) === 'stream');
	if (streams.length > 0)
		out.push({
			id: 'notices.streams',
			level: 'caution',
			title:
				streams.length === 1
					? 'A stream is listed, and the page plays none'
					: `${streams.length} streams are listed, and the page plays none`,
			why: 'The browser has no network, on purpose: what is shown in public must not depend on one. Streams are passed over. Leave them out, or let a music endpoint of its own play them.',
			setting: 'sources.items',
			fixes: []
		});
	const player = (facts.picture?.controls ?? []).filter(({ action }) => !PAGE_ACTIONS.includes(action));
	if (player.length > 0)
		out.push({
			id: 'notices.controls',
			level: 'note',
			title:
				player.length === 1
					? 'One key asks for what a page cannot do'
					: `${player.length} keys ask for what a page cannot do`,
			why: 'Next, pause and volume are the player\u2019s; a page follows its rules. Starting anew and shutting down work.',
			setting: 'picture.controls',
			fixes: [
				{
					label: 'Keep only those that work',
					apply: changes.keepControls(PAGE_ACTIONS)
				}
			]
		});
	return out;
}
