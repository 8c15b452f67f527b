import { z } from 'zod';
import { calculation, orInvalid, type Calculations } from '../../basics/calculation';
import { sha512crypt } from './sha512crypt';

export default {
	sha512crypt: calculation(
		z.object({ password: z.string(), salt: z.string(), rounds: z.number().int().nullable().default(null) }),
		({ password, salt, rounds }) => orInvalid(sha512crypt(password, salt, rounds), (crypt) => ({ crypt }))
	)
} satisfies Calculations;
