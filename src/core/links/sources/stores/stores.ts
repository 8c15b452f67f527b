import { z } from 'zod';
import { escapeUnitPath } from '../../../formats/systemd/escape';
import { idText, lineText } from '../../../basics/text';

/** Where stores are mounted, each in a folder of its own name. */
export const STORES_DIR = '/srv';

const base = {
	id: idText,
	/** The folder's name below /srv. */
	name: z
		.string()
		.regex(
			/^[a-z][a-z0-9-]{0,23}$/,
			'A folder\u2019s name begins with a small letter; then letters, digits and hyphens.'
		)
};
const server = z
	.string()
	.regex(/^[A-Za-z0-9][A-Za-z0-9.-]{0,199}$/, 'A server has a name or a number, such as files.local or 192.168.40.5.');
/** What a mount option or the kernel would take for something else is not let in. */
const onServer = (first: string, hint: string) => lineText(200).regex(new RegExp(`^${first}[^\\\\:*?"<>|,%]*$`), hint);

/** Whether the endpoint may write there: what it is asked for, beside what the server allows. */
const access = z.enum(['read', 'write']);

/** A share of a Windows computer, or of a server that speaks its language. */
const smb = z.object({
	...base,
	kind: z.literal('smb'),
	server,
	/** Share, and a folder within it where only that is wanted: "media/films". */
	share: onServer('[^/\\\\:*?"<>|,%]', 'A share is written without slashes in front, such as media or media/films.'),
	/** "": as a guest. */
	user: lineText(100).regex(/^[^,]*$/, 'A comma cannot be in it.'),
	version: z.enum(['auto', '2.1', '3.0', '3.1.1']),
	access
});
/** A folder that a server exports. */
const nfs = z.object({
	...base,
	kind: z.literal('nfs'),
	server,
	share: onServer('/', 'A folder that is exported begins with a slash, such as /export/music.'),
	version: z.enum(['auto', '3', '4.2']),
	access
});
/** A stick or drive in a USB socket. */
const stick = z.object({
	...base,
	kind: z.literal('stick'),
	label: z
		.string()
		.regex(
			/^[A-Za-z0-9_-]{1,16}$/,
			'A label has up to 16 letters, digits, hyphens and underscores; on FAT at most 11.'
		),
	/** NTFS by a program of its own: the kernel's driver is not in Debian's. */
	fileSystem: z.enum(['vfat', 'exfat', 'ntfs-3g', 'ext4'])
});

/** The schema of one place that is mounted: a share, or a stick. */
export const storeSchema = z.discriminatedUnion('kind', [smb, nfs, stick]);
/** One place that is mounted. */
export type Store = z.infer<typeof storeSchema>;
/** One that lies on a server. */
export type Share = Exclude<Store, { kind: 'stick' }>;

/** Where it is mounted. */
export const mountPoint = ({ name }: Pick<Store, 'name'>): string => `${STORES_DIR}/${name}`;

/** Which of them holds a file; undefined: none. */
export const storeOf = (stores: readonly Store[], location: string): Store | undefined =>
	stores.find((store) => location.startsWith(`${mountPoint(store)}/`));

/** On a server. */
export const isShare = (store: Store): store is Share => store.kind !== 'stick';

/** What the endpoint is to write to. */
export const isWritable = (store: Store): store is Share => isShare(store) && store.access === 'write';

/** A password goes onto the card. */
export const asksPassword = (store: Store): boolean => store.kind === 'smb' && store.user !== '';

const escaped = (path: string): string => {
	const unit = escapeUnitPath(path);
	// The schema lets no path in that cannot be named.
	if (!unit.ok) throw new RangeError(path);
	return unit.value;
};
/** Its unit's name without an ending. */
export const unitOf = (store: Store): string => escaped(mountPoint(store));
/** The unit that tries whether it can be written. */
export const tryUnitOf = ({ name }: Pick<Store, 'name'>): string => `yphos-try-${name}.service`;
/** The device of a stick, as a unit. */
export const deviceOf = (label: string): string => `${escaped(`/dev/disk/by-label/${label}`)}.device`;

/** What is mounted, as mount takes it. */
export function whatOf(store: Store): string {
	switch (store.kind) {
		case 'smb':
			return `//${store.server}/${store.share}`;
		case 'nfs':
			return `${store.server}:${store.share}`;
		case 'stick':
			return `/dev/disk/by-label/${store.label}`;
	}
}

/** "media on files.local", "the stick FILM". */
export const storeWords = (store: Store): string =>
	store.kind === 'stick' ? `the stick ${store.label}` : `${store.share} on ${store.server}`;

/** What a new one begins with. */
export function newStore(kind: Store['kind'], id: string, taken: readonly Store[]): Store {
	const stem = kind === 'stick' ? 'stick' : 'music';
	let name = stem;
	for (let n = 2; taken.some((store) => store.name === name); n++) name = `${stem}-${n}`;
	switch (kind) {
		case 'smb':
			return { id, name, kind, server: 'files.local', share: 'media', user: '', version: 'auto', access: 'read' };
		case 'nfs':
			return { id, name, kind, server: 'files.local', share: '/export/media', version: 'auto', access: 'read' };
		case 'stick':
			return { id, name, kind, label: 'MEDIA', fileSystem: 'exfat' };
	}
}
