<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const supply = $derived(view.context.part('supply', view.plan.parts.supply));
	const board = $derived(view.context.part('board', view.plan.parts.board));
	const atBoard = $derived(
		view.assessment.links.find((link) => link.id === 'power')?.figures.find((figure) => figure.id === 'volts')?.value ??
			null
	);
	/** The drawing reaches down to what is left at the board. */
	const LOW_V = $derived(Math.min(4.2, (atBoard ?? 3) - 0.15));
	const HIGH_V = 5.4;
	const y = (volts: number): number =>
		150 - (Math.max(LOW_V, Math.min(HIGH_V, volts)) - LOW_V) * (120 / (HIGH_V - LOW_V));
</script>

{#if supply && board}
	<figure class="sheet">
		<figcaption><b>Volts along the lead, when all are busiest</b></figcaption>
		<svg
			viewBox="0 0 640 180"
			role="img"
			aria-label={`${supply.volts} volts at the supply, ${atBoard?.toFixed(2) ?? 'nothing'} at the board, which browns out at ${board.brownOutV}`}
		>
			<path class="grid" d={`M70 ${y(5)} H610 M70 ${y(4.5)} H610`} />
			<text x="62" y={y(5) + 4} class="axis">5.0 V</text>
			<text x="62" y={y(4.5) + 4} class="axis">4.5 V</text>
			<path class="limit" d={`M70 ${y(board.brownOutV)} H610`} />
			<text x="606" y={y(board.brownOutV) - 6} class="limit-text">the board browns out at {board.brownOutV} V</text>
			<path class="lead" d={`M100 ${y(supply.volts)} H150 L470 ${y(atBoard ?? LOW_V)} H590`} />
			<circle cx="100" cy={y(supply.volts)} r="4" />
			<circle cx="530" cy={y(atBoard ?? LOW_V)} r="4" />
			<text x="100" y={y(supply.volts) - 10} class="mono">{supply.volts.toFixed(2)} V</text>
			<text x="500" y={y(atBoard ?? LOW_V) - 10} class="mono"
				>{atBoard === null ? 'collapses' : `${atBoard.toFixed(2)} V`}</text
			>
			<text x="100" y="172">supply</text>
			<text x="280" y="172">{view.plan.power.leadLengthM} m of {view.plan.power.leadAreaMm2} mm², there and back</text>
			<text x="530" y="172">board</text>
		</svg>
	</figure>
{/if}

<style>
	figure {
		margin: 0;
	}
	svg {
		width: 100%;
		max-height: 230px;
		fill: none;
	}
	text {
		fill: var(--ink);
		font-size: 12.5px;
	}
	.axis {
		text-anchor: end;
		fill: var(--ink-soft);
	}
	.grid {
		stroke: var(--rule);
	}
	.limit {
		stroke: var(--brick);
		stroke-dasharray: 5 4;
	}
	.limit-text {
		fill: var(--brick);
		text-anchor: end;
		paint-order: stroke;
		stroke: var(--sheet);
		stroke-width: 4px;
	}
	.lead {
		stroke: var(--trace-power);
		stroke-width: 3;
	}
	circle {
		fill: var(--sheet);
		stroke: var(--trace-power);
		stroke-width: 2;
	}
</style>
