import { fault, ok, type Result } from '../../basics/result';
import { cutLine, linesOf } from '../lines';
import { fromBase64, fromHex, MOST_BYTES } from './bytes';
import { BLOCK_BYTES } from './edid';

/** An EDID found in what a person handed in, and the connector that stood above it. */
export interface FoundEdid {
	/** "HDMI-A-1"; null: nothing said. */
	readonly connector: string | null;
	readonly bytes: Uint8Array;
}

const HEADER_HEX = '00ffffffffffff00';
/** Names as the kernel and X have them. Source: drm_connector.c, drm_connector_enum_list; xrandr(1). */
const CONNECTOR = /\b((?:HDMI|DVI|DP|VGA|eDP|LVDS|DSI|DPI|Composite|TV|Virtual)(?:-[A-Z])?-?\d{1,2})\b/;
/** A dump of more text than this is no dump of a screen. */
const MOST_LINES = 100_000;

/** The hexadecimal digits of one line of any dump, without its address and what it shows beside; "" where it is none. */
function digitsOf(line: string): string {
	const text = line
		.split('|', 1)[0]!
		.replace(/\b0x/gi, '')
		.replace(/[,;{}]/g, ' ')
		.trim();
	const tokens = text.split(/\s+/);
	let from = 0;
	// An address: followed by a colon, or longer than the bytes after it.
	if (/^[0-9a-f]{4,8}:$/i.test(tokens[0]!)) from = 1;
	else if (tokens.length > 1 && /^[0-9a-f]{5,8}$/i.test(tokens[0]!) && /^[0-9a-f]{2}$/i.test(tokens[1]!)) from = 1;
	let digits = '';
	for (const token of tokens.slice(from)) {
		if (!/^(?:[0-9a-f]{2})+$/i.test(token)) break;
		digits += token;
		// xxd's own view of the bytes follows the sixteenth.
		if (from === 1 && digits.length >= 32) break;
	}
	return digits.toLowerCase();
}

/** From a run of digits, what begins with an EDID's header and as much of it as byte 126 announces. */
function cut(digits: string, connector: string | null): FoundEdid[] {
	const found: FoundEdid[] = [];
	for (let at = digits.indexOf(HEADER_HEX); at >= 0;) {
		const extensions = parseInt(digits.slice(at + 252, at + 254) || '0', 16) || 0;
		const end = Math.min(digits.length, at + 2 * BLOCK_BYTES * (1 + extensions));
		found.push({ connector, bytes: fromHex(digits.slice(at, end)) });
		at = digits.indexOf(HEADER_HEX, Math.max(end, at + 2));
	}
	return found;
}

function fromDump(text: string): FoundEdid[] {
	const found: FoundEdid[] = [];
	let digits = '';
	let connector: string | null = null;
	let above: string | null = null;
	const close = (): void => {
		if (digits.includes(HEADER_HEX)) found.push(...cut(digits, above));
		digits = '';
	};
	for (const raw of linesOf(text).slice(0, MOST_LINES)) {
		const line = cutLine(raw);
		const own = digitsOf(line);
		// A short word such as "be" or "face" is no line of a dump.
		if (own.length >= 8 || (digits !== '' && own !== '')) {
			if (digits === '') above = connector;
			if (digits.length < 2 * MOST_BYTES) digits += own;
		} else if (line.trim() !== '') {
			close();
			connector = CONNECTOR.exec(line)?.[1] ?? connector;
		}
	}
	close();
	return found;
}

const isHeader = (bytes: Uint8Array): boolean =>
	bytes[0] === 0 && bytes[7] === 0 && bytes[1] === 0xff && bytes[6] === 0xff;

/**
 * Every EDID in bytes of a file, or in text: hexadecimal dumps of any kind, base64, what xrandr --verbose and edid-decode print, a
 * probe report. Fault `no-edid` where there is none.
 */
export function findEdids(bytes: Uint8Array, text: string): Result<readonly FoundEdid[]> {
	if (isHeader(bytes)) {
		const whole = BLOCK_BYTES * (1 + (bytes[126] ?? 0));
		return ok([{ connector: null, bytes: bytes.slice(0, whole) }]);
	}
	const found = fromDump(text);
	if (found.length > 0) return ok(found);
	const decoded = fromBase64(text.slice(0, 2 * MOST_BYTES));
	if (decoded.ok && isHeader(decoded.value)) return ok([{ connector: null, bytes: decoded.value }]);
	return fault(
		'no-edid',
		'No EDID was found in it. Paste what "cat /sys/class/drm/*/edid | xxd", xrandr --verbose or edid-decode prints, or drop the file itself.'
	);
}
