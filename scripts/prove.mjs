// npm run prove -- ENDPOINT [PLAN] [--renderer networkd] [--no-seed] [--share-late SECONDS] [--cut SECONDS]: writes its card set, starts it on an emulated machine from an
// image as bare as they come, a month behind, and compares what is heard and seen with the rehearsal.
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuild } from './build.mjs';
import { capture, cli, conformance, has, root, run } from './run.mjs';

const { values, positionals } = parseArgs({
	allowPositionals: true,
	options: {
		renderer: { type: 'string' },
		'no-seed': { type: 'boolean' },
		'share-late': { type: 'string' },
		// The power goes so long after the second start is complete: all that is looked at comes after it.
		cut: { type: 'string' }
	}
});
const [endpoint, plan = 'demo'] = positionals;
const image = [
	...(values.renderer ? ['--renderer', values.renderer] : []),
	...(values['no-seed'] ? ['--no-seed'] : [])
];
if (!endpoint) {
	console.error('Which endpoint? For example: npm run prove -- test-bench');
	process.exit(2);
}
const boot = resolve(conformance, 'boot');
if (!has(boot)) {
	console.error('The emulated machine is not here: ../shared/conformance/boot is missing.');
	process.exit(2);
}
/** How far what is heard may be from what was foretold. The emulation drops a buffer now and then, which lowers the mean level a little. */
const TOLERANCE = { levelDb: 1, pitchHz: 1, edgePx: 3 };

ensureBuild();
const work = resolve(root, '.cache', 'prove', endpoint);
const set = resolve(work, 'set');
rmSync(work, { recursive: true, force: true });
mkdirSync(work, { recursive: true });
const yphos = (...args) => capture(process.execPath, [cli, ...args]);

/** The emulated converter's own control; on a real bench the probe report would bring its name into the plan. */
const CONTROL = 'Audio Output Volume Control';
/** What the rig serves. Source: its README, "What stands around the endpoint". */
const RIG_SHARE = { kind: 'smb', server: 'stand-in.test', share: 'media', user: 'yphos', version: 'auto' };
const keyFile = resolve(work, 'signing-key.pem');
const publicKey = yphos('key', keyFile).out.split('\n')[0];
if (plan === 'demo') yphos('demo', work);
const workshop = JSON.parse(readFileSync(plan === 'demo' ? resolve(work, 'skerrin-light.yphos.json') : plan, 'utf8'));
// Nobody copies files there by hand: what the set does not bring is left out of the list.
const broughtAlong = new Set(workshop.media.filter(({ kept }) => kept !== 'person').map(({ location }) => location));
for (const { plan: known } of workshop.endpoints) {
	// What the rig serves lies in its own network.
	known.network.fetchesNear = true;
	// The rig's archive has no program that hears keys; a page for a phone needs none.
	known.picture.controls = known.picture.used
		? ['restart', 'shut-down'].map((action) => ({ action, by: 'phone', key: '', scancode: '' }))
		: [];
	// The rig reads the kernel's line where a board would; nobody has pasted one into the demo.
	if (known.picture.used && known.card.bootStyle === 'none') {
		known.card.bootStyle = 'cmdline';
		known.card.bootText = 'console=tty1 root=/dev/mmcblk0p2 rootfstype=ext4 rootwait';
	}
	// A page that has the marks of a picture in its corners, from edge to edge of what the set shows.
	if (known.notices.used && known.picture.used) {
		const { columns: w, rows: h } = known.notices.grid;
		const [page] = known.notices.pages;
		const [zone] = page.zones;
		const marked = {
			...zone,
			id: 'marks',
			x: 0,
			y: 0,
			w,
			h,
			shows: 'picture',
			title: '',
			fit: 'whole',
			entries: [known.sources.items[0].id]
		};
		Object.assign(known.notices, { pages: [{ ...page, zones: [marked] }], feeds: [] });
		Object.assign(known.programme, { lists: [], rules: [] });
		// The player would show what is listed behind the page, too.
		if (known.notices.shownBy === 'pictures') known.sources.items = known.sources.items.slice(0, 1);
		Object.assign(workshop.venue.noticeTheme, { ground: '#000000', marginPercent: 0, gapPercent: 0 });
	}
	// The rig's web server stands in for any; a key of this run's own signs what is put there.
	if (known.delivery.used) Object.assign(known.delivery, { from: 'http://stand-in.test/content', publicKey });
	if (known.sound.volumeAt === 'converter') known.sound.mixerName = CONTROL;
	// A fan is turned by a board's own pins.
	known.parts.also = known.parts.also.filter(({ part }) => !part.startsWith('fan-'));
	// The rig has no Bluetooth adapter, and its archive none of the programs that receive.
	known.receiving.used = false;
	// The rig's file server stands in for any share; nobody plugs a stick in.
	known.sources.stores = known.sources.stores
		.filter(({ kind }) => kind !== 'stick')
		.map(({ id, name, access }) => ({ id, name, access, ...RIG_SHARE }));
	known.sources.items = known.sources.items.filter(
		({ location }) =>
			/^https?:/.test(location) ||
			broughtAlong.has(location) ||
			known.sources.stores.some(({ name }) => location.startsWith(`/srv/${name}/`)) ||
			known.sources.rules.some(({ id }) => location.endsWith(`/${id}.m3u8`))
	);
	// Nobody sends to a second screen here: what the set brings stands in.
	const brought = workshop.media.find(({ location, picture }) => broughtAlong.has(location) && picture?.framesPerSec);
	if (known.sources.used && known.sources.items.length === 0)
		known.sources.items = [
			{ id: 'stand-in', location: brought.location, title: 'Stand-in', durationSec: null, extra: [], part: null }
		];
}
const planFile = resolve(work, 'plan.yphos.json');
writeFileSync(planFile, JSON.stringify(workshop));
// A demo endpoint that ships with mistakes is mended first, as a person would: the first fix of each stop.
for (let tries = 0; tries < 20; tries++) {
	const [{ findings }] = JSON.parse(yphos('check', planFile, '--endpoint', endpoint, '--json').out);
	const stop = findings.find(({ level, id, fixes }) => level === 'stop' && fixes.length > 0 && id !== 'sound.no-mixer');
	if (!stop) break;
	const mended = yphos('check', planFile, '--endpoint', endpoint, '--fix', stop.id, '--out', planFile);
	process.stdout.write(mended.out + mended.err);
}

const passwordFile = resolve(work, 'password');
writeFileSync(passwordFile, 'three gulls in a row\n');
const { sources } = workshop.endpoints.find(({ id }) => id === endpoint).plan;
const sharePasswords = resolve(work, 'share-passwords');
writeFileSync(sharePasswords, sources.stores.map(({ name }) => `${name}=stand-in\n`).join(''));
function writeSet() {
	// What an earlier writing left would be looked for on the endpoint.
	rmSync(set, { recursive: true, force: true });
	const written = yphos(
		'write',
		planFile,
		'--endpoint',
		endpoint,
		'--out',
		set,
		'--password-file',
		passwordFile,
		'--share-passwords',
		sharePasswords,
		// The emulated converter's control is none that the planned class has.
		'--even-so'
	);
	process.stdout.write(written.out + written.err);
	if (written.code !== 0) process.exit(written.code);
}
const benchFile = resolve(work, 'bench.json');
/** The emulated converter, as its own probe report describes it, takes the place of the planned one and keeps its name. */
function rigBench() {
	const bench = JSON.parse(readFileSync(resolve(set, 'docs', 'bench.json'), 'utf8'));
	const planned = bench.soundCards[0];
	bench.soundCards = planned
		? [
				{
					...planned,
					name: 'Emulated converter',
					playback: { ratesHz: [48000], formats: ['S16_LE'], channels: [2] },
					volume: { name: CONTROL, lowestDb: -120, startDb: -0.5 }
				}
			]
		: [];
	for (const stream of bench.streams) stream.state = 'refuses';
	// Nobody has copied the person's own files there; what lies on the share is put there below.
	bench.media = bench.media.filter(({ location }) => location.startsWith('/srv/'));
	writeFileSync(benchFile, JSON.stringify(bench, null, '\t'));
	return { bench, planned };
}

/** Something must stay on for as long as a slow machine takes to come up and be watched, min. */
const STAYS_MIN = 45;
/** An instant of the first two days at which something has just come on that stays; null: nothing does. */
function steadyInstant(fromUtc) {
	const [{ tracks, startUtcMs }] = JSON.parse(
		yphos('rehearse', set, '--bench', benchFile, '--json', '--at', fromUtc, '--for', '48h').out
	);
	const isOn = ({ state }) => state === 'sound' || state === 'picture';
	const [ear, eye] = ['ear', 'eye'].map((wanted) => tracks.find(({ id }) => id === wanted)?.spans.filter(isOn) ?? []);
	const span = (eye.length > 0 ? eye : ear).find(({ fromMs, toMs }) => toMs - fromMs >= STAYS_MIN * 60_000);
	return span ? new Date(startUtcMs + span.fromMs + 300_000).toISOString().replace(/\.\d+Z$/, 'Z') : null;
}
const FROM = '2026-11-24T12:00:00Z';
writeSet();
let { bench, planned } = rigBench();
let at = steadyInstant(FROM);
if (at === null) {
	console.log(
		`Nothing stays on for ${STAYS_MIN} minutes: rules and quiet hours are left out, and the list goes round.`
	);
	const without = JSON.parse(readFileSync(planFile, 'utf8'));
	const { programme } = without.endpoints.find(({ id }) => id === endpoint).plan;
	Object.assign(programme, { rules: [], quiet: [], loop: 'list' });
	writeFileSync(planFile, JSON.stringify(without));
	writeSet();
	({ bench, planned } = rigBench());
	at = steadyInstant(FROM) ?? FROM;
}
console.log(`Begun at ${at}.`);

// New content waits on the web: the same pages under another title, packed and signed as a person would.
const site = resolve(work, 'site');
const { delivery } = workshop.endpoints.find(({ id }) => id === endpoint).plan;
const NEW_TITLE = 'Fetched anew';
if (delivery.used) {
	const changed = JSON.parse(readFileSync(planFile, 'utf8'));
	const { notices, sources: its } = changed.endpoints.find(({ id }) => id === endpoint).plan;
	if (notices.used) notices.pages[0].title = NEW_TITLE;
	else its.listTitle = NEW_TITLE;
	const newPlan = resolve(work, 'new.yphos.json');
	writeFileSync(newPlan, JSON.stringify(changed));
	const packed = yphos(
		...['pack', newPlan, '--endpoint', endpoint, '--even-so'],
		...['--out', resolve(site, 'content'), '--sign-key', keyFile]
	);
	process.stdout.write(packed.out + packed.err);
	if (packed.code !== 0) process.exit(packed.code);
}

/** The share comes so long after the start is complete, s; a start takes the emulated machine about a minute. */
const shareLateSec = sources.stores.length > 0 ? Number(values['share-late'] ?? 0) : 0;
const START_SEC = 60;
/** Watched until a share that comes late must have been asked for again. */
/** A browser needs a minute and more on the emulated machine before its first page. */
const { notices: shownNotices } = workshop.endpoints.find(({ id }) => id === endpoint).plan;
const byBrowser = shownNotices.used && shownNotices.shownBy === 'browser';
const watchedSec = (seenOnScreen) =>
	Math.max(
		seenOnScreen ? (byBrowser ? 240 : 75) : 40,
		shareLateSec > 0 ? shareLateSec + 150 : 0,
		// Looked for two minutes after the start; then the player begins once more.
		delivery.used ? (byBrowser ? 480 : 240) : 0
	);
const foretold = JSON.parse(
	yphos(
		'rehearse',
		set,
		...['--bench', benchFile, '--json', '--at', at],
		...(delivery.used ? ['--fault', 'new-set@0s', '--for', `${START_SEC + watchedSec(true)}s`] : []),
		...(shareLateSec > 0
			? ['--fault', `server-asleep@0s+${START_SEC + shareLateSec}s`, '--for', `${START_SEC + watchedSec(true)}s`]
			: [])
	).out
)[0];
console.log(`Foretold: ${foretold.verdict}`);

// Nothing is there but what a lite image has: packages are really fetched, from an archive that the rig offers.
if (run('bash', [resolve(boot, 'make-root.sh'), '--bare', ...image]) !== 0) process.exit(2);
const out = resolve(work, 'out');
// What the list names on the share is there: a sound of the set under that name.
const share = resolve(work, 'share');
const ruled = sources.rules.flatMap(({ folders }) =>
	workshop.media.filter(({ location }) => folders.some((folder) => location.startsWith(`${folder}/`)))
);
const onShare = [...sources.items, ...ruled].flatMap(
	({ location }) => /^\/srv\/[^/]+\/(.+)$/.exec(location)?.[1] ?? []
);
const sound = capture('find', [set, '-name', '*.wav']).out.split('\n')[0];
for (const path of onShare) {
	mkdirSync(dirname(resolve(share, path)), { recursive: true });
	copyFileSync(sound, resolve(share, path));
}
const seen = foretold.tracks.find(({ id }) => id === 'eye')?.marks[0]?.data;
const started = run('bash', [
	resolve(boot, 'boot-card.sh'),
	set,
	out,
	...['--bare', ...image],
	...['--clock-behind', '30', '--clock-after', '20'],
	...(planned ? ['--card-id', planned.cardId] : ['--no-audio']),
	...(delivery.used ? ['--stream', '--web', site] : []),
	...(sources.stores.length > 0 ? ['--share', share] : []),
	...(shareLateSec > 0 ? ['--share-late', String(shareLateSec)] : []),
	...(values.cut ? ['--cut', values.cut] : []),
	...(seen ? ['--connector', bench.screen.connector, '--screen', `${seen.widthPx}x${seen.heightPx}`] : []),
	...['--at', at.replace(/Z$/, ''), '--seconds', String(watchedSec(seen))]
]);
if (!has(resolve(out, 'verdict.json'))) {
	console.error('The emulated machine could not be tried, or not be judged: what it said stands above.');
	process.exit(2);
}
const verdict = JSON.parse(readFileSync(resolve(out, 'verdict.json'), 'utf8'));
const given = /^(\S+), (\d+) Hz, (\d+) channels$/.exec(verdict.sound?.converterWasGiven ?? '');
const marks = foretold.tracks.find(({ id }) => id === 'ear')?.marks ?? [];
const heard = marks[0]?.data;
// What sounds longest within the time that is listened to leads; any title of the list may.
const pitches = marks.map(({ data }) => data.pitchHz).filter((hz) => hz !== null);

// The emulated converter announces decibels for its own volume that it does not keep (207 of 256 is announced as -18 dB and takes
// 1.8 dB off), so a volume set there is compared with what the converter announces; any other with what is heard.
const setVolume =
	planned &&
	/ sset .* (-?[\d.]+)dB$/m.exec(
		readFileSync(resolve(set, 'boot/yphos/root/etc/systemd/system/yphos-player.service'), 'utf8')
	);
const announced = /Front Left: Playback \d+ \[\d+%\] \[(-?[\d.]+)dB\]/.exec(
	readFileSync(resolve(out, 'verify.txt'), 'utf8')
);
const level = setVolume
	? [
			'volume in the converter',
			`${setVolume[1]} dB`,
			`${announced?.[1]} dB`,
			Math.abs(Number(setVolume[1]) - Number(announced?.[1])) <= TOLERANCE.levelDb
		]
	: [
			'level',
			`${heard?.rmsDbfs?.toFixed(2)} dBFS RMS`,
			`${verdict.sound?.rmsDbfs?.toFixed(2)} dBFS RMS`,
			Math.abs(heard?.rmsDbfs - verdict.sound?.rmsDbfs) <= TOLERANCE.levelDb
		];

function soundRows() {
	return [
		['rate', `${heard?.sampleRateHz} Hz`, `${given?.[2]} Hz`, Number(given?.[2]) === heard?.sampleRateHz],
		['width', `${heard?.bitDepth} bit`, given?.[1], given?.[1] === `S${heard?.bitDepth}_LE`],
		['channels', String(heard?.channels), given?.[3], Number(given?.[3]) === heard?.channels],
		level,
		// Of a film's own sound nobody foretells a pitch.
		...(pitches.length
			? [
					[
						'pitch',
						pitches.map((hz) => `${hz.toFixed(1)} Hz`).join(' or '),
						`${verdict.sound?.dominantHz} Hz`,
						pitches.some((hz) => Math.abs(hz - verdict.sound?.dominantHz) <= TOLERANCE.pitchHz)
					]
				]
			: [])
	];
}

/** Away at first, there in the end; and what is away is asked for once it has come. */
function lateShareRows() {
	const titles = sources.items.filter(({ location }) => location.startsWith('/srv/')).map(({ title }) => title);
	const said = foretold.events.map(({ text }) => text);
	const comes = said.some((text) => titles.some((title) => text === `Begins: ${title}`));
	const mounts = readFileSync(resolve(out, 'mounts.txt'), 'utf8');
	const came = sources.stores.every(({ name }) => mounts.includes(`/srv/${name} //`));
	const journal = readFileSync(resolve(out, 'journal.txt'), 'utf8');
	const missed = said.some((text) => /does not answer|Network is unreachable/.test(text));
	const refused = /Failed to mount|CIFS: VFS: .*(?:cifs_mount|Error connecting)|mount error/.test(journal);
	const yes = (is) => (is ? 'yes' : 'no');
	return [
		['share missed while it is away', yes(missed), yes(refused), missed === refused],
		[
			'degraded until it comes',
			yes(missed),
			yes(verdict.state === 'degraded'),
			missed === (verdict.state === 'degraded')
		],
		['share there in the end', yes(comes), yes(came), comes === came]
	];
}

/** Fetched, believed, shown, and not taken back. */
function deliveryRows() {
	const journal = readFileSync(resolve(out, 'journal.txt'), 'utf8');
	const yes = (is) => (is ? 'yes' : 'no');
	const told = foretold.events.filter(({ text }) => /^Shown is /.test(text)).length === 1;
	// After a cut the journal begins anew: what was fetched before it is shown from the first page on.
	const begins = values.cut ? 0 : journal.indexOf('the new set is shown');
	const isShown = values.cut ? journal.includes(NEW_TITLE) : begins >= 0;
	const since = journal.slice(begins);
	const stands = isShown && since.includes(NEW_TITLE) && !since.includes('the one before is shown again');
	// The plain player says no titles.
	if (values.cut && !byBrowser) return [];
	return [
		['new content fetched and shown', yes(told), yes(isShown), told === isShown],
		...(byBrowser ? [['its page stands in the end', yes(told), yes(stands), told === stands]] : [])
	];
}

/** On a page the picture with the marks keeps its own shape in the middle of what the page has. */
function markedBox([width, height, left, top]) {
	if (!shownNotices.used) return [width, height, left, top];
	const { location } = sources.items[0];
	const { picture } = workshop.media.find((media) => media.location === location);
	const isTurned = workshop.endpoints.find(({ id }) => id === endpoint).plan.picture.turn % 180 !== 0;
	const [across, down] = isTurned ? [picture.heightPx, picture.widthPx] : [picture.widthPx, picture.heightPx];
	const scale = Math.min(width / across, height / down);
	return [across * scale, down * scale, left + (width - across * scale) / 2, top + (height - down * scale) / 2];
}

/** Where the picture stands, which way up, and in which mode: by marks of known colour in its corners. */
function pictureRows() {
	const at = verdict.screens?.at(-1);
	const box =
		/^(\d+)x(\d+)\+(\d+)\+(\d+)$/
			.exec(at?.box ?? '')
			?.slice(1)
			.map(Number) ?? [];
	const { area, widthPx, heightPx } = seen;
	const told = markedBox([
		(area.right - area.left) * widthPx,
		(area.bottom - area.top) * heightPx,
		area.left * widthPx,
		area.top * heightPx
	]).map(Math.round);
	// As it stands on the panel: upright for who looks at it, however that hangs.
	const turn = (seen.turnedDeg + bench.screen.hangsDeg) % 360;
	const corners = ['red', 'green', 'yellow', 'blue'].map((_, n, all) => all[(n - turn / 90 + 4) % 4]);
	return [
		['mode', `${widthPx}x${heightPx}`, at?.mode, at?.mode === `${widthPx}x${heightPx}`],
		[
			'picture on the panel',
			`${told[0]}x${told[1]}+${told[2]}+${told[3]}`,
			at?.box,
			told.every((px, n) => Math.abs(px - box[n]) <= TOLERANCE.edgePx)
		],
		['corners, clockwise', corners.join(' '), at?.corners?.join(' '), corners.join() === at?.corners?.join()]
	];
}

/** While a share is away its mount has failed, and systemd calls the whole "degraded": all else must be well. */
const isWell =
	started === 0 ||
	(shareLateSec > 0 &&
		verdict.applied === '0' &&
		verdict.verified === '0' &&
		verdict.unitsFailed.length + verdict.unitsRestarted.length + verdict.filesDiffering.length === 0);
const rows = [
	['card set applied, verified, nothing failed', 'yes', isWell ? 'yes' : 'no', isWell],
	[
		'second apply',
		'changes nothing',
		verdict.changedBySecondApply === '' ? 'changes nothing' : 'changes files',
		verdict.changedBySecondApply === ''
	],
	...(planned ? soundRows() : []),
	...(shareLateSec > 0 ? lateShareRows() : []),
	...(delivery.used ? deliveryRows() : []),
	...(seen ? pictureRows() : [])
];
console.log(`\n${'what'.padEnd(44)}${'foretold'.padEnd(22)}${'found'.padEnd(22)}`);
for (const [what, told, found, good] of rows)
	console.log(`${what.padEnd(44)}${String(told).padEnd(22)}${String(found).padEnd(22)}${good ? 'agrees' : 'DIFFERS'}`);
if (values.cut) console.log(`All of it after a power cut, ${values.cut} s after the start before was complete.`);
const good = rows.filter((row) => row[3]).length;
console.log(`${good} passed, ${rows.length - good} failed`);
process.exit(good === rows.length ? 0 : 1);
