import { z } from 'zod';
import { calculation, type Calculations } from '../../basics/calculation';
import { computeEnergy } from './energy';
import { computeFuse } from './inlet';
import { awgAreaMm2, dropAtCurrent, dropAtPower, loopOhm, ohmPerMetre } from './lead';

const positive = z.number().positive();
const leadInput = z.object({
	supplyV: positive,
	supplyRatedA: positive.optional(),
	lengthM: z.number().min(0),
	conductorMm2: positive.optional(),
	conductorAwg: z.number().min(-3).max(50).optional(),
	/** All contacts on the way together. */
	contactOhm: z.number().min(0).default(0)
});

export default {
	power: calculation(
		z.discriminatedUnion('kind', [
			z.object({ kind: z.literal('awg'), conductorAwg: z.number().min(-3).max(50) }),
			leadInput.extend({ kind: z.literal('drop'), loadA: z.number().min(0) }),
			leadInput.extend({ kind: z.literal('dropConstantPower'), loadW: z.number().min(0) }),
			z.object({
				kind: z.literal('fuse'),
				watts: positive,
				mainsV: positive,
				powerFactor: z.number().gt(0).max(1),
				marginPercent: z.number().min(0),
				fuseRatingsA: z.array(positive).min(1)
			}),
			z.object({
				kind: z.literal('energy'),
				onW: z.number().min(0),
				standbyW: z.number().min(0),
				onHoursPerDay: z.number().min(0).max(24),
				pricePerKwh: z.number().min(0)
			})
		]),
		(input) => {
			if (input.kind === 'awg') {
				const areaMm2 = awgAreaMm2(input.conductorAwg);
				return { areaMm2, ohmPerMetre: ohmPerMetre(areaMm2) };
			}
			if (input.kind === 'fuse') return computeFuse({ ...input, ratingsA: input.fuseRatingsA });
			if (input.kind === 'energy') return computeEnergy(input);
			if (input.conductorMm2 === undefined && input.conductorAwg === undefined)
				throw new TypeError('conductorMm2 or conductorAwg: one of them is needed');
			const areaMm2 = input.conductorMm2 ?? awgAreaMm2(input.conductorAwg!);
			const loop = loopOhm(input.lengthM, areaMm2, input.contactOhm);
			const drop =
				input.kind === 'drop'
					? dropAtCurrent(input.supplyV, loop, input.loadA)
					: dropAtPower(input.supplyV, loop, input.loadW);
			return drop
				? {
						possible: true,
						loopOhm: loop,
						...drop,
						...(input.supplyRatedA === undefined ? {} : { withinSupplyRating: drop.currentA <= input.supplyRatedA })
					}
				: { possible: false, loopOhm: loop };
		}
	)
} satisfies Calculations;
