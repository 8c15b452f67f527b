import { tellerFor, type Machine, type Teller } from '../../engines/machine';
import { computeOccupancy, unreliable, type HeaderConflict } from './occupancy';
import { HEADER_WORDS } from './words';

/** What two parts on one pin do to each other: their devices are missing when the kernel looks for them. */
export default function rehearseHeader(machine: Machine): void {
	const { header } = machine.bench;
	if (!header) return;
	const tell = tellerFor(machine, 'header', HEADER_WORDS);
	const { conflicts } = computeOccupancy(header.users, header.lifts);
	const absent = unreliable(conflicts.filter(({ kind }) => kind !== 'no-room'));
	for (const { id, cardId } of header.users) {
		if (!absent.has(id)) continue;
		machine.absent.add(id);
		if (cardId) machine.absent.add(cardId);
	}
	machine.on('userspace', () => {
		for (const conflict of conflicts) if (conflict.kind !== 'no-room') tellOf(tell, conflict);
	});
}

function tellOf(tell: Teller<typeof HEADER_WORDS>, conflict: Exclude<HeaderConflict, { kind: 'no-room' }>): void {
	switch (conflict.kind) {
		case 'line':
			return tell.event('line', 'bad', { gpio: conflict.lines[0]!, a: conflict.a.by.name, b: conflict.b.by.name });
		case 'address':
		case 'id-memory':
			return tell.event(conflict.kind, 'bad', { names: conflict.users.map(({ name }) => name) });
		case 'no-pwm':
			return tell.event('no-pwm', 'bad', { name: conflict.user.name, gpio: conflict.line });
	}
}
