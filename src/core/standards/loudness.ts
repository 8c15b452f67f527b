/** Loudness of programme sound. Source: ITU-R BS.1770-4 (weighting, gating, true peak), EBU Tech 3342 (range). */

/** What a whole recording measures. */
export interface Loudness {
	/** LUFS; null: silent, or shorter than the 400 ms that are needed. */
	readonly integratedLufs: number | null;
	/** LU, from the 10th to the 95th percentile of 3 s windows; null: no window is loud enough. */
	readonly rangeLu: number | null;
	/** dBTP, between the samples too; null: silent. */
	readonly truePeakDbtp: number | null;
}

const ABSOLUTE_GATE_LUFS = -70;
const RELATIVE_GATE_LU = -10;
const RANGE_GATE_LU = -20;
const STEPS_PER_SEC = 10;
/** Of 100 ms steps. */
const MOMENT_STEPS = 4;
const SHORT_STEPS = 30;
/**
 * By how many there are, in the order of WAVE: left, right, centre, effects, back, side. What comes from the side weighs more,
 * effects nothing. Source: BS.1770-4, tables 3 and 4.
 */
const WEIGHTS: Readonly<Record<number, readonly number[]>> = {
	4: [1, 1, 1.41, 1.41],
	5: [1, 1, 1, 1.41, 1.41],
	6: [1, 1, 1, 0, 1.41, 1.41],
	8: [1, 1, 1, 0, 1, 1, 1.41, 1.41]
};

const lufs = (energy: number): number => -0.691 + 10 * Math.log10(energy);
const energyOf = (level: number): number => 10 ** ((level + 0.691) / 10);

interface Biquad {
	readonly b0: number;
	readonly b1: number;
	readonly b2: number;
	readonly a1: number;
	readonly a2: number;
}

/** The two filters of annex 1, for any rate: its table is theirs at 48 kHz. */
function weighting(sampleRateHz: number): { shelf: Biquad; highPass: Biquad } {
	const k = Math.tan((Math.PI * 1681.974450955533) / sampleRateHz);
	const high = 10 ** (3.999843853973347 / 20);
	const band = high ** 0.4996667741545416;
	const q = 0.7071752369554196;
	const a0 = 1 + k / q + k * k;
	const shelf = {
		b0: (high + (band * k) / q + k * k) / a0,
		b1: (2 * (k * k - high)) / a0,
		b2: (high - (band * k) / q + k * k) / a0,
		a1: (2 * (k * k - 1)) / a0,
		a2: (1 - k / q + k * k) / a0
	};
	const low = Math.tan((Math.PI * 38.13547087602444) / sampleRateHz);
	const lowQ = 0.5003270373238773;
	const low0 = 1 + low / lowQ + low * low;
	return {
		shelf,
		highPass: { b0: 1, b1: -2, b2: 1, a1: (2 * (low * low - 1)) / low0, a2: (1 - low / lowQ + low * low) / low0 }
	};
}

const TAPS = 49;
/** Windowed sinc, by phase; the first phase is the samples themselves. */
function interpolators(factor: number): Float64Array[] {
	const phases = Array.from({ length: factor }, () => [] as number[]);
	for (let n = 0; n < TAPS; n++) {
		const m = n - (TAPS - 1) / 2;
		const sinc = m === 0 ? 1 : Math.sin((m * Math.PI) / factor) / ((m * Math.PI) / factor);
		phases[n % factor]!.push(sinc * 0.5 * (1 - Math.cos((2 * Math.PI * n) / (TAPS - 1))));
	}
	return phases.slice(1).map((phase) => Float64Array.from(phase));
}

/** Samples that are looked between, or not, together. */
const CHUNK = 24;

/** One channel's filters, and what it has met of the samples before. */
class Channel {
	readonly state = new Float64Array(4);
	readonly tail = new Float32Array(TAPS);
	constructor(readonly weight: number) {}
}

/** Takes samples as they come, full scale 1, and says at any time what all of them measure. */
export class LoudnessMeter {
	readonly #channels: Channel[];
	readonly #shelf: Biquad;
	readonly #highPass: Biquad;
	readonly #phases: Float64Array[];
	/** So much larger than its samples the curve between them can be. */
	readonly #overshoot: number;
	readonly #stepFrames: number;
	#steps = new Float64Array(1024);
	#count = 0;
	#sum = 0;
	#filled = 0;
	#peak = 0;

	constructor(
		readonly sampleRateHz: number,
		channels: number
	) {
		const weights = WEIGHTS[channels] ?? [];
		this.#channels = Array.from({ length: channels }, (_, n) => new Channel(weights[n] ?? 1));
		({ shelf: this.#shelf, highPass: this.#highPass } = weighting(sampleRateHz));
		// Beyond 96 kHz twice is enough, beyond 192 kHz the samples themselves are. Source: BS.1770-4, annex 2.
		this.#phases = sampleRateHz < 96_000 ? interpolators(4) : sampleRateHz < 192_000 ? interpolators(2) : [];
		this.#overshoot = Math.max(1, ...this.#phases.map((phase) => phase.reduce((sum, part) => sum + Math.abs(part), 0)));
		this.#stepFrames = Math.max(1, Math.round(sampleRateHz / STEPS_PER_SEC));
	}

	/** Samples of each channel, equally many. */
	push(planes: readonly Float32Array[]): void {
		const frames = planes[0]?.length ?? 0;
		for (let from = 0; from < frames;) {
			const to = Math.min(frames, from + this.#stepFrames - this.#filled);
			for (const [n, channel] of this.#channels.entries()) if (planes[n]) this.#take(channel, planes[n], from, to);
			this.#filled += to - from;
			from = to;
			if (this.#filled === this.#stepFrames) this.#endStep();
		}
	}

	#take(channel: Channel, samples: Float32Array, from: number, to: number): void {
		const { b0, b1, b2, a1, a2 } = this.#shelf;
		const { a1: c1, a2: c2 } = this.#highPass;
		const { state } = channel;
		let [s1, s2, h1, h2] = state as unknown as [number, number, number, number];
		let sum = 0;
		let highest = 0;
		for (let n = from; n < to; n++) {
			const x = samples[n]!;
			const size = x < 0 ? -x : x;
			if (size > highest) highest = size;
			const w = x - a1 * s1 - a2 * s2;
			const y = b0 * w + b1 * s1 + b2 * s2;
			s2 = s1;
			s1 = w;
			const v = y - c1 * h1 - c2 * h2;
			const z = v - 2 * h1 + h2;
			h2 = h1;
			h1 = v;
			sum += z * z;
		}
		// What fades away to nothing must not slow the processor down.
		state[0] = Math.abs(s1) < 1e-30 ? 0 : s1;
		state[1] = Math.abs(s2) < 1e-30 ? 0 : s2;
		state[2] = Math.abs(h1) < 1e-30 ? 0 : h1;
		state[3] = Math.abs(h2) < 1e-30 ? 0 : h2;
		this.#sum += channel.weight * sum;
		this.#lookBetween(channel, samples, from, to, highest);
	}

	/** The curve between the samples, where it can be higher than all before. */
	#lookBetween(channel: Channel, samples: Float32Array, from: number, to: number, highest: number): void {
		if (highest > this.#peak) this.#peak = highest;
		const length = this.#phases[0]?.length ?? 0;
		const { tail } = channel;
		const before = length - 1;
		let tailHighest = highest;
		for (let n = 0; n < before; n++) tailHighest = Math.max(tailHighest, Math.abs(tail[n]!));
		if (length > 0 && tailHighest * this.#overshoot > this.#peak) {
			const joined = new Float32Array(before + to - from);
			joined.set(tail.subarray(0, before));
			joined.set(samples.subarray(from, to), before);
			for (let at = 0; at + length <= joined.length; at += CHUNK)
				this.#peak = this.#peakBetween(joined, at, Math.min(joined.length - before, at + CHUNK));
		}
		const keep = Math.min(before, to - from);
		tail.copyWithin(0, keep, Math.max(0, before));
		for (let n = 0; n < keep; n++) tail[before - keep + n] = samples[to - keep + n]!;
	}

	/** Of the curve over these samples, unless the samples it is made of are too small for a new one. */
	#peakBetween(samples: Float32Array, from: number, to: number): number {
		const before = this.#phases[0]!.length - 1;
		let peak = this.#peak;
		let highest = 0;
		for (let n = from; n < to + before; n++) {
			const size = Math.abs(samples[n]!);
			if (size > highest) highest = size;
		}
		if (highest * this.#overshoot <= peak) return peak;
		for (const phase of this.#phases)
			for (let n = from; n < to; n++) {
				let sum = 0;
				for (let k = 0; k < phase.length; k++) sum += phase[k]! * samples[n + before - k]!;
				const size = sum < 0 ? -sum : sum;
				if (size > peak) peak = size;
			}
		return peak;
	}

	#endStep(): void {
		if (this.#count === this.#steps.length) {
			const more = new Float64Array(2 * this.#count);
			more.set(this.#steps);
			this.#steps = more;
		}
		this.#steps[this.#count++] = this.#sum / this.#stepFrames;
		this.#sum = 0;
		this.#filled = 0;
	}

	/** Mean energy of each window of so many steps. */
	#windows(steps: number): Float64Array {
		const out = new Float64Array(Math.max(0, this.#count - steps + 1));
		let sum = 0;
		for (let n = 0; n < this.#count; n++) {
			sum += this.#steps[n]!;
			if (n >= steps) sum -= this.#steps[n - steps]!;
			if (n >= steps - 1) out[n - steps + 1] = Math.max(0, sum) / steps;
		}
		return out;
	}

	result(): Loudness {
		const loud = gated(this.#windows(MOMENT_STEPS), RELATIVE_GATE_LU);
		const range = gated(this.#windows(SHORT_STEPS), RANGE_GATE_LU).sort();
		const at = (part: number): number => lufs(range[Math.round((range.length - 1) * part)]!);
		return {
			integratedLufs: loud.length ? lufs(mean(loud)) : null,
			rangeLu: range.length ? at(0.95) - at(0.1) : null,
			truePeakDbtp: this.#peak > 0 ? 20 * Math.log10(this.#peak) : null
		};
	}
}

const mean = (values: Float64Array): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** What is above -70 LUFS, and then above the mean of that by the relative gate. Source: BS.1770-4, annex 1; Tech 3342, 4. */
function gated(energies: Float64Array, relativeLu: number): Float64Array {
	const heard = energies.filter((energy) => energy > energyOf(ABSOLUTE_GATE_LUFS));
	if (heard.length === 0) return heard;
	const least = mean(heard) * 10 ** (relativeLu / 10);
	return heard.filter((energy) => energy > least);
}
