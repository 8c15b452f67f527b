import { z } from 'zod';
import { fault, ok, type Result } from '$core/basics/result';
import { safely } from '$core/basics/safely';

/** Clear texts of one endpoint, by the id of what was asked for; older vaults held those of shares in a record of their own. */
const entrySchema = z
	.record(z.string(), z.union([z.string(), z.record(z.string(), z.string())]))
	.transform((saved): Readonly<Record<string, string>> =>
		Object.fromEntries(
			Object.entries(saved).flatMap(([id, text]) =>
				typeof text === 'string'
					? [[id, text]]
					: Object.entries(text).map(([name, password]) => [`share.${name}`, password])
			)
		)
	);
export type VaultEntry = Readonly<Record<string, string>>;
const contentsSchema = z.record(z.string(), entrySchema);
export type VaultContents = z.infer<typeof contentsSchema>;

/** What is kept: nothing in it can be read without the pass phrase. */
export const vaultSchema = z.object({
	yphos: z.literal('vault'),
	version: z.literal(1),
	salt: z.string(),
	nonce: z.string(),
	sealed: z.string()
});
export type Vault = z.infer<typeof vaultSchema>;

/** 32 bytes out of a pass phrase, slowly: Argon2id, RFC 9106, its second recommended setting. */
export type DeriveKey = (phrase: string, salt: Uint8Array) => Promise<Uint8Array>;
export const ARGON2ID = { memoryKib: 65_536, passes: 3, lanes: 4, bytes: 32 } as const;

const base64 = (bytes: Uint8Array): string => btoa(String.fromCharCode(...bytes));
const bytesOf = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
const LEAST_PHRASE = 10;
const LONGEST_PHRASE = 1000;

async function keyOf(phrase: string, salt: Uint8Array, derive: DeriveKey): Promise<CryptoKey> {
	const bytes = await derive(phrase.normalize('NFC'), salt);
	return crypto.subtle.importKey('raw', bytes as Uint8Array<ArrayBuffer>, 'AES-GCM', false, ['encrypt', 'decrypt']);
}

/** Seals with a salt and a nonce of its own each time. Source: AES-GCM, NIST SP 800-38D. Faults: `vault-short`, `vault-long`. */
export async function sealVault(contents: VaultContents, phrase: string, derive: DeriveKey): Promise<Result<Vault>> {
	if ([...phrase].length < LEAST_PHRASE)
		return fault(
			'vault-short',
			`The vault\u2019s own pass phrase needs at least ${LEAST_PHRASE} characters: it guards all the others.`
		);
	if (phrase.length > LONGEST_PHRASE)
		return fault('vault-long', `It has ${phrase.length} characters; at most ${LONGEST_PHRASE} are taken.`);
	const salt = crypto.getRandomValues(new Uint8Array(16));
	const nonce = crypto.getRandomValues(new Uint8Array(12));
	const key = await keyOf(phrase, salt, derive);
	const sealed = await crypto.subtle.encrypt(
		{ name: 'AES-GCM', iv: nonce },
		key,
		new TextEncoder().encode(JSON.stringify(contents))
	);
	return ok({
		yphos: 'vault',
		version: 1,
		salt: base64(salt),
		nonce: base64(nonce),
		sealed: base64(new Uint8Array(sealed))
	});
}

/** Faults: `vault-damaged`, `vault-phrase` (wrong, or somebody changed what is kept: the two cannot be told apart). */
export async function openVault(raw: unknown, phrase: string, derive: DeriveKey): Promise<Result<VaultContents>> {
	const vault = safely(vaultSchema, raw);
	if (!vault.success) return fault('vault-damaged', 'The vault is damaged. Empty it, and type the secrets anew.');
	try {
		const key = await keyOf(phrase, bytesOf(vault.data.salt), derive);
		const plain = await crypto.subtle.decrypt(
			{ name: 'AES-GCM', iv: bytesOf(vault.data.nonce) },
			key,
			bytesOf(vault.data.sealed)
		);
		return ok(contentsSchema.parse(JSON.parse(new TextDecoder().decode(plain))));
	} catch {
		return fault('vault-phrase', 'The vault does not open with this pass phrase.');
	}
}
