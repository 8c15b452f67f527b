<script lang="ts">
	import type { LinkState } from '$core/engines/assess';

	/** The endpoint's own chain, small: each link a bead in the shape of its state, on one trace from mains to ear. */
	let { links }: { links: readonly LinkState[] } = $props();
	const x = (n: number): number => 22 + n * 48;
	const words = (link: LinkState): string => `${link.title}: ${link.worst ?? 'all well'}`;
</script>

<svg viewBox="0 0 400 46" role="img" aria-label={links.map(words).join(', ')}>
	<path class="trace" d={`M4 14 H${x(links.length - 1) + 18}`} />
	<path class="ear" d="M378 8 h5 l7 -6 v24 l-7 -6 h-5 z" />
	{#each links as link, n (link.id)}
		<g class={link.worst ?? 'well'}>
			{#if link.worst === 'stop'}
				<rect x={x(n) - 7} y="7" width="14" height="14" class="fill" />
				<path class="bar" d={`M${x(n) - 4} 14 H${x(n) + 4}`} />
			{:else if link.worst === 'caution'}
				<path d={`M${x(n)} 6 L${x(n) + 8} 20 H${x(n) - 8} Z`} />
			{:else if link.worst === 'note'}
				<path d={`M${x(n)} 6 L${x(n) + 8} 14 L${x(n)} 22 L${x(n) - 8} 14 Z`} />
			{:else}
				<circle cx={x(n)} cy="14" r="7" />
				<path d={`M${x(n) - 3} 14.2 L${x(n) - 0.6} 16.6 L${x(n) + 3.4} 11.8`} />
			{/if}
		</g>
		<text x={x(n)} y="40">{link.title}</text>
	{/each}
</svg>

<style>
	svg {
		width: 100%;
		fill: none;
		stroke-width: 1.6;
		stroke-linejoin: round;
	}
	.trace {
		stroke: var(--trace-idle);
		stroke-width: 2;
	}
	.ear {
		stroke: var(--trace);
	}
	g {
		fill: var(--sheet);
	}
	.well {
		stroke: var(--bottle);
	}
	.caution {
		stroke: var(--amber);
	}
	.note {
		stroke: var(--slate);
	}
	.stop {
		stroke: var(--brick);
	}
	.stop .fill {
		fill: var(--brick);
	}
	.stop .bar {
		stroke: var(--sheet);
		stroke-width: 2;
	}
	text {
		fill: var(--ink-soft);
		font-size: 8.6px;
		text-anchor: middle;
	}
</style>
