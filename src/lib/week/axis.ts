import type { ProgrammeList } from '$core/onAir/when';

const DAY_MS = 86_400_000;

/** The number of the Monday of the week that holds a wall clock. */
export const mondayOf = (wallMs: number): number => {
	const day = Math.floor(wallMs / DAY_MS);
	return day - ((day + 3) % 7);
};

/** How what is shown is drawn: everything, a playlist (each second one in the other colour), or nothing. Its name stands beside it. */
export function shadeOf(show: string, lists: readonly ProgrammeList[]): 'all' | 'list' | 'other' | 'none' {
	if (show === 'all') return 'all';
	const n = lists.findIndex(({ id }) => id === show);
	return n < 0 ? 'none' : n % 2 === 0 ? 'list' : 'other';
}
