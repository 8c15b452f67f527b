/** Bytes of a recording, rounded up to whole bytes. GB are 10⁹, GiB 2³⁰. */
export function computeSize(
	bitrateBps: number,
	durationS: number
): { bytes: number; gigabytes: number; gibibytes: number } {
	const bytes = Math.ceil((bitrateBps * durationS) / 8);
	return { bytes, gigabytes: bytes / 1e9, gibibytes: bytes / 2 ** 30 };
}

/** What a card has for media after reserve and system, and the hours of a stream that fit. Capacity in GB (10⁹), as printed on it. */
export function computeCardRoom(card: { capacityGb: number; reservedPercent: number; systemGb: number }): {
	usableBytes: number;
} {
	return {
		usableBytes: Math.floor((card.capacityGb * 1e9 * (100 - card.reservedPercent)) / 100 - card.systemGb * 1e9)
	};
}

/** Hours of a recording of `bitrateBps` bit/s in `usableBytes` bytes. */
export const computeHours = (usableBytes: number, bitrateBps: number): number => (usableBytes * 8) / bitrateBps / 3600;

/**
 * Store level at the end of each day (day 1 first). `keepDays` deletes what is older than its days;
 * `untilFull` deletes whole oldest days, those with bytes only, until the new day fits or nothing is left.
 */
export function computeRetention(plan: {
	policy: 'keepDays' | 'untilFull';
	keepDays?: number;
	usableBytes: number;
	newBytesByDay: readonly number[];
}): {
	usedBytesByDay: number[];
	firstOverflowDay: number | null;
	peakBytes: number;
	/** Days (from 1) whose bytes were deleted to make room, in that order. */
	daysDeletedInOrder: number[];
} {
	const days: number[] = [];
	const daysDeletedInOrder: number[] = [];
	const usedBytesByDay = plan.newBytesByDay.map((fresh, index) => {
		if (plan.policy === 'keepDays') {
			days.push(fresh);
			for (let old = 0; old <= index - (plan.keepDays ?? 1); old++) days[old] = 0;
		} else {
			for (let old = 0; old < days.length && sum(days) + fresh > plan.usableBytes; old++) {
				if (days[old]) daysDeletedInOrder.push(old + 1);
				days[old] = 0;
			}
			days.push(fresh);
		}
		return sum(days);
	});
	const overflow = usedBytesByDay.findIndex((used) => used > plan.usableBytes);
	return {
		usedBytesByDay,
		firstOverflowDay: overflow < 0 ? null : overflow + 1,
		peakBytes: Math.max(0, ...usedBytesByDay),
		daysDeletedInOrder
	};
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
