/** A reader of what strangers hand in, with samples from which mutated texts are made. Each stands in `reads.ts` beside what it reads. */
export interface FuzzedReader {
	readonly name: string;
	/** A file below the core ("disks/fixtures/macos-list.txt"), text, or bytes. */
	readonly samples: readonly ({ readonly file: string } | string | Uint8Array)[];
	/** What it gave, or a promise of that. Throws only where the reader does, or where that is not what it promises. */
	read(bytes: Uint8Array, text: string): unknown;
}

/** Throws where a reader breaks its word. */
export const promised = (holds: boolean, what: string): void => {
	if (!holds) throw new Error(`promise broken: ${what}`);
};
/** A sample that is a file. */
export const file = (path: string): { readonly file: string } => ({ file: path });
