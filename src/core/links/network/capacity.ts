/** What a way to the network gives, from the rate on its label or in its air to what a program gets of it. */

/** One step of the radio's rates: from this level on, so much. Source: IEEE 802.11-2020, tables 19-27 and 21-30, 20 MHz, one stream, 800 ns. */
const STEPS: readonly (readonly [dbm: number, mbps: number])[] = [
	[-82, 6.5],
	[-79, 13],
	[-77, 19.5],
	[-74, 26],
	[-70, 39],
	[-66, 52],
	[-65, 58.5],
	[-64, 65],
	[-59, 78]
];
/** More width carries more and wants more level. Source: the same tables; 3 dB for each doubling. */
const WIDTHS = { 20: { times: 1, db: 0 }, 40: { times: 2.077, db: 3 }, 80: { times: 4.5, db: 6 } } as const;
/** 256-QAM, the last step, is for the upper band. */
const LOWER_BAND_MBPS = 65;
/** What headers, acknowledgements and waiting leave of the radio's rate. Typical of TCP over one hop. */
const RADIO_EFFICIENCY = 0.55;
/** The same for a cable: 1448 of 1538 bytes on the wire, with TCP’s time stamps, which Linux sends. Source: IEEE 802.3, 3.1.1; RFC 7323, 3. */
const WIRE_EFFICIENCY = 1448 / 1538;

interface RadioPath {
	readonly bandGhz: 2.4 | 5;
	readonly widthMhz: 20 | 40 | 80;
	readonly streams: 1 | 2;
	readonly signalDbm: number;
	readonly othersPercent: number;
}
/** What a path carries. */
export interface Capacity {
	/** On the medium, bit/s. */
	readonly rateBps: number;
	/** For programs, bit/s. */
	readonly realBps: number;
}

/**
 * Radio: rate from level, then what is left of the air and of the rate. Two streams want 3 dB more. Both ends fall back to fewer
 * streams and narrower channels where that gives more; they choose for each frame. Source: IEEE 802.11-2020, 10.6.
 */
export function computeRadio(path: RadioPath): Capacity {
	const rates = ([20, 40, 80] as const)
		.filter((widthMhz) => widthMhz <= path.widthMhz && (widthMhz < 80 || path.bandGhz === 5))
		.flatMap((widthMhz) => ([1, 2] as const).filter((n) => n <= path.streams).map((n) => rateAt(path, widthMhz, n)));
	const rateBps = Math.max(...rates);
	return { rateBps, realBps: rateBps * RADIO_EFFICIENCY * (1 - path.othersPercent / 100) };
}

function rateAt({ bandGhz, signalDbm }: RadioPath, widthMhz: 20 | 40 | 80, streams: 1 | 2): number {
	const { times, db } = WIDTHS[widthMhz];
	const level = signalDbm - db - (streams === 2 ? 3 : 0);
	const step = STEPS.filter(([dbm, mbps]) => level >= dbm && (bandGhz === 5 || mbps <= LOWER_BAND_MBPS)).at(-1);
	return (step?.[1] ?? 0) * times * streams * 1e6;
}

/** Ethernet at `mbps` Mbit/s with TCP over IPv4 in full frames. Source: IEEE 802.3, 3.1.1; RFC 9293. */
export const computeWire = (mbps: number): Capacity => ({ rateBps: mbps * 1e6, realBps: mbps * 1e6 * WIRE_EFFICIENCY });
