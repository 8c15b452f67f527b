import type { Machine } from '../../../engines/machine';
import { shownIn, type Content, type NoticeWorld } from '../pages/content';
import { FEED_OF, type Zone } from '../settings';

import type { OpenedPage, Tell } from './openedPage';

/** Where the page looks for an entry's file, from the folder that it lies in. */
const pathOf = (address: string, folder: string): string =>
	decodeURIComponent(
		address.startsWith('file://')
			? address.slice('file://'.length)
			: address.replace(/^\.\.\//, `${folder.slice(0, folder.lastIndexOf('/'))}/`)
	);

/** Codecs for which Chromium has no decoder without a circuit. Source: its media/ffmpeg and BUILD options in Debian; tried. */
const UNKNOWN_FILMS = /^(?:h265|mpeg2|mpeg4|vc1|wmv3|prores)$/;

/** Scripts that need a typeface of their own, and who brings it. Source: the descriptions of the packages, and their coverage by fc-query. */
const DRAWN_BY: readonly (readonly [RegExp, string])[] = [
	[/[\u3040-\u30ff\u3400-\u9fff\uac00-\ud7a3]/u, 'fonts-noto-cjk'],
	[/[\u0900-\u0dff\u0e01-\u0e5b\u0f00-\u109f\u1200-\u137f\u13a0-\u13ff\u1780-\u18af]/u, 'fonts-noto-core'],
	[/[\u{1f300}-\u{1f5ff}\u{1f600}-\u{1f64f}\u{1f680}-\u{1f6ff}\u{1f900}-\u{1f9ff}]/u, 'fonts-noto-color-emoji']
];

/** What the zones of a page lack, told once: feeds, files, letters, and films that no browser here plays. */
export class ZoneJudge {
	/** What is wrong with zones, and the heading under which it was last said. */
	readonly #troubled = new Map<string, string>();
	readonly #judged = new Set<string>();
	/** Pages of which it was said that letters are missing. */
	readonly #boxed = new Set<string>();
	readonly #said = new Set<string>();

	constructor(
		readonly machine: Machine,
		readonly tell: Tell,
		readonly page: OpenedPage
	) {}

	judge(pageId: string, world: NoticeWorld): void {
		const page = this.page.show.pages.find(({ id }) => id === pageId);
		const title = page?.title || pageId;
		for (const zone of page?.zones ?? []) {
			for (const entry of zone.entries) this.isMissing(entry, title);
			const key = `${pageId} ${zone.id}`;
			// Only what comes from a feed is another matter an hour later.
			if (this.#judged.has(key) && FEED_OF[zone.shows] === undefined) continue;
			this.#judged.add(key);
			this.#judgeZone(zone, key, title, world);
		}
	}

	#judgeZone(zone: Zone, key: string, title: string, world: NoticeWorld): void {
		const { trouble, content } = shownIn(zone, world);
		this.#tellBoxes(content, title, zone);
		const names = { page: title, zone: zone.title || zone.shows };
		const before = this.#troubled.get(key);
		if (!trouble && before !== undefined) {
			this.#troubled.delete(key);
			this.tell.event('zone-again', 'good', names);
		}
		// How old it is grows by the hour; that it is old is said once.
		if (!trouble || before === trouble.why) return;
		this.#troubled.set(key, trouble.why);
		// A day that is over is no fault where the zone has words for it.
		const isPlanned = trouble.why === 'empty' && zone.whenOld !== 'beside';
		this.tell.event('zone-lacks', isPlanned ? 'info' : 'bad', { ...names, why: trouble.said });
	}

	/** Letters that no typeface of the endpoint has: each page says it once. */
	#tellBoxes(content: Content, title: string, zone: Zone): void {
		if (this.#boxed.has(title)) return;
		const text =
			content.kind === 'media' || content.kind === 'code' ? zone.title : JSON.stringify(content) + zone.title;
		const lacking = DRAWN_BY.filter(
			([letters, name]) => letters.test(text) && this.machine.disk.packages.get(name) !== 'installed'
		);
		if (lacking.length === 0) return;
		const letters = [...new Set(text)].filter((letter) => lacking.some(([its]) => its.test(letter)));
		this.#boxed.add(title);
		const zoneName = zone.title || zone.shows;
		this.tell.event('boxes', 'bad', { page: title, zone: zoneName, letters: letters.slice(0, 8).join(' ') });
	}

	/** Where an entry's file lies; one that is not listed goes by its name. */
	pathOn(entry: string): string {
		const address = this.page.show.media[entry];
		return address === undefined ? entry : pathOf(address, this.page.folder);
	}

	/** The entry's file is neither on the endpoint nor copied by hand. */
	isMissing(entry: string, title: string): boolean {
		const { machine, tell } = this;
		const path = this.pathOn(entry);
		const there = this.page.show.media[entry] !== undefined && machine.disk.get(path) !== undefined;
		const copied = machine.bench.media.some(({ location }) => location === path);
		if (copied) machine.assumed.add('the files that you copy yourself are there');
		this.#tellUnplayed(path, title);
		if (there || copied) return false;
		if (!this.#said.has(path)) tell.event('media-missing', 'bad', { title, path });
		this.#said.add(path);
		return true;
	}

	#tellUnplayed(path: string, title: string): void {
		const codec = this.machine.bench.media.find(({ location }) => location === path)?.picture?.codec;
		if (codec === undefined || !UNKNOWN_FILMS.test(codec) || this.#said.has(`film ${path}`)) return;
		this.#said.add(`film ${path}`);
		this.tell.event('film-unplayed', 'bad', { title, codec });
	}
}
