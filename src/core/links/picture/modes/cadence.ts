import { fault, ok, type Result } from '../../../basics/result';

/** A rate that a float cannot hold: pictures in seconds. */
export interface Rate {
	readonly num: number;
	readonly den: number;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
const reduced = (num: number, den: number): Rate => {
	const by = gcd(num, den);
	return { num: num / by, den: den / by };
};

/** The 1000/1001 rates are written with two or three places; no label of them is off by more. */
const LABEL_SLACK_HZ = 0.005;

/**
 * What a label such as "23.976", "59.94" or "25" stands for: rates that are 1000/1001 of a whole number are exactly that.
 * Source: SMPTE ST 2046-1 names them so; CTA-861-H, clause 4.
 */
export function readRate(label: string): Result<Rate> {
	const text = label.trim();
	if (!/^\d{1,4}(?:\.\d{1,6})?$/.test(text) || Number(text) === 0)
		return fault('no-rate', `"${text.slice(0, 20)}" is no rate. Type pictures a second, such as 25 or 23.976.`);
	const value = Number(text);
	const nominal = Math.round(value * 1.001);
	if (!Number.isInteger(value) && Math.abs((nominal * 1000) / 1001 - value) < LABEL_SLACK_HZ)
		return ok(reduced(nominal * 1000, 1001));
	const places = text.split('.')[1]?.length ?? 0;
	return ok(reduced(Math.round(value * 10 ** places), 10 ** places));
}

/** How frames fall on refreshes. */
export interface Cadence {
	readonly framesPerPeriod: number;
	readonly refreshesPerPeriod: number;
	readonly periodSeconds: number;
	readonly minRepeats: number;
	readonly maxRepeats: number;
	/** Every frame is shown equally often. */
	readonly even: boolean;
	readonly framesNeverShownPerPeriod: number;
	/** From one visible slip to the next, s; null: none. */
	readonly irregularSeconds: number | null;
	/** How often each frame of a period is shown; null where a period is longer than anybody reads. */
	readonly repeatPattern: readonly number[] | null;
}

/** Slips that are further apart than this nobody notices, s. Typical. */
const UNNOTICED_SEC = 20;
/** Slips that somebody who watches sees, a second: frames that stand longer than others, or that never show at all. */
export function slipsASecond({ irregularSeconds, framesNeverShownPerPeriod, periodSeconds }: Cadence): number {
	// Half the frames, or more, always missing are as regular as a clock, and no film.
	if (irregularSeconds === null) return framesNeverShownPerPeriod / periodSeconds;
	return irregularSeconds <= UNNOTICED_SEC ? 1 / irregularSeconds : 0;
}
/** Whether somebody who watches sees it move unevenly. */
export const stutters = (cadence: Cadence): boolean => slipsASecond(cadence) > 0;
/** How evenly frames fall, in words. */
export function cadenceWords(cadence: Cadence): string {
	const { irregularSeconds, framesNeverShownPerPeriod, framesPerPeriod } = cadence;
	if (stutters(cadence))
		return irregularSeconds === null
			? `${framesNeverShownPerPeriod} of ${framesPerPeriod} frames never shown`
			: `${slipsASecond(cadence).toFixed(irregularSeconds > 1 ? 1 : 0)} slips a second`;
	return irregularSeconds === null ? 'every frame equally long' : `a slip every ${irregularSeconds.toFixed(0)}\u2009s`;
}

/** A period of more frames than this is no pattern to look at. */
const LONGEST_PATTERN = 60;

/** How often each of the first frames is shown: refresh j shows frame ⌊j·fps/Hz⌋. */
export const repeatsOf = (content: Rate, display: Rate, frames: number): number[] => {
	// Frame k begins with the first refresh j for which j·fps/Hz ≥ k.
	const begins = (k: number): number => Math.ceil((k * display.num * content.den) / (content.num * display.den));
	return Array.from({ length: frames }, (_, k) => begins(k + 1) - begins(k));
};

/** Frames on refreshes, exactly. Source: refresh j shows frame ⌊j·fps/Hz⌋. */
export function computeCadence(content: Rate, display: Rate): Cadence {
	const { num: framesPerPeriod, den: refreshesPerPeriod } = reduced(
		content.num * display.den,
		content.den * display.num
	);
	const contentFps = content.num / content.den;
	const displayHz = display.num / display.den;
	const [larger, smaller] = contentFps > displayHz ? [contentFps, displayHz] : [displayHz, contentFps];
	const nearest = Math.floor(larger / smaller + 0.5);
	const divides = framesPerPeriod === 1 || refreshesPerPeriod === 1;
	return {
		framesPerPeriod,
		refreshesPerPeriod,
		periodSeconds: (refreshesPerPeriod * display.den) / display.num,
		minRepeats: Math.floor(refreshesPerPeriod / framesPerPeriod),
		maxRepeats: Math.ceil(refreshesPerPeriod / framesPerPeriod),
		even: framesPerPeriod === 1,
		framesNeverShownPerPeriod: Math.max(0, framesPerPeriod - refreshesPerPeriod),
		irregularSeconds: divides ? null : 1 / Math.abs(larger - nearest * smaller),
		repeatPattern: framesPerPeriod > LONGEST_PATTERN ? null : repeatsOf(content, display, framesPerPeriod)
	};
}
