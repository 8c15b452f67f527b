/** kWh a year from watts while on and watts while off but plugged in, and what they cost. */
export function computeEnergy(use: { onW: number; standbyW: number; onHoursPerDay: number; pricePerKwh: number }): {
	kwhPerYear: number;
	costPerYear: number;
} {
	const kwhPerYear = ((use.onW * use.onHoursPerDay + use.standbyW * (24 - use.onHoursPerDay)) * 365) / 1000;
	return { kwhPerYear, costPerYear: kwhPerYear * use.pricePerKwh };
}

/** How long a store of charge carries a load. Null when it cannot give so many watts at all. */
export const computeHoldUpSec = (
	store: { wattHours: number; efficiency: number; maxW: number },
	loadW: number
): number | null => (loadW > store.maxW ? null : (store.wattHours * store.efficiency * 3600) / loadW);
