import { fault, ok, type Result } from '../../basics/result';

/** A temperature that the person has read off, minutes after the start. */
export interface Reading {
	readonly afterMin: number;
	readonly chipC: number;
}

/** What one body would have to be to warm as the readings say. */
export interface Fitted {
	readonly kPerW: number;
	readonly jPerK: number;
	/** Root mean square of what is left between readings and model. */
	readonly offK: number;
}

/** Time constants that a board can have: from a bare small one to a large heatsink in a thick case. */
const SHORTEST_SEC = 20;
const LONGEST_SEC = 6 * 3600;

/**
 * R and C of the first-order model from readings after a cold start. For each time constant the best R follows by least
 * squares; the best time constant is found by narrowing down. Two readings determine both exactly when the model can.
 * Faults: `fit-few` (two needed), `fit-same-time`, `fit-cold` (no warmer than the air), `fit-falling` (later must not be colder).
 */
export function fitThermal(readings: readonly Reading[], airC: number, watts: number): Result<Fitted> {
	if (readings.length < 2)
		return fault('fit-few', 'Two readings are needed: one soon after the start, one much later.');
	const sorted = [...readings].sort((a, b) => a.afterMin - b.afterMin);
	const first = sorted[0]!;
	const last = sorted.at(-1)!;
	if (first.afterMin === last.afterMin)
		return fault('fit-same-time', 'All readings are of the same minute. Take another, at least ten minutes later.');
	if (sorted.some(({ chipC }) => chipC <= airC))
		return fault(
			'fit-cold',
			`A reading is no warmer than the ${airC}\u2009°C of the air around it. Check the reading and the room's temperature.`
		);
	if (last.chipC < first.chipC)
		return fault(
			'fit-falling',
			'It got colder while it played. Something else changed: the fan, the room, the load. Read again from a cold start.'
		);
	const rise = sorted.map(({ afterMin, chipC }) => ({ sec: afterMin * 60, k: (chipC - airC) / watts }));
	const at = (tauSec: number) => {
		const shape = rise.map(({ sec }) => 1 - Math.exp(-sec / tauSec));
		const kPerW =
			dot(
				shape,
				rise.map(({ k }) => k)
			) / dot(shape, shape);
		const left = rise.map(({ k }, n) => (k - kPerW * shape[n]!) * watts);
		return { kPerW, offK: Math.sqrt(dot(left, left) / left.length) };
	};
	const tauSec = narrow((tau) => at(tau).offK, SHORTEST_SEC, LONGEST_SEC);
	const { kPerW, offK } = at(tauSec);
	return ok({ kPerW, jPerK: tauSec / kPerW, offK });
}

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, value, n) => sum + value * b[n]!, 0);

/** The lowest point of a function with one valley, on a logarithmic scale: a coarse look, then golden section. */
function narrow(f: (x: number) => number, low: number, high: number): number {
	const GOLDEN = (Math.sqrt(5) - 1) / 2;
	const scan = Array.from({ length: 80 }, (_, n) => low * (high / low) ** (n / 79));
	const best = scan.reduce((lowest, x, n) => (f(x) < f(scan[lowest]!) ? n : lowest), 0);
	let a = Math.log(scan[Math.max(0, best - 1)]!);
	let b = Math.log(scan[Math.min(scan.length - 1, best + 1)]!);
	for (let n = 0; n < 60; n++) {
		const c = b - GOLDEN * (b - a);
		const d = a + GOLDEN * (b - a);
		if (f(Math.exp(c)) < f(Math.exp(d))) b = d;
		else a = c;
	}
	return Math.exp((a + b) / 2);
}
