// npm run bench: how long the engines take on the demo workshop, and how much a first visit loads.
// Each figure stands beside a reference timed in the same run: one deep copy of the workshop through JSON.
// With --short every row is gone through once and nothing is timed: so that it does not die unseen between two times that somebody asks.
import { spawn } from 'node:child_process';
import {
	closeSync,
	copyFileSync,
	ftruncateSync,
	mkdirSync,
	mkdtempSync,
	openAsBlob,
	openSync,
	readdirSync,
	readFileSync,
	rmSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { createServer } from 'vite';
import { ensureBuild } from './build.mjs';
import { ensureChromium, LAUNCH } from './chromium.mjs';
import { largeWorkshop, largeWorkshopText } from './largeWorkshop.mjs';
import { root, run } from './run.mjs';

const RUNS = 60;
const DAY_MS = 86_400_000;
const START = Date.parse('2026-11-24T06:00:00Z');

const isShort = process.argv.includes('--short');
if (!isShort) {
	ensureBuild();
	ensureChromium();
}
const vite = await createServer({ root, logLevel: 'error', server: { middlewareMode: true }, appType: 'custom' });
const load = (path) => vite.ssrLoadModule(path);
const [
	{ chain },
	{ judges },
	{ rehearsed },
	{ assess },
	{ write },
	{ rehearse },
	{ benchFor },
	{ contextFor },
	{ cardTree, firstStart },
	{ demoWorkshop },
	{ demoMediaBytes },
	{ openWorkshop },
	{ catalogue },
	{ shoppingList },
	{ misfit },
	{ diff },
	{ readEdid, writeEdid },
	{ rankModes },
	{ TEST_CARDS },
	{ NO_EDGES },
	{ writePng },
	{ VICS },
	{ readFileListing },
	{ fromListing },
	{ writers },
	{ programmeBook },
	{ whatsOn },
	{ airtime },
	{ newRule },
	{ arrange },
	{ picturesOf },
	{ derive },
	{ packContent }
] = await Promise.all(
	[
		'/src/core/chain.ts',
		'/src/core/judges.ts',
		'/src/core/rehearsals.ts',
		'/src/core/engines/assess.ts',
		'/src/core/engines/write.ts',
		'/src/core/engines/rehearse.ts',
		'/src/core/engines/benchFor.ts',
		'/src/core/engines/context.ts',
		'/src/core/engines/machine/index.ts',
		'/demo/workshop.ts',
		'/demo/media.ts',
		'/src/core/plan/open.ts',
		'/src/core/parts/catalogue/index.ts',
		'/src/core/engines/shopping.ts',
		'/src/core/plan/misfit.ts',
		'/src/core/plan/patch.ts',
		'/src/core/formats/edid/index.ts',
		'/src/core/links/picture/modes/modes.ts',
		'/src/core/links/picture/edges/cards.ts',
		'/src/core/links/picture/edges/overscan.ts',
		'/src/core/formats/drawing/index.ts',
		'/src/core/standards/vicTable.ts',
		'/src/core/formats/fileListing.ts',
		'/src/core/links/sources/stores/fromListing.ts',
		'/src/core/writers.ts',
		'/src/core/onAir/book.ts',
		'/src/core/links/programme/rules/whatsOn.ts',
		'/src/core/links/programme/rules/year.ts',
		'/src/core/onAir/when.ts',
		'/src/core/links/programme/lists/wishes.ts',
		'/src/core/links/notices/drawn/pictures.ts',
		'/src/core/engines/derive.ts',
		'/src/core/links/delivery/pack.ts'
	].map(load)
);

/** Median of the runs, in milliseconds, after as many unmeasured ones as a page has had by the second keystroke. */
function median(work, runs = RUNS, warm = 5) {
	if (isShort) return work();
	for (let n = 0; n < warm; n++) work();
	const times = Array.from({ length: runs }, () => {
		const from = performance.now();
		work();
		return performance.now() - from;
	}).sort((a, b) => a - b);
	return { ms: times[runs >> 1], worst: times.at(-1) };
}

/** As a key leaves it: another plan, most of whose parts are the same; what was worked out for the old one does not count. */
const changed = (plan) => ({ ...plan, brief: { ...plan.brief } });
const few = (work) => median(work, 3, 1);
const days = ({ card, bench }, number) =>
	rehearse({ links: rehearsed, card, bench, startUtcMs: START, forMs: number * DAY_MS });

/** What is made up here is a workshop like any other: the schema takes all of it. */
const taken = (workshop) => {
	const opened = openWorkshop(typeof workshop === 'string' ? workshop : JSON.stringify(workshop), 'UTC');
	if (!opened.ok || opened.value.damaged.length + opened.value.remarks.length > 0)
		throw new Error(
			`a made-up workshop is none: ${JSON.stringify(opened.faults ?? opened.value.damaged).slice(0, 400)}`
		);
	return workshop;
};
const text = JSON.stringify(demoWorkshop);
const ids = demoWorkshop.endpoints.map(({ id }) => id);
const each = demoWorkshop.endpoints.map(({ id, plan }) => {
	const context = contextFor(chain, demoWorkshop, id);
	const mediaBytes = new Map(
		plan.sources.items.flatMap(({ location }) =>
			demoMediaBytes(location) ? [[location, demoMediaBytes(location)]] : []
		)
	);
	return {
		plan,
		context,
		mediaBytes,
		card: cardTree(write(writers, plan, context, { mediaBytes })),
		bench: benchFor(writers, plan, context)
	};
});
const lounge = each[0];
/** Six endpoints with twenty parts each: what a keen hobbyist comes to. */
const large = Array.from({ length: 6 }, (_, n) => {
	const { id, plan } = demoWorkshop.endpoints[n % demoWorkshop.endpoints.length];
	const has = Object.values(plan.parts).filter((part) => typeof part === 'string').length + plan.parts.also.length;
	const known = new Set(plan.parts.also.map(({ part }) => part));
	const more = catalogue
		.filter((part) => ['lead', 'drive', 'tuner', 'fan', 'add-on', 'hub'].includes(part.kind) && !known.has(part.id))
		.filter((_part, k) => k % 3 === n % 3)
		.slice(0, 20 - has)
		.map(({ id: part }) => ({ part, count: 1 }));
	return {
		context: contextFor(chain, demoWorkshop, id),
		plan: { ...plan, parts: { ...plan.parts, also: [...plan.parts.also, ...more] } }
	};
});
/** A list of the most entries that one may have, and the same with one title changed. */
const long = (() => {
	const [first] = demoWorkshop.endpoints;
	const items = Array.from({ length: 10_000 }, (_, n) => ({
		id: `i${n}`,
		location: `f${n}.wav`,
		title: `T${n}`,
		durationSec: null,
		extra: [],
		part: null
	}));
	const withItems = (list) => ({
		...demoWorkshop,
		endpoints: demoWorkshop.endpoints.map((endpoint) =>
			endpoint.id === first.id
				? { ...endpoint, plan: { ...endpoint.plan, sources: { ...endpoint.plan.sources, items: list } } }
				: endpoint
		)
	});
	return {
		before: taken(withItems(items)),
		after: taken(withItems(items.with(5000, { ...items[5000], title: 'Typed' }))),
		id: first.id
	};
})();
/** What ffprobe prints of ten thousand files, and the share that they lie on. */
const listing = new TextEncoder().encode(
	Array.from({ length: 10_000 }, (_, n) =>
		JSON.stringify({
			streams: [
				{ codec_type: 'audio', codec_name: 'flac', sample_rate: '44100', channels: 2, bits_per_raw_sample: '16' },
				{ codec_type: 'video', codec_name: 'mjpeg', width: 600, height: 600, disposition: { attached_pic: 1 } }
			],
			format: {
				filename: `./Album ${n % 400}/Track ${n}.flac`,
				duration: '213.5',
				size: '21000000',
				tags: { title: `T${n}` }
			}
		})
	).join('\n')
);
const listedOn = {
	id: 'a',
	name: 'music',
	kind: 'nfs',
	server: 'files',
	share: '/export/music',
	version: 'auto',
	access: 'read'
};
/** A set with eight modes and sound, and what is asked of it. */
const screenWord = writeEdid({
	name: 'BENCH',
	widthMm: 700,
	heightMm: 400,
	modes: [16, 31, 4, 19, 32, 33, 34, 5].map((vic) => VICS.find((row) => row.vic === vic).timing),
	sound: { channels: 2, ratesHz: [48_000], bits: [16] },
	year: 2026
}).value;
const modeQuestion = {
	edid: null,
	ranges: { hMinKhz: 30, hMaxKhz: 83, vMinHz: 50, vMaxHz: 76 },
	panel: { widthPx: 1920, heightPx: 1080, refreshHz: 60 },
	screen: 'a set',
	hurdles: [{ what: 'a cable', maxPixelClockMhz: 340 }],
	content: { num: 24_000, den: 1001 }
};
/** Six endpoints with fifty rules each, of every kind. */
const WEEK = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const ruled = Array.from({ length: 6 }, (_, e) => {
	const moment = (n, at) => ({
		at,
		time: `${String((7 * n + e) % 24).padStart(2, '0')}:${n % 2 ? '00' : '30'}`,
		offsetMin: (n % 5) * 15
	});
	const rules = Array.from({ length: 50 }, (__, n) => ({
		...newRule(`r${n}`, n % 3 ? 'all' : 'rest'),
		weekdays: WEEK.slice(n % 5, (n % 5) + 3),
		nth: n % 7 === 0 ? 2 : 0,
		season: n % 4 === 0 ? { from: '04-01', until: '09-30' } : null,
		from: moment(n, ['clock', 'clock', 'opens', 'sunrise'][n % 4]),
		until: moment(n + 1, ['clock', 'clock', 'closes', 'sunset'][n % 4]),
		each: n % 10 === 0 ? { everyMin: 60, forMin: 5 } : null
	}));
	return { rules, book: programmeBook({ ...lounge.plan.programme, rules }, demoWorkshop.venue) };
});
taken({
	...demoWorkshop,
	endpoints: [
		...demoWorkshop.endpoints.map((endpoint, n) => ({
			...endpoint,
			plan: { ...endpoint.plan, programme: { ...endpoint.plan.programme, rules: ruled[n].rules } }
		})),
		...large.map(({ plan }, n) => ({ ...demoWorkshop.endpoints[n], id: `large-${n}`, plan }))
	]
});
const years = (count) => () =>
	ruled.map(({ rules, book }) => airtime(book, rules, START, START + count * 365 * DAY_MS).changes);
/** The hatch, its pages as pictures of sixty days; and what of its card set is fetched. */
const hatch = each.find(({ plan }) => plan.notices.used);
const drawn = () => {
	const notices = {
		...hatch.plan.notices,
		pages: hatch.plan.notices.pages.map((page) => ({ ...page, zones: page.zones.map((zone) => ({ ...zone })) })),
		shownBy: 'pictures',
		picturesFrom: '2026-11-27',
		picturesDays: 60
	};
	const { context } = derive(chain, { ...hatch.plan, notices }, hatch.context);
	return picturesOf(notices, context).drawings.length;
};
const hatchFiles = write(writers, hatch.plan, hatch.context, { mediaBytes: hatch.mediaBytes });
/** Ten notices of which one is wanted a fifth of the time, one six times an hour, and two never beside one another. */
const wished = {
	items: Array.from({ length: 10 }, (_, n) => `n${n}`),
	wishes: [
		{ item: 'n0', perHour: null, percent: 20, apartFrom: [] },
		{ item: 'n1', perHour: 6, percent: null, apartFrom: ['n2'] }
	],
	lengthOf: (item) => 10_000 + 1000 * Number(item.slice(1))
};
const sixty = taken(largeWorkshopText(demoWorkshop, newRule));
const reference = median(() => JSON.parse(JSON.stringify(demoWorkshop)));
const rows = [
	[
		'assess the whole demo workshop',
		5,
		median(() => each.forEach(({ plan, context }) => assess(judges, changed(plan), context)))
	],
	[
		'assess 6 endpoints with 120 parts',
		5,
		median(() => large.forEach(({ plan, context }) => assess(judges, changed(plan), context)))
	],
	[
		'the shelf again, one of 6 endpoints changed',
		5,
		median(() => large.forEach(({ plan, context }, n) => assess(judges, n === 0 ? changed(plan) : plan, context)))
	],
	['shopping list of the demo', 5, median(() => shoppingList(chain, demoWorkshop, ids))],
	[
		'write one card set (lounge)',
		25,
		median(() => write(writers, changed(lounge.plan), lounge.context, { mediaBytes: lounge.mediaBytes }))
	],
	[
		'rehearse a day (lounge)',
		200,
		median(() =>
			rehearse({ links: rehearsed, card: lounge.card, bench: lounge.bench, startUtcMs: START, forMs: DAY_MS })
		)
	],
	[
		'rehearse a day (all endpoints)',
		600,
		median(() =>
			each.forEach(({ card, bench }) => rehearse({ links: rehearsed, card, bench, startUtcMs: START, forMs: DAY_MS }))
		)
	],
	[
		'first start of a new card (lounge)',
		200,
		median(() => firstStart({ links: rehearsed, card: new Map(lounge.card), bench: lounge.bench, startUtcMs: START }))
	],
	['rehearse a day (hatch, by rules)', 200, few(() => days(each[4], 1))],
	['rehearse a week (hatch, its page)', 1000, few(() => days(each[4], 7))],
	['a year, 6 endpoints, 300 rules', 300, few(years(1))],
	['the same of two years', 600, few(years(2))],
	['what is on, at one instant of each', 5, median(() => ruled.map(({ book }) => whatsOn(book, START)))],
	['rehearse a fortnight (lounge)', 2000, few(() => days(lounge, 14))],
	['rehearse a season (lounge)', 10_000, few(() => days(lounge, 91))],
	['rehearse a week (lamp room, silent)', 5000, few(() => days(each[3], 7))],
	[
		'10 000 entries: judge and note a key',
		60,
		median(() => (misfit(long.before, long.after), diff(long.before, long.after)))
	],
	[
		'10 000 entries: assess',
		60,
		median(() => assess(judges, changed(long.after.endpoints[0].plan), contextFor(chain, long.after, long.id)))
	],
	[
		'1000 EDIDs read',
		500,
		few(() => {
			for (let n = 0; n < 1000; n++) readEdid(screenWord);
		})
	],
	['10 000 files listed by ffprobe read', 1500, few(() => fromListing(readFileListing(listing).value, listedOn))],
	['all modes of a screen ranked', 5, median(() => rankModes(modeQuestion))],
	[
		'test card drawn at 3840 × 2160',
		400,
		few(() => writePng(TEST_CARDS[0].draw({ widthPx: 3840, heightPx: 2160 }, NO_EDGES)))
	],
	['pictures that pages of 60 days need', 3000, few(drawn)],
	['a playlist of ten arranged by wishes', 50, median(() => arrange(wished.items, wished.wishes, wished.lengthOf))],
	['content of a card set packed', 200, few(() => packContent(hatchFiles, { hostName: 'hatch', number: 1, era: 0 }))],
	['open a saved workshop', 50, median(() => openWorkshop(text, 'UTC'))]
];
if (isShort) {
	await vite.close();
	console.log(`${rows.length} rows gone through`);
	process.exit();
}
await zipping();
await vite.close();

console.log(
	`${'what'.padEnd(36)}${'median ms'.padStart(10)}${'worst ms'.padStart(10)}${'limit'.padStart(8)}${'x copy'.padStart(9)}`
);
console.log(
	`${'reference: deep copy through JSON'.padEnd(36)}${reference.ms.toFixed(3).padStart(10)}${reference.worst.toFixed(3).padStart(10)}${''.padStart(8)}${'1.0'.padStart(9)}`
);
for (const [what, limit, { ms, worst }] of rows)
	console.log(
		`${what.padEnd(36)}${ms.toFixed(2).padStart(10)}${worst.toFixed(2).padStart(10)}${String(limit).padStart(8)}${(ms / reference.ms).toFixed(1).padStart(9)}`
	);
console.log(`memory of this process: ${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`);

/** An archive of more than 4 GiB, made and thrown away: its rate against sha256sum on the same files, and the memory that it takes. */
async function zipping() {
	const { zipFiles } = await load('/src/core/formats/zip/zip.ts');
	const dir = mkdtempSync(join(tmpdir(), 'yphos-bench-'));
	const file = join(dir, 'film.mkv');
	// Node's own blobs of files count their size in 32 bits, so it is two of half the size.
	const half = 2 * 2 ** 30 + 1;
	const handle = openSync(file, 'w');
	ftruncateSync(handle, half);
	closeSync(handle);
	const bytes = 2 * half;
	const film = await openAsBlob(file);
	const set = ['one', 'two'].map((name) => ({ path: `media/${name}.mkv`, mode: '0644', bytes: film }));
	const before = process.memoryUsage().rss;
	let most = before;
	let made = 0;
	const from = performance.now();
	for await (const piece of zipFiles(set)) {
		made += piece.length;
		most = Math.max(most, process.memoryUsage().rss);
	}
	const ownMs = performance.now() - from;
	const toolFrom = performance.now();
	run('sha256sum', [file, file], { stdio: 'ignore' });
	const toolMs = performance.now() - toolFrom;
	if (made <= bytes) throw new Error('the archive is not whole');
	console.log(
		`archive of 4 GiB: ${(bytes / 1e6 / (ownMs / 1000)).toFixed(0)} MB/s, ${(ownMs / toolMs).toFixed(2)} times as long as sha256sum; memory rose by ${((most - before) / 1e6).toFixed(0)} MB (limit 300)`
	);
	rmSync(dir, { recursive: true });
}

/** An image of 4 GiB read in the page, against sha256sum on the same file; and what memory the page took meanwhile. */
async function hashing(browser) {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-bench-'));
	const file = join(dir, 'image.img');
	const bytes = 4 * 2 ** 30;
	const handle = openSync(file, 'w');
	ftruncateSync(handle, bytes);
	closeSync(handle);
	const page = await (await browser.newContext({ serviceWorkers: 'block' })).newPage();
	await page.goto(`http://127.0.0.1:${PORT}/endpoint/bunkhouse-lounge/write-card`, { waitUntil: 'networkidle' });
	const before = renderersMb();
	let most = before;
	const watch = setInterval(() => (most = Math.max(most, renderersMb())), 200);
	const from = performance.now();
	await page.locator('input[type=file]').first().setInputFiles(file);
	await page.getByText(/^SHA-256/).waitFor({ timeout: 300_000 });
	const pageMs = performance.now() - from;
	clearInterval(watch);
	const toolFrom = performance.now();
	run('sha256sum', [file], { stdio: 'ignore' });
	const toolMs = performance.now() - toolFrom;
	const rate = (ms) => `${(bytes / 1e6 / (ms / 1000)).toFixed(0)} MB/s`;
	console.log(
		`4 GiB image: read and hashed in the page ${rate(pageMs)}, sha256sum ${rate(toolMs)} (${(pageMs / toolMs).toFixed(2)} times as long); memory of the page rose by ${(most - before).toFixed(0)} MB (limit 300)`
	);
	rmSync(dir, { recursive: true });
}

/** The page of an endpoint: its first picture after the browser has begun, against an empty page; and what it holds after a day. */
async function endpointPage(browser) {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-bench-'));
	const home = 'boot/yphos/root/opt/yphos/';
	for (const file of hatchFiles) {
		if (!file.path.startsWith(home)) continue;
		const path = join(dir, file.path.slice(home.length));
		mkdirSync(dirname(path), { recursive: true });
		writeFileSync(path, 'lines' in file ? file.lines.map(({ text: line }) => `${line}\n`).join('') : file.bytes);
	}
	writeFileSync(join(dir, 'empty.html'), '<!doctype html><title>Nothing</title><p>Nothing');
	const opened = async (name, stands) => {
		const page = await (await browser.newContext()).newPage();
		const from = performance.now();
		await page.goto(`file://${join(dir, name)}`);
		await page.evaluate(stands);
		const ms = performance.now() - from;
		await page.context().close();
		return ms;
	};
	const middle = async (work) => {
		const times = [];
		for (let n = 0; n < 7; n++) times.push(await work());
		return times.sort((a, b) => a - b)[3];
	};
	const PAINTED = 'new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done())))';
	const emptyMs = await middle(() => opened('empty.html', PAINTED));
	const pageMs = await middle(() =>
		opened(
			'notices/index.html',
			`new Promise((done) => { const look = () => document.querySelector('.notice-zone')?.childElementCount ? ${PAINTED}.then(done) : setTimeout(look, 5); look(); })`
		)
	);
	const page = await (await browser.newContext()).newPage();
	await page.clock.install({ time: '2026-11-27T00:00:00Z' });
	await page.goto(`file://${join(dir, 'notices/index.html')}`);
	await page.evaluate(() => document.fonts.ready);
	const session = await page.context().newCDPSession(page);
	await session.send('Performance.enable');
	const held = async () => {
		await session.send('HeapProfiler.collectGarbage');
		const { metrics } = await session.send('Performance.getMetrics');
		const of = (name) => metrics.find((metric) => metric.name === name).value;
		return { mb: of('JSHeapUsedSize') / 1e6, nodes: of('Nodes') };
	};
	const hour = () => page.clock.runFor(3_600_000);
	await hour();
	const first = await held();
	for (let n = 1; n < 24; n++) await hour();
	const last = await held();
	console.log(
		`page of an endpoint: first picture after ${pageMs.toFixed(0)} ms, an empty page ${emptyMs.toFixed(0)} ms (${(pageMs / emptyMs).toFixed(1)} times as long); after an hour ${first.mb.toFixed(1)} MB and ${first.nodes} nodes, after a day ${last.mb.toFixed(1)} MB and ${last.nodes} nodes (${(last.mb / first.mb).toFixed(2)} times; limit 1.2)`
	);
	await page.context().close();
	rmSync(dir, { recursive: true });
}

/** Files taken in by the page; and what it then takes to scroll and search a list of ten thousand. */
async function sources(browser) {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-bench-'));
	const make = (...args) => run('ffmpeg', ['-v', 'error', '-y', ...args]);
	const song = join(dir, 'song.flac');
	make('-f', 'lavfi', '-i', 'anoisesrc=d=240:c=pink:r=44100:a=0.3', '-ac', '2', song);
	const film = join(dir, 'film.mp4');
	make(
		...'-f lavfi -i testsrc2=size=640x360:rate=25:duration=10 -f lavfi -i sine=440:duration=10 -c:v libx264 -pix_fmt yuv420p -c:a aac'.split(
			' '
		),
		film
	);
	const short = join(dir, 'short.mp3');
	make(...'-f lavfi -i sine=440:duration=20 -b:a 128k'.split(' '), short);
	const page = await (await browser.newContext({ serviceWorkers: 'block' })).newPage();
	await page.goto(`http://127.0.0.1:${PORT}/endpoint/test-bench/plan/sources`, { waitUntil: 'networkidle' });
	const takeIn = async (files, loudness) => {
		await page.getByLabel(/Measure loudness/).setChecked(loudness, { force: true });
		const from = performance.now();
		await page.locator('input[type=file][accept*=audio]').setInputFiles(files);
		await page.getByText(`${files.length} file${files.length === 1 ? '' : 's'} added.`).waitFor({ timeout: 300_000 });
		return (performance.now() - from) / 1000;
	};
	const COPIES = 200;
	const copies = Array.from({ length: COPIES }, (_, n) => join(dir, `copy-${n}.${n % 10 ? 'mp3' : 'mp4'}`));
	for (const copy of copies) copyFileSync(copy.endsWith('mp3') ? short : film, copy);
	console.log(
		`files taken in, looked into and hashed: ${(COPIES / (await takeIn(copies, false))).toFixed(0)} a second (one in ten a film, with its frames drawn)`
	);
	const pageSec = await takeIn([song], true);
	const toolFrom = performance.now();
	run('ffmpeg', ['-v', 'error', '-threads', '1', '-i', song, '-af', 'ebur128=peak=true', '-f', 'null', '-'], {
		stdio: 'ignore'
	});
	const toolSec = (performance.now() - toolFrom) / 1000;
	console.log(
		`loudness of four minutes: ${pageSec.toFixed(2)} s in the page, read, hashed and kept too; ffmpeg -af ebur128=peak=true ${toolSec.toFixed(2)} s (${(toolSec / pageSec).toFixed(2)} of its rate; at least 0.5)`
	);

	const many = Array.from({ length: 9000 }, (_, n) => `#EXTINF:${(n % 300) + 1},Song ${n}\nsong-${n}.mp3`).join('\n');
	await page
		.locator('input[type=file][accept*=m3u8]')
		.setInputFiles({ name: 'many.m3u8', mimeType: 'audio/x-mpegurl', buffer: Buffer.from(`#EXTM3U\n${many}\n`) });
	await page.getByText(/9000 entries, M3U/).waitFor({ timeout: 60_000 });
	const scrolled = await page.evaluate(async () => {
		const list = document.querySelector('.scroller');
		const frame = () => new Promise((done) => requestAnimationFrame(done));
		const steps = 200;
		let worst = 0;
		const from = performance.now();
		for (let n = 1; n <= steps; n++) {
			const at = performance.now();
			list.scrollTop = (list.scrollHeight * n) / steps;
			await frame();
			worst = Math.max(worst, performance.now() - at);
		}
		return { mean: (performance.now() - from) / steps, worst };
	});
	const searched = [];
	const field = page.getByRole('searchbox', { name: 'Find in the list' });
	for (const text of ['s', 'song 8', 'song 87', 'song 8777']) {
		const from = performance.now();
		await field.fill(text);
		await page.getByText(/ found$/).waitFor();
		searched.push(performance.now() - from);
	}
	console.log(
		`list of 9200: a step through it ${scrolled.mean.toFixed(1)} ms, at worst ${scrolled.worst.toFixed(0)}; searched in ${Math.max(...searched).toFixed(0)} ms at worst`
	);
	await page.context().close();
	rmSync(dir, { recursive: true });
}

/** Resident memory of all renderers together. */
const renderersMb = () =>
	readdirSync('/proc')
		.filter((name) => /^\d+$/.test(name))
		.reduce((sum, pid) => {
			try {
				if (!readFileSync(`/proc/${pid}/cmdline`, 'latin1').includes('--type=renderer')) return sum;
				return sum + Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'latin1'))?.[1] ?? 0) / 1000;
			} catch {
				return sum;
			}
		}, 0);

const PORT = '4178';
const server = spawn(process.execPath, [resolve(root, 'build', 'index.js'), '--port', PORT], {
	env: process.env,
	stdio: 'ignore'
});
try {
	await new Promise((done) => setTimeout(done, 1500));
	const { chromium } = await import('@playwright/test');
	const browser = await chromium.launch(LAUNCH);
	const page = await (await browser.newContext({ serviceWorkers: 'block' })).newPage();
	const sizes = { script: 0, stylesheet: 0, font: 0, later: 0 };
	const pending = [];
	const later = new Set();
	let stands = false;
	page.on('request', (request) => stands && later.add(request));
	page.on('requestfinished', (request) =>
		pending.push(
			request.sizes().then((size) => {
				const kind = later.has(request) ? 'later' : request.resourceType();
				sizes[kind] = (sizes[kind] ?? 0) + size.responseBodySize;
			})
		)
	);
	await page.goto(`http://127.0.0.1:${PORT}/`);
	// What is fetched once the shelf stands keeps nobody waiting.
	await page.getByRole('navigation', { name: 'Shelf' }).getByText('Ticket hatch').waitFor();
	stands = true;
	await page.waitForLoadState('networkidle');
	await Promise.all(pending);
	await endpointPage(browser);
	await sources(browser);
	await hashing(browser);
	await largeWorkshop(browser, `http://127.0.0.1:${PORT}`, sixty, renderersMb);
	await browser.close();
	const kB = (bytes) => `${(bytes / 1000).toFixed(1)} kB`;
	console.log(
		`first view, compressed: script ${kB(sizes.script)} + style ${kB(sizes.stylesheet)} = ${kB(sizes.script + sizes.stylesheet)} (limit 250 kB); fonts ${kB(sizes.font)}; once it stands ${kB(sizes.later)} more`
	);
} finally {
	server.kill();
}
