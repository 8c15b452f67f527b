import { z } from 'zod';
import type { Bench } from '../../engines/machine';
import type { Context } from '../../link/context';
import type { ReceivingSettings } from './settings';
import { adapterDbm, announced, SERVER_PORT } from './ways';

const receiving = z.object({
	/** A Bluetooth adapter that the kernel knows. */
	adapter: z.boolean(),
	/** Somebody with a phone sends to what has that name; known: it was paired before. Null: nobody does. */
	phone: z.object({ looksFor: z.string(), known: z.boolean() }).nullable(),
	/** How somebody's computer sends. */
	computer: z.array(
		z.object({ by: z.enum(['sound server', 'RTP']), port: z.number().int(), protocol: z.enum(['tcp', 'udp']) })
	)
});

declare module '../../engines/machine/bench' {
	interface Bench {
		receiving: z.infer<typeof receiving>;
	}
}
/** Who is near and sends. */
export const receivingBenchShape = {
	receiving: receiving.default({ adapter: false, phone: null, computer: [] })
};

/** Those for whom the plan is made: a phone, a computer that sends by each way. */
export const receivingBench = (settings: ReceivingSettings, context: Context): Partial<Bench> => ({
	receiving: {
		adapter: adapterDbm(context) !== null,
		phone: settings.bluetooth ? { looksFor: announced(settings, context), known: settings.pairing === 'once' } : null,
		computer: [
			...(settings.server ? [{ by: 'sound server', port: SERVER_PORT, protocol: 'tcp' } as const] : []),
			...(settings.rtp ? [{ by: 'RTP', port: settings.rtpPort, protocol: 'udp' } as const] : [])
		]
	}
});
