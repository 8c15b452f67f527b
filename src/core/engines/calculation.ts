import type { z } from 'zod';
import { sentence, type Result } from '../basics/result';
import { safely } from '../basics/safely';

/** One calculation that can be asked for by name: a JSON object in, a JSON object out. A bad input throws with a sentence. */
export type Calculation = (input: unknown) => unknown;

/** Values that the input makes impossible are an answer (`valid: false`); input of the wrong shape is an error. */
export const orInvalid = <T>(result: Result<T>, shape: (value: T) => object): object =>
	result.ok ? { valid: true, ...shape(result.value) } : { valid: false, reason: sentence(result.faults) };

/** A calculation whose input a schema takes. */
export const calculation =
	<I>(schema: z.ZodType<I>, run: (input: I) => unknown): Calculation =>
	(input) => {
		const parsed = safely(schema, input);
		if (!parsed.success)
			throw new TypeError(
				parsed.error.issues.map((issue) => `${issue.path.join('.') || 'input'}: ${issue.message}`).join('; ')
			);
		return run(parsed.data);
	};

/** To so many places. */
export const round = (value: number, digits: number): number => Number(value.toFixed(digits));
