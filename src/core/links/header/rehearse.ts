import type { Machine } from '../../engines/machine';
import { computeOccupancy, pinOf, unreliable, type HeaderConflict } from './occupancy';

/** What two parts on one pin do to each other: their devices are missing when the kernel looks for them. */
export function rehearseHeader(machine: Machine): void {
	const { header } = machine.bench;
	if (!header) return;
	const { conflicts } = computeOccupancy(header.users, header.lifts);
	const absent = unreliable(conflicts.filter(({ kind }) => kind !== 'no-room'));
	for (const { id, cardId } of header.users) {
		if (!absent.has(id)) continue;
		machine.absentParts.add(id);
		if (cardId) machine.absentCards.add(cardId);
	}
	machine.on('userspace', () => {
		for (const conflict of conflicts)
			if (conflict.kind !== 'no-room') machine.log('header', words(conflict), '', 'bad');
	});
}

function words(conflict: Exclude<HeaderConflict, { kind: 'no-room' }>): string {
	switch (conflict.kind) {
		case 'line':
			return `Pin ${pinOf(conflict.lines[0]!)} is wanted twice: ${conflict.a.by.name} and ${conflict.b.by.name} are not to be relied on`;
		case 'address':
			return `Two parts answer at one address: ${conflict.users.map(({ name }) => name).join(', ')}`;
		case 'id-memory':
			return `Two identifying memories: neither ${conflict.users[0].name} nor ${conflict.users[1].name} is recognised`;
		case 'no-pwm':
			return `${conflict.user.name} does not turn: GPIO ${conflict.line} has no PWM`;
	}
}
