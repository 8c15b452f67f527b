import { withUnit } from '../../format';
import type { Machine } from '../../engines/machine';
import { dropAtPower } from './lead';

/** From the dip to the firmware's next try. Typical. */
const RESTART_MS = 1500;
/** After so many restarts in a row nobody expects the next one to go better. */
const PATIENCE = 5;
/** What a telephone charger on a thin lead gives, for the fault of that name. */
const WEAK = { supplyVolts: 5, ratedW: 5, loopOhm: 0.7 };

/**
 * Mains, and what reaches the board as its load rises: little while the firmware runs, all at once when the services begin.
 * Below the brown-out the board restarts, again and again.
 */
export function rehearsePower(machine: Machine): void {
	let restarts = 0;

	const voltsAt = (watts: number): number | null => {
		const power = machine.bench.power;
		if (!power) return null;
		const { supplyVolts, ratedW, loopOhm } = machine.activeFaults.has('supply-weak') ? WEAK : power;
		// Beyond its rating a supply gives way.
		if (watts > ratedW) return 0;
		return dropAtPower(supplyVolts, loopOhm, watts)?.boardV ?? 0;
	};
	const check = (watts: number): void => {
		const power = machine.bench.power;
		const volts = voltsAt(watts);
		if (!power || volts === null || volts >= power.brownOutV || !machine.powered) return;
		brownOut(volts, watts);
	};
	const brownOut = (volts: number, watts: number): void => {
		restarts++;
		const reading = volts === 0 ? 'collapses' : withUnit(volts, 2, 'V');
		machine.log('power', `Too little voltage at ${withUnit(watts, 1, 'W')}: the board goes down`, reading, 'bad');
		machine.mains(false);
		if (restarts >= PATIENCE) {
			machine.log('power', `It has gone down ${PATIENCE} times and will go on so`, '', 'bad');
			machine.setAudible('off', 'too little voltage: it restarts for ever', null);
			return;
		}
		machine.setAudible('off', 'too little voltage', null);
		machine.clock.at(machine.clock.nowMs + RESTART_MS, () => {
			if (!machine.powered && !machine.activeFaults.has('power-cut')) machine.mains(true);
		});
	};

	machine.on('mains-on', () => {
		const idle = machine.bench.power && voltsAt(machine.bench.power.idleW);
		machine.log(
			'power',
			machine.clock.nowMs === 0 ? 'Mains on' : restarts ? 'The board tries again' : 'Mains back',
			idle ? withUnit(idle, 2, 'V') : ''
		);
		machine.emit('powered');
	});
	machine.on('userspace', () => {
		const power = machine.bench.power;
		if (!power) return;
		machine.after(machine.bench.board.servicesMs / 2, () => check(power.peakW));
		// Once it has stood for a minute, an earlier fit is forgotten.
		machine.after(60_000, () => (restarts = 0));
	});
	machine.on('mains-off', () => {
		if (machine.activeFaults.has('power-cut'))
			machine.log('power', 'Mains gone: everything stops at once', '0.00\u2009V', 'bad');
	});
	machine.on('fault', ({ name, on }) => {
		if (name === 'power-cut') {
			restarts = 0;
			machine.mains(!on);
		}
		if (name !== 'supply-weak') return;
		machine.log('fault', on ? 'A telephone charger is put in its place' : 'The planned supply is back', '', 'fault');
		if (on) check(machine.bench.power?.playingW ?? 0);
		else if (!machine.powered) {
			restarts = 0;
			machine.mains(true);
		}
	});
}
