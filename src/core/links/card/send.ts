import { z } from 'zod';
import { fault, ok, type Result } from '../../basics/result';
import { readJson } from '../../formats/json/json';
import { contentPath, CONTENT_NOW } from '../../files/content';
import { PHONE_DIR, PLAYER_UNIT } from '../../files/cardFile';
import { safely } from '../../basics/safely';

/** A name below the set's folder, on one line: it is handed to a shell. */
const isBelow = (path: string): boolean =>
	!path.startsWith('/') && !path.split('/').includes('..') && !/[\0-\x1f]/.test(path);

const manifest = z.object({
	yphos: z.literal('card set'),
	files: z
		.array(
			z.object({
				path: z.string().refine(isBelow),
				/** What it is called on the endpoint, where that is another name. */
				target: z.string().optional(),
				sha256: z.string(),
				size: z.number()
			})
		)
		.max(20_000)
});
/** Files of a set by their path below it: digest, size, and where another name belongs. */
export type SetFiles = ReadonlyMap<
	string,
	{ readonly sha256: string; readonly size: number; readonly target?: string | undefined }
>;

/** What a set's own manifest says that it holds. Faults: `manifest-unreadable`. */
export function readManifest(text: string): Result<SetFiles> {
	const json = readJson(text);
	const read = json.ok ? safely(manifest, json.value) : null;
	return read?.success
		? ok(new Map(read.data.files.map(({ path, ...file }) => [path, file])))
		: fault(
				'manifest-unreadable',
				'manifest.json of the card set cannot be read. Copy the card set onto the card once more.'
			);
}

/** What another set would change, by its paths. */
export interface SetChanges {
	readonly fresh: readonly string[];
	readonly changed: readonly string[];
	readonly gone: readonly string[];
	/** What is to begin anew for it to count: nothing, the player alone, or the whole endpoint. */
	readonly begins: 'nothing' | 'player' | 'endpoint';
	readonly bytes: number;
}

/** Read anew by whoever asks for it: nothing begins anew for its sake. */
const READ_EACH_TIME = `${PHONE_DIR}/`;
/** It says what the others are: changed whenever one of them is. */
const FOLLOWS = ['apply.sh', 'manifest.json', 'secrets.txt'];

/** From the set that lies there to the one that is to be there. */
export function compareSets(there: SetFiles, wanted: SetFiles): SetChanges {
	const fresh = [...wanted.keys()].filter((path) => !there.has(path));
	const changed = [...wanted].filter(([path, { sha256 }]) => there.has(path) && there.get(path)!.sha256 !== sha256);
	const gone = [...there.keys()].filter((path) => !wanted.has(path));
	const targetAt = (path: string): string | null =>
		(wanted.get(path) ?? there.get(path))?.target ?? (path.startsWith('root/') ? path.slice('root'.length) : null);
	const placed = [...fresh, ...changed.map(([path]) => path), ...gone].flatMap((path) => {
		const target = targetAt(path);
		return target === null || target.startsWith(READ_EACH_TIME) ? [] : [target];
	});
	return {
		fresh,
		changed: changed.map(([path]) => path).filter((path) => !FOLLOWS.includes(path)),
		gone,
		begins:
			placed.length === 0 ? 'nothing' : placed.every((target) => contentPath(target) !== null) ? 'player' : 'endpoint',
		bytes: [...fresh, ...changed.map(([path]) => path)].reduce((sum, path) => sum + wanted.get(path)!.size, 0)
	};
}

/** Where the set lies on the endpoint, as its shell writes it. */
const setAt = (firstPartition: string): string => `\${YPHOS_SET:-${firstPartition}/yphos}`;
/** apply.sh leaves here what the set holds, once all of it is in its place. */
const APPLIED_MANIFEST = '${YPHOS_APPLIED:-/var/lib/yphos-card/manifest.json}';
const NOW = `\${YPHOS_CONTENT_NOW:-${CONTENT_NOW}}`;

/** Asks for the manifest of what was put in place; before there was such a list, for that of what lies on the first partition. */
export const askManifest = (firstPartition: string): string =>
	`cat "${APPLIED_MANIFEST}" 2>/dev/null || cat "${setAt(firstPartition)}/manifest.json"`;
/** Asks which set of content is shown. */
export const ASK_SHOWN = `readlink "${NOW}" || true`;

/** What `ASK_SHOWN` has answered: the number of a set that was fetched, by which it was packed; null: what the card set brought. */
export const shownSet = (answer: string): number | null => {
	const number = /\/sets\/(?:\d+-)?(\d{1,15})\n?$/.exec(answer)?.[1];
	return number === undefined ? null : Number(number);
};

/**
 * Run on the endpoint beside what was sent: takes it into the card set, all of it or nothing, and puts the set in place. It goes on when
 * the connection breaks. Sources: sha256sum(1), --check; systemd-run(1), --pipe, --wait.
 */
export const takeScript = (firstPartition: string): string => `#!/bin/bash
# take.sh: takes what was sent into the card set, all of it or nothing, and puts the set in place.
set -euo pipefail
sent=$(cd "$(dirname "\${BASH_SOURCE[0]}")" && pwd)
set=${setAt(firstPartition)}
now=${NOW}
[[ -e $set/apply.sh ]] || { echo "No card set lies at $set: write the card first." >&2; exit 1; }
cd "$sent/set"
sha256sum --quiet --check "$sent/digests" || { echo 'What was sent is damaged, and nothing was changed. Send it again.' >&2; exit 1; }
each() { while read -r _ path; do "$1" "$path"; done <"$sent/digests"; }
beside() { install -D -m 0755 "$1" "$set/$1.yphos-new"; }
clear() { rm -f "$set/$1.yphos-new"; }
take() { mv -f "$set/$1.yphos-new" "$set/$1"; }
trap 'each clear' EXIT
each beside || { echo 'There is no room for it on the first partition, and nothing was changed.' >&2; exit 1; }
sync
each take
install -m 0755 "$sent/manifest.json" "$set/manifest.json.yphos-new"
mv -f "$set/manifest.json.yphos-new" "$set/manifest.json"
while IFS= read -r path; do rm -f "$set/$path"; done <"$sent/gone"
sync
# A service of its own: it goes on when the connection breaks.
systemd-run --quiet --wait --pipe --collect bash "$set/apply.sh"
begins=$(cat "$sent/begins")
if [[ $begins != nothing && -L $now ]]; then
	# What was sent is shown from now on, not a set that was fetched before it, nor one that waits to be shown.
	rm -f /var/lib/yphos-fetch/manifest.txt
	ln -sfn /opt/yphos "$now.new"
	mv -T "$now.new" "$now"
fi
if [[ $begins == player ]]; then
	systemctl try-restart ${PLAYER_UNIT}
	echo 'done: the player has begun anew'
fi
trap - EXIT
rm -rf "$sent"
`;
