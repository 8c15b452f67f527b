<script lang="ts">
	import { computeHeat } from '$core/links/heat/model';
	import LineChart from '$lib/charts/LineChart.svelte';
	import type { Curve } from '$lib/charts/chartOption';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const heat = $derived(computeHeat(view.plan.heat, view.context, view.claims));
	const curves = $derived.by((): Curve[] => {
		if (!heat) return [];
		const { moments } = heat.run;
		return [
			{ name: 'chip', colour: 'signal', points: moments.map(({ sec, chipC }) => [sec / 60, chipC] as const) },
			{
				name: 'air around it',
				colour: 'data',
				dashed: true,
				points: [moments[0]!, moments.at(-1)!].map(({ sec }) => [sec / 60, heat.model.airC] as const)
			}
		];
	});
	const spots = $derived([
		...view.plan.heat.readings.map(({ afterMin, chipC }) => ({ name: 'read', at: [afterMin, chipC] as const })),
		...(heat && heat.run.throttlesAfterSec !== null
			? [{ name: 'slows itself', at: [heat.run.throttlesAfterSec / 60, heat.model.throttleC] as const }]
			: [])
	]);
	const fanTurns = $derived(heat?.run.moments.find(({ fan }) => fan > 0));
</script>

{#if heat}
	<figure class="sheet">
		<figcaption>
			<b>The chip, from a cold start</b>
			<span class="soft small"
				>{heat.watts.toFixed(1)} W inside{heat.fan
					? fanTurns
						? `; the fan turns ${fanTurns.sec === 0 ? 'from the start' : `after ${(fanTurns.sec / 60).toFixed(0)} min`}`
						: '; the fan is never needed'
					: '; no fan'}</span
			>
		</figcaption>
		<LineChart
			label={`The chip settles at ${heat.run.steadyC.toFixed(0)} degrees; it slows itself at ${heat.model.throttleC}`}
			{curves}
			{spots}
			limits={[{ name: `limit ${heat.model.throttleC} °C`, along: 'y', at: heat.model.throttleC }]}
			x={{ name: 'After', unit: 'min' }}
			y={{ name: 'Chip', unit: '°C', low: Math.floor(heat.model.airC / 10) * 10 }}
			height={250}
		/>
	</figure>
{/if}

<style>
	figcaption {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 2px 12px;
	}
</style>
