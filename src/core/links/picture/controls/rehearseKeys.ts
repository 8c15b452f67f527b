import type { Machine } from '../../../engines/machine';

const KEYS_FAIL_MS = 20;

/** Whoever hears the keys stays and waits for one; without its file it ends at once. Source: thd(1), tried with 0.5.0. */
export function rehearseKeys(machine: Machine): void {
	machine.programs.set('/usr/sbin/thd', (process) => {
		const path = process.argv[process.argv.indexOf('--triggers') + 1] ?? '';
		const file = machine.disk.get(path);
		if (file && machine.systemd.mayRead(process.unit, file.mode)) {
			machine.assumed.add('something with keys is plugged in, and nobody presses one');
			return;
		}
		process.err(`Error loading triggerfile '${path}'\n`);
		process.after(KEYS_FAIL_MS, () => process.exit(1));
	});
}
