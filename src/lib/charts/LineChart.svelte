<script lang="ts">
	import type { EChartsType } from 'echarts/core';
	import { onMount } from 'svelte';
	import { chartOption, type Curve, type Limit, type Spot } from './chartOption';

	interface Props {
		/** What it shows, in words, for those who do not see it. */
		label: string;
		curves: readonly Curve[];
		/** Lines that must not be crossed. */
		limits?: readonly Limit[];
		spots?: readonly Spot[];
		x: { name: string; unit: string; high?: number };
		y: { name: string; unit: string; low?: number; log?: boolean };
		height?: number;
	}
	let { label, curves, limits = [], spots = [], x, y, height = 220 }: Props = $props();
	let box: HTMLDivElement;
	let chart = $state.raw<EChartsType | null>(null);
	/** Counts changes of the theme, so that colours are read again. */
	let themes = $state(0);

	onMount(() => {
		let gone = false;
		void import('./echarts').then(({ init }) => {
			if (!gone) chart = init(box);
		});
		const resized = new ResizeObserver(() => chart?.resize());
		resized.observe(box);
		const themed = new MutationObserver(() => themes++);
		themed.observe(document.documentElement, { attributeFilter: ['data-theme'] });
		return () => {
			gone = true;
			resized.disconnect();
			themed.disconnect();
			chart?.dispose();
		};
	});

	$effect(() => {
		void themes;
		const style = getComputedStyle(document.documentElement);
		const token = (name: string): string => style.getPropertyValue(`--${name}`).trim();
		chart?.setOption(chartOption({ curves, limits, spots, x, y }, token), { notMerge: true });
	});
</script>

<div bind:this={box} role="img" aria-label={label} style:height={`${height}px`}></div>

<style>
	div {
		width: 100%;
	}
</style>
