/**
 * kWh a year, and what they cost: from watts while it plays, while it is on and quiet, and while it is off but plugged in.
 * The quiet hours are part of those for which it is on.
 */
export function computeEnergy(use: {
	onW: number;
	quietW?: number;
	standbyW: number;
	onHoursPerDay: number;
	quietHoursPerDay?: number;
	pricePerKwh: number;
}): {
	kwhPerYear: number;
	costPerYear: number;
} {
	const { onW, quietW = onW, standbyW, onHoursPerDay, quietHoursPerDay = 0 } = use;
	const whPerDay =
		onW * (onHoursPerDay - quietHoursPerDay) + quietW * quietHoursPerDay + standbyW * (24 - onHoursPerDay);
	const kwhPerYear = (whPerDay * 365) / 1000;
	return { kwhPerYear, costPerYear: kwhPerYear * use.pricePerKwh };
}

/** How long a store of charge carries a load. Null when it cannot give so many watts at all. */
export const computeHoldUpSec = (
	store: { wattHours: number; efficiency: number; maxW: number },
	loadW: number
): number | null => (loadW > store.maxW ? null : (store.wattHours * store.efficiency * 3600) / loadW);
