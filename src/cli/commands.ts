import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, openAsBlob, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { calculations } from '$core/engines/calc';
import type { CardFile, Finding, Fix, Surroundings } from '$core/link';
import type { Asked, Secrets } from '$core/secrets';
import { chain } from '$core/chain';
import { judges } from '$core/judges';
import { writers } from '$core/writers';
import { rehearsed } from '$core/rehearsals';
import { readDisks } from '$core/disks/read';
import { judgeDisks } from '$core/disks/verdict';
import { derive } from '$core/engines/derive';
import { assess } from '$core/engines/assess';
import { curesOf } from '$core/engines/cure';
import { benchFor, benchSchemaOf } from '$core/engines/benchFor';
import { contextFor } from '$core/engines/context';
import { cardTree, type Bench, type CardTree } from '$core/engines/machine';
import { faultsOf, rehearse, type PlannedFault, type Rehearsal } from '$core/engines/rehearse';
import { inWords } from '$core/engines/say';
import { dayPartsFor, smilFor } from '$core/engines/openFormats';
import { askedFor, takeSecrets } from '$core/engines/secrets';
import { speaking } from '$core/speaking';
import { costOfUse, shoppingCsv, shoppingList } from '$core/engines/shopping';
import { write } from '$core/engines/write';
import { readJson } from '$core/formats/json/json';
import { linesOf } from '$core/formats/lines';
import { readTimeSpanMs } from '$core/formats/systemd/unit';
import { partsJsonSchema } from '$core/parts/file';
import { mediaWords } from '$core/parts/mediaWords';
import { WEEKDAYS } from '$core/basics/weekdays';
import { wallClockMs } from '$core/formats/systemd/zone';
import { itemAt } from '$core/onAir/item';
import { resolve, type OnAir } from '$core/onAir/onAir';
import { itemsOf } from '$core/onAir/items';
import { weatherJsonSchema } from '$core/links/notices/feeds/weather';
import { packContent } from '$core/links/delivery/pack';
import { makeKeys, signedPack } from '$core/links/delivery/sign';
import { pageFolder } from '$core/links/notices/files';
import { picturesOf } from '$core/links/notices/pictures';
import { countPlayed, playedCsv, readPlayed } from '$core/links/notices/played';
import { lines, textFile } from '$core/files/cardFile';
import { programmeBook } from '$core/onAir/book';
import { becauseWords, showWords, whatsOn } from '$core/links/programme/whatsOn';
import { readProbe } from '$core/probe';
import { workshopSchema, type Endpoint, type Workshop } from '$core/plan/workshop';
import { sentence } from '$core/basics/result';
import {
	complain,
	isFolder,
	printable,
	readCardTree,
	readMedia,
	readPlanFile,
	Refusal,
	writeCardFiles,
	writePacked,
	absentFrom,
	type PlanFile
} from './files';
import { drawPages } from './drawPages';
import { sendSet } from './send';
import { safely } from '../core/basics/safely';

export interface Flags {
	readonly json: boolean;
	readonly [name: string]: string | boolean | readonly string[] | undefined;
}
type Command = (args: readonly string[], flags: Flags) => number | Promise<number>;

const text = (flags: Flags, name: string): string | undefined =>
	typeof flags[name] === 'string' ? flags[name] : undefined;
const say = (line: string): void => void process.stdout.write(`${printable(line)}\n`);
const sayJson = (value: unknown): void => say(JSON.stringify(value, null, '\t'));
const need = (args: readonly string[], what: string): string => {
	if (!args[0]) throw new Refusal(`${what} is missing. See yphos --help.`);
	return args[0];
};

function chosen(workshop: Workshop, flags: Flags): Endpoint[] {
	const id = text(flags, 'endpoint');
	const found = workshop.endpoints.filter((endpoint) => id === undefined || endpoint.id === id);
	if (found.length === 0)
		throw new Refusal(
			id === undefined
				? 'The workshop has no endpoint.'
				: `There is no endpoint ${id}. There are: ${workshop.endpoints.map((e) => e.id).join(', ')}.`
		);
	return found;
}

/** The one endpoint that is meant. */
function onlyOne(workshop: Workshop, flags: Flags): Endpoint {
	const [endpoint, ...others] = chosen(workshop, flags);
	if (!endpoint || others.length > 0) throw new Refusal('Say with --endpoint ID which of the endpoints is meant.');
	return endpoint;
}

/** The workshop as one endpoint sees it, with the media that are really at hand. */
const seenFrom = (workshop: Workshop, { id, plan }: Endpoint, flags: Flags, media: PlanFile['media']): Surroundings =>
	contextFor(chain, workshop, id, absentFrom(workshop, readMedia(plan, text(flags, 'media'), media)));

export const check: Command = (args, flags) => {
	const { workshop, remarks, media } = readPlanFile(need(args, 'PLAN'));
	for (const remark of remarks) complain(remark);
	const wanted = text(flags, 'fix');
	if (wanted !== undefined) return fix(workshop, wanted, flags, media);
	const reports = chosen(workshop, flags).map((endpoint) => {
		const surroundings = seenFrom(workshop, endpoint, flags, media);
		const assessment = assess(judges, endpoint.plan, surroundings);
		const cures = (finding: Finding): readonly Fix[] => curesOf(judges, endpoint.plan, surroundings, finding);
		return { endpoint, assessment, cures };
	});
	if (flags.json)
		sayJson(
			reports.map(({ endpoint, assessment, cures }) => ({
				endpoint: endpoint.id,
				findings: assessment.findings.map((f) => ({
					id: f.id,
					link: f.link,
					level: f.level,
					title: f.title,
					why: f.why,
					fixes: cures(f).map(({ label }) => label)
				}))
			}))
		);
	else
		for (const { endpoint, assessment, cures } of reports) {
			say(`${endpoint.plan.brief.name} (${endpoint.id})`);
			if (assessment.findings.length === 0) say('  nothing found');
			for (const f of assessment.findings) {
				say(`  ${f.level.toUpperCase().padEnd(8)}${f.title}`);
				say(`          ${f.why}`);
				for (const [n, { label }] of cures(f).entries()) say(`          fix ${f.id}:${n + 1}  ${label}`);
			}
		}
	return reports.some(({ assessment }) => assessment.worst === 'stop') ? 1 : 0;
};

/** Presses one fix of one finding, and writes the mended workshop; the plan that was read is left as it is. */
function fix(workshop: Workshop, wanted: string, flags: Flags, media: PlanFile['media']): number {
	const out = text(flags, 'out');
	if (!out) throw new Refusal('--out FILE is missing: where the mended workshop is to stand.');
	const endpoint = onlyOne(workshop, flags);
	const { id, number = '1' } = /^(?<id>.+?)(?::(?<number>\d+))?$/.exec(wanted)?.groups ?? {};
	const surroundings = seenFrom(workshop, endpoint, flags, media);
	const { findings } = assess(judges, endpoint.plan, surroundings);
	const finding = findings.find((known) => known.id === id);
	if (!finding)
		throw new Refusal(
			`${endpoint.id} has no finding ${id}. It has: ${findings.map((known) => known.id).join(', ') || 'none'}.`
		);
	const cures = curesOf(judges, endpoint.plan, surroundings, finding);
	const chosenFix = cures[Number(number) - 1];
	if (!chosenFix) throw new Refusal(`${id} has ${cures.length || 'no'} fixes; number ${number} is none of them.`);
	const plan = chosenFix.apply(endpoint.plan, Date.now());
	const mended = {
		...workshop,
		endpoints: workshop.endpoints.map((known) => (known.id === endpoint.id ? { ...known, plan } : known))
	};
	const checked = safely(workshopSchema, mended);
	if (!checked.success) throw new Refusal(`That fix does not fit: ${checked.error.issues[0]!.message}`);
	writeFileSync(out, `${JSON.stringify(checked.data, null, '\t')}\n`);
	const { worst } = assess(judges, plan, seenFrom(checked.data, { ...endpoint, plan }, flags, media));
	say(`${endpoint.id}: ${chosenFix.label}. Written to ${out}; the worst that stands now: ${worst ?? 'nothing'}.`);
	return 0;
}

export const writeCommand: Command = async (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	const out = text(flags, 'out');
	if (!out) throw new Refusal('--out DIR is missing: the folder in which the card set is to stand.');
	const endpoints = chosen(workshop, flags);
	let refused = 0;
	for (const endpoint of endpoints) {
		const context = seenFrom(workshop, endpoint, flags, media);
		const { findings, worst } = assess(judges, endpoint.plan, context);
		if (worst === 'stop' && !flags['even-so']) {
			complain(
				`${endpoint.id} is not written: ${findings
					.filter((f) => f.level === 'stop')
					.map((f) => f.title)
					.join('; ')}. Mend that first, or add --even-so.`
			);
			refused++;
			continue;
		}
		const dir = endpoints.length > 1 ? join(out, endpoint.id) : out;
		const files = await cardSet(endpoint, context, flags, media);
		writeCardFiles(dir, files);
		if (flags.json)
			sayJson({ endpoint: endpoint.id, dir, files: files.map(({ path, mode, why }) => ({ path, mode, why })) });
		else say(`${endpoint.id}: ${files.length} files in ${dir}`);
	}
	return refused ? 1 : 0;
};

/** Media, and pages where they are shown as pictures: a browser draws them. */
async function broughtAlong(
	{ plan }: Endpoint,
	context: Surroundings,
	flags: Flags,
	media: PlanFile['media']
): Promise<Secrets> {
	const mediaBytes = readMedia(plan, text(flags, 'media'), media);
	const { notices } = plan;
	const derived = derive(chain, plan, context).context;
	const found = notices.used && notices.shownBy === 'pictures' ? picturesOf(notices, derived) : null;
	if (!found) return { mediaBytes };
	const pageSet = [...write(writers, plan, context, { mediaBytes }), ...pageFolder(notices, derived)];
	return {
		mediaBytes,
		pagePictures: await drawPages(found, pageSet, text(flags, 'browser') ?? 'chromium', complain)
	};
}

/** A card set with its secrets, from the files in which they are given. */
const cardSet = async (
	endpoint: Endpoint,
	context: Surroundings,
	flags: Flags,
	media: PlanFile['media']
): Promise<CardFile[]> =>
	write(writers, endpoint.plan, context, {
		...(await broughtAlong(endpoint, context, flags, media)),
		...secretsFrom(endpoint, context, flags)
	});

/** One endpoint without a stop, or with one that the person knows of. */
function oneWithoutStop(workshop: Workshop, flags: Flags, media: PlanFile['media']): [Endpoint, Surroundings] {
	const endpoint = onlyOne(workshop, flags);
	const context = seenFrom(workshop, endpoint, flags, media);
	const { findings, worst } = assess(judges, endpoint.plan, context);
	if (worst === 'stop' && !flags['even-so']) {
		const stops = findings.filter(({ level }) => level === 'stop').map(({ title }) => title);
		throw new Refusal(`${endpoint.id} has a stop: ${stops.join('; ')}. Mend that first, or add --even-so.`);
	}
	return [endpoint, context];
}

/** Sends the card set to a running endpoint, after showing what changes there. */
export const send: Command = async (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	const [endpoint, context] = oneWithoutStop(workshop, flags, media);
	const { network, card } = endpoint.plan;
	const dir = mkdtempSync(join(tmpdir(), 'yphos-set-'));
	try {
		writeCardFiles(dir, await cardSet(endpoint, context, flags, media));
		return await sendSet({
			dir,
			to: text(flags, 'to') ?? `${network.user}@${network.hostName}.local`,
			firstPartition: card.firstPartition,
			ssh: text(flags, 'ssh') ?? 'ssh',
			sure: flags.yes === true,
			say
		});
	} finally {
		rmSync(dir, { recursive: true });
	}
};

/** Packs what an endpoint fetches: its pages, lists and media, under the names of their digests, with a manifest. */
export const pack: Command = async (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	const out = text(flags, 'out');
	if (!out) throw new Refusal('--out DIR is missing: the folder in which the set is to stand.');
	const [endpoint, context] = oneWithoutStop(workshop, flags, media);
	const { id, plan } = endpoint;
	if (!plan.delivery.used)
		throw new Refusal(`${id} fetches no content. Add Delivery to it, and write its card set once more.`);
	const files = write(writers, plan, context, await broughtAlong(endpoint, context, flags, media));
	const packed = packContent(files, {
		hostName: plan.network.hostName,
		number: Math.floor(Date.now() / 1000),
		era: plan.delivery.era
	});
	const { publicKey } = plan.delivery;
	const file = text(flags, 'sign-key');
	if (publicKey && !file) throw new Refusal(`${id} takes signed sets alone. Add --sign-key FILE, your private key.`);
	const entries = await signedPack(crypto.subtle, packed, publicKey, file ? readFileSync(file, 'utf8') : '');
	if (!entries.ok) throw new Refusal(`${file}: ${sentence(entries.faults)}`);
	writePacked(out, entries.value);
	const named = packed.files.map(({ path }) => path);
	if (flags.json) sayJson({ endpoint: id, dir: out, bytes: packed.bytes, signed: publicKey !== '', files: named });
	else
		say(`${id}: ${named.length} files, ${(packed.bytes / 1e6).toFixed(1)} MB, in ${out}${publicKey ? ', signed' : ''}`);
	return 0;
};

/** Makes a signing key: the private half as a file that only its owner reads, the public one to be put into the plan. */
export const key: Command = async (args, flags) => {
	const file = need(args, 'FILE');
	const { publicKey, privatePem } = await makeKeys(crypto.subtle);
	// One that is there may be what endpoints already believe: it is never written over.
	writeFileSync(file, privatePem, { mode: 0o600, flag: 'wx' });
	if (flags.json) sayJson({ file, publicKey });
	else
		say(
			`${publicKey}\n\nThat is the public half, for Delivery. The private one stands in ${file}: keep it, and a copy elsewhere.`
		);
	return 0;
};

/** One secret from the file that its option names, so that it stands in no history and no list of processes. */
function fromFile(id: string, { option, line, why }: Asked, flags: Flags): string {
	const file = text(flags, option);
	if (!file)
		throw new Refusal(
			line === undefined
				? `${id} ${why}. Put the password into a file and add --${option} FILE.`
				: `${id} ${why}. Put a line ${line}=PASSWORD into a file and add --${option} FILE.`
		);
	const whole = readFileSync(file, 'utf8');
	if (line === undefined) return whole.replace(/\r?\n$/, '');
	const found = linesOf(whole).find((one) => one.startsWith(`${line}=`) && one.length > line.length + 1);
	if (!found) throw new Refusal(`${file} has no line ${line}=PASSWORD.`);
	return found.slice(line.length + 1);
}

/** All that the links ask for; salts are new each time. */
function secretsFrom({ id, plan }: Endpoint, context: Surroundings, flags: Flags): Secrets {
	const asked = askedFor(writers, plan, context);
	const typed = Object.fromEntries(asked.map((one) => [one.id, fromFile(id, one, flags)]));
	const taken = takeSecrets(asked, typed, () => randomBytes(16));
	if (!taken.ok) throw new Refusal(taken.faults.map(({ message }) => message).join(' '));
	return taken.value;
}

export const rehearseCommand: Command = (args, flags) => {
	const path = need(args, 'PLAN or DIR');
	const runs = path !== 'demo' && isFolder(path) ? [fromFolder(path, flags)] : fromPlan(path, flags);
	const results = runs.map(({ name, card, bench }) => ({
		name,
		result: rehearse({
			links: rehearsed,
			card,
			bench,
			startUtcMs: startOf(flags),
			forMs: lengthOf(flags),
			faults: plannedFaults(flags),
			verifies: flags.verify === true
		})
	}));
	if (flags.json)
		sayJson(results.map(({ name, result }) => ({ name, ...result, events: inWords(speaking, result.events) })));
	else for (const { name, result } of results) sayTimeline(name, result);
	return results.every(({ result }) => result.good) ? 0 : 1;
};

interface Run {
	readonly name: string;
	readonly card: CardTree;
	readonly bench: Bench;
}

function readBench(path: string): Bench {
	if (!existsSync(path))
		throw new Refusal(
			`There is no bench at ${path}. A card set that yphos wrote has docs/bench.json; else give --bench FILE.`
		);
	const json = readJson(readFileSync(path, 'utf8'));
	if (!json.ok) throw new Refusal(`${path}: ${sentence(json.faults)}`);
	const parsed = safely(benchSchemaOf(writers), json.value);
	if (!parsed.success)
		throw new Refusal(
			`${path} is no bench: ${parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')}`
		);
	return parsed.data;
}

const fromFolder = (dir: string, flags: Flags): Run => ({
	name: dir,
	card: readCardTree(dir),
	bench: readBench(text(flags, 'bench') ?? join(dir, 'docs', 'bench.json'))
});

function fromPlan(path: string, flags: Flags): Run[] {
	const { workshop, media } = readPlanFile(path);
	return chosen(workshop, flags).map((endpoint) => {
		const context = seenFrom(workshop, endpoint, flags, media);
		const bench = text(flags, 'bench');
		return {
			name: endpoint.plan.brief.name,
			card: cardTree(
				write(writers, endpoint.plan, context, { mediaBytes: readMedia(endpoint.plan, text(flags, 'media'), media) })
			),
			bench: bench ? readBench(bench) : benchFor(writers, endpoint.plan, context)
		};
	});
}

/** What is on at an instant, and why; with --for, all that follows. */
export const onAir: Command = (args, flags) => {
	const { workshop, media } = readPlanFile(need(args, 'PLAN'));
	if (flags.at === '-') return onAirAtEach(workshop, flags, media);
	const at = startOf(flags);
	const lists = text(flags, 'lists');
	if (flags.smil || lists) {
		const endpoint = onlyOne(workshop, flags);
		const around = seenFrom(workshop, endpoint, flags, media);
		const time = [at, at + span(text(flags, 'for') ?? '7d', '--for')] as const;
		if (flags.smil) say(smilFor(chain, endpoint.plan, around, time).trimEnd());
		if (lists) {
			const files = dayPartsFor(chain, endpoint.plan, around, time);
			writeCardFiles(
				lists,
				files.map(({ path, text: content }) => textFile(path, '', lines('programme', ...linesOf(content.trimEnd()))))
			);
			complain(`${endpoint.id}: ${files.length} files in ${lists}`);
		}
		return 0;
	}
	const until = flags.for === undefined ? null : at + lengthOf(flags);
	const { timeZone } = workshop.venue;
	const when = (utcMs: number): string => {
		const wall = new Date(wallClockMs(timeZone, utcMs));
		return `${WEEKDAYS[(wall.getUTCDay() + 6) % 7]} ${wall.toISOString().slice(0, 16).replace('T', ' ')}`;
	};
	const told = chosen(workshop, flags).map((endpoint) => {
		const { programme, sources, brief } = endpoint.plan;
		const { context } = derive(chain, endpoint.plan, seenFrom(workshop, endpoint, flags, media));
		const book = programmeBook(programme, context.venue);
		const say = (on: OnAir, fromUtcMs: number, untilUtcMs: number | null) => ({
			from: new Date(fromUtcMs).toISOString(),
			until: untilUtcMs === null ? null : new Date(untilUtcMs).toISOString(),
			show: on.show,
			shows: showWords(on.show, programme, sources.listTitle),
			rule: on.line?.show === 'quiet' ? null : (on.line?.rule ?? null),
			because: becauseWords(on, book)
		});
		const now = whatsOn(book, at);
		// A page follows the clock to the item; the player of files goes through its list by itself.
		const item = context.facts.pages ? itemAt(book, (show) => itemsOf(show, programme, context), at).item : null;
		return {
			id: endpoint.id,
			name: brief.name,
			...(until === null && item ? { item: { id: item.id, title: item.title } } : {}),
			on:
				until === null
					? [say(now, at, now.untilUtcMs)]
					: resolve(book, at, until).map((on) => say(on, on.fromUtcMs, on.untilUtcMs))
		};
	});
	if (flags.json) sayJson(told);
	else
		for (const { name, on, item } of told)
			for (const { from, until: ends, shows, because } of on)
				say(
					`${name.padEnd(18)}${when(Date.parse(from))}${ends ? ` to ${when(Date.parse(ends))}` : '              \u2026'.padEnd(24)}  ${item ? `${item.title}: ` : ''}${shows} (${because})`
				);
	return 0;
};

/** The same for each instant of standard input, a line of JSON each: the item that a page shows, or the list where the player has it. */
function onAirAtEach(workshop: Workshop, flags: Flags, media: PlanFile['media']): number {
	const [endpoint] = chosen(workshop, flags);
	if (!endpoint) throw new Refusal('Say which with --endpoint ID.');
	const { programme } = endpoint.plan;
	const { context } = derive(chain, endpoint.plan, seenFrom(workshop, endpoint, flags, media));
	const book = programmeBook(programme, context.venue);
	for (const line of readFileSync(0, 'utf8').split('\n')) {
		if (line.trim() === '') continue;
		const {
			show,
			line: rule,
			item
		} = itemAt(book, (list) => itemsOf(list, programme, context), startOf({ ...flags, at: line.trim() }));
		say(JSON.stringify({ at: line.trim(), show, rule: rule?.rule ?? '', item: item?.id ?? '' }));
	}
	return 0;
}

/** What a page has really shown, from its log: each thing, how often and how long, as CSV. */
export const played: Command = (args, flags) => {
	const path = need(args, 'FILE');
	const read = readPlayed(readFileSync(path === '-' ? 0 : path, 'utf8'));
	if (!read.ok) throw new Refusal(sentence(read.faults));
	if (flags.json) sayJson(read.value);
	else say(flags.each ? playedCsv(read.value).trimEnd() : countPlayed(read.value).trimEnd());
	return 0;
};

function startOf(flags: Flags): number {
	const at = text(flags, 'at');
	const ms = at === undefined ? Date.now() : Date.parse(at);
	if (Number.isNaN(ms)) throw new Refusal(`--at ${at} is no time. Write it like 2026-12-24T18:40:00Z.`);
	return ms;
}

function span(value: string, flag: string): number {
	const ms = readTimeSpanMs(value);
	if (ms === null || !Number.isFinite(ms))
		throw new Refusal(`${flag} ${value} is no length of time. Write it like 90s, 5min or 24h.`);
	return ms;
}

const lengthOf = (flags: Flags): number => span(text(flags, 'for') ?? '2min', '--for');

function plannedFaults(flags: Flags): PlannedFault[] {
	const known = faultsOf(chain);
	const given = flags.fault === undefined ? [] : ([flags.fault].flat() as string[]);
	return given.map((word) => {
		const m = /^([a-z-]+)@([^+]+)(?:\+(.+))?$/.exec(word);
		if (!m || !Object.hasOwn(known, m[1]!))
			throw new Refusal(
				`--fault ${word}: write NAME@TIME or NAME@TIME+LENGTH, such as power-cut@40s+5s. Names: ${Object.keys(known).join(', ')}.`
			);
		return {
			name: m[1]!,
			atMs: span(m[2]!, '--fault'),
			...(m[3] ? { lastsMs: span(m[3], '--fault') } : {})
		};
	});
}

function sayTimeline(name: string, result: Rehearsal): void {
	say(`${name}\n`);
	for (const { atMs, from, text, reading } of inWords(speaking, result.events))
		say(`${(atMs / 1000).toFixed(1).padStart(9)}  ${from.padEnd(10)}${text}${reading ? `  [${reading}]` : ''}`);
	say('');
	for (const { title, verdict } of result.tracks) if (verdict) say(`${`${title}:`.padEnd(14)}${verdict.words}`);
	for (const word of result.words) say(word);
	for (const { label, is } of result.verified ?? []) say(`${VERIFIED[is].padEnd(14)}${label}`);
}
/** As verify.sh puts it, and what only a rehearsal can say. */
const VERIFIED = { ok: 'ok', wrong: 'WRONG', rests: '--', unknown: 'not simulated' } as const;

export const probe: Command = (args, flags) => {
	const path = need(args, 'FILE');
	const read = readProbe(readFileSync(path === '-' ? 0 : path, 'utf8'));
	if (!read.ok) throw new Refusal(sentence(read.faults));
	const { facts, understood, notUnderstood, leftOut } = read.value;
	if (flags.json) sayJson(read.value);
	else {
		say(`Understood: ${understood.join(', ')}`);
		if (facts.model) say(`Board: ${facts.model}${facts.memoryMb ? `, ${facts.memoryMb} MB` : ''}`);
		for (const d of facts.soundDevices)
			say(
				`Sound: hw:CARD=${d.cardId},DEV=${d.deviceNumber}  ${d.cardName}${d.playback ? `  ${d.playback.ratesHz.join('/')} Hz, ${d.playback.formats.join('/')}, ${d.playback.channels.join('/')} channels` : '  abilities not reported'}`
			);
		for (const c of facts.connectors)
			say(`Screen socket: ${c.name} ${c.connected ? `connected, ${c.modes.length} modes` : 'empty'}`);
		if (facts.supplyAlarm) say('Supply: the board has reported too little voltage');
		if (leftOut.length) say(`Left out:\n  ${leftOut.join('\n  ')}`);
		if (notUnderstood.length) say(`Not understood:\n  ${notUnderstood.join('\n  ')}`);
	}
	return 0;
};

export const calc: Command = (args) => {
	const name = need(args, 'NAME');
	const calculation = Object.hasOwn(calculations, name) ? calculations[name] : undefined;
	if (!calculation)
		throw new Refusal(`There is no calculation ${name}. There are: ${Object.keys(calculations).join(', ')}.`);
	let bad = 0;
	for (const line of linesOf(readFileSync(0, 'utf8'))) {
		if (line.trim() === '') continue;
		try {
			say(JSON.stringify(calculation(JSON.parse(line))));
		} catch (error) {
			bad++;
			say(JSON.stringify({ error: (error as Error).message }));
		}
	}
	return bad ? 1 : 0;
};

export const shop: Command = (args, flags) => {
	const { workshop } = readPlanFile(need(args, 'PLAN'));
	const ids = chosen(workshop, flags).map(({ id }) => id);
	const list = shoppingList(chain, workshop, ids);
	if (flags.json) sayJson({ ...list, use: costOfUse(chain, workshop, ids) });
	else process.stdout.write(printable(shoppingCsv(list, workshop), '\r'));
	return 0;
};

export const disks: Command = (args, flags) => {
	const read = readDisks(readFileSync(args[0] === undefined || args[0] === '-' ? 0 : args[0], 'utf8'));
	if (!read.ok) throw new Refusal(sentence(read.faults));
	const gb = text(flags, 'card-gb');
	const verdicts = judgeDisks(read.value.disks, { imageBytes: null, cardGb: gb === undefined ? null : Number(gb) });
	if (flags.json) sayJson(verdicts);
	else
		for (const { disk, verdict, reasons } of verdicts)
			say(`${verdict.padEnd(6)} ${disk.id.padEnd(14)} ${reasons.join('; ')}`);
	return verdicts.some(({ verdict }) => verdict === 'card') ? 0 : 1;
};

/** What files say of themselves, as the app reads them; loudness is decoded in a browser alone. */
export const look: Command = async (args, flags) => {
	need(args, 'FILE');
	// Only who asks for it waits for the media library to load.
	const { lookAt } = await import('$lib/media/look');
	const all: { file: string; facts: unknown }[] = [];
	for (const file of args) {
		const blob = await openAsBlob(file);
		const looked = await lookAt(blob).catch(() => null);
		all.push({ file, facts: looked?.facts ?? null });
		if (flags.json) continue;
		say(`${file}${looked ? '' : ': it is in no format that is read here; ffprobe may know it'}`);
		if (!looked) continue;
		for (const [name, words] of mediaWords({ ...looked.facts, sizeBytes: blob.size, bitRateBps: null }))
			say(`  ${name.padEnd(10)}${words}`);
		for (const { startMs, title } of looked.facts.details?.chapters ?? [])
			say(`  ${new Date(startMs).toISOString().slice(11, 19).padEnd(10)}${title}`);
	}
	if (flags.json) sayJson(all);
	return all.every(({ facts }) => facts) ? 0 : 1;
};

export const schema: Command = ([which]) => {
	sayJson(which === 'weather' ? weatherJsonSchema() : partsJsonSchema());
	return 0;
};

export const demo: Command = (args) => {
	const dir = need(args, 'DIR');
	mkdirSync(dir, { recursive: true });
	writeFileSync(
		join(dir, 'skerrin-light.yphos.json'),
		`${JSON.stringify(readPlanFile('demo').workshop, null, '\t')}\n`
	);
	say(`wrote ${join(dir, 'skerrin-light.yphos.json')}`);
	return 0;
};
