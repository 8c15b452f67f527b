import { fault, ok, type Result } from '../../../basics/result';

/** What a server says that it has. */
export interface Listing {
	/** Which program said so. */
	readonly by: 'smbclient' | 'showmount' | 'mount';
	/** Names as a plan has them: "media", "/export/music"; of mount: what is mounted, and where. */
	readonly shares: readonly { readonly name: string; readonly note: string }[];
}

const LONGEST = 200_000;

/** What went wrong, in words of what to do. Source: smbclient of samba 4.17, tried with each. */
const TROUBLES: readonly (readonly [RegExp, string])[] = [
	[
		/NT_STATUS_LOGON_FAILURE/,
		'The server refuses that user or password. Mind capitals, and that the account may use shares.'
	],
	[/NT_STATUS_ACCESS_DENIED/, 'The server lets that user in, but not there. Give the account the right to read it.'],
	[/NT_STATUS_BAD_NETWORK_NAME/, 'The server has no share of that name. List them without one.'],
	[
		/NT_STATUS_(?:CONNECTION_REFUSED|UNSUCCESSFUL|IO_TIMEOUT|HOST_UNREACHABLE|NETWORK_UNREACHABLE)/,
		'No server answers there. Is it awake, is the name right, does its own firewall let shares through? Try its number instead of its name.'
	],
	[
		/clnt_create: RPC/,
		'No server answers there with exported folders. Is it awake, and does it speak NFS 3 too? One that speaks only NFS 4 lists nothing.'
	]
];

/** Reads what `smbclient -L` (with -g or without), `showmount -e` or `mount` printed. Faults: `listing-long`, `listing-trouble`, `listing-unknown`. */
export function readListing(text: string): Result<Listing> {
	if (text.length > LONGEST)
		return fault('listing-long', 'That is far longer than any such list. Paste only what the command printed.');
	const lines = text.split('\n').map((line) => line.replace(/\r$/, ''));
	const found = byTable(lines) ?? byBars(lines) ?? byExports(lines) ?? byMounts(lines);
	if (found) return ok(found);
	const trouble = TROUBLES.find(([pattern]) => pattern.test(text));
	if (trouble) return fault('listing-trouble', trouble[1]);
	return fault(
		'listing-unknown',
		'This is no list of shares. Paste all that smbclient -L, showmount -e or mount printed.'
	);
}

const SORTS = ['Disk', 'IPC', 'Printer'];

/** Columns begin where the rules under their heads begin; a name longer than its column pushes the others along. */
function byTable(lines: readonly string[]): Listing | null {
	const head = lines.findIndex((line) => line.trimStart().startsWith('Sharename'));
	if (head < 0 || !lines[head + 1]?.trimStart().startsWith('----')) return null;
	const column = lines[head]!.indexOf('Type');
	const shares: { name: string; note: string }[] = [];
	for (const line of lines.slice(head + 2)) {
		if (!/^\s/.test(line) || line.trim() === '') break;
		const isSort = (at: number): boolean => SORTS.includes(line.slice(at).split(/\s/, 1)[0]!);
		let at = column;
		if (!isSort(at)) at = SORTS.map((sort) => line.indexOf(` ${sort} `) + 1).filter((place) => place > 0)[0] ?? -1;
		if (at < 0) continue;
		if (line.startsWith('Disk', at)) shares.push({ name: line.slice(0, at).trim(), note: line.slice(at + 4).trim() });
	}
	return { by: 'smbclient', shares };
}

function byBars(lines: readonly string[]): Listing | null {
	const rows = lines
		.map((line) => line.split('|'))
		.filter((parts) => /^(?:Disk|IPC|Printer)$/.test(parts[0]!) && parts.length >= 3);
	if (rows.length === 0) return null;
	return {
		by: 'smbclient',
		shares: rows.filter(([kind]) => kind === 'Disk').map(([, name, ...note]) => ({ name: name!, note: note.join('|') }))
	};
}

/** Source: nfs-utils, showmount.c. */
function byExports(lines: readonly string[]): Listing | null {
	const head = lines.findIndex((line) => /^Exports? list (?:for|on) /.test(line));
	if (head < 0) return null;
	const shares = lines.slice(head + 1).flatMap((line) => {
		const [path = '', ...who] = line.trim().split(/\s+/);
		return path.startsWith('/') ? [{ name: path, note: who.join(' ') }] : [];
	});
	return { by: 'showmount', shares };
}

function byMounts(lines: readonly string[]): Listing | null {
	const shares = lines.flatMap((line) => {
		const [what, rest = ''] = split(line, ' on ');
		const [where, type = ''] = split(rest, ' type ');
		return /^(?:cifs|nfs4?|vfat|exfat|ntfs3|fuseblk|ext4)\b/.test(type) ? [{ name: what, note: where }] : [];
	});
	return shares.length === 0 ? null : { by: 'mount', shares };
}
const split = (text: string, at: string): [string, string?] => {
	const place = text.indexOf(at);
	return place < 0 ? [text] : [text.slice(0, place), text.slice(place + at.length)];
};
