import type { Context, Finding } from '../../link';
import type { PartOf } from '../../parts/schema';
import type { Plan } from '../../plan/plan';
import { places } from './places';

/** The kernel keeps some memory to itself and boards lend some to graphics. */
const MEMORY_TOLERANCE = 0.25;

export function assessParts(plan: Plan, context: Context): Finding[] {
	const findings: Finding[] = [];
	for (const { key, kind, label, needed } of places) {
		const id = plan.parts[key];
		if (context.part(kind, id) || (!needed && id === null)) continue;
		const offered = context.drawer.filter((part) => part.kind === kind).slice(0, 3);
		findings.push({
			id: `parts.no-${key}`,
			level: 'stop',
			title: id === null ? `No ${label.toLowerCase()} chosen` : `The ${label.toLowerCase()} is no longer in the drawer`,
			why: offered.length
				? 'Without it nothing can be worked out. Choose one; you can change it later.'
				: `The parts drawer holds no ${label.toLowerCase()}. Open the demo workshop or import one that has parts.`,
			setting: `parts.${key}`,
			fixes: offered.map((part) => ({
				label: `Use ${part.name}`,
				apply: (p) => ({ ...p, parts: { ...p.parts, [key]: part.id } })
			}))
		});
	}
	const board = context.part('board', plan.parts.board);
	const foundMb = context.probe?.memoryMb;
	if (board && foundMb && !mayBe(board, foundMb)) {
		const others = context.drawer.flatMap((part) => (part.kind === 'board' && mayBe(part, foundMb) ? [part] : []));
		findings.push({
			id: 'parts.other-board',
			level: 'caution',
			title: 'The probed board is not the one in the plan',
			why: `The report says ${foundMb}\u2009MB of memory; ${board.name} has ${board.memoryMb}\u2009MB. Power and starting times are worked out for the plan's board.`,
			setting: 'parts.board',
			fixes: others.slice(0, 3).map((other) => ({
				label: `Use ${other.name}`,
				apply: (p) => ({ ...p, parts: { ...p.parts, board: other.id } })
			}))
		});
	}
	return findings;
}

/** Whether a board of this class may report so much memory. */
const mayBe = (board: PartOf<'board'>, foundMb: number): boolean =>
	foundMb <= board.memoryMb && foundMb >= board.memoryMb * (1 - MEMORY_TOLERANCE);
