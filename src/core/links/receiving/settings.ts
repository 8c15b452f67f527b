import { z } from 'zod';
import { lineText } from '../../basics/text';

/** The schema of the receiving's slice of a plan. */
export const receivingSettings = z.object({
	/** Off: nobody sends it anything. */
	used: z.boolean(),
	/** What phones show; empty: the endpoint's own name. Source: Bluetooth Core 5.3, vol. 3, part C, 3.2.2 (248 bytes; phones show fewer). */
	name: lineText(60),
	bluetooth: z.boolean(),
	/** once: by a command, within three minutes. open: whoever is near, at any time. */
	pairing: z.enum(['once', 'open']),
	/** A phone's volume when it connects; its own keys change it afterwards. */
	beginsPercent: z.number().int().min(0).max(100),
	/** The place farthest away from which a phone still sends, and the walls between. */
	farthestM: z.number().min(0.5).max(200),
	walls: z.number().int().min(0).max(10),
	/** Computers send by the sound server's own protocol. */
	server: z.boolean(),
	/** Whatever sends RTP. */
	rtp: z.boolean(),
	/** The next one above is RTCP's. Source: RFC 3550, 11. */
	rtpPort: z
		.number()
		.int()
		.min(1024)
		.max(65_534)
		.refine((port) => port % 2 === 0, 'An even number: the odd one above it belongs to RTCP.'),
	/** Kept ready against pauses, ms. In whole periods, which must be multiples of 10 ms. Source: bluealsa-aplay(1), --pcm-period-time. */
	bufferMs: z.number().int().min(100).max(2000).multipleOf(50, 'In steps of 50\u2009ms.'),
	/** rests: the list is stopped while somebody sends. mixes: both sound. */
	meanwhile: z.enum(['rests', 'mixes']),
	/** In quiet hours nothing is received either. */
	quietToo: z.boolean()
});
/** The receiving's slice of a plan. */
export type ReceivingSettings = z.infer<typeof receivingSettings>;
