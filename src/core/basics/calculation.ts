import type { z } from 'zod';
import { sentence, type Result } from './result';
import { safely } from './safely';

/** One calculation that can be asked for by name: a JSON object in, a JSON object out. A bad input throws with a sentence. */
export type Calculation = (input: unknown) => unknown;
/** Several, by the names that they are asked for by. */
export type Calculations = Readonly<Record<string, Calculation>>;

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
