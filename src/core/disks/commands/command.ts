import { shellQuote } from '../../formats/shell/quote';

/** One command for the person's own computer, and what it does. */
export interface DiskCommand {
	readonly what: string;
	/** Empty where nothing can be typed, only done. */
	readonly command: string;
	/** It takes long, or wipes: said beside it. */
	readonly note?: string;
}
/** The image that is written, as it lies on the person's computer. */
export interface ImageFile {
	/** As the person has it, with its folder. */
	readonly path: string;
	readonly form: 'raw' | 'gzip' | 'xz' | 'zstd' | 'zip';
	readonly rawBytes: number | null;
}
/** Said beside every command that does so. */
export const WIPES = 'This wipes the whole disk.';

/** Writes the decompressed image to standard output. */
const UNPACK = { gzip: 'gzip -dc', xz: 'xz -dc', zstd: 'zstd -dc', zip: 'unzip -p' } as const;

/** A path for a POSIX shell: "~" means one's own folder only outside quotes, so what it stands for is written instead. */
export const shellPath = (path: string): string =>
	path === '~' ? '"$HOME"' : path.startsWith('~/') ? `"$HOME"/${shellQuote(path.slice(2))}` : shellQuote(path);

/** For a POSIX shell: what stands before a pipe, or nothing when the image is raw. */
export const unpacked = ({ path, form }: ImageFile): string =>
	form === 'raw' ? '' : `${UNPACK[form]} ${shellPath(path)} | `;

/** For cmp: no further than the image goes. */
export const upTo = (bytes: number | null): string => (bytes === null ? '' : `-n ${bytes} `);

/** So many bytes that no card can make up, the same each time. They fill a card, so that what it cannot hold is missed. */
export const sameNoise = (bytes: number): string =>
	`openssl enc -aes-128-ctr -nosalt -pass pass:yphos </dev/zero 2>/dev/null | head -c ${bytes}`;

/** The name of a packed image once it is unpacked. */
export const withoutEnding = (path: string): string => path.replace(/\.(?:gz|xz|zst|zip)$/i, '');

/** Where the system brings no program for it, the person unpacks it, and everything after is of what was unpacked. */
export const unpackByHand = ({ path, form }: ImageFile): DiskCommand => ({
	what: `Unpack the image first, with a program of your own that knows .${form === 'zstd' ? 'zst' : form}`,
	command: '',
	note: `This computer brings none. It becomes ${withoutEnding(path).split(/[\\/]/).at(-1)!}; drop that one above too, and its size and what is in it are known.`
});
