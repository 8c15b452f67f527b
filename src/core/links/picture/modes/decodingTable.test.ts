import { describe, expect, it } from 'vitest';
import { DECODING } from './decodingTable';

describe('the table of who decodes', () => {
	it('has each system and way of driving once, and says of each who plays on pages and in the player, how sure it is, and whence', () => {
		const rows = DECODING.map(({ system, driver }) => `${system} / ${driver}`);
		expect(new Set(rows).size).toBe(rows.length);
		for (const { player, page, source } of DECODING)
			for (const text of [player, page, source]) expect(text).not.toBe('');
	});
	it('calls exact only what was read off a package of a stated version', () => {
		for (const { sure, source } of DECODING)
			expect(sure === 'exact').toBe(sure === 'exact' && /\d+\.\d+\.\d+/.test(source));
	});
	it('never promises a circuit without the option that takes it, for "auto-safe" takes none of these', () => {
		for (const { player } of DECODING) if (/the circuit/.test(player)) expect(player).toContain('hwdec=auto-copy');
	});
});
