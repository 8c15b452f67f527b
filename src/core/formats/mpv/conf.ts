import { fault, ok, type Result } from '../../basics/result';

/**
 * mpv.conf: one option a line. Source: mpv(1), "CONFIGURATION FILES".
 * A value that is not plain is written with its length in bytes (%N%value), the only form without exceptions.
 */
interface MpvOption {
	readonly name: string;
	readonly value: string;
}

const byteLength = (text: string): number => new TextEncoder().encode(text).length;

/** Fault: `value-newline`; such a value cannot be written at all. */
export function mpvLine(name: string, value: string): Result<string> {
	if (/[\n\r\0]/.test(value))
		return fault('value-newline', `The value of ${name} has a line break in it. Remove it.`, name);
	const plain = /^[A-Za-z0-9_.:/,=@+-]*$/.test(value);
	return ok(plain ? `${name}=${value}` : `${name}=%${byteLength(value)}%${value}`);
}

/** Reads options of the top part (before any [profile]). `name` alone means yes, `no-name` means no. */
export function readMpvConf(text: string): MpvOption[] {
	const options: MpvOption[] = [];
	for (const raw of text.split('\n')) {
		const line = raw.trimStart();
		if (line.startsWith('[')) break;
		if (line === '' || line.startsWith('#')) continue;
		const equals = line.indexOf('=');
		const name = (equals < 0 ? line : line.slice(0, equals)).trim().replace(/^--/, '');
		if (!/^[A-Za-z0-9-]+$/.test(name)) continue;
		if (equals < 0 && name.startsWith('no-')) options.push({ name: name.slice(3), value: 'no' });
		else options.push({ name, value: equals < 0 ? 'yes' : readValue(line.slice(equals + 1).trimStart()) });
	}
	return options;
}

function readValue(text: string): string {
	const counted = /^%(\d+)%/.exec(text);
	if (counted) {
		const bytes = new TextEncoder().encode(text.slice(counted[0].length));
		return new TextDecoder().decode(bytes.slice(0, Number(counted[1])));
	}
	const quoted = /^(["'])(.*?)\1/s.exec(text);
	if (quoted) return quoted[2]!;
	return text.split('#', 1)[0]!.trimEnd();
}
