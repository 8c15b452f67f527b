import { shellQuote } from '../../formats/shell/quote';

/** One command for the person's own computer, and what it does. */
export interface DiskCommand {
	readonly what: string;
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

/** For a POSIX shell: what stands before a pipe, or nothing when the image is raw. */
export const unpacked = ({ path, form }: ImageFile): string =>
	form === 'raw' ? '' : `${UNPACK[form]} ${shellQuote(path)} | `;

/** For cmp: no further than the image goes. */
export const upTo = (bytes: number | null): string => (bytes === null ? '' : `-n ${bytes} `);

/** So many bytes that no card can make up, the same each time. They fill a card, so that what it cannot hold is missed. */
export const sameNoise = (bytes: number): string =>
	`openssl enc -aes-128-ctr -nosalt -pass pass:yphos </dev/zero 2>/dev/null | head -c ${bytes}`;
