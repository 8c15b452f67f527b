/**
 * Titles within a stream, as radio servers send them to whom asks with "Icy-MetaData: 1": after each so many bytes of sound one
 * byte that says how many times 16 bytes of text follow. There is no standard; this is what servers and players agree on.
 */
const UNIT = 16;
const MOST_UNITS = 255;

/** One block of text for a title. */
export function icyBlock(title: string): Uint8Array {
	const text = new TextEncoder().encode(title === '' ? '' : `StreamTitle='${title.replaceAll("'", '\u2019')}';`);
	const units = Math.min(MOST_UNITS, Math.ceil(text.length / UNIT));
	const block = new Uint8Array(1 + units * UNIT);
	block[0] = units;
	block.set(text.subarray(0, units * UNIT), 1);
	return block;
}

/** Takes the bytes of a stream as they come, and tells sound from titles. */
export class IcyReader {
	#left: number;
	#text: number[] = [];
	#textLeft = 0;
	constructor(
		/** Bytes of sound between two blocks; 0: there are none. */
		readonly interval: number,
		readonly onTitle: (title: string) => void
	) {
		this.#left = interval;
	}

	/** The sound among these bytes. */
	take(bytes: Uint8Array): Uint8Array {
		if (this.interval === 0) return bytes;
		const sound = new Uint8Array(bytes.length);
		let length = 0;
		for (let at = 0; at < bytes.length;) {
			if (this.#textLeft > 0) {
				this.#text.push(bytes[at++]!);
				if (--this.#textLeft === 0) this.#end();
			} else if (this.#left > 0) {
				const many = Math.min(this.#left, bytes.length - at);
				sound.set(bytes.subarray(at, at + many), length);
				length += many;
				at += many;
				this.#left -= many;
			} else {
				this.#textLeft = bytes[at++]! * UNIT;
				this.#left = this.interval;
			}
		}
		return sound.subarray(0, length);
	}

	#end(): void {
		const text = new TextDecoder().decode(Uint8Array.from(this.#text));
		this.#text = [];
		const title = /StreamTitle='(.*?)';/s.exec(text)?.[1];
		if (title !== undefined) this.onTitle(title);
	}
}
