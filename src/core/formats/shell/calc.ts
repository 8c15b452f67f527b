import { z } from 'zod';
import { calculation, type Calculations } from '../../basics/calculation';
import { shellQuote } from './quote';

export default {
	shellQuote: calculation(z.object({ text: z.string() }), ({ text }) => ({ quoted: shellQuote(text) }))
} satisfies Calculations;
