import { argon2id } from 'hash-wasm';
import { describe, expect, it } from 'vitest';
import { openVault, sealVault, type DeriveKey } from './vault';

/** The real function, with less memory so that the test is quick. */
const derive: DeriveKey = (password, salt) =>
	argon2id({ password, salt, memorySize: 64, iterations: 1, parallelism: 1, hashLength: 32, outputType: 'binary' });
const PHRASE = 'every gull has a name';
const CONTENTS = { lounge: { password: 'lantern \u{1f3b5} "night"', passphrase: 'lens' } };

describe('the vault', () => {
	it('gives back what was put in, with the same pass phrase only', async () => {
		const sealed = await sealVault(CONTENTS, PHRASE, derive);
		if (!sealed.ok) throw new Error('not sealed');
		expect(JSON.stringify(sealed.value)).not.toContain('lantern');
		expect(await openVault(JSON.parse(JSON.stringify(sealed.value)), PHRASE, derive)).toEqual({
			ok: true,
			value: CONTENTS
		});
		expect(await openVault(sealed.value, `${PHRASE} `, derive)).toMatchObject({
			ok: false,
			faults: [{ code: 'vault-phrase' }]
		});
	});
	it('is never the same twice, and opens no more when a byte of it was changed', async () => {
		const [a, b] = await Promise.all([sealVault(CONTENTS, PHRASE, derive), sealVault(CONTENTS, PHRASE, derive)]);
		if (!a.ok || !b.ok) throw new Error('not sealed');
		expect(a.value.sealed).not.toBe(b.value.sealed);
		const flip = (text: string): string => (text.startsWith('A') ? 'B' : 'A') + text.slice(1);
		for (const field of ['sealed', 'nonce', 'salt'] as const)
			expect(await openVault({ ...a.value, [field]: flip(a.value[field]) }, PHRASE, derive)).toMatchObject({
				ok: false
			});
	});
	it('takes passwords of shares out of an older one, by what asks for them today', async () => {
		const older = { hatch: { password: 'lantern', shares: { tides: 'ebb', attic: 'dust' } } };
		const sealed = await sealVault(older as never, PHRASE, derive);
		if (!sealed.ok) throw new Error('not sealed');
		expect(await openVault(sealed.value, PHRASE, derive)).toEqual({
			ok: true,
			value: { hatch: { password: 'lantern', 'share.tides': 'ebb', 'share.attic': 'dust' } }
		});
	});
	it('refuses a short pass phrase and what is no vault', async () => {
		expect(await sealVault({}, 'short', derive)).toMatchObject({ ok: false, faults: [{ code: 'vault-short' }] });
		expect(await openVault({ yphos: 'workshop' }, PHRASE, derive)).toMatchObject({
			ok: false,
			faults: [{ code: 'vault-damaged' }]
		});
	});
});
