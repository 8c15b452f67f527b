import { nextElapses, readCalendar } from '../../../formats/systemd/calendar';
import { readExec } from '../../../formats/systemd/unit';
import type { Machine } from '../machine';
import { mayRun } from '../processes';
import type { Manager } from './service';
import type { UnitFiles } from './unitFiles';

/** Where systemd keeps when a persistent timer went off last. Source: systemd.timer(5), Persistent=. */
const stampPath = (timer: string): string => `/var/lib/systemd/timers/stamp-${timer}`;

/** Whether a service is one script alone, known by heart, that would look and do nothing. */
function wouldIdle(machine: Machine, files: UnitFiles, unit: string): boolean {
	const commands = ['ExecCondition', 'ExecStartPre', 'ExecStart', 'ExecStartPost'].flatMap((key) =>
		files.values(unit, key)
	);
	const path = (commands.length === 1 && readExec(commands[0]!)?.words[0]) || '';
	const known = machine.byHeart.get(path);
	if (!known?.idles?.()) return false;
	const found = mayRun(machine, path);
	return typeof found !== 'string' && found.file.text === known.text;
}

/** Arms a timer: by the calendar, by the time since the start, or by the time since its unit was last started. */
export function startTimer({ machine, files, start }: Manager, name: string): void {
	const target = files.value(name, 'Unit') ?? name.replace(/\.timer$/, '.service');
	const isPersistent = files.isOn(name, 'Persistent');
	const rules = files.values(name, 'OnCalendar').flatMap((text) => {
		const rule = readCalendar(text);
		if (!rule.ok) machine.say('timer-unreadable', 'bad', { unit: name, why: rule.faults[0]!.message });
		return rule.ok ? [rule.value] : [];
	});
	const next = (afterUtcMs: number): number =>
		Math.min(...rules.flatMap((rule) => nextElapses(rule, machine.timeZone, afterUtcMs, 1)));
	const stamp = (): void => {
		if (isPersistent) machine.disk.put(stampPath(name), { text: String(machine.believedUtcMs), bytes: null });
	};
	let wasStarted = false;
	const fire = (): void => {
		stamp();
		if (!wasStarted || !wouldIdle(machine, files, target)) start(target);
		wasStarted = true;
		const again = files.spanMs(name, 'OnUnitActiveSec');
		if (again !== null) machine.after(again, fire);
	};
	const arm = (): void => {
		const armed = machine.timeJumps;
		const at = next(machine.believedUtcMs);
		if (!Number.isFinite(at)) return;
		machine.after(at - machine.believedUtcMs, () => {
			// The clock was set meanwhile: armed anew by whoever set it.
			if (armed !== machine.timeJumps) return;
			fire();
			arm();
		});
	};
	const last = Number(machine.disk.read(stampPath(name)) ?? NaN);
	if (isPersistent && rules.length && last < machine.believedUtcMs && next(last) <= machine.believedUtcMs) {
		machine.say('timer-missed', 'info', { unit: name });
		fire();
	} else if (isPersistent && Number.isNaN(last)) stamp();
	const onBoot = files.spanMs(name, 'OnBootSec');
	if (onBoot !== null) machine.after(Math.max(0, onBoot - (machine.clock.nowMs - machine.userspaceAtMs)), fire);
	arm();
	machine.onTimeSet(() => {
		if (files.isOn(name, 'OnClockChange')) fire();
		arm();
	});
}
