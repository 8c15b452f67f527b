import type { Figure } from '../../../link/figure';

/** Who decodes a film, by the system that the board starts from and by how its kernel drives the circuit. */
export interface DecodingRow {
	readonly system: string;
	/** How that kernel drives the board's circuit, and on which classes of boards. */
	readonly driver: string;
	readonly player: string;
	/** On pages, by the browser. */
	readonly page: string;
	readonly sure: Figure['sure'];
	readonly source: string;
}

const KERNEL =
	'Debian\u2019s configuration of linux 6.1.176-1 for arm64 (package linux-config-6.1): V4L_MEM2MEM_DRIVERS, STAGING_MEDIA, and what is chosen below them';
const PROCESSOR = 'the processor';
const BROWSER = 'the processor (assumed: how Debian builds the browser was not looked into)';

/**
 * A stateful circuit takes a stream as it is; a stateless one wants to be told of each frame by a player that reads the stream itself.
 * Sources: the kernel's documentation, Memory-to-memory Stateful and Stateless Video Decoder Interface; in each row.
 */
export const DECODING: readonly DecodingRow[] = [
	{
		system: 'Debian 12\u2019s own kernel and programs',
		driver: 'none: the usual boards with a socket for composite, and those that followed them',
		player: PROCESSOR,
		page: BROWSER,
		sure: 'exact',
		source: KERNEL
	},
	{
		system: 'Debian 12\u2019s own kernel and programs',
		driver: 'stateless: three families of other makers',
		player: `${PROCESSOR}: Debian\u2019s FFmpeg 5.1.9 has decoders for stateful circuits alone`,
		page: BROWSER,
		sure: 'exact',
		source: `${KERNEL}; the decoders that libavcodec59 5.1.9 for arm64 names: *_v4l2m2m, none for requests`
	},
	{
		system: 'Debian 12\u2019s own kernel and programs',
		driver: 'stateful, among the drivers on trial: one family',
		player: 'the circuit, for H.264 and what else it takes (hwdec=auto-copy)',
		page: BROWSER,
		sure: 'typical',
		source: `${KERNEL}; not seen on such a board`
	},
	{
		system: 'The Debian image of the board\u2019s maker',
		driver: 'the maker\u2019s own',
		player:
			'mostly the circuit: H.264 where it is stateful (hwdec=auto-copy), H.265 where the maker\u2019s FFmpeg goes with it',
		page: 'as the maker builds the browser',
		sure: 'assumed',
		source: 'Not looked up: each maker\u2019s image differs. verify.sh says what is so on yours'
	}
];
