import { PLAYER_SHA256 } from 'virtual:player-digest';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { OTHERS_READ, type Machine, type Teller } from '../../../engines/machine';
import { POLICY } from '../pages/policy';
import { showSchema, type Show } from '../pages/show';
import type { NOTICES_WORDS } from '../words';

/** Says what befalls the page. */
export type Tell = Teller<typeof NOTICES_WORDS>;

const digests = new WeakMap<Uint8Array, string>();
function sha256Hex(bytes: Uint8Array): string {
	let digest = digests.get(bytes);
	if (!digest) digests.set(bytes, (digest = bytesToHex(sha256(bytes))));
	return digest;
}

/** What a page shows, and the folder that it lies in. */
export interface OpenedPage {
	readonly show: Show;
	readonly folder: string;
}
/** The page as it stands on the disk, and its parts; null: nothing comes of it. */
export function readShow(machine: Machine, tell: Tell, address: string): OpenedPage | null {
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
