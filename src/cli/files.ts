import {
	existsSync,
	mkdirSync,
	readdirSync,
	readFileSync,
	renameSync,
	statSync,
	writeFileSync,
	chmodSync
} from 'node:fs';
import { basename, dirname, isAbsolute, join, relative, resolve, sep } from 'node:path';
import { cardBytes } from '$core/files/cardBytes';
import type { CardTree } from '$core/engines/machine';
import type { CardFile } from '$core/link/file';
import { openArchive } from '$core/plan/archive';
import { openWorkshop, type Opened } from '$core/plan/open';
import type { Workshop } from '$core/plan/workshop';
import type { Plan } from '$core/plan/plan';
import { sentence } from '$core/basics/result';
import { demoMediaBytes } from '$demo/media';
import { demoWorkshop } from '$demo/workshop';

/** Something the person can mend: printed as it is, without a trace. */
export class Refusal extends Error {}

/** Control characters of what others wrote never reach a terminal, which would obey them; line ends and tabs do. */
export const printable = (text: string, allowed = ''): string =>
	text.replace(/[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/g, (c) => (allowed.includes(c) ? c : '\ufffd'));
export const complain = (line: string): void => void process.stderr.write(`${printable(line)}\n`);

/** An opened workshop, and the media that came in one archive with it. */
export interface PlanFile extends Opened {
	readonly media: ReadonlyMap<string, Uint8Array>;
}

/** An exported workshop, with its media or without, or the word "demo" for the one that ships. */
export function readPlanFile(path: string): PlanFile {
	if (path === 'demo') return { workshop: demoWorkshop, damaged: [], remarks: [], media: new Map() };
	let bytes: Uint8Array;
	try {
		bytes = readFileSync(path);
	} catch {
		throw new Refusal(`${path} cannot be read. Export the workshop from Yphos and give its path, or the word demo.`);
	}
	const isArchive = bytes[0] === 0x50 && bytes[1] === 0x4b;
	const opened = isArchive ? openArchive(bytes, 'UTC') : openWorkshop(new TextDecoder().decode(bytes), 'UTC');
	if (!opened.ok) throw new Refusal(`${path}: ${sentence(opened.faults)}`);
	// Whatever is done with the rest, nobody is to think that it is all.
	for (const { where, why } of opened.value.damaged) complain(`left out ${where}: ${why}`);
	return { media: new Map(), ...opened.value };
}

/** Bytes of the media that go on the card: from the folder the person names, else out of the archive, else the demo's own. */
export function readMedia(
	plan: Plan,
	folder: string | undefined,
	archive: ReadonlyMap<string, Uint8Array>
): Map<string, Uint8Array> {
	const found = new Map<string, Uint8Array>();
	for (const { location } of plan.sources.items) {
		let bytes = archive.get(location) ?? demoMediaBytes(location);
		if (folder)
			try {
				bytes = readFileSync(join(folder, basename(location)));
			} catch {
				// Not in the folder: the run sheet tells the person to copy it.
			}
		if (bytes) found.set(location, bytes);
	}
	return found;
}

/** What the set is to carry, and is nowhere: without it the plan cannot be written. */
export const absentFrom = (workshop: Workshop, found: ReadonlyMap<string, Uint8Array>): ReadonlySet<string> =>
	new Set(
		workshop.media.flatMap(({ location, kept }) => (kept === 'browser' && !found.has(location) ? [location] : []))
	);

const isInside = (dir: string, path: string): boolean => {
	const way = relative(resolve(dir), resolve(path));
	return way !== '' && way !== '..' && !way.startsWith(`..${sep}`) && !isAbsolute(way);
};

export function writeCardFiles(out: string, files: readonly CardFile[]): void {
	for (const file of files) {
		const path = join(out, file.path);
		// Paths are made of names; whatever is in one, nothing is written anywhere else.
		if (!isInside(out, path)) throw new Refusal(`${file.path} would not lie within ${out}: nothing is written there.`);
		mkdirSync(dirname(path), { recursive: true });
		writeFileSync(path, cardBytes(file));
		chmodSync(path, parseInt(file.mode, 8));
	}
}

/** A set of content: what lies there already under the name of its digest is left alone. */
export function writePacked(
	out: string,
	entries: readonly { readonly path: string; readonly bytes: Uint8Array | Blob }[]
): void {
	mkdirSync(join(out, 'files'), { recursive: true });
	for (const { path, bytes } of entries) {
		if (bytes instanceof Blob) throw new RangeError(`${path} is not at hand`);
		const at = join(out, path);
		if (path.startsWith('files/') && existsSync(at) && readFileSync(at).equals(bytes)) continue;
		// A manifest takes the place of the last one at once, for an endpoint may be reading it.
		writeFileSync(`${at}.new`, bytes);
		renameSync(`${at}.new`, at);
	}
}

/** A card set as it stands in a folder. */
export function readCardTree(dir: string): CardTree {
	const tree = new Map<string, { text: string; bytes: Uint8Array | null }>();
	const walk = (at: string): void => {
		for (const entry of readdirSync(at, { withFileTypes: true })) {
			const path = join(at, entry.name);
			if (entry.isDirectory()) walk(path);
			else {
				const bytes = new Uint8Array(readFileSync(path));
				tree.set(relative(dir, path).replaceAll('\\', '/'), { text: new TextDecoder().decode(bytes), bytes });
			}
		}
	};
	walk(dir);
	return tree;
}

export const isFolder = (path: string): boolean => {
	try {
		return statSync(path).isDirectory();
	} catch {
		return false;
	}
};
