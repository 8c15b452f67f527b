import { PLAYER_SHA256 } from 'virtual:player-digest';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { OTHERS_READ, tellerFor, type Machine, type Process, type Teller } from '../../engines/machine';
import { BY_HAND_PATH, readByHand } from '../../files/byHand';
import { PLAYER_UNIT } from '../../files/cardFile';
import { CONTENT_TRYING } from '../../files/content';
import { hungEdges } from '../../standards/edges';
import { itemAt } from '../../onAir/item';
import { shownIn, type Content } from './pages/content';
import { ALIVE, ALIVE_PATH, MISSED_PATH, MOST_MISSED } from './kiosk/alive';
import { BROWSER } from './kiosk/kiosk';
import { POLICY } from './pages/policy';
import { rehearsePictures } from './drawn/rehearsePictures';
import { READS_FEEDS } from './places';
import { showSchema, type Show } from './pages/show';
import { FEED_OF, type Zone } from './settings';
import { worldOf, type Fetched } from './pages/world';
import { NOTICES_WORDS } from './words';

/** The compositor has the screen; from there to the first page. Typical of a board with a slow card; on an emulated machine much more. */
const COMPOSITOR_MS = 1500;
const BROWSER_MS = 9000;
/** Without a screen the compositor gives up. Measured on a real start. */
const NO_SCREEN_MS = 10_000;
/** As often as the page itself looks for a wish by phone, and at its feeds. */
const ORDERS_MS = 2000;
const LOOK_MS = 20_000;
/** It says at least so often that it is alive. */
const ALIVE_MS = 60_000;
/** By then whatever is fetched has come once. */
const FETCHED_BY_MS = 300_000;
/** Here its zones are judged so often, once all has been shown. */
const FEEDS_MS = 600_000;
/** After the first day with it: what grows old by the hour is told to the hour. */
const LATER_MS = 3_600_000;
const FIRST_DAY_MS = 86_400_000;

const digests = new WeakMap<Uint8Array, string>();
function sha256Hex(bytes: Uint8Array): string {
	let digest = digests.get(bytes);
	if (!digest) digests.set(bytes, (digest = bytesToHex(sha256(bytes))));
	return digest;
}

type Tell = Teller<typeof NOTICES_WORDS>;

/** The compositor with its browser, the page by its own clock, and the program that fetches feeds. */
export default function rehearseNotices(machine: Machine): void {
	const tell = tellerFor(machine, 'notices', NOTICES_WORDS);
	machine.programs.set('/usr/bin/cage', (process) => compose(machine, process, tell));
	machine.web.push((address) => {
		const feed = machine.bench.feeds.find((known) => known.address === address);
		if (!feed) return null;
		if (machine.activeFaults.has('feed-refuses')) return { code: 22, why: 'The requested URL returned error: 503' };
		return { text: machine.activeFaults.has('feed-wrong') ? '<p>Sorry, back soon.</p>\n' : feed.text, bytes: null };
	});
	rehearseAlive(machine);
	rehearsePictures(machine, tell);
	machine.on('fault', ({ name, on }) => {
		if (name === 'page-crashes' && on) {
			for (const crash of crashes.get(machine) ?? []) crash();
		}
		if (name === 'feed-refuses') tell.event(on ? 'feed-refuses' : 'feed-answers', 'fault');
	});
}

/** Pages that run, and what makes each crash. */
const crashes = new WeakMap<Machine, Set<() => void>>();

/** What page-alive.sh does, by heart: it is run hundreds of times a day. That the script does the same is shown in a real shell. */
function rehearseAlive(machine: Machine): void {
	const { disk } = machine;
	// What lies below /run is gone with the power.
	machine.on('mains-off', () => {
		disk.remove(MISSED_PATH);
		crashes.delete(machine);
	});
	const isAlive = (): boolean => (crashes.get(machine)?.size ?? 0) > 0;
	machine.byHeart.set(ALIVE_PATH, {
		text: `${ALIVE.join('\n')}\n`,
		idles: () => isAlive() && disk.get(MISSED_PATH) === undefined,
		program: (process) => {
			const onTrial = disk.get(CONTENT_TRYING) !== undefined;
			if (onTrial || isAlive() || !machine.systemd.isActive(PLAYER_UNIT)) disk.remove(MISSED_PATH);
			else {
				const times = Number(disk.read(MISSED_PATH) ?? 0) + 1;
				if (times < MOST_MISSED) disk.put(MISSED_PATH, { text: `${times}\n`, bytes: null });
				else {
					disk.remove(MISSED_PATH);
					process.err('the page has been silent for minutes: the browser is begun anew\n');
					machine.systemd.stop(PLAYER_UNIT);
					machine.systemd.start(PLAYER_UNIT);
				}
			}
			process.exit(0);
		}
	});
}

/** What the compositor needs before it can begin; null: nothing is missing. Source: cage(1), wlroots 0.15; tried on a real start. */
function lacks(machine: Machine, process: Process): string | null {
	const { env, unit } = process;
	const runDir = env.get('XDG_RUNTIME_DIR') ?? '';
	if (!runDir) return 'XDG_RUNTIME_DIR is not set in the environment';
	const refused = machine.systemd.mayWrite(unit, `${runDir}/wayland-0`);
	if (refused || machine.disk.kind(runDir) === null) return `unable to open Wayland socket in ${runDir}`;
	if (env.get('WLR_LIBINPUT_NO_DEVICES') !== '1') return 'libinput initialization failed, no input devices';
	if (env.get('WLR_RENDERER') !== 'pixman') return 'Could not initialize renderer';
	if (machine.disk.packages.get('seatd') !== 'installed') return 'Unable to create seat';
	if (machine.disk.packages.get('xwayland') !== 'installed') return 'Cannot find Xwayland binary';
	return null;
}

function compose(machine: Machine, process: Process, tell: Tell): void {
	const args = process.argv.slice(1);
	const split = args.indexOf('--');
	const own = split < 0 ? [] : args.slice(0, split);
	const [browser = '', ...options] = split < 0 ? args : args.slice(split + 1);
	const fails = (why: string, afterMs = 200): void => {
		tell.event('compositor-fails', 'bad', { why });
		machine.emit('player-fails', tell.said('ended', { why }));
		process.err(`${why}\n`);
		process.after(afterMs, () => process.exit(1));
	};
	for (const option of own) if (option !== '-d' && option !== '-r') return fails(`cage: invalid option ${option}`);
	const why = lacks(machine, process);
	if (why !== null) return fails(why);
	if (!machine.disk.isExecutable(browser)) return fails(`Failed to run ${browser}`);
	if (browser !== BROWSER) machine.unknown(`${browser}: what it shows is not known here`);
	const turn = (360 - 90 * own.filter((option) => option === '-r').length) % 360;
	process.after(COMPOSITOR_MS, () => browse(machine, process, tell, turn as 0 | 90 | 180 | 270, options, fails));
}

/** Options that decide whether and how the page is seen. */
const NEEDED: Readonly<Record<string, string>> = {
	'--ozone-platform=wayland': 'the browser finds no display',
	'--kiosk': 'the page does not fill the screen'
};
const KNOWN_OPTIONS = [
	...['--kiosk', '--ozone-platform', '--disable-gpu', '--no-first-run', '--noerrdialogs', '--hide-scrollbars'],
	...['--disable-background-networking', '--disable-component-update', '--disable-sync', '--disable-pinch'],
	...['--overscroll-history-navigation', '--ipc-connection-timeout', '--password-store'],
	...['--allow-file-access-from-files', '--autoplay-policy', '--enable-logging', '--user-data-dir']
];

function browse(
	machine: Machine,
	process: Process,
	tell: Tell,
	turn: 0 | 90 | 180 | 270,
	options: readonly string[],
	fails: (why: string, afterMs?: number) => void
): void {
	if (!machine.systemd.isOther(process.unit)) tell.event('as-root', 'bad');
	for (const option of options)
		if (option.startsWith('--') && !KNOWN_OPTIONS.includes(option.split('=')[0]!))
			machine.unknown(`the browser's option ${option}`);
	const missing = Object.keys(NEEDED).find((option) => !options.includes(option));
	if (missing) return fails(NEEDED[missing]!);
	const kept = options.find((option) => option.startsWith('--user-data-dir='))?.slice('--user-data-dir='.length) ?? '';
	if (kept === '' || machine.systemd.mayWrite(process.unit, kept) !== null)
		return fails(`the browser may not write its profile to ${kept || 'its home'}`);
	const address = options.find((option) => !option.startsWith('--')) ?? '';
	const page = readShow(machine, tell, address);
	const show = page?.show;
	const edges = show ? hungEdges(show.screen.edges, ((360 - turn) % 360) as typeof turn) : null;
	const across = turn % 180 === 0;
	const width = show ? (across ? show.screen.widthPx : show.screen.heightPx) : 1;
	const height = show ? (across ? show.screen.heightPx : show.screen.widthPx) : 1;
	const opened = machine.offers.openScreen?.(process.unit, {
		connector: null,
		mode: 'preferred',
		turnDeg: turn,
		margins: edges
			? { left: edges.left / width, right: edges.right / width, top: edges.top / height, bottom: edges.bottom / height }
			: { left: 0, right: 0, top: 0, bottom: 0 },
		// The page is laid out for all that it has.
		stretches: true,
		levels: 'auto'
	});
	if (opened === undefined || typeof opened === 'string') {
		const said = opened ?? 'this endpoint has no screen';
		tell.event('no-screen', 'bad', { why: said });
		return fails('Found 0 GPUs, cannot create backend', NO_SCREEN_MS);
	}
	process.onKill(() => opened.close());
	tell.event('browser-begins', 'info');
	if (!page) return machine.emit('player-fails', tell.said('white'));
	const mayReadFeeds = options.includes('--allow-file-access-from-files') && address.endsWith(READS_FEEDS);
	process.after(BROWSER_MS, () => run(machine, process, tell, page, opened, mayReadFeeds));
}

/** What a page shows, and the folder that it lies in. */
interface Opened {
	readonly show: Show;
	readonly folder: string;
}
/** The page as it stands on the disk, and its parts; null: nothing comes of it. */
function readShow(machine: Machine, tell: Tell, address: string): Opened | null {
	const path = /^file:\/\/(\/[^?#]*)/.exec(address)?.[1] ?? '';
	const read = (at: string): { readonly text: string; readonly bytes: Uint8Array | null } | null => {
		const file = machine.disk.get(at);
		// The browser is somebody else than the administrator.
		return file && (parseInt(file.mode, 8) & OTHERS_READ) !== 0 ? file : null;
	};
	const page = read(path);
	if (!page) {
		tell.event('page-missing', 'bad', { path: path || address });
		return null;
	}
	const folder = path.slice(0, path.lastIndexOf('/'));
	const script = /<script src="([\w.-]+)" defer><\/script>/.exec(page.text)?.[1];
	const program = script === undefined ? null : read(`${folder}/${script}`);
	if (!program) {
		tell.event('part-missing', 'bad', { path: `${folder}/${script ?? 'player.js'}` });
		return null;
	}
	const bytes = program.bytes ?? new TextEncoder().encode(program.text);
	if (sha256Hex(bytes) !== PLAYER_SHA256) {
		machine.unknown(`${folder}/${script} is not as it was written: what it does is left out`);
		return null;
	}
	const policy = /http-equiv="Content-Security-Policy" content="([^"]*)"/.exec(page.text)?.[1];
	if (policy === undefined) tell.event('policy-open', 'bad');
	else if (policy !== POLICY) {
		tell.event('script-kept-out', 'bad');
		return null;
	}
	const style = /<link rel="stylesheet" href="([\w.-]+)">/.exec(page.text)?.[1];
	if (style === undefined || !read(`${folder}/${style}`)) {
		tell.event('part-missing', 'bad', { path: `${folder}/${style ?? 'style.css'}` });
		return null;
	}
	const block = /<script type="application\/json" id="show">([\s\S]*?)<\/script>/.exec(page.text)?.[1];
	let value: unknown;
	try {
		value = JSON.parse(block ?? '');
	} catch {
		tell.event('page-broken', 'bad', { why: 'what it is to show is no JSON' });
		return null;
	}
	const show = showSchema.safeParse(value);
	if (!show.success) {
		const issue = show.error.issues[0]!;
		tell.event('page-broken', 'bad', { why: `${issue.path.join('.')}: ${issue.message}` });
		return null;
	}
	return { show: show.data, folder };
}

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

type Screen = Exclude<ReturnType<NonNullable<Machine['offers']['openScreen']>>, string>;

/** What the page's own script does, by heart: what is on by its rules, and what each zone shows. */
function run(
	machine: Machine,
	process: Process,
	tell: Tell,
	{ show, folder }: Opened,
	screen: Screen,
	mayReadFeeds: boolean
): void {
	const { screen: size } = show;
	const shape = {
		codec: 'page',
		widthPx: size.widthPx - size.edges.left - size.edges.right,
		heightPx: size.heightPx - size.edges.top - size.edges.bottom,
		framesPerSec: null,
		bitDepth: 8
	};
	let fetched = new Map<string, Fetched>();
	const begunMs = machine.clock.nowMs;
	const neverCame = new Set<string>();
	const look = (): void => {
		fetched = new Map();
		for (const { id, path, title } of show.feeds) {
			const text = path && mayReadFeeds ? machine.disk.read(path) : null;
			const when = Number(path ? machine.disk.read(`${path}.when`) : NaN);
			if (text !== null && when > 0) fetched.set(id, { text, fetchedUtcMs: when * 1000 });
			else if (path && machine.clock.nowMs - begunMs > FETCHED_BY_MS && !neverCame.has(id)) {
				neverCame.add(id);
				tell.event('feed-not-there', 'bad', { title, path });
			}
		}
	};
	/** What is wrong with zones, and the heading under which it was last said. */
	const troubled = new Map<string, string>();
	const judged = new Set<string>();
	const judge = (pageId: string): void => {
		const page = show.pages.find(({ id }) => id === pageId);
		const world = worldOf(show, machine.believedUtcMs, fetched);
		for (const zone of page?.zones ?? []) {
			for (const entry of zone.entries) missing(entry, page!.title || pageId);
			const key = `${pageId} ${zone.id}`;
			// Only what comes from a feed is another matter an hour later.
			if (judged.has(key) && FEED_OF[zone.shows] === undefined) continue;
			judged.add(key);
			const { trouble, content } = shownIn(zone, world);
			boxes(content, page!.title || pageId, zone);
			const names = { page: page!.title || pageId, zone: zone.title || zone.shows };
			const before = troubled.get(key);
			if (!trouble && before !== undefined) {
				troubled.delete(key);
				tell.event('zone-again', 'good', names);
			}
			// How old it is grows by the hour; that it is old is said once.
			if (trouble && before !== trouble.why) {
				troubled.set(key, trouble.why);
				// A day that is over is no fault where the zone has words for it.
				const isPlanned = trouble.why === 'empty' && zone.whenOld !== 'beside';
				tell.event('zone-lacks', isPlanned ? 'info' : 'bad', { ...names, why: trouble.said });
			}
		}
	};
	/** Letters that no typeface of the endpoint has: each page says it once. */
	const boxed = new Set<string>();
	const boxes = (content: Content, title: string, zone: Zone): void => {
		if (boxed.has(title)) return;
		const text =
			content.kind === 'media' || content.kind === 'code' ? zone.title : JSON.stringify(content) + zone.title;
		const lacking = DRAWN_BY.filter(
			([letters, name]) => letters.test(text) && machine.disk.packages.get(name) !== 'installed'
		);
		if (lacking.length === 0) return;
		const letters = [...new Set(text)].filter((letter) => lacking.some(([its]) => its.test(letter)));
		boxed.add(title);
		tell.event('boxes', 'bad', { page: title, zone: zone.title || zone.shows, letters: letters.slice(0, 8).join(' ') });
	};
	const said = new Set<string>();
	const unplayed = (path: string, title: string): void => {
		const codec = machine.bench.media.find(({ location }) => location === path)?.picture?.codec;
		if (codec === undefined || !UNKNOWN_FILMS.test(codec) || said.has(`film ${path}`)) return;
		said.add(`film ${path}`);
		tell.event('film-unplayed', 'bad', { title, codec });
	};
	/** Where an entry's file lies; one that is not listed goes by its name. */
	const pathOn = (entry: string): string => {
		const address = show.media[entry];
		return address === undefined ? entry : pathOf(address, folder);
	};
	const missing = (entry: string, title: string): boolean => {
		const path = pathOn(entry);
		const there = show.media[entry] !== undefined && machine.disk.get(path) !== undefined;
		const copied = machine.bench.media.some(({ location }) => location === path);
		if (copied) machine.assumed.add('the files that you copy yourself are there');
		unplayed(path, title);
		if (there || copied) return false;
		if (!said.has(path)) tell.event('media-missing', 'bad', { title, path });
		said.add(path);
		return true;
	};
	if (show.fadeMs > 0) machine.unknown('how one page fades into the next');
	const kinds = Object.values(show.lists).flatMap((list) => list.map(({ kind }) => kind));
	if (kinds.some((kind) => kind === 'film' || kind === 'sound')) machine.unknown('the sound of what a page plays');
	else machine.emit('player-silent', tell.said('silent'));
	let crashed = false;
	const running = crashes.get(machine) ?? new Set();
	crashes.set(machine, running);
	const crash = (): void => {
		crashed = true;
		running.delete(crash);
		tell.event('page-crashes', 'bad');
		screen.blank();
		machine.emit('player-fails', tell.said('crashed'));
	};
	running.add(crash);
	process.onKill(() => void running.delete(crash));
	let reason = '';
	let saidOf: string | null = null;
	let saidUtcMs = 0;
	let lookedMs = -Infinity;
	/** By list what of it has been shown since it last came on: once round, nothing new comes before it changes. */
	let shown = new Set<string>();
	/** The next look; an earlier one takes its place. */
	let turn = 0;
	const later = (ms: number): void => {
		const mine = ++turn;
		process.after(ms, () => {
			if (mine === turn) tick();
		});
	};
	let wish = machine.disk.read(BY_HAND_PATH);
	const { boot } = machine;
	process.onKill(
		machine.world.onChange(() => {
			// Nobody stops it when the power goes.
			if (machine.boot !== boot) return;
			const text = machine.disk.read(BY_HAND_PATH);
			if (text === wish) return;
			wish = text;
			later(ORDERS_MS);
		})
	);
	const tick = (): void => {
		if (crashed) return;
		const nowMs = machine.believedUtcMs;
		if (machine.clock.nowMs - lookedMs >= LOOK_MS) {
			lookedMs = machine.clock.nowMs;
			look();
		}
		const order = show.byHand && mayReadFeeds ? readByHand(machine.disk.read(BY_HAND_PATH)) : null;
		const byHand = order && nowMs < order.untilUtcMs ? show.pages.find(({ id }) => id === order.id) : undefined;
		const on = itemAt(show.book, (list) => show.lists[list] ?? [], nowMs);
		const line = byHand ? null : on.line;
		const item = byHand ? { id: byHand.id, title: byHand.title || byHand.id, kind: 'page' as const } : on.item;
		const why = line?.title ?? '';
		const its = byHand ? `by hand ${byHand.id}` : `${on.show} ${line?.rule ?? ''}`;
		if (its !== reason) {
			reason = its;
			shown = new Set();
			if (byHand) tell.event('by-hand', 'info', { title: item!.title });
			else if (item) tell.event('on-air', 'info', { title: item.title, why });
			else tell.event('rests', 'info', { why });
		}
		if (!item) {
			screen.blank();
			machine.emit('player-rests', tell.said('rests', { why }));
		} else if (item.kind === 'page' && !show.pages.some(({ id }) => id === item.id)) {
			tell.event('page-gone', 'bad', { title: item.title });
			screen.blank();
		} else if (item.kind === 'page') screen.show({ title: item.title, id: `page:${item.id}` }, shape, false);
		else if (!missing(item.id, item.title) && item.kind !== 'sound')
			screen.show(
				{ title: item.title, id: pathOn(item.id) },
				{ ...shape, codec: item.kind, framesPerSec: item.kind === 'film' ? 25 : null },
				false
			);
		if (item) shown.add(item.id);
		// As the page says it: each change, and otherwise once a minute that it is alive.
		const what = item?.id ?? '';
		if (what !== saidOf || nowMs - saidUtcMs > ALIVE_MS) {
			const word = what === saidOf ? 'alive' : 'shows';
			[saidOf, saidUtcMs] = [what, nowMs];
			machine.log(process.unit, `yphos-page ${word} ${new Date(nowMs).toISOString()}`);
		}
		const list = show.lists[on.show] ?? [];
		const isRound = list.every(({ id }) => shown.has(id));
		for (const { id, kind } of list) if (kind === 'page' && (isRound || id === item?.id)) judge(id);
		const ends = byHand ? order!.untilUtcMs : on.endsUtcMs;
		const next =
			isRound || byHand
				? Math.min(ends - nowMs, machine.clock.nowMs - begunMs < FIRST_DAY_MS ? FEEDS_MS : LATER_MS)
				: on.untilUtcMs - nowMs;
		// A clock that is set meanwhile is noticed within a minute of the beginning.
		later(Math.max(250, Math.min(next, machine.clock.nowMs < 600_000 ? 60_000 : Infinity)));
	};
	tick();
}
