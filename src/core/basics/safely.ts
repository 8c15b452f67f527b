import { z } from 'zod';

/** What is wrong where not all of it can be listed. */
export const TOO_MUCH = 'So much of it is wrong that not all of it can be listed.';

/**
 * As `safeParse`, for what comes from outside. Where tens of thousands of things are wrong the parser's own list of them overflows the
 * stack, of which a worker has little: then that is what is wrong.
 */
export function safely<T>(schema: z.ZodType<T>, raw: unknown): z.ZodSafeParseResult<T> {
	try {
		return schema.safeParse(raw);
	} catch (error) {
		if (!(error instanceof RangeError)) throw error;
		return {
			success: false,
			error: new z.ZodError([{ code: 'custom', path: [], message: TOO_MUCH, input: undefined }]) as z.ZodError<T>
		};
	}
}
