import { z } from 'zod';
import { calculation, orInvalid, type Calculations } from '../../basics/calculation';
import { nextElapses, readCalendar } from './calendar';
import { escapeUnitPath, escapeUnitText, fillUnitTemplate, unescapeUnitText } from './escape';

export default {
	systemdEscape: calculation(
		z.discriminatedUnion('kind', [
			z.object({ kind: z.literal('path'), path: z.string(), suffix: z.string() }),
			z.object({ kind: z.literal('string'), text: z.string() }),
			z.object({ kind: z.literal('template'), text: z.string(), template: z.string() }),
			z.object({ kind: z.literal('unescape'), escaped: z.string() })
		]),
		(input) => {
			if (input.kind === 'path')
				return orInvalid(escapeUnitPath(input.path), (escaped) => ({ unit: `${escaped}.${input.suffix}` }));
			if (input.kind === 'string') return { escaped: escapeUnitText(input.text) };
			if (input.kind === 'template')
				return orInvalid(fillUnitTemplate(input.template, input.text), (unit) => ({ unit }));
			return orInvalid(unescapeUnitText(input.escaped), (text) => ({ text }));
		}
	),

	onCalendar: calculation(
		z.object({
			/** The expression may name its own; UTC when neither does. */
			zone: z.string().default('UTC'),
			onCalendar: z.string(),
			afterUtc: z.string(),
			count: z.number().int().min(1).max(1000)
		}),
		(input) => {
			const after = Date.parse(input.afterUtc);
			if (Number.isNaN(after)) throw new TypeError('afterUtc: not a time');
			return orInvalid(readCalendar(input.onCalendar), (rule) => ({
				elapsesUtc: nextElapses(rule, input.zone, after, input.count).map((ms) =>
					new Date(ms).toISOString().replace('.000Z', 'Z')
				)
			}));
		}
	)
} satisfies Calculations;
