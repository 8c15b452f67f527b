import { tellerFor, type Machine } from '../../engines/machine';
import { dropAtPower } from './lead';
import { POWER_WORDS } from './words';

/** From the dip to the firmware's next try. Typical. */
const RESTART_MS = 1500;
/** After so many restarts in a row nobody expects the next one to go better. */
const PATIENCE = 5;
/** What a telephone charger on a lead of 2 m and 0.08 mm² gives, for the fault of that name. */
const WEAK = { supplyVolts: 5, ratedW: 5, loopOhm: 0.95 };

/**
 * Mains, and what reaches the board as its load rises: little while the firmware runs, all at once when the services begin.
 * Below the brown-out the board restarts, again and again.
 */
export default function rehearsePower(machine: Machine): void {
	const tell = tellerFor(machine, 'power', POWER_WORDS);
	let restarts = 0;

	const voltsAt = (watts: number): number | null => {
		const { power } = machine.bench;
		if (!power) return null;
		const { supplyVolts, ratedW, loopOhm } = machine.activeFaults.has('supply-weak') ? WEAK : power;
		// Beyond its rating a supply gives way.
		if (watts > ratedW) return 0;
		return dropAtPower(supplyVolts, loopOhm, watts)?.boardV ?? 0;
	};
	const check = (watts: number): void => {
		const { power } = machine.bench;
		const boardV = voltsAt(watts);
		if (!power || boardV === null || !machine.powered) return;
		if (boardV < power.brownOutV) return brownOut(boardV, watts);
		if (power.warnsV === null || boardV >= power.warnsV) return;
		tell.event('warns', 'bad', { watts, boardV });
		tell.state('power', 'low', 'low');
	};
	const brownOut = (boardV: number, watts: number): void => {
		restarts++;
		tell.event('brown-out', 'bad', { watts, boardV });
		machine.mains(false);
		const isForEver = restarts >= PATIENCE;
		machine.emit('brown-out', tell.said(isForEver ? 'too-little-for-ever' : 'too-little'));
		tell.state('power', 'brown-out', isForEver ? 'too-little-for-ever' : 'too-little');
		if (isForEver) return tell.event('for-ever', 'bad', { times: PATIENCE });
		machine.clock.at(machine.clock.nowMs + RESTART_MS, () => {
			if (!machine.powered && !machine.activeFaults.has('power-cut')) machine.mains(true);
		});
	};

	machine.on('mains-on', () => {
		const boardV = machine.bench.power && voltsAt(machine.bench.power.idleW);
		const code = machine.clock.nowMs === 0 ? 'mains-on' : restarts ? 'tries-again' : 'mains-back';
		tell.event(code, 'info', { boardV });
		tell.state('power', 'on', 'enough');
		machine.emit('powered');
	});
	machine.on('userspace', () => {
		const { power } = machine.bench;
		if (!power) return;
		machine.after(machine.bench.board.servicesMs / 2, () => check(power.peakW));
		// Once it has stood for a minute, an earlier fit is forgotten.
		machine.after(60_000, () => (restarts = 0));
	});
	machine.on('mains-off', ({ abrupt }) => {
		if (abrupt) tell.event('mains-gone', 'bad');
	});
	machine.on('fault', ({ name, on }) => {
		if (name === 'power-cut') {
			restarts = 0;
			machine.mains(!on, on);
		}
		if (name !== 'supply-weak') return;
		tell.event(on ? 'charger-in' : 'charger-out', 'fault');
		if (on) check(machine.bench.power?.playingW ?? 0);
		else if (machine.powered) tell.state('power', 'on', 'enough');
		else if (!machine.powered) {
			restarts = 0;
			machine.mains(true);
		}
	});
}
