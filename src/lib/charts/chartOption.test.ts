import { describe, expect, it } from 'vitest';
import { chartOption, type Chart, type Curve } from './chartOption';

const curve = (name: string, more: Partial<Curve> = {}): Curve => ({
	name,
	colour: 'data',
	points: [
		[0, 0],
		[1, 10]
	],
	...more
});
const chart = (change: Partial<Chart>): Chart => ({
	curves: [curve('given')],
	limits: [],
	spots: [],
	x: { name: 'Hour', unit: 'h' },
	y: { name: 'Rate', unit: 'Mbit/s' },
	...change
});
interface Drawn {
	series: {
		name: string;
		data: [number, number | null][];
		step?: string;
		endLabel: { show: boolean };
		markLine?: { data: object[] };
		markPoint?: { data: { name: string; label: { position: string } }[] };
	}[];
	xAxis: { name: string; max?: number };
	yAxis: { type: string; name: string; min: unknown };
}
const drawn = (change: Partial<Chart>): Drawn => chartOption(chart(change), (name) => name) as unknown as Drawn;

describe('a chart', () => {
	it('names its axes with their units, and its curves where there are several', () => {
		const one = drawn({});
		expect([one.xAxis.name, one.yAxis.name]).toEqual(['Hour, h', 'Rate, Mbit/s']);
		expect(one.series[0]!.endLabel.show).toBe(false);
		const two = drawn({ curves: [curve('given'), curve('needed')] });
		expect(two.series.map(({ name, endLabel }) => [name, endLabel.show])).toEqual([
			['given', true],
			['needed', true]
		]);
	});
	it('draws limits and spots once, however many curves there are', () => {
		const { series } = drawn({
			curves: [curve('a'), curve('b')],
			limits: [
				{ name: 'ends', along: 'x', at: 3 },
				{ name: 'too hot', along: 'y', at: 80 }
			],
			spots: ['now', 'then', 'later'].map((name, n) => ({ name, at: [n, n] as const }))
		});
		expect(series[0]!.markLine!.data).toEqual([
			{ name: 'ends', xAxis: 3 },
			{ name: 'too hot', yAxis: 80 }
		]);
		expect(series[0]!.markPoint!.data.map(({ label }) => label.position)).toEqual(['bottom', 'top', 'bottom']);
		expect(series[1]!.markLine).toBeUndefined();
	});
	it('leaves nothing out of a plain axis, and draws no zero on one of powers of ten', () => {
		expect(drawn({}).series[0]!.data).toEqual([
			[0, 0],
			[1, 10]
		]);
		const { series, yAxis } = drawn({ y: { name: 'Rate', unit: 'Mbit/s', log: true } });
		expect(series[0]!.data).toEqual([
			[0, null],
			[1, 10]
		]);
		expect(yAxis.type).toBe('log');
		const low = yAxis.min as (extent: { min: number }) => number;
		for (const min of [0.13, 1, 7, 940]) {
			expect(low({ min })).toBeLessThan(min);
			expect(low({ min })).toBeGreaterThanOrEqual(min / 20);
			expect(Math.log10(low({ min })) % 1).toBeCloseTo(0, 9);
		}
	});
	it('holds each hour until the next when it is told to', () => {
		expect(drawn({ curves: [curve('a', { stepped: true })] }).series[0]!.step).toBe('end');
		expect(drawn({}).series[0]!.step).toBeUndefined();
		expect(drawn({ x: { name: 'Hour', unit: 'h', high: 24 } }).xAxis.max).toBe(24);
	});
});
