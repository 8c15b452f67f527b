import { fault, ok, type Result } from '../../basics/result';

interface PublicKey {
	readonly type: string;
	readonly bits: number;
	readonly comment: string;
	/** Type and key alone, as they go into authorized_keys. */
	readonly text: string;
}

const LEAST_RSA_BITS = 2048;
/** RSA of 16 384 bits, with a comment. Source: sshd reads lines of up to 8 kB. */
const LONGEST_KEY = 8192;
const CURVES: Readonly<Record<string, number>> = {
	'ecdsa-sha2-nistp256': 256,
	'ecdsa-sha2-nistp384': 384,
	'ecdsa-sha2-nistp521': 521
};

/**
 * One line of a .pub file. Source: RFC 4253, 6.6; RFC 8709, 4; sshd(8), AUTHORIZED_KEYS FILE FORMAT.
 * Faults: `key-long`, `key-private` (never hand that on), `key-shape`, `key-type`, `key-weak`, `key-torn`.
 */
export function readPublicKey(line: string): Result<PublicKey> {
	if (/PRIVATE KEY/.test(line))
		return fault(
			'key-private',
			'This is a private key. Never hand it on; paste the line out of the file that ends in .pub.'
		);
	if (line.length > LONGEST_KEY)
		return fault(
			'key-long',
			`It has ${line.length} characters; no key has more than ${LONGEST_KEY}. Paste one line of the file that ends in .pub.`
		);
	const [type = '', base64 = '', ...words] = line.trim().split(/\s+/);
	const comment = words.join(' ');
	if (!/^[A-Za-z0-9+/]+={0,2}$/.test(base64))
		return fault(
			'key-shape',
			'A public key is one line: its type, a long word, and a comment. It ends up in a file that ends in .pub.'
		);
	const fields = readFields(base64);
	if (!fields || fields.length === 0 || new TextDecoder().decode(fields[0]) !== type)
		return fault('key-torn', 'The key is not whole, perhaps cut off while it was copied. Copy the whole line again.');
	const bits = bitsOf(type, fields);
	if (bits === null)
		return fault('key-type', `Keys of the type ${type} are not taken any more. Make a new one: ssh-keygen -t ed25519.`);
	if (bits === 0)
		return fault('key-torn', 'The key is not whole, perhaps cut off while it was copied. Copy the whole line again.');
	if (type === 'ssh-rsa' && bits < LEAST_RSA_BITS)
		return fault(
			'key-weak',
			`This RSA key has ${bits} bits; fewer than ${LEAST_RSA_BITS} are refused. Make a new one: ssh-keygen -t ed25519.`
		);
	return ok({ type, bits, comment, text: `${type} ${base64}` });
}

/** Length-prefixed fields; null when they do not end where the bytes do. */
function readFields(base64: string): Uint8Array[] | null {
	let bytes: Uint8Array;
	try {
		bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
	} catch {
		return null;
	}
	const view = new DataView(bytes.buffer);
	const fields: Uint8Array[] = [];
	let at = 0;
	while (at < bytes.length) {
		if (at + 4 > bytes.length) return null;
		const length = view.getUint32(at);
		if (at + 4 + length > bytes.length) return null;
		fields.push(bytes.subarray(at + 4, at + 4 + length));
		at += 4 + length;
	}
	return fields;
}

/** Null: a type that is not taken; 0: the key is not of its type's length. */
function bitsOf(type: string, fields: readonly Uint8Array[]): number | null {
	if (type === 'ssh-ed25519') return fields.length === 2 && fields[1]!.length === 32 ? 256 : 0;
	if (type === 'sk-ssh-ed25519@openssh.com') return fields.length === 3 && fields[1]!.length === 32 ? 256 : 0;
	if (type === 'sk-ecdsa-sha2-nistp256@openssh.com') return fields.length === 4 && fields[2]!.length === 65 ? 256 : 0;
	const curve = CURVES[type];
	if (curve) return fields.length === 3 && fields[2]!.length === 1 + 2 * Math.ceil(curve / 8) ? curve : 0;
	if (type !== 'ssh-rsa') return null;
	const modulus = fields[2];
	if (fields.length !== 3 || !modulus || modulus.length === 0) return 0;
	const lead = modulus.findIndex((byte) => byte !== 0);
	return lead < 0 ? 0 : (modulus.length - lead) * 8 - Math.clz32(modulus[lead]!) + 24;
}
