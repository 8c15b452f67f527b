import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { sentence } from '$core/basics/result';
import {
	ASK_SHOWN,
	askManifest,
	compareSets,
	readManifest,
	shownSet,
	takeScript,
	type SetChanges
} from '$core/links/card/send';
import { Refusal } from './files';

/** Where what is sent lies meanwhile, below the keeper's home. */
const PARCEL = 'yphos-sent';
/** user@host, and nothing that ssh or a shell would take for something else. */
const TO = /^[a-z_][a-z0-9_-]{0,31}@[A-Za-z0-9][A-Za-z0-9.:-]{0,252}$/;

interface Sending {
	/** A folder with the card set as it was written. */
	readonly dir: string;
	readonly to: string;
	readonly firstPartition: string;
	readonly ssh: string;
	readonly sure: boolean;
	readonly say: (line: string) => void;
}

/** Sends a card set to a running endpoint over SSH, once it has shown what that changes there. Gives the exit code. */
export async function sendSet({ dir, to, firstPartition, ssh, sure, say }: Sending): Promise<number> {
	if (!TO.test(to)) throw new Refusal(`--to ${to} is no USER@HOST, such as keeper@hatch.local.`);
	const onEndpoint = (command: string, input: Uint8Array | string = '', terminal = false) =>
		spawnSync(ssh, [...(terminal ? ['-t'] : []), '--', to, command], {
			input: terminal ? undefined : input,
			maxBuffer: 1 << 28,
			stdio: terminal ? 'inherit' : ['pipe', 'pipe', 'pipe']
		});
	const there = onEndpoint(askManifest(firstPartition));
	if (there.error) throw new Refusal(`${ssh} cannot be run: ${there.error.message}.`);
	if (there.status !== 0)
		throw new Refusal(
			there.status === 255
				? `${to} cannot be reached by SSH: ${there.stderr.toString().trim().split('\n').at(-1) ?? ''}`
				: `${to} has no card set at ${firstPartition}/yphos: write the card first.`
		);
	const theirs = readManifest(there.stdout.toString());
	if (!theirs.ok) throw new Refusal(`${to}: ${sentence(theirs.faults)}`);
	const set = join(dir, 'boot/yphos');
	const manifestText = readFileSync(join(set, 'manifest.json'), 'utf8');
	const ours = readManifest(manifestText);
	if (!ours.ok) throw new Refusal(sentence(ours.faults));
	const changes = compareSets(theirs.value, ours.value);
	tell(changes, say);
	const shown = shownSet(onEndpoint(ASK_SHOWN).stdout.toString());
	if (shown !== null) tellShown(shown, changes, say);
	if (changes.fresh.length + changes.changed.length + changes.gone.length === 0) return 0;
	if (!sure && !(await isAgreed(to))) {
		say('Nothing was sent.');
		return 1;
	}
	const parcel = mkdtempSync(join(tmpdir(), 'yphos-send-'));
	try {
		const sent = [...changes.fresh, ...changes.changed, 'apply.sh'].filter((path, n, all) => all.indexOf(path) === n);
		for (const path of sent) {
			mkdirSync(dirname(join(parcel, 'set', path)), { recursive: true });
			cpSync(join(set, path), join(parcel, 'set', path));
		}
		const digests = sent.map((path) => `${ours.value.get(path)!.sha256}  ${path}\n`).join('');
		writeFileSync(join(parcel, 'digests'), digests);
		writeFileSync(join(parcel, 'gone'), changes.gone.map((path) => `${path}\n`).join(''));
		writeFileSync(join(parcel, 'begins'), `${changes.begins}\n`);
		writeFileSync(join(parcel, 'manifest.json'), manifestText);
		writeFileSync(join(parcel, 'take.sh'), takeScript(firstPartition));
		const tar = spawnSync('tar', ['-c', '-C', parcel, '.'], { maxBuffer: 1 << 30 });
		if (tar.status !== 0) throw new Refusal(`tar cannot be run: ${tar.error?.message ?? tar.stderr.toString()}`);
		const brought = onEndpoint(`rm -rf ${PARCEL} && mkdir -m 0700 ${PARCEL} && tar -x -C ${PARCEL}`, tar.stdout);
		if (brought.status !== 0)
			throw new Refusal(`It broke off on the way, and nothing was changed: ${brought.stderr.toString().trim()}`);
		const taken = onEndpoint(`sudo bash ${PARCEL}/take.sh`, '', process.stdin.isTTY === true);
		if (!process.stdin.isTTY) say(`${taken.stdout?.toString() ?? ''}${taken.stderr?.toString() ?? ''}`.trimEnd());
		if (taken.status !== 0) return 1;
		if (changes.begins === 'endpoint') say(`It counts from the next start: ssh ${to} sudo systemctl reboot`);
		return 0;
	} finally {
		rmSync(parcel, { recursive: true });
	}
}

function tell({ fresh, changed, gone, begins, bytes }: SetChanges, say: (line: string) => void): void {
	for (const [mark, paths] of [
		['new', fresh],
		['changed', changed],
		['goes', gone]
	] as const)
		for (const path of paths) say(`${mark.padEnd(9)}${path.replace(/^root\//, '/')}`);
	const count = fresh.length + changed.length + gone.length;
	say(
		count === 0
			? 'The endpoint has this very set: nothing to send.'
			: `${count} file${count === 1 ? '' : 's'}, ${(bytes / 1e6).toFixed(1)} MB; then ${begins === 'player' ? 'the player begins anew' : begins === 'endpoint' ? 'the endpoint must be restarted' : 'nothing begins anew'}.`
	);
}

/** Whether it goes on showing what it has fetched. */
function tellShown(number: number, { begins }: SetChanges, say: (line: string) => void): void {
	const packed = new Date(number * 1000).toISOString().slice(0, 16).replace('T', ' ');
	say(
		`It shows a set of content that it fetched, packed ${packed} UTC${number * 1000 > Date.now() ? ', which is yet to come' : ''}. ${
			begins === 'nothing'
				? 'That stays on air.'
				: 'What you send takes its place, should it be older too, until a set newer than that one stands at its address.'
		}`
	);
}

async function isAgreed(to: string): Promise<boolean> {
	if (!process.stdin.isTTY) throw new Refusal('Nobody is there to agree: add --yes to send it.');
	const ask = createInterface({ input: process.stdin, output: process.stderr });
	const answer = await ask.question(`Send it to ${to}? [y/N] `);
	ask.close();
	return /^y(?:es)?$/i.test(answer.trim());
}
