import { z } from 'zod';
import { FIRST_PARTITION_AT } from '../../files/cardFile';
import { lineText } from '../../basics/text';

/** Facts about the image that goes on the card, as the page found them. */
const imageFactsSchema = z.object({
	name: lineText(255).min(1),
	form: z.enum(['raw', 'gzip', 'xz', 'zstd', 'zip']),
	fileBytes: z.number().int().min(1),
	/** What it takes on the card; null while it is not known. */
	rawBytes: z.number().int().min(1).nullable(),
	sha256: z.string().regex(/^([0-9a-f]{64})?$/),
	/** Compared with what its publisher says: the same, or not compared. Another than the publisher\u2019s is never kept. */
	checked: z.enum(['same', 'no']),
	/** It reads a seed at its first start; null: could not be seen. */
	takesSeed: z.boolean().nullable(),
	/** Free on its first partition, where the card set goes; null: could not be seen. */
	firstFreeBytes: z.number().int().min(0).nullable()
});

/** The schema of the card's slice of a plan. */
export const cardSettings = z.object({
	/** What kind of system: a plain one that our files set up, a ready-made player, or an application platform for a big screen. */
	system: z.enum(['plain', 'player', 'platform']),
	image: imageFactsSchema.nullable(),
	/** Formatted first, or written straight over what is there. */
	prepare: z.enum(['over', 'format']),
	/** Where the board's firmware reads the kernel's arguments, and what stands there in the image. */
	bootStyle: z.enum(['cmdline', 'extlinux', 'none']),
	bootText: z.string().max(20_000),
	/** Where the running system shows the card’s first partition. */
	firstPartition: z.enum(FIRST_PARTITION_AT),
	/** Kept free, so that the card can spread its wear and updates have room. */
	reservePercent: z.number().int().min(0).max(50),
	/** Everything else that is written, each day. */
	dailyMb: z.number().min(0).max(1_000_000),
	swapMb: z.number().int().min(0).max(16_384),
	/** Log in memory only: fewer writes and fewer torn files after a power cut, but no log of what came before it. */
	logsInMemory: z.boolean(),
	/** The root is written to, or lies read-only below a layer in memory that each restart forgets. */
	root: z.enum(['writable', 'overlay']),
	/** The board restarts by itself when the system hangs. */
	watchdog: z.boolean(),
	/** Torn file systems are mended at the start without asking. */
	mendAtStart: z.boolean(),
	/** Passwords and keys of the set leave the first partition once all of it is in its place. */
	secretsLeave: z.boolean(),
	/** How it is switched off. */
	ends: z.enum(['cut', 'shutdown']),
	/** Minutes that writing the image took, once done. */
	wroteInMin: z.number().min(0.001).max(10_000).nullable()
});
/** The card's slice of a plan. */
export type CardSettings = z.infer<typeof cardSettings>;

/** What a new plan begins with. */
export const calmCard: CardSettings = {
	system: 'plain',
	image: null,
	prepare: 'over',
	bootStyle: 'none',
	bootText: '',
	firstPartition: '/boot/firmware',
	reservePercent: 10,
	dailyMb: 20,
	swapMb: 100,
	logsInMemory: true,
	root: 'writable',
	watchdog: true,
	mendAtStart: true,
	secretsLeave: false,
	ends: 'cut',
	wroteInMin: null
};
