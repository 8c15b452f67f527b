// The certificate by which the server answers other computers: made at the first start, kept where only its owner reads, and made anew
// when this computer has other addresses or it is about to end.
import { X509Certificate } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { resolve } from 'node:path';

const LASTS_DAYS = 700;
/** So long before its end another is made. */
const SPARE_MS = 7 * 86_400_000;

/**
 * @param {string} dir where it is kept
 * @param {readonly string[]} names hosts and addresses that it is to stand for
 * @returns {Promise<{ key: string, cert: string, fingerprint: string, isNew: boolean }>} fingerprint: SHA-256, as browsers show it
 */
export async function certificateFor(dir, names) {
	const at = resolve(dir, 'certificate.json');
	const kept = read(at);
	if (kept && fits(kept.cert, names)) return { ...kept, ...told(kept.cert), isNew: false };
	const { generate } = await import('selfsigned');
	const { private: key, cert } = await generate([{ name: 'commonName', value: 'Yphos on this network' }], {
		keyType: 'ec',
		curve: 'P-256',
		algorithm: 'sha256',
		notBeforeDate: new Date(Date.now() - 86_400_000),
		notAfterDate: new Date(Date.now() + LASTS_DAYS * 86_400_000),
		extensions: [
			{ name: 'basicConstraints', cA: false, critical: true },
			{ name: 'keyUsage', digitalSignature: true, critical: true },
			{ name: 'extKeyUsage', serverAuth: true },
			{
				name: 'subjectAltName',
				altNames: names.map((name) => (isIP(name) ? { type: 7, ip: name } : { type: 2, value: name }))
			}
		]
	});
	mkdirSync(dir, { recursive: true, mode: 0o700 });
	writeFileSync(at, JSON.stringify({ key, cert }), { mode: 0o600 });
	return { key, cert, ...told(cert), isNew: true };
}

/** @param {string} path */
function read(path) {
	try {
		const { key, cert } = JSON.parse(readFileSync(path, 'utf8'));
		return typeof key === 'string' && typeof cert === 'string' ? { key, cert } : null;
	} catch {
		return null;
	}
}

/** @param {string} pem @param {readonly string[]} names */
function fits(pem, names) {
	try {
		const known = new X509Certificate(pem);
		return (
			Date.parse(known.validTo) - SPARE_MS > Date.now() &&
			names.every((name) => (isIP(name) ? known.checkIP(name) : known.checkHost(name)) !== undefined)
		);
	} catch {
		return false;
	}
}

/** @param {string} pem */
const told = (pem) => ({ fingerprint: new X509Certificate(pem).fingerprint256 });
