import { fault, ok, type Result } from '../../basics/result';

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { fatal: true });

/**
 * Text as part of a unit name: "/" becomes "-", everything but letters, digits, ":", "_", "." (not first) and "/" becomes \xHH.
 * Source: systemd.unit(5), "String Escaping for Inclusion in Unit Names".
 */
export function escapeUnitText(text: string): string {
	let out = '';
	encoder.encode(text).forEach((byte, index) => {
		const c = String.fromCharCode(byte);
		if (c === '/') out += '-';
		else if (/[A-Za-z0-9:_]/.test(c) || (c === '.' && index > 0)) out += c;
		else out += `\\x${byte.toString(16).padStart(2, '0')}`;
	});
	return out;
}

/**
 * A file system path as part of a unit name, as `systemd-escape --path` writes it.
 * Faults: `path-empty`, `path-climbs` (a ".." part cannot be named).
 */
export function escapeUnitPath(path: string): Result<string> {
	if (path === '') return fault('path-empty', 'The path is empty. Give a path such as /srv/music.');
	const parts = path.split('/').filter((part) => part !== '' && part !== '.');
	if (parts.includes('..'))
		return fault('path-climbs', `The path ${path} climbs with "..". Write where it leads instead.`);
	return ok(parts.length === 0 ? '-' : escapeUnitText(parts.join('/')));
}

/** The reverse of {@link escapeUnitText}. Faults: `escape-unknown`, `not-utf8`. */
export function unescapeUnitText(escaped: string): Result<string> {
	const bytes: number[] = [];
	for (let i = 0; i < escaped.length;) {
		const c = escaped[i]!;
		if (c === '\\') {
			const hex = /^\\x([0-9a-fA-F]{2})/.exec(escaped.slice(i))?.[1];
			if (!hex)
				return fault(
					'escape-unknown',
					`After the backslash at place ${i + 1} there must stand x and two hexadecimal digits.`
				);
			bytes.push(parseInt(hex, 16));
			i += 4;
		} else {
			const point = String.fromCodePoint(escaped.codePointAt(i)!);
			bytes.push(...encoder.encode(c === '-' ? '/' : point));
			i += point.length;
		}
	}
	try {
		return ok(decoder.decode(Uint8Array.from(bytes)));
	} catch {
		return fault('not-utf8', 'The escaped bytes are not UTF-8 text.');
	}
}

/** Fills a template unit: play@.service and "a b" give play@a\x20b.service. Fault: `no-template`. */
export function fillUnitTemplate(template: string, text: string): Result<string> {
	const at = /^([^@]+@)(\.[a-z]+)$/.exec(template);
	if (!at)
		return fault(
			'no-template',
			`${template} is not a template: it needs a bare @ before its ending, as in play@.service.`
		);
	return ok(`${at[1]}${escapeUnitText(text)}${at[2]}`);
}
