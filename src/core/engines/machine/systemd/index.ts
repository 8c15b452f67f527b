/**
 * As much of systemd as units on a card use: enabling, ordering, conditions, services, timers, paths, mounts, sockets.
 * What it does not know it says. Source: systemd.unit(5), systemd.service(5), systemd.timer(5), bootup(7).
 */
import type { Machine } from '../machine';
import { accessOf, type Access } from './access';
import { UnitFiles } from './unitFiles';
import { Units } from './units';

export { OTHERS_READ } from './access';

/** What the rest of the machine asks of its service manager. */
export interface Systemd extends Access {
	/** The kernel hands over: begin what is enabled. */
	boot(): void;
	start(unit: string): void;
	stop(unit: string): void;
	/** A target or unit that something else brings about. */
	reach(unit: string): void;
	isActive(unit: string): boolean;
	/** How often it was begun again by itself. */
	restartsOf(unit: string): number;
	/** Reads units anew when they are next asked for. */
	reload(): void;
}

/** A service manager that executes the units on the machine's disk. Source: systemd.unit(5), systemd.service(5), systemd 252. */
export function startSystemd(machine: Machine): Systemd {
	const files = new UnitFiles(machine);
	const units = new Units(machine, files);
	return {
		boot: () => units.boot(),
		start: units.start,
		stop: units.stop,
		reach: units.reach,
		isActive: (name) => units.isActive(name),
		restartsOf: (name) => units.restartsOf(name),
		reload: () => files.forget(),
		...accessOf(files, (unit, module) => units.knewDriver(unit, module))
	};
}
