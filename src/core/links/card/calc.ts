import { z } from 'zod';
import { calculation, round, type Calculations } from '../../basics/calculation';
import { computeCardRoom, computeHours, computeRetention, computeSize } from './room';

const positive = z.number().positive();

export default {
	storage: calculation(
		z.discriminatedUnion('kind', [
			z.object({ kind: z.literal('size'), bitrateBps: positive, durationS: z.number().min(0) }),
			z.object({
				kind: z.literal('cardHours'),
				capacityGb: positive,
				reservedPercent: z.number().min(0).max(100),
				systemGb: z.number().min(0),
				bitrateBps: positive
			}),
			z.object({
				kind: z.literal('retention'),
				policy: z.enum(['keepDays', 'untilFull']),
				keepDays: z.number().int().positive().optional(),
				usableBytes: z.number().min(0),
				newBytesByDay: z.array(z.number().min(0))
			})
		]),
		(input) => {
			if (input.kind === 'size') {
				const size = computeSize(input.bitrateBps, input.durationS);
				return { bytes: size.bytes, gigabytes: round(size.gigabytes, 6), gibibytes: round(size.gibibytes, 6) };
			}
			if (input.kind === 'retention') return computeRetention(input);
			const { usableBytes } = computeCardRoom(input);
			return {
				usableBytes,
				usableGib: round(usableBytes / 2 ** 30, 4),
				hours: round(computeHours(usableBytes, input.bitrateBps), 4)
			};
		}
	)
} satisfies Calculations;
