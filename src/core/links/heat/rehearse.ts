import { tellerFor, type Machine, type Teller } from '../../engines/machine';
import { FAN_SCRIPT } from './fan';
import { FAN } from './scripts';
import { droppedAt, runHeat, settledAfterSec, type ThermalModel } from './thermal';
import { HEAT_WORDS } from './words';

/** What the kernel of a board with a header shows; a PWM chip only where its start file asks for one, which is not rehearsed. */
const SHOWN: Readonly<Record<string, readonly string[]>> = {
	'/sys/class/gpio': ['gpiochip0'],
	'/sys/class/pwm': ['pwmchip0']
};

/**
 * The board warms up from its start. What the bench says of heat is turned into the moments at which something changes:
 * the fan begins, the board slows itself, frames come late. A fan that nothing controls on the card stands still.
 */
export default function rehearseHeat(machine: Machine): void {
	const tell = tellerFor(machine, 'heat', HEAT_WORDS);
	for (const [prefix, names] of Object.entries(SHOWN))
		machine.disk.mounts.push({
			prefix,
			read: () => null,
			list: (path) => (path === prefix ? names : [])
		});
	let fanPoints: FanPoints = null;
	/** Each warming-up has its own number, so that the moments of an earlier one are passed over. */
	let current = 0;
	const warmUp = (delaySec: number): void => {
		const mine = ++current;
		foretell(machine, tell, delaySec, fanPoints, () => mine === current);
	};
	machine.byHeart.set(FAN_SCRIPT, {
		text: `${FAN.join('\n')}\n`,
		program: (process) => {
			const [, , , on = '60', off = '50'] = process.argv;
			fanPoints = { onC: Number(on), offC: Number(off) };
		}
	});
	machine.on('userspace', () => {
		fanPoints = null;
		// After the services have begun, so that the fan's own is known.
		machine.after(machine.bench.board.servicesMs + 1000, () => warmUp(1));
	});
	machine.on('fault', ({ name, on }) => {
		if (name !== 'fan-stops') return;
		tell.event(on ? 'fan-stands' : 'fan-again', 'fault');
		if (machine.powered) warmUp(0);
	});
}

type FanPoints = { onC: number; offC: number } | null;

function foretell(
	machine: Machine,
	tell: Teller<typeof HEAT_WORDS>,
	delaySec: number,
	points: FanPoints,
	isCurrent: () => boolean
): void {
	const heat = machine.bench.heat;
	if (!heat) return;
	const { fan } = heat.model;
	const turns =
		fan !== null &&
		!machine.activeFaults.has('fan-stops') &&
		!machine.absent.has(fan.part) &&
		(fan.control === 'always' || fan.socket || points !== null);
	const model: ThermalModel = {
		...heat.model,
		fan: turns && fan ? { ...fan, ...(points ?? {}) } : null
	};
	const run = runHeat(model, heat.duty, settledAfterSec(model));
	let saidFan = false;
	let saidSlow = false;
	for (const moment of run.moments) {
		const begins: boolean = !saidFan && moment.fan > 0 && fan?.control !== 'always';
		const slows: boolean = !saidSlow && moment.speed < 1;
		if (!begins && !slows) continue;
		saidFan ||= begins;
		saidSlow ||= slows;
		machine.after((delaySec + moment.sec) * 1000, () => {
			if (!isCurrent()) return;
			if (begins) tell.event('fan-begins', 'info', { chipC: moment.chipC });
			if (slows) tell.event('throttled', 'bad', { chipC: moment.chipC, dropped: run.dropped });
		});
	}
	machine.after((delaySec + run.moments.at(-1)!.sec) * 1000, () => {
		if (isCurrent()) tell.event('settled', run.dropped > 0 ? 'bad' : 'info', { chipC: run.steadyC });
	});
	// A load beyond the processors is late from the first frame, hot or not.
	const late = droppedAt(heat.duty, 1);
	if (late > 0 && delaySec > 0) tell.event('late', 'bad', { dropped: late });
}
