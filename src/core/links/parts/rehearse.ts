import type { Machine } from '../../engines/machine';

/** The board keeps the time without power, or does not. */
export default function rehearseParts(machine: Machine): void {
	machine.keepsTime = machine.bench.board.hasClock;
}
