import { boundedText, cutLine, linesOf } from '../formats/lines';
import { fault, ok, type Result } from '../basics/result';

/** The digests that publishers of images give. */
export type DigestKind = 'sha256' | 'sha1' | 'md5' | 'sha512';
const LENGTHS: Readonly<Record<number, DigestKind>> = { 32: 'md5', 40: 'sha1', 64: 'sha256', 128: 'sha512' };

/** Lists of a whole archive of images are long; nothing else is. */
const MOST_CHARACTERS = 4_000_000;

interface Digest {
	readonly kind: DigestKind;
	readonly hex: string;
	/** The file that it is of; "" when it does not say. */
	readonly name: string;
}

/**
 * A pasted digest, a `*.sha256`, a `SHA256SUMS` in the form of coreutils or of BSD. Source: sha256sum(1).
 * Faults: `text-long`, `digest-signature` (a signature is no digest, and is not verified here), `digest-none`.
 */
export function readDigests(text: string): Result<readonly Digest[]> {
	if (/-----BEGIN PGP SIGNATURE-----/.test(text) && !/^[0-9a-f]{32,128}\b/im.test(text))
		return fault(
			'digest-signature',
			'This is an OpenPGP signature. It proves who published a file; it is not verified here: use gpg --verify with the publisher\u2019s key.'
		);
	if (/^untrusted comment:/im.test(text))
		return fault(
			'digest-signature',
			'This is a minisign signature. It proves who published a file; it is not verified here: use minisign -Vm with the publisher\u2019s key.'
		);
	const bounded = boundedText(text, MOST_CHARACTERS);
	if (!bounded.ok) return bounded;
	const digests = linesOf(text).flatMap((raw): Digest[] => {
		const line = cutLine(raw).trim().replace(/^\\/, '');
		const gnu = /^[0-9a-f]{32,128}(?=\s|$)/i.exec(line)?.[0];
		const bsd = /^[A-Z0-9-]+ \((.*)\) = ([0-9a-f]{32,128})$/i.exec(line);
		const [hex, name] = gnu
			? [gnu, line.slice(gnu.length).trimStart().replace(/^\*/, '')]
			: bsd
				? [bsd[2]!, bsd[1]!]
				: ['', ''];
		const kind = LENGTHS[hex.length];
		return kind ? [{ kind, hex: hex.toLowerCase(), name: name.replace(/^\.\//, '') }] : [];
	});
	return digests.length
		? ok(digests)
		: fault(
				'digest-none',
				'No digest is in it. It is a row of 64 letters and digits (SHA-256), 40 (SHA-1) or 32 (MD5).'
			);
}

/** The digest that is meant for a file: the one of its name, else the only one. */
export function digestFor(digests: readonly Digest[], fileName: string): Digest | null {
	const named = digests.filter(({ name }) => name.split(/[\\/]/).at(-1) === fileName);
	return named[0] ?? (digests.length === 1 ? digests[0]! : null);
}
