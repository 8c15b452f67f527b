import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shellQuote } from './quote';

const anyText = fc.string({ unit: 'binary', maxLength: 40 }).filter((text) => !text.includes('\0'));

describe('shellQuote', () => {
	it('arrives through a real shell exactly', () => {
		const texts = fc.sample(anyText, { numRuns: 60, seed: 7 });
		const script = texts.map((text) => `printf '%s\\0' ${shellQuote(text)}`).join('\n');
		const back = execFileSync('sh', ['-c', script]).toString('utf8').split('\0').slice(0, -1);
		expect(back).toEqual(texts.map((text) => Buffer.from(text).toString('utf8')));
	});
});
