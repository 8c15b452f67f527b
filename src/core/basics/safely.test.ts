import { expect, test } from 'vitest';
import { z } from 'zod';
import { mend } from '../plan/mend';
import { safely } from './safely';

test('a list of faults that overflows the stack is an answer, not an exception', () => {
	// As in the page, where no text may become code.
	z.config({ jitless: true });
	const schema = z.object({ a: z.object({ list: z.array(z.number()) }) });
	const all = safely(schema, { a: { list: Array(400_000).fill('x') } });
	expect(all.success).toBe(false);
	expect(all.error!.issues[0]!.message).toContain('So much of it is wrong');
	expect(safely(schema, { a: { list: ['x', 2] } }).error!.issues).toHaveLength(1);
	expect(safely(schema, { a: { list: [1] } }).data).toEqual({ a: { list: [1] } });
	// Nothing is put in the place of all of it.
	expect(mend(schema, { a: { list: Array(400_000).fill('x') } }, { a: { list: [] } })).toBeNull();
});
