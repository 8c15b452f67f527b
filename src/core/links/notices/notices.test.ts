import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calendarFeed, ferryTable, newsFeed, tideTable, weatherFeed } from '../../../../demo/feeds';
import { blocksOf, textOf } from './pages/blocks';
import { shownIn, type FeedState, type NoticeWorld, type Shown } from './pages/content';
import { freePlace, overlap, regridded, stretched, within, withNewZone } from './pages/edits';
import { weatherJsonSchema } from './feeds/weather';
import { columnsEm, fitOf, fits, linesIn, SET, textEm } from './pages/fit';
import { countPlayed, playedCsv, readPlayed } from './kiosk/played';
import { codePxFrom, smallestTextPx, zoneBox, type NoticeScreen } from './pages/screen';
import { GRIDS, newZone, pageSchema, type Zone } from './settings';
import { TEMPLATES, withTemplate } from './pages/templates';
import { CALM_NOTICES } from './settings';
import { CALM_THEME, contrast, THEMES, towardsContrast } from '../../standards/pageTheme';

const ZONE = 'Europe/Oslo';
const world = (at: string, feed: Partial<FeedState> | null = null, more: Partial<NoticeWorld> = {}): NoticeWorld => ({
	nowUtcMs: Date.parse(at),
	venue: {
		timeZone: ZONE,
		opening: [
			{ weekdays: [], season: { from: '04-01', until: '09-30' }, from: '10:00', until: '18:00' },
			{ weekdays: ['Sat'], season: null, from: '11:00', until: '15:30' }
		],
		closedOnHolidays: true,
		holidays: [{ date: '2026-12-26', title: 'Second day' }]
	},
	units: 'metric',
	language: 'en-GB',
	feed: () => (feed ? { kind: 'table', title: 'Feed', text: '', fetchedUtcMs: null, ...feed } : null),
	...more
});
const zone = (shows: Zone['shows'], more: Partial<Zone> = {}): Zone =>
	newZone('z', shows, { x: 0, y: 0, w: 12, h: 6 }, { feed: 'f', ...more });
const rowsOf = ({ content }: Shown): readonly (readonly string[])[] => (content.kind === 'rows' ? content.rows : []);

describe('what a zone shows', () => {
	it('the hour of the venue, in 24 or 12 hours, summer and winter', () => {
		const clock = (at: string, by: Zone['clock']) => shownIn(zone('clock', { clock: by }), world(at)).content;
		expect(clock('2026-11-27T15:40:00Z', '24')).toEqual({ kind: 'line', text: '16:40' });
		expect(clock('2026-07-27T15:40:00Z', '12')).toEqual({ kind: 'line', text: '5:40 pm' });
		expect(clock('2026-11-26T23:05:00Z', '12')).toEqual({ kind: 'line', text: '12:05 am' });
	});
	it('the date in the venue\u2019s language and on its own day', () => {
		expect(shownIn(zone('date'), world('2026-11-27T23:30:00Z')).content).toEqual({
			kind: 'line',
			text: 'Saturday 28 November'
		});
		expect(shownIn(zone('date'), world('2026-11-27T12:00:00Z', null, { language: 'nb-NO' })).content).toEqual({
			kind: 'line',
			text: 'fredag 27. november'
		});
	});
	it('opening hours by season, weekday and holiday', () => {
		expect(rowsOf(shownIn(zone('hours', { rows: 2 }), world('2026-11-27T12:00:00Z')))).toEqual([
			['Today', 'closed'],
			['Saturday', '11:00\u201315:30']
		]);
		// The second day of Christmas is a Saturday, and kept.
		expect(rowsOf(shownIn(zone('hours', { rows: 1 }), world('2026-12-26T12:00:00Z')))).toEqual([['Today', 'closed']]);
		expect(rowsOf(shownIn(zone('hours', { rows: 1 }), world('2026-07-04T12:00:00Z')))).toEqual([
			['Today', '10:00\u201318:00, 11:00\u201315:30']
		]);
	});
	it('what of a table is still to come', () => {
		const table = zone('table', { columns: ['Leaves', 'For'], rows: 9 });
		const at = (time: string) => rowsOf(shownIn(table, world(`2026-11-27T${time}Z`, { text: ferryTable() })));
		expect(at('16:19:59').map(([time]) => time)).toEqual(['17:20', '19:05']);
		// It is over with its minute.
		expect(at('16:20:59').map(([time]) => time)).toEqual(['17:20', '19:05']);
		expect(at('16:21:00').map(([time]) => time)).toEqual(['19:05']);
		expect(shownIn(table, world('2026-11-27T19:00:00Z', { text: ferryTable() })).trouble?.why).toBe('empty');
	});
	it('a tide as a curve through the table\u2019s own points', () => {
		const shown = shownIn(zone('curve'), world('2026-11-27T12:00:00Z', { text: tideTable(Date.UTC(2026, 10, 25), 6) }));
		if (shown.content.kind !== 'curve') throw new Error(shown.content.kind);
		const { points } = shown.content;
		const named = points.filter((point) => point.named).map(({ value }) => value);
		expect(named.length).toBeGreaterThan(2);
		// High and low by turns, and nothing between goes beyond them.
		for (let n = 1; n < named.length; n++) expect(Math.abs(named[n]! - named[n - 1]!)).toBeGreaterThan(1);
		expect(Math.max(...points.map(({ value }) => value))).toBeLessThanOrEqual(Math.max(...named) + 0.6);
		for (let n = 1; n < points.length; n++) expect(points[n]!.wallMs).toBeGreaterThan(points[n - 1]!.wallMs);
	});
	it('events of a calendar by the wall clock, over the change of summer time', () => {
		const tours = (at: string) =>
			rowsOf(shownIn(zone('calendar', { rows: 2 }), world(at, { kind: 'calendar', text: calendarFeed() })));
		// A Wednesday at 14:00 by the wall, winter and summer alike.
		expect(tours('2026-10-21T11:00:00Z')[0]).toEqual(['14:00', 'Up to the lamp, Tower']);
		expect(tours('2026-10-28T11:00:00Z')[0]).toEqual(['14:00', 'Up to the lamp, Tower']);
		expect(tours('2026-10-28T14:00:00Z')[0]).toEqual(['Sat 31 Oct 14:00', 'Up to the lamp, Tower']);
	});
	it('an event that is moved or taken out', () => {
		const text = [
			'BEGIN:VCALENDAR',
			'BEGIN:VEVENT\nUID:a\nDTSTART;TZID=Europe/Oslo:20261201T090000\nDURATION:PT1H\nRRULE:FREQ=DAILY;COUNT=4\nEXDATE;TZID=Europe/Oslo:20261202T090000\nSUMMARY:Tour\nEND:VEVENT',
			'BEGIN:VEVENT\nUID:a\nRECURRENCE-ID;TZID=Europe/Oslo:20261203T090000\nDTSTART:20261203T140000Z\nDURATION:PT1H\nSUMMARY:Tour, late\nEND:VEVENT',
			'END:VCALENDAR'
		].join('\n');
		const shown = shownIn(zone('calendar', { rows: 9 }), world('2026-12-01T07:00:00Z', { kind: 'calendar', text }));
		expect(rowsOf(shown).map(([when, what]) => `${when} ${what}`)).toEqual([
			'09:00 Tour',
			'Thu 3 Dec 15:00 Tour, late',
			'Fri 4 Dec 09:00 Tour'
		]);
	});
	it('weather in the venue\u2019s units, and headlines one after another, as text', () => {
		const weather = { kind: 'weather', text: weatherFeed(Date.parse('2026-11-27T06:00:00Z')) } as const;
		const metric = rowsOf(shownIn(zone('weather'), world('2026-11-27T08:00:00Z', weather)));
		expect(metric[0]).toEqual(['Now', '7\u2009°C, showers', '9\u2009m/s SW']);
		const imperial = rowsOf(shownIn(zone('weather'), world('2026-11-27T08:00:00Z', weather, { units: 'imperial' })));
		expect(imperial[0]).toEqual(['Now', '44\u2009°F, showers', '20\u2009mph SW']);
		const news = { kind: 'news', text: newsFeed(Date.parse('2026-11-27T06:00:00Z')) } as const;
		const at = (sec: number) =>
			shownIn(
				zone('news', { changeSec: 10, rows: 3 }),
				world(new Date(Date.UTC(2026, 10, 27) + sec * 1000).toISOString(), news)
			).content;
		expect(new Set([0, 10, 20, 30].map((sec) => JSON.stringify(at(sec)))).size).toBe(3);
		expect(JSON.stringify([0, 10, 20].map(at))).toContain('Boat shed & slip');
	});
	it.each([
		['no feed', null, 'no-feed'],
		['a feed of another kind', { kind: 'news', text: 'x' } as const, 'no-feed'],
		['an empty one', { text: ' \n' }, 'empty'],
		['one that cannot be read', { text: 'a,b\n"c,d\n' }, 'wrong'],
		['an old one', { text: ferryTable(), fetchedUtcMs: Date.parse('2026-11-25T00:00:00Z') }, 'old']
	] as const)('of %s what it is told to show then', (_, feed, why) => {
		const at = '2026-11-27T08:00:00Z';
		for (const whenOld of ['beside', 'hide', 'words'] as const) {
			const shown = shownIn(zone('table', { whenOld, words: 'Ask at the hatch.' }), world(at, feed));
			expect(shown.trouble?.why).toBe(why);
			if (why === 'old' && whenOld === 'beside') expect(shown.note).toBe('as of 25 Nov, 01:00');
			else
				expect(shown.content).toEqual(
					whenOld === 'words'
						? { kind: 'blocks', blocks: [{ kind: 'text', runs: [{ text: 'Ask at the hatch.' }] }] }
						: { kind: 'nothing' }
				);
		}
	});
	it('typed marks as headings, items, bold and italic, and every other sign as itself', () => {
		expect(blocksOf('# Tour\n- at *two*\nmind the **144** steps * up\n\n<b>x</b>')).toEqual([
			{ kind: 'heading', runs: [{ text: 'Tour' }] },
			{ kind: 'item', runs: [{ text: 'at ' }, { text: 'two', italic: true }] },
			{ kind: 'text', runs: [{ text: 'mind the ' }, { text: '144', bold: true }, { text: ' steps * up' }] },
			{ kind: 'text', runs: [{ text: '<b>x</b>' }] }
		]);
		fc.assert(
			fc.property(fc.string({ maxLength: 60 }), (text) => {
				const said = blocksOf(text)
					.flatMap(({ runs }) => runs.map((run) => run.text))
					.join('');
				// Nothing is lost but marks and white space.
				expect(said.replace(/[*#\s•\\-]/g, '')).toBe(text.replace(/[*#\s•\\-]/g, ''));
			})
		);
	});
	it('is kept so that it is read alike, whatever stars and dashes it holds', () => {
		expect(blocksOf('***both*** \\*no\\* *it*\n\\# no heading\n- # an item')).toEqual([
			{
				kind: 'text',
				runs: [{ text: 'both', bold: true, italic: true }, { text: ' *no* ' }, { text: 'it', italic: true }]
			},
			{ kind: 'text', runs: [{ text: '# no heading' }] },
			{ kind: 'item', runs: [{ text: '# an item' }] }
		]);
		const run = fc.record({
			text: fc.string({
				unit: fc.constantFrom('a', 'b', '*', '\\', '#', '-', '•', ' ', 'ü'),
				minLength: 1,
				maxLength: 5
			}),
			style: fc.constantFrom(
				{},
				{ bold: true as const },
				{ italic: true as const },
				{ bold: true as const, italic: true as const }
			)
		});
		const block = fc.record({
			kind: fc.constantFrom('heading' as const, 'item' as const, 'text' as const),
			runs: fc.array(run, { minLength: 1, maxLength: 4 })
		});
		fc.assert(
			fc.property(fc.array(block, { maxLength: 4 }), (drawn) => {
				// Neighbours of one style are one piece; a line neither begins nor ends with white space.
				const blocks = drawn.map(({ kind, runs }) => ({
					kind,
					runs: runs
						.map(({ text, style }) => ({ text: `x${text}x`, ...style }))
						.filter(
							(one, n, all) =>
								n === 0 || JSON.stringify({ ...one, text: '' }) !== JSON.stringify({ ...all[n - 1], text: '' })
						)
				}));
				expect(blocksOf(textOf(blocks))).toEqual(blocks);
			})
		);
	});
});

describe('room for text', () => {
	it('is wider for longer words, and never less for more text', () => {
		expect(textEm('m', 'hyperlegible')).toBeGreaterThan(textEm('i', 'hyperlegible'));
		expect(textEm('mi', 'mono')).toBeCloseTo(2 * textEm('m', 'mono'), 6);
		fc.assert(
			fc.property(
				fc.string({ maxLength: 80 }),
				fc.string({ maxLength: 20 }),
				fc.double({ min: 1, max: 30, noNaN: true }),
				(a, b, em) => {
					expect(linesIn(`${a} ${b}`, em, 'hyperlegible')).toBeGreaterThanOrEqual(linesIn(a, em, 'hyperlegible'));
					expect(linesIn(a, em * 2, 'hyperlegible')).toBeLessThanOrEqual(linesIn(a, em, 'hyperlegible'));
				}
			)
		);
	});
	it('is shared by columns: the widest gives way', () => {
		const rows = [['09:05', 'A place with a very long name indeed']];
		const [first, second] = columnsEm(rows, 12, 'hyperlegible');
		expect(first).toBeCloseTo(textEm('09:05', 'hyperlegible'), 6);
		expect(first! + second! + SET.betweenColumnsEm).toBeCloseTo(12, 6);
	});
	it('says how many rows have it', () => {
		const rows = Array.from({ length: 6 }, (_, n) => [`${n}`, 'word']);
		const fit = (height: number) =>
			fitOf(
				{ title: '', textPx: 20 },
				{ content: { kind: 'rows', heads: [], rows }, note: '' },
				{ width: 400, height },
				'hyperlegible'
			);
		expect(fit(6 * 25).rowsFit).toBe(6);
		expect(fits(fit(6 * 25))).toBe(true);
		expect(fit(6 * 25 - 1).rowsFit).toBe(5);
		expect(fits(fit(6 * 25 - 1))).toBe(false);
	});
});

describe('zones on the grid', () => {
	const place = fc.record({
		x: fc.nat(47),
		y: fc.nat(47),
		w: fc.integer({ min: 1, max: 48 }),
		h: fc.integer({ min: 1, max: 48 })
	});
	const grid = fc.record({ columns: fc.integer({ min: 4, max: 48 }), rows: fc.integer({ min: 4, max: 48 }) });
	it('stay within it, in whatever grid they are put', () => {
		fc.assert(
			fc.property(place, grid, grid, (one, from, to) => {
				const inside = within(one, from);
				expect(inside.x + inside.w).toBeLessThanOrEqual(from.columns);
				const page = { id: 'page-1', title: '', forSec: 9, zones: [{ ...zone('text'), ...inside }] };
				const [again] = regridded([page], from, to);
				const moved = again!.zones[0]!;
				expect(moved.x + moved.w).toBeLessThanOrEqual(to.columns);
				expect(moved.y + moved.h).toBeLessThanOrEqual(to.rows);
				expect(pageSchema.safeParse(again).success).toBe(true);
			})
		);
	});
	it('find the largest free place, which no larger one beats', () => {
		fc.assert(
			fc.property(fc.array(place, { maxLength: 5 }), (all) => {
				const small = { columns: 6, rows: 5 };
				const zones = all.map((one) =>
					within({ x: one.x % 6, y: one.y % 5, w: (one.w % 4) + 1, h: (one.h % 4) + 1 }, small)
				);
				const free = freePlace(zones, small);
				let best = 0;
				for (let x = 0; x < 6; x++)
					for (let y = 0; y < 5; y++)
						for (let w = 1; x + w <= 6; w++)
							for (let h = 1; y + h <= 5; h++)
								if (!zones.some((one) => overlap(one, { x, y, w, h }))) best = Math.max(best, w * h);
				expect(free ? free.w * free.h : 0).toBe(best);
				if (free) expect(zones.some((one) => overlap(one, free))).toBe(false);
			}),
			{ numRuns: 60 }
		);
	});
	it('grow as far as nothing is in the way', () => {
		const one = { ...zone('text'), x: 0, y: 4, w: 6, h: 2 };
		const below = { ...zone('text'), id: 'b', x: 3, y: 8, w: 6, h: 2 };
		expect(stretched(one, [below], GRIDS.portrait)).toMatchObject({ y: 0, h: 8 });
	});
	it('stand in pixels beside each other, with a gap between and within the edges', () => {
		const screen = { widthPx: 1080, heightPx: 1920, edges: { left: 26, right: 28, top: 44, bottom: 48 } };
		const boxes = [0, 6].map((x) => zoneBox(screen, CALM_THEME, GRIDS.portrait, { x, y: 0, w: 6, h: 20 }));
		expect(boxes[0]!.left).toBeCloseTo(26 + 1080 * 0.03, 6);
		expect(boxes[1]!.left - boxes[0]!.left - boxes[0]!.width).toBeCloseTo(1080 * 0.015, 6);
		expect(boxes[1]!.left + boxes[1]!.width).toBeCloseTo(1080 - 28 - 1080 * 0.03, 6);
		expect(boxes[0]!.top + boxes[0]!.height).toBeCloseTo(1920 - 48 - 1080 * 0.03, 6);
	});
	it.each(TEMPLATES.map((template) => [template.title, template] as const))(
		'%s is a page that fits either grid',
		(_, template) => {
			for (const shape of [GRIDS.portrait, GRIDS.landscape]) {
				const { settings, id } = withTemplate({ ...CALM_NOTICES, grid: shape }, template, 60);
				const page = settings.pages.find((one) => one.id === id)!;
				expect(pageSchema.safeParse(page).error).toBeUndefined();
				for (const one of page.zones) {
					expect(within(one, shape)).toEqual({ x: one.x, y: one.y, w: one.w, h: one.h });
					if (one.feed) expect(settings.feeds.map((feed) => feed.id)).toContain(one.feed);
					for (const other of page.zones) if (other !== one) expect(overlap(one, other)).toBe(false);
				}
			}
		}
	);
	it('a new one takes what is free', () => {
		const { page, id } = withNewZone(
			{ id: 'page-1', title: '', forSec: 9, zones: [{ ...zone('text'), w: 12, h: 10 }] },
			'clock',
			GRIDS.portrait
		);
		expect(page.zones.find((one) => one.id === id)).toMatchObject({ y: 10, w: 12, h: 2 });
	});
});

describe('colours', () => {
	it('have the contrast that the standard reckons', () => {
		expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 6);
		expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
		for (const { theme } of THEMES)
			for (const which of ['ink', 'accent'] as const)
				expect(contrast(theme[which], theme.panel)).toBeGreaterThanOrEqual(7);
	});
	it('are moved no further than they must be', () => {
		const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
		fc.assert(
			fc.property(hex, hex, (ink, ground) => {
				const better = towardsContrast(ink, [ground], 4.5);
				expect(better).not.toBeNull();
				expect(contrast(better!, ground)).toBeGreaterThanOrEqual(4.5);
				if (contrast(ink, ground) >= 4.5) expect(better).toBe(ink);
			})
		);
	});
});

describe('what is seen from afar', () => {
	const screen: NoticeScreen = {
		widthPx: 1920,
		heightPx: 1080,
		edges: { left: 0, right: 0, top: 0, bottom: 0 },
		panel: { diagonalIn: 40, aspectWidth: 16, aspectHeight: 9 },
		modeRows: 1080,
		distanceM: 2,
		reader: { eyes: 'usual', light: 'room', angleDeg: 0 }
	} as NoticeScreen;
	it('a code is a tenth of the way for 25 modules, and has four free ones on each side', () => {
		const heightMm = (40 * 25.4 * 9) / Math.hypot(16, 9);
		expect(codePxFrom(screen, 21)).toBe(Math.ceil(((2000 / 10 / 25) * (21 + 8) * 1080) / heightMm));
	});
	it('text is larger the brighter the light on the glass is, and the more from the side it is read', () => {
		const px = (reader: Partial<NoticeScreen['reader']>): number =>
			smallestTextPx({ ...screen, reader: { ...screen.reader, ...reader } }, CALM_THEME)!;
		const byLight = (['room', 'bright', 'daylight'] as const).map((light) => px({ light }));
		expect(byLight).toEqual([...byLight].sort((a, b) => a - b));
		expect(new Set(byLight).size).toBe(3);
		expect(px({ angleDeg: 50 })).toBeGreaterThan(px({ angleDeg: 0 }) * 1.3);
		expect(px({ eyes: 'weak' })).toBeGreaterThan(px({ eyes: 'usual' }));
	});
	it('what is too wide by a pixel, or too high, does not fit', () => {
		const just = { heightPx: 100, roomPx: 100, widthPx: 200, roomWidthPx: 200, rowsFit: null };
		expect(fits(just)).toBe(true);
		expect(fits({ ...just, widthPx: 201 })).toBe(false);
		expect(fits({ ...just, heightPx: 101 })).toBe(false);
	});
});

describe('what was shown', () => {
	const line = (at: string, id: string, title = id) =>
		`[1:INFO:CONSOLE(1)] "yphos-page shows ${at} ${JSON.stringify([id, title, 'r'])}", source: x`;
	it('is counted from the log, and no longer than the page was alive', () => {
		const read = readPlayed(
			[
				line('2026-11-27T09:00:00.000Z', 'page-a', '=1+1'),
				'something else',
				line('2026-11-27T09:00:20.000Z', 'page-b'),
				'"yphos-page alive 2026-11-27T09:01:20.000Z "',
				line('2026-11-27T11:00:00.000Z', 'page-a', '=1+1'),
				line('2026-11-27T11:00:30.000Z', 'page-b')
			].join('\n')
		);
		if (!read.ok) throw new Error('unread');
		expect(read.value.map(({ forMs }) => forMs)).toEqual([20_000, 60_000, 30_000, null]);
		expect(countPlayed(read.value)).toBe("item,title,times,seconds\npage-b,page-b,2,60.0\npage-a,'=1+1,2,50.0\n");
		expect(playedCsv(read.value).split('\n')[1]).toBe("2026-11-27T09:00:00.000Z,page-a,'=1+1,r,20.0");
		expect(readPlayed('nothing').ok).toBe(false);
		// It says each minute that it is alive; a minute and a half later it may have been dead.
		for (const [aliveAt, shownMs] of [
			['2026-11-27T09:01:29.999Z', 89_999],
			['2026-11-27T09:01:30.000Z', 0]
		] as const) {
			const silent = readPlayed(
				`${line('2026-11-27T09:00:00.000Z', 'a')}\n"yphos-page alive ${aliveAt} "\n${line('2026-11-27T12:00:00.000Z', 'b')}`
			);
			expect(silent.ok && silent.value[0]!.forMs).toBe(shownMs);
		}
		// What was to be shown and is not there was not shown.
		const lacks = readPlayed(
			`${line('2026-11-27T09:00:00.000Z', 'a')}\n${line('2026-11-27T09:00:20.000Z', 'gone')}\n"yphos-page lacks 2026-11-27T09:00:20.100Z ["gone"]"`
		);
		expect(lacks.ok && lacks.value.map(({ id, forMs }) => [id, forMs])).toEqual([['a', 20_000]]);
	});
});

it('reads what a real start wrote into its journal', () => {
	const read = readPlayed(
		String.raw`[  196.696] hatch cage[356]: [356:356:1124/120316.726041:ERROR:dbus/object_proxy.cc:572] Failed to call method: org.freedesktop.DBus.NameHasOwner
[  247.519831] hatch cage[356]: [356:356:1124/120407.554030:INFO:CONSOLE:89] "yphos-page shows 2026-11-24T12:04:07.372Z ["s3","Mind the steps",""]", source: file:///opt/yphos/notices/player.js (89)
[  256.278672] hatch cage[356]: [356:356:1124/120416.320219:INFO:CONSOLE:89] "yphos-page shows 2026-11-24T12:04:16.310Z ["page-tides","Tides and times",""]", source: file:///opt/yphos/notices/player.js (89)
[  276.362430] hatch cage[356]: [356:356:1124/120436.385515:INFO:CONSOLE:89] "yphos-page shows 2026-11-24T12:04:36.327Z ["s1","Ferry times",""]", source: file:///opt/yphos/notices/player.js (89)`
	);
	expect(read.ok && read.value.map(({ title, forMs }) => [title, forMs])).toEqual([
		['Mind the steps', 8938],
		['Tides and times', 20_017],
		['Ferry times', null]
	]);
});

it('publishes the shape of weather as it is read', () => {
	const published = readFileSync(resolve(import.meta.dirname, '../../../../docs/weather.schema.json'), 'utf8');
	expect(JSON.parse(published), 'make it anew: npx yphos schema weather > docs/weather.schema.json').toEqual(
		JSON.parse(JSON.stringify(weatherJsonSchema()))
	);
});
