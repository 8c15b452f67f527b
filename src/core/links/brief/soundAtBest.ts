import type { Context } from '../../link/context';

/**
 * From power to the first sample when nothing goes wrong, s: firmware, kernel, then whatever the player waits for, its own start,
 * and opening what is first. The rehearsal goes through the same from the card’s own files; a test holds the two together.
 */
export function soundAtBestSec(context: Context): number | null {
	const { parts, programme, beginsWith, joinMs, cardId } = context.facts;
	const board = context.part('board', parts.board);
	if (!board || !programme || !beginsWith || cardId === undefined) return null;
	const converter = context.part('converter', parts.converter);
	const readyMs = Math.max((converter?.readySec ?? 0) * 1000, beginsWith.waits ? joinMs : 0);
	let askedMs = readyMs + programme.playerStartMs;
	// A stream asked for before the network is there fails, and the player is started again.
	while (beginsWith.stream && askedMs < joinMs) askedMs += programme.retryMs;
	return board.firmwareSec + board.kernelSec + (askedMs + beginsWith.openMs) / 1000;
}
