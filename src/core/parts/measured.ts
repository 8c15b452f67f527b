import type { ProbeFacts } from './probeFacts';
import type { PartOf } from './schema';

/** The kernel keeps some memory to itself and boards lend some to graphics. */
const MEMORY_TOLERANCE = 0.25;

/** Whether a board of this class may report so much memory. */
export const mayHaveMemory = (board: PartOf<'board'>, foundMb: number): boolean =>
	foundMb <= board.memoryMb && foundMb >= board.memoryMb * (1 - MEMORY_TOLERANCE);

const SOURCE = { sure: 'measured', source: 'Your probe report.' } as const;

/** A board with what it said of itself in place of what is typical of its class. A report of another board changes nothing. */
export function measuredBoard(board: PartOf<'board'>, probe: ProbeFacts | null): PartOf<'board'> {
	if (!probe) return board;
	const { memoryMb } = probe;
	if (memoryMb !== null && !mayHaveMemory(board, memoryMb)) return board;
	const wiredMbps = Math.max(0, ...probe.linkMbps.flatMap(({ name, mbps }) => (name.startsWith('e') ? [mbps] : [])));
	return {
		...board,
		...(memoryMb === null ? {} : { memoryMb }),
		...(wiredMbps === 0 ? {} : { wiredMbps }),
		figures: {
			...board.figures,
			...(memoryMb === null ? {} : { memoryMb: SOURCE }),
			...(wiredMbps === 0 ? {} : { wiredMbps: SOURCE })
		}
	};
}
