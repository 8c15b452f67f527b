import type { EChartsCoreOption } from 'echarts/core';

export interface Curve {
	readonly name: string;
	readonly colour: 'power' | 'signal' | 'data';
	readonly points: readonly (readonly [x: number, y: number])[];
	readonly dashed?: true;
	/** Each value holds until the next: hours of a day. */
	readonly stepped?: true;
}
export interface Limit {
	readonly name: string;
	readonly along: 'x' | 'y';
	readonly at: number;
}
export interface Spot {
	readonly name: string;
	readonly at: readonly [x: number, y: number];
}
export interface Chart {
	readonly curves: readonly Curve[];
	readonly limits: readonly Limit[];
	readonly spots: readonly Spot[];
	readonly x: { readonly name: string; readonly unit: string; readonly high?: number };
	/** `log`: each line of the grid ten times the one below; nothing is drawn where a value is 0. */
	readonly y: { readonly name: string; readonly unit: string; readonly low?: number; readonly log?: boolean };
}

const COLOURS = { power: 'trace-power', signal: 'trace', data: 'trace-data' } as const;

/** One option for the chart library, in our colours. `token` gives the value of a colour's name. */
export function chartOption(
	{ curves, limits, spots, x, y }: Chart,
	token: (name: string) => string
): EChartsCoreOption {
	const text = { color: token('ink-soft'), fontFamily: token('text'), fontSize: 12 };
	const rule = { lineStyle: { color: token('rule-strong') } };
	return {
		animation: false,
		grid: { left: 8, right: curves.length > 1 ? 64 : 22, top: 26, bottom: 26, containLabel: true },
		textStyle: text,
		tooltip: {
			trigger: 'axis',
			// Drawn on the canvas: nothing inline is allowed on the page.
			renderMode: 'richText',
			backgroundColor: token('sheet'),
			borderColor: token('rule-strong'),
			textStyle: { ...text, color: token('ink') },
			valueFormatter: (value: unknown) => `${Number(value).toFixed(2)} ${y.unit}`
		},
		xAxis: { ...axis(x, text, rule, token, 'middle'), ...(x.high === undefined ? {} : { max: x.high, interval: 3 }) },
		yAxis: {
			...axis(y, text, rule, token, 'end'),
			...(y.log ? { type: 'log', min: decadeBelow } : { min: y.low ?? 'dataMin', scale: true })
		},
		series: curves.map((curve, n) => ({
			name: curve.name,
			type: 'line',
			showSymbol: false,
			data: y.log ? curve.points.map(([at, value]) => [at, value > 0 ? value : null]) : curve.points,
			...(curve.stepped ? { step: 'end' } : {}),
			// Several curves say at their end which they are.
			endLabel: {
				...text,
				show: curves.length > 1,
				formatter: '{a}',
				color: token(COLOURS[curve.colour]),
				offset: [0, limits.length ? 10 : 0]
			},
			lineStyle: { color: token(COLOURS[curve.colour]), width: 2.5, ...(curve.dashed ? { type: 'dashed' } : {}) },
			itemStyle: { color: token(COLOURS[curve.colour]) },
			...(n === 0
				? {
						markLine: {
							symbol: 'none',
							silent: true,
							lineStyle: { color: token('brick'), type: 'dashed' },
							label: { ...text, color: token('brick'), position: 'insideEndTop', formatter: '{b}' },
							data: limits.map(({ name, along, at }) => ({ name, [along === 'x' ? 'xAxis' : 'yAxis']: at }))
						},
						markPoint: {
							symbol: 'circle',
							symbolSize: 9,
							silent: true,
							itemStyle: { color: token('sheet'), borderColor: token(COLOURS[curve.colour]), borderWidth: 2 },
							label: { ...text, color: token('ink'), formatter: '{b}' },
							// In turn below and above, so that neighbours do not cover each other.
							data: spots.map(({ name, at }, n) => ({
								name,
								coord: at,
								label: { position: n % 2 ? 'top' : 'bottom' }
							}))
						}
					}
				: {})
		}))
	};
}

/** Room below the lowest value, down to a whole power of ten. */
const decadeBelow = ({ min }: { min: number }): number => 10 ** Math.floor(Math.log10(min / 2));

const axis = (
	{ name, unit }: { name: string; unit: string },
	text: object,
	rule: object,
	token: (name: string) => string,
	nameLocation: 'middle' | 'end'
) => ({
	type: 'value',
	name: `${name}, ${unit}`,
	nameLocation,
	nameGap: nameLocation === 'middle' ? 24 : 10,
	nameTextStyle: { ...text, align: nameLocation === 'middle' ? 'center' : 'left' },
	axisLabel: { ...text, hideOverlap: true },
	axisLine: rule,
	splitLine: { lineStyle: { color: token('rule') } }
});
