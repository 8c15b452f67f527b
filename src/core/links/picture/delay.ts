/** One share of the time from the computer's screen to the light of the set. */
export interface DelayShare {
	readonly what: string;
	readonly ms: number;
}

/** What decides how late a picture comes. */
export interface DelayQuestion {
	readonly framesPerSec: number;
	readonly refreshHz: number;
	readonly bitsPerSec: number;
	readonly linkBps: number;
	readonly wired: boolean;
	/** As the set itself says; null: typical of its kind. */
	readonly setMs: number | null;
}

/** A set that does not say: with its own processing on, in its game or computer mode some 15. Typical. */
const USUAL_SET_MS = 45;
/** Over Wi-Fi a packet waits for its turn, and now and then for others'. Typical; on a wire it does not. */
const NETWORK_MS = { wired: 1, radio: 9 } as const;
/** Frames that encoder and decoder hold back without frames that wait for later ones. Source: x264's zerolatency; FFmpeg's h264 decoder. */
const ENCODER_FRAMES = 1;
const DECODER_FRAMES = 1;

/** From capture to light, share by share, on average. */
export function computeDelay({
	framesPerSec,
	refreshHz,
	bitsPerSec,
	linkBps,
	wired,
	setMs
}: DelayQuestion): DelayShare[] {
	const frameMs = 1000 / framesPerSec;
	return [
		{ what: 'waits to be captured', ms: frameMs / 2 },
		{ what: 'encoded', ms: ENCODER_FRAMES * frameMs },
		{ what: 'sent', ms: (bitsPerSec / framesPerSec / linkBps) * 1000 + (wired ? NETWORK_MS.wired : NETWORK_MS.radio) },
		{ what: 'decoded', ms: DECODER_FRAMES * frameMs },
		{ what: 'waits for the refresh', ms: 1000 / refreshHz / 2 },
		{ what: 'in the set', ms: setMs ?? USUAL_SET_MS }
	];
}

/** All shares together, ms. */
export const totalMs = (shares: readonly DelayShare[]): number => shares.reduce((sum, { ms }) => sum + ms, 0);
