import { z } from 'zod';
import { calculation, type Calculations } from '../../basics/calculation';
import { sentence } from '../../basics/result';
import { isTimeZone } from '../systemd/zone';
import { expandRecurrence } from '.';

export default {
	rrule: calculation(
		z.object({
			zone: z.string().refine(isTimeZone, 'no time zone of the tz database'),
			dtstartLocal: z.string().max(40),
			rrule: z.string().max(500),
			exdatesLocal: z.array(z.string().max(40)).max(1000).default([]),
			windowStartUtc: z.string(),
			windowEndUtc: z.string()
		}),
		({ windowStartUtc, windowEndUtc, ...rule }) => {
			const [start, end] = [windowStartUtc, windowEndUtc].map((text) => Date.parse(text)) as [number, number];
			if (Number.isNaN(start) || Number.isNaN(end)) throw new TypeError('windowStartUtc, windowEndUtc: not a time');
			const found = expandRecurrence({ ...rule, windowStartUtcMs: start, windowEndUtcMs: end });
			if (!found.ok) throw new TypeError(sentence(found.faults));
			return { occurrencesUtc: found.value.map((ms) => new Date(ms).toISOString().replace('.000Z', 'Z')) };
		}
	)
} satisfies Calculations;
