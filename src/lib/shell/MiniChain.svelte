<script lang="ts">
	import type { LinkState } from '$core/engines/assess';
	import Mark from './Mark.svelte';

	/** The endpoint's own chain, small: each link a bead in the shape of its state, on one trace from mains to ear. */
	let { links }: { links: readonly LinkState[] } = $props();
	const x = (n: number): number => 24 + n * 49;
	const words = (link: LinkState): string => `${link.title}: ${link.worst ?? 'all well'}`;
</script>

<svg viewBox="0 0 524 48" role="img" aria-label={links.map(words).join(', ')}>
	<path class="trace" d={`M4 14 H${x(links.length - 1) + 18}`} />
	<path class="ear" d="M500 8 h5 l7 -6 v24 l-7 -6 h-5 z" />
	{#each links as link, n (link.id)}
		<circle cx={x(n)} cy="14" r="10" />
		<Mark level={link.worst} size={18} x={x(n) - 9} y={5} />
		<text x={x(n)} y="42">{link.title}</text>
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
	circle {
		fill: var(--sheet);
	}
	text {
		fill: var(--ink-soft);
		font-size: 10.4px;
		text-anchor: middle;
	}
</style>
