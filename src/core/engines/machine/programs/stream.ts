import { fromBase64, toBase64 } from '../../../formats/base64';

/** What goes through a pipe is text here; bytes that are none go through under a mark, and are bytes again where they are written. */
const MARK = '\u{f0000}bytes ';
const decoder = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });

/** Bytes as they go through a pipe. */
export function toStream(bytes: Uint8Array): string {
	try {
		return decoder.decode(bytes);
	} catch {
		return MARK + toBase64(bytes);
	}
}

/** A file's contents out of what has come through a pipe. */
export function fromStream(text: string): { readonly text: string; readonly bytes: Uint8Array | null } {
	const bytes = text.startsWith(MARK) ? fromBase64(text.slice(MARK.length)) : null;
	return bytes ? { text: '', bytes } : { text, bytes: null };
}
