<script lang="ts">
	import type { End } from './chainLayout';

	/** What stands at an end of the chain: an eye, a speaker for the ear, a store. */
	let { sense, idle = false }: { sense: End['sense']; idle?: boolean } = $props();
</script>

<g class:idle>
	{#if sense === 'ear'}
		<path d="M0 -10 h11 l14 -13 v46 l-14 -13 h-11 z" />
		<path class="waves" d="M32 -10 q8 10 0 20 M39 -17 q14 17 0 34" />
	{:else if sense === 'eye'}
		<path d="M0 0 q20 -24 40 0 q-20 24 -40 0 z" />
		<circle cx="20" cy="0" r="7" />
	{:else}
		<path d="M2 -15 h34 v30 h-34 z M2 -7 h34 M8 -11 h6" />
	{/if}
</g>

<style>
	g {
		fill: var(--sheet);
		stroke: var(--trace);
		stroke-width: 2;
		stroke-linejoin: round;
	}
	.waves {
		fill: none;
	}
	.idle {
		stroke: var(--trace-idle);
	}
</style>
