<script lang="ts">
	import { dropAtPower } from '$core/links/power/lead';
	import { computePath } from '$core/links/power/powerPath';
	import LineChart from '$lib/charts/LineChart.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const board = $derived(view.context.part('board', view.plan.parts.board));
	const path = $derived(computePath(view.plan.power, view.context, view.claims));
	const LOADS = [
		['idle', 'waiting'],
		['typical', 'playing'],
		['peak', 'busiest']
	] as const;
	/** The drawing reaches down to what is left at the board. */
	const lowV = $derived(Math.min((board?.brownOutV ?? 4.6) - 0.3, (path?.at.peak?.boardV ?? 3) - 0.15));
	const highV = $derived((path?.supply.volts ?? 5) + 0.15);
	const y = (volts: number): number => 150 - (Math.max(lowV, Math.min(highV, volts)) - lowV) * (120 / (highV - lowV));
	const grid = $derived([0.25, 0.75].map((part) => Math.round((lowV + part * (highV - lowV)) * 10) / 10));
	const chart = $derived.by(() => {
		if (!path) return null;
		const toW = Math.max(path.ratedW, path.watts.peak) * 1.15;
		const points = Array.from({ length: 61 }, (_, n) => {
			const watts = (toW * n) / 60;
			return [watts, dropAtPower(path.supply.volts, path.loopOhm, watts)?.boardV ?? null] as const;
		}).flatMap(([watts, volts]) => (volts === null ? [] : [[watts, volts] as const]));
		return {
			points,
			spots: LOADS.flatMap(([key, name]) => {
				const drop = path.at[key];
				return drop ? [{ name, at: [path.watts[key], drop.boardV] as const }] : [];
			})
		};
	});
</script>

{#if path && board && chart}
	<div class="pair">
		<figure class="sheet">
			<figcaption><b>Volts along the way</b></figcaption>
			<svg
				viewBox="0 0 372 190"
				role="img"
				aria-label={`${path.supply.volts} volts at the supply, ${path.at.peak?.boardV.toFixed(2) ?? 'nothing'} at the board when all are busiest; it restarts below ${board.brownOutV}`}
			>
				{#each grid as volts (volts)}
					<path class="grid" d={`M52 ${y(volts)} H366`} />
					<text x="46" y={y(volts) + 4} class="axis">{volts.toFixed(1)} V</text>
				{/each}
				<path class="limit" d={`M52 ${y(board.brownOutV)} H366`} />
				<text x="60" y={y(board.brownOutV) + 16} class="limit-text">restarts below {board.brownOutV} V</text>
				{#if board.warnsV !== null}
					<path class="warns" d={`M52 ${y(board.warnsV)} H366`} />
					<text x="60" y={y(board.warnsV) - 5} class="warns-text">warns below {board.warnsV} V</text>
				{/if}
				{#each LOADS as [key] (key)}
					{@const volts = path.at[key]?.boardV ?? lowV}
					<path class="lead" class:peak={key === 'peak'} d={`M66 ${y(path.supply.volts)} H96 L252 ${y(volts)} H300`} />
				{/each}
				<circle cx="66" cy={y(path.supply.volts)} r="4" />
				<circle cx="300" cy={y(path.at.peak?.boardV ?? lowV)} r="4" />
				<text x="58" y={y(path.supply.volts) - 9} class="mono">{path.supply.volts.toFixed(2)} V</text>
				<text x="308" y={y(path.at.peak?.boardV ?? lowV) + 4} class="mono"
					>{path.at.peak ? `${path.at.peak.boardV.toFixed(2)} V` : 'collapses'}</text
				>
				<text x="58" y="180">supply</text>
				<text x="186" y="180" class="middle"
					>{path.lead ? `${path.lead.lengthM} m of ${path.lead.areaMm2} mm², both ways` : 'no cable'}</text
				>
				<text x="300" y="180">board</text>
			</svg>
			<p class="soft small">Thin lines: waiting and playing. Thick: all parts at their busiest.</p>
		</figure>
		<figure class="sheet">
			<figcaption><b>Volts at the board, by load</b></figcaption>
			<LineChart
				label={`Voltage at the board falls from ${path.supply.volts} volts with no load to ${path.at.peak?.boardV.toFixed(2) ?? 'nothing'} at ${path.watts.peak.toFixed(1)} watts`}
				curves={[{ name: 'at the board', colour: 'power', points: chart.points }]}
				limits={[
					{ name: 'restarts', along: 'y', at: board.brownOutV },
					...(board.warnsV === null ? [] : [{ name: 'warns', along: 'y' as const, at: board.warnsV }]),
					{ name: 'supply ends', along: 'x', at: path.ratedW }
				]}
				spots={chart.spots}
				x={{ name: 'Load', unit: 'W' }}
				y={{ name: 'Volts', unit: 'V', low: Math.floor(lowV * 10) / 10 }}
			/>
		</figure>
	</div>
	{#if path.usbPlaces.length}
		<section class="sheet">
			<h3>On USB <span class="soft small">current at the busiest, by where it comes from</span></h3>
			<ul>
				{#each path.usbPlaces as place, n (n)}
					<li>
						<span>{place.what}</span><span class="mono">{place.amperes.toFixed(2)} A</span><span class="soft small"
							>{place.at === 'board'
								? 'a socket of the board'
								: place.at === 'plain hub'
									? 'shares one socket through the hub'
									: 'the hub’s own supply'}</span
						>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
{/if}

<style>
	.pair {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 14px;
	}
	figure {
		min-width: 0;
	}
	svg {
		width: 100%;
		fill: none;
		margin-top: 8px;
	}
	text {
		fill: var(--ink);
		font-size: var(--size-small);
	}
	.middle {
		text-anchor: middle;
	}
	.axis {
		text-anchor: end;
		fill: var(--ink-soft);
	}
	.grid {
		stroke: var(--rule);
	}
	.warns {
		stroke: var(--amber);
		stroke-dasharray: 2 5;
	}
	.warns-text {
		fill: var(--amber-ink, var(--ink));
	}
	.limit {
		stroke: var(--brick);
		stroke-dasharray: 5 4;
	}
	.limit-text {
		fill: var(--brick);
		paint-order: stroke;
		stroke: var(--sheet);
		stroke-width: 4px;
	}
	.lead {
		stroke: var(--trace-power);
		stroke-width: 1.2;
	}
	.lead.peak {
		stroke-width: 3;
	}
	circle {
		fill: var(--sheet);
		stroke: var(--trace-power);
		stroke-width: 2;
	}
	ul {
		list-style: none;
		margin: 6px 0 0;
		padding: 0;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 70px minmax(0, 1fr);
		gap: 10px;
		border-top: 1px solid var(--rule);
		padding: 4px 0;
		font-size: var(--size-small);
	}
	@media (max-width: 980px) {
		.pair {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
