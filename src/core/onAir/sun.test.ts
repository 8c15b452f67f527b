import { describe, expect, it } from 'vitest';
import { sunSure } from './sun';

const RAD = Math.PI / 180;
/** Minutes in which the sun passes a quarter of a degree at its rising, on the solstice or the equinox, by spherical trigonometry. */
function quarterDegreeMin(latitudeDeg: number, declinationDeg: number): number {
	const cosHour = -Math.tan(latitudeDeg * RAD) * Math.tan(declinationDeg * RAD);
	const sinHour = Math.sqrt(1 - cosHour ** 2);
	return 0.25 / (0.25 * Math.cos(latitudeDeg * RAD) * Math.cos(declinationDeg * RAD) * sinHour);
}

describe('how sure sunrise is', () => {
	it.each([0, 30, 50, 60, 64])('at %i degrees follows from how flatly it rises', (latitudeDeg) => {
		const { worstMin, days } = sunSure({ latitudeDeg, longitudeDeg: 10 });
		expect(worstMin / quarterDegreeMin(latitudeDeg, 23.44)).toBeGreaterThan(0.85);
		expect(worstMin / quarterDegreeMin(latitudeDeg, 23.44)).toBeLessThan(1.45);
		expect(days).toBe(0);
	});
	it('grows near the polar circle, and within it for the days between', () => {
		expect(sunSure({ latitudeDeg: 66.2, longitudeDeg: 14 })).toMatchObject({ worstMin: expect.any(Number) });
		const [at66, at70] = [66.2, 70].map((latitudeDeg) => sunSure({ latitudeDeg, longitudeDeg: 14 }));
		expect(at66!.days).toBeGreaterThan(5);
		expect(at70!.days).toBeGreaterThan(5);
		expect(at70!.days).toBeLessThan(60);
	});
});
