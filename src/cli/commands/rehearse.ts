import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { chain } from '$core/chain';
import { writers } from '$core/writers';
import { rehearsed } from '$core/rehearsals';
import { benchFor, benchSchemaOf } from '$core/engines/benchFor';
import { cardTree, type Bench, type CardTree } from '$core/engines/machine';
import { faultsOf, rehearse, type PlannedFault, type Rehearsal } from '$core/engines/rehearse';
import { inWords } from '$core/engines/say';
import { speaking } from '$core/speaking';
import { write } from '$core/engines/write';
import { readJson } from '$core/formats/json/json';
import { sentence } from '$core/basics/result';
import { isFolder, readCardTree, readMedia, readPlanFile, Refusal } from '../files';
import { safely } from '$core/basics/safely';
import { type Flags, type Command, text, say, sayJson, need } from '../say';
import { chosen, seenFrom } from '../endpoints';
import { startOf, span, lengthOf } from '../time';

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
