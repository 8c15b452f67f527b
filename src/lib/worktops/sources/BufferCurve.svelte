<script lang="ts">
	import { expectedDropouts, LONGEST_PLAY_H, pausesOf } from '$core/links/sources/streams/buffer';
	import { isFetched } from '$core/links/sources/streams/receive';
	import LineChart from '$lib/charts/LineChart.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const sources = $derived(view.plan.sources);
	const pauses = $derived(sources.items.some(isFetched) ? pausesOf(sources, view.context) : null);
	/** Points of the curve, s. */
	const AT = Array.from({ length: 25 }, (_, n) => n / 2);
	/** Rarer ones nobody waits for. */
	const RAREST = 0.003;
	const drawn = $derived(
		pauses && AT.map((sec) => [sec, expectedDropouts(pauses, sec)] as const).filter(([, count]) => count >= RAREST)
	);
	const now = $derived(sources.bufferSec);
</script>

{#if pauses && drawn && drawn.length > 1}
	<figure class="sheet" aria-label="What a buffer is good for">
		<h3>
			What a buffer is good for <span class="soft small"
				>in a stream that goes on for {LONGEST_PLAY_H} h; {pauses.perHour} pauses an hour of {pauses.meanSec} s on average</span
			>
		</h3>
		<LineChart
			label={`Dropouts a day against what is gathered before; now ${now} seconds, ${expectedDropouts(pauses, now).toFixed(2)} a day`}
			curves={[{ name: 'dropouts', colour: 'signal', points: drawn }]}
			spots={[]}
			limits={now > 0 ? [{ name: `now ${now} s`, along: 'x', at: now }] : []}
			x={{ name: 'Gathered before', unit: 's', high: Math.ceil(drawn.at(-1)![0]) + 1 }}
			y={{ name: 'Dropouts', unit: 'a day', log: true }}
			height={210}
		/>
	</figure>
{/if}

<style>
	figure {
		margin: 0;
	}
</style>
