/**
 * The player page: shows by its own clock what the show in index.html says. It never shows an error: what is missing is left out, and
 * what breaks begins anew. What it has shown it says on the console, which the service's log keeps.
 */
import { BY_HAND_PATH, readByHand } from '../core/files/byHand';
import { itemAt } from '../core/onAir/item';
import { DRAWS, READS_FEEDS } from '../core/links/notices/places';
import { showSchema, type Show } from '../core/links/notices/pages/show';
import { worldOf, type Fetched } from '../core/links/notices/pages/world';
import { PageView, type Stage } from './draw';

/** A wish by phone is looked for so often. */
const ORDERS_MS = 2000;
/** Feeds on the disk are looked at so often. */
const LOOK_MS = 20_000;
/** After a fault of its own it begins anew, but not in a whirl. */
const AGAIN_MS = 10_000;
/** It says at least so often that it is alive. */
const ALIVE_MS = 60_000;

// Before anything can break.
window.addEventListener('error', () => setTimeout(() => location.reload(), AGAIN_MS));
window.addEventListener('unhandledrejection', () => setTimeout(() => location.reload(), AGAIN_MS));

const read = showSchema.parse(JSON.parse(document.getElementById('show')!.textContent));
const view = new PageView();
const whole = document.createElement('div');
whole.className = 'notice-stage';
document.body.append(whole);
const fetched = new Map<string, Fetched>();
let isOn = '';
/** When the turn of what is on began. */
let turnMs = 0;
/** The film or sound of the list that is on. */
let playing: HTMLMediaElement | null = null;
let saidMs = -Infinity;

const say = (what: string, more: string): void => {
	saidMs = performance.now();
	console.info(`yphos-page ${what} ${new Date().toISOString()} ${more}`);
};

function scale({ screen }: Show): void {
	const by = Math.min(innerWidth / screen.widthPx, innerHeight / screen.heightPx);
	whole.style.width = `${screen.widthPx}px`;
	whole.style.height = `${screen.heightPx}px`;
	whole.style.transform = `translate(${(innerWidth - screen.widthPx * by) / 2}px, ${(innerHeight - screen.heightPx * by) / 2}px) scale(${by})`;
}

/** Another way each minute, as the player of pictures does it. */
const WAYS = [
	[0, 0],
	[1, 0],
	[1, 1],
	[0, 1],
	[-1, 1],
	[-1, 0],
	[-1, -1],
	[0, -1],
	[1, -1]
] as const;
function shift({ screen, shifts }: Show, utcMs: number): void {
	if (!shifts) return;
	const [across, down] = WAYS[Math.floor(utcMs / 60_000) % WAYS.length]!;
	view.root.style.transform = `translate(${across * screen.widthPx * 0.003}px, ${down * screen.heightPx * 0.003}px)`;
}

const stage: Stage = { ...read, mediaOf: (entry) => read.media[entry] ?? null };

/** A still, a film or a sound of the list fills the screen; what cannot be opened leaves it as it was. */
function showWhole(
	{
		id,
		kind,
		lastsMs
	}: { readonly id: string; readonly kind: 'still' | 'film' | 'sound'; readonly lastsMs: number | null },
	fromMs: number,
	quieterDb: number
): void {
	const address = read.media[id];
	const wanted = isOn;
	const lacks = (): void => {
		if (isOn === wanted) say('lacks', JSON.stringify([id]));
	};
	const made = document.createElement(kind === 'still' ? 'img' : kind === 'film' ? 'video' : 'audio');
	made.className = 'notice-whole fit-whole';
	if (address === undefined) return lacks();
	made.onerror = lacks;
	made.src = address;
	// Nothing stands where the set cuts it off.
	const { edges, widthPx, heightPx } = read.screen;
	Object.assign(made.style, {
		left: `${edges.left}px`,
		top: `${edges.top}px`,
		width: `${widthPx - edges.left - edges.right}px`,
		height: `${heightPx - edges.top - edges.bottom}px`
	});
	const begin = (): void => {
		// A picture that comes late does not take the place of what is on by then.
		if (isOn !== wanted) return;
		if (kind === 'sound') whole.append(made);
		else whole.replaceChildren(made);
	};
	if (made instanceof HTMLImageElement) {
		made.alt = '';
		made.onload = begin;
	} else {
		playing = made;
		made.currentTime = fromMs / 1000;
		made.volume = 10 ** (-quieterDb / 20);
		made.autoplay = true;
		// How long it is nobody knows: it goes by its own end.
		made.loop = lastsMs === null;
		begin();
		// Without sound rather than not at all.
		made.play().catch(() => {
			if (playing !== made) return;
			made.muted = true;
			made.play().catch(() => undefined);
		});
	}
}

/** What is on, reckoned again when that is over or the clock is put back. */
let now: ReturnType<typeof itemAt<Show['lists'][string][number]>> | null = null;
let reckonedMs = 0;
/** What somebody with a phone wants to be seen. */
let ordered: ReturnType<typeof readByHand> = null;
function onNow(
	utcMs: number
): Pick<NonNullable<typeof now>, 'item' | 'index' | 'show' | 'line'> & { readonly beganUtcMs: number } {
	const page = read.pages.find(({ id }) => id === ordered?.id);
	if (ordered && page && utcMs < ordered.untilUtcMs)
		return {
			item: { id: page.id, title: page.title, kind: 'page', lastsMs: null, fromMs: 0, quieterDb: 0, days: null },
			show: 'by hand',
			line: null,
			index: -1,
			beganUtcMs: utcMs
		};
	if (!now || utcMs < reckonedMs || utcMs >= now.untilUtcMs) {
		reckonedMs = utcMs;
		now = itemAt(read.book, (list) => read.lists[list] ?? [], utcMs);
	}
	return { ...now, beganUtcMs: reckonedMs - now.intoMs };
}

/** What stood until now goes slowly, above what comes; a picture that comes late still comes after it. */
function fade(): void {
	if (read.fadeMs === 0 || whole.childElementCount === 0) return;
	const before = document.createElement('div');
	before.className = 'notice-goes';
	before.append(...[...whole.children].filter((child) => !(child instanceof HTMLAudioElement)).map(still));
	document.querySelectorAll('.notice-goes').forEach((gone) => gone.remove());
	document.body.append(before);
	Object.assign(before.style, {
		width: whole.style.width,
		height: whole.style.height,
		transform: whole.style.transform
	});
	void before
		.animate([{ opacity: 1 }, { opacity: 0 }], { duration: read.fadeMs, easing: 'ease-in-out' })
		.finished.finally(() => before.remove());
}
/** A film that goes is left where it was, and is not begun anew. */
const still = (child: Element): Element =>
	child instanceof HTMLVideoElement ? child : (child.cloneNode(true) as Element);

/** What is alone in its list has its turn again: the same film from its beginning, without a gap. */
function playAgain(fromMs: number): void {
	if (!playing || playing.loop) return;
	playing.currentTime = fromMs / 1000;
	playing.play().catch(() => undefined);
}

function tick(): void {
	const utcMs = Date.now();
	const { item, index, beganUtcMs, show, line } = onNow(utcMs);
	const key = `${show} ${line?.rule ?? ''} ${index} ${item?.id ?? ''}`;
	if (key !== isOn) {
		isOn = key;
		document.documentElement.dataset.item = item?.id ?? '';
		document.documentElement.dataset.rule = line?.rule ?? '';
		say('shows', JSON.stringify([item?.id ?? '', item?.title ?? '', line?.title ?? '']));
		fade();
		// A film that stays in sight while a sound plays is not to be heard with it.
		playing?.pause();
		playing = null;
		whole.querySelectorAll('audio').forEach((sound) => sound.remove());
		if (!item) whole.replaceChildren();
		else if (item.kind === 'page')
			whole.replaceChildren(...(read.pages.some(({ id }) => id === item.id) ? [view.root] : []));
		else if (item.kind !== 'stream')
			showWhole(
				{ ...item, kind: item.kind },
				item.fromMs + utcMs - beganUtcMs,
				item.quieterDb + (line?.quieterDb ?? 0)
			);
	} else if (item && beganUtcMs !== turnMs) playAgain(item.fromMs + utcMs - beganUtcMs);
	turnMs = beganUtcMs;
	const page = item?.kind === 'page' ? read.pages.find(({ id }) => id === item.id) : undefined;
	if (page) view.show(page, stage, worldOf(read, utcMs, fetched));
	shift(read, utcMs);
	if (performance.now() - saidMs > ALIVE_MS) say('alive', '');
}

/** A file beside the page or on the disk; null: there is none, or none may be read. */
const fileText = (address: string): Promise<string | null> =>
	new Promise((resolve) => {
		const request = new XMLHttpRequest();
		request.open('GET', address);
		request.onload = () => resolve(request.responseText);
		request.onerror = () => resolve(null);
		request.send();
	});

async function look(): Promise<void> {
	for (const { id, path } of read.feeds) {
		if (!path) continue;
		const text = await fileText(`file://${path}`);
		const when = Number(await fileText(`file://${path}.when`));
		if (text !== null && when > 0) fetched.set(id, { text, fetchedUtcMs: when * 1000 });
	}
}

/** Stands still for being drawn, as the address asks behind its #; false: it plays. */
function standsStill(): boolean {
	const asked = new URLSearchParams(location.hash.slice(1));
	const page = read.pages.find(({ id }) => id === asked.get(DRAWS.page));
	const utcMs = Number(asked.get(DRAWS.utcMs));
	if (!page || !Number.isFinite(utcMs)) return false;
	const without = (asked.get(DRAWS.without) ?? '').split(',');
	whole.replaceChildren(view.root);
	view.show(
		{ ...page, zones: page.zones.filter(({ id }) => !without.includes(id)) },
		stage,
		worldOf(read, utcMs, fetched, true)
	);
	const { hash } = location;
	void Promise.allSettled([...document.images].map((image) => image.decode())).then(
		() => (document.documentElement.dataset.drawn = hash)
	);
	return true;
}

scale(read);
addEventListener('resize', () => scale(read));
// Once the typefaces are there, so that nothing jumps.
void document.fonts.ready.then(() => {
	if (standsStill()) return addEventListener('hashchange', standsStill);
	tick();
	setInterval(tick, 250);
	// On the endpoint alone: elsewhere the browser would refuse, and say so.
	if (location.search === READS_FEEDS && read.byHand)
		setInterval(() => void fileText(`file://${BY_HAND_PATH}`).then((text) => (ordered = readByHand(text))), ORDERS_MS);
	if (location.search === READS_FEEDS && read.feeds.some(({ path }) => path)) {
		const again = (): void => void look().finally(() => setTimeout(again, LOOK_MS));
		again();
	}
});
