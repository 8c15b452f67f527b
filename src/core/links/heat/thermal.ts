/**
 * A board as one warm body: T = T_air + P·R·(1 − e^(−t/(R·C))). R is what lies between chip and room, C the heat that board
 * and heatsink hold. The chip itself is faster than this by seconds, which no playback notices.
 */
export interface ThermalModel {
	/** Of the room, and what else gets warm in the same case makes of it. */
	readonly airC: number;
	/** Chip to air inside, still; and from there to the room. */
	readonly chipKPerW: number;
	readonly caseKPerW: number;
	readonly jPerK: number;
	readonly throttleC: number;
	/** Null without a fan. */
	readonly fan: Fan | null;
}
/** A fan, as the model turns it. */
export interface Fan {
	/** How many times more heat leaves the chip at full speed. */
	readonly airFactor: number;
	readonly control: 'always' | 'switched' | 'pwm';
	readonly onC: number;
	readonly offC: number;
}

/** What a board draws at a share of its processors' work. */
export interface Duty {
	readonly idleW: number;
	readonly peakW: number;
	/** 0 to 1 and above: above it cannot keep up even when cool. */
	readonly share: number;
}

/** Watts of the chip at a load of `share`, 0 to 1. */
export const dutyWatts = (duty: Duty, share = Math.min(1, duty.share)): number =>
	duty.idleW + share * (duty.peakW - duty.idleW);

/** K/W from chip to room at a fan speed from 0 to 1. */
export const resistance = (model: ThermalModel, fanSpeed: number): number =>
	model.chipKPerW / (1 + fanSpeed * ((model.fan?.airFactor ?? 1) - 1)) + model.caseKPerW;

/** The speed at which a fan turns at a temperature, given how it turned before: a switched one holds on between its two points. */
export function fanSpeed(fan: Fan | null, chipC: number, before: number): number {
	if (!fan) return 0;
	if (fan.control === 'always') return 1;
	if (fan.control === 'pwm') return Math.max(0, Math.min(1, (chipC - fan.offC) / Math.max(1, fan.onC - fan.offC)));
	return chipC >= fan.onC ? 1 : chipC <= fan.offC ? 0 : before;
}

/** One step of a run of the model. */
export interface Moment {
	readonly sec: number;
	readonly chipC: number;
	readonly fan: number;
	/** Speed of the processors, 1 is full. */
	readonly speed: number;
}

/** A run of the model, and what it settles at. */
export interface HeatRun {
	readonly moments: readonly Moment[];
	/** The highest temperature of the last tenth: what it settles at. */
	readonly steadyC: number;
	readonly throttlesAfterSec: number | null;
	/** Part of the frames that come too late once it has settled. */
	readonly dropped: number;
}

/**
 * Runs the model from cold. At its limit a board slows itself until it gets no hotter.
 * @param untilSec how long; six time constants say what it settles at
 */
export function runHeat(model: ThermalModel, duty: Duty, untilSec = settledAfterSec(model), steps = 240): HeatRun {
	const stepSec = untilSec / steps;
	let chipC = model.airC;
	let fan = fanSpeed(model.fan, chipC, 0);
	let speed = 1;
	let throttlesAfterSec: number | null = null;
	const moments: Moment[] = [{ sec: 0, chipC, fan, speed }];
	for (let n = 1; n <= steps; n++) {
		const kPerW = resistance(model, fan);
		const share = Math.min(1, duty.share);
		const freeC = stepTo(model, chipC, dutyWatts(duty, share), kPerW, stepSec);
		if (freeC > model.throttleC && throttlesAfterSec === null) throttlesAfterSec = n * stepSec;
		speed = freeC > model.throttleC ? allowedSpeed(model, duty, kPerW) : 1;
		chipC =
			speed < 1
				? Math.min(freeC, Math.max(model.throttleC, stepTo(model, chipC, dutyWatts(duty, 0), kPerW, stepSec)))
				: freeC;
		fan = fanSpeed(model.fan, chipC, fan);
		moments.push({ sec: n * stepSec, chipC, fan, speed });
	}
	const settled = moments.slice(-Math.ceil(steps / 10));
	const slowest = Math.min(...settled.map((moment) => moment.speed));
	return {
		moments,
		steadyC: Math.max(...settled.map((moment) => moment.chipC)),
		throttlesAfterSec,
		dropped: droppedAt(duty, slowest)
	};
}

/** Frames that are late when the processors run at a part of their speed. */
export const droppedAt = (duty: Duty, speed: number): number =>
	duty.share <= 0 ? 0 : Math.max(0, Math.min(1, 1 - speed / Math.max(duty.share, speed)));

/** The exact answer of the first-order model over one step, so that the length of a step does not matter. */
const stepTo = (model: ThermalModel, fromC: number, watts: number, kPerW: number, sec: number): number => {
	const endC = model.airC + watts * kPerW;
	return endC + (fromC - endC) * Math.exp(-sec / (kPerW * model.jPerK));
};

/** The speed at which it would just stay at its limit. A processor's draw follows its speed. */
function allowedSpeed(model: ThermalModel, duty: Duty, kPerW: number): number {
	const allowedW = (model.throttleC - model.airC) / kPerW - duty.idleW;
	return Math.max(0.15, Math.min(1, allowedW / Math.max(0.01, duty.peakW - duty.idleW)));
}

/** Seconds after which nothing changes any more: six time constants, ten minutes at least. */
export const settledAfterSec = (model: ThermalModel): number =>
	Math.max(600, 6 * (model.chipKPerW + model.caseKPerW) * model.jPerK);
