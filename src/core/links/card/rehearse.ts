import type { Machine } from '../../engines/machine';

/** Firmware, kernel and the hand-over to services, at the pace of the bench's board. */
export function rehearseCard(machine: Machine): void {
	machine.on('powered', () => {
		const { firmwareMs, kernelMs } = machine.bench.board;
		machine.after(firmwareMs, () => machine.log('card', 'Firmware done, kernel starts'));
		machine.after(firmwareMs + kernelMs, () => {
			machine.log('card', 'Card mounted, services begin');
			machine.emit('userspace');
			machine.systemd.boot();
		});
	});
}
