import { toBase64 } from '$core/formats/edid';

const known = new WeakMap<Uint8Array, string>();
/** Larger ones are not drawn in the workbench. */
const MOST_BYTES = 8_000_000;

/** The address of a picture's bytes, for a page of ours; null: none are here, or they are more than `mostBytes`. */
export function addressOf(bytes: Uint8Array | null | undefined, mostBytes = MOST_BYTES): string | null {
	if (!bytes || bytes.length > mostBytes) return null;
	let address = known.get(bytes);
	if (address === undefined) {
		const type = bytes[0] === 0x89 ? 'png' : bytes[0] === 0x3c ? 'svg+xml' : 'jpeg';
		known.set(bytes, (address = `data:image/${type};base64,${toBase64(bytes)}`));
	}
	return address;
}
