<script lang="ts">
	import type { Level } from '$core/link/finding';

	/** Well: tick in a ring. Caution: open triangle. Stop: filled square with a bar. Note: open diamond. Words always stand beside. */
	interface Props {
		level: Level | null;
		/** Not all is judged yet. */
		pending?: boolean;
		size?: number;
		/** Within another drawing: where its corner stands. */
		x?: number;
		y?: number;
	}
	let { level, pending = false, size = 16, x, y }: Props = $props();
	const words = { stop: 'stop', caution: 'caution', note: 'note' } as const;
</script>

<svg
	{x}
	{y}
	viewBox="0 0 16 16"
	width={size}
	height={size}
	class={level ?? 'well'}
	role="img"
	aria-label={level ? words[level] : pending ? 'being looked at' : 'all well'}
>
	{#if level === 'stop'}
		<rect x="2" y="2" width="12" height="12" class="fill" />
		<rect x="5" y="7" width="6" height="2" class="bar" />
	{:else if level === 'caution'}
		<path d="M8 2 L14.5 13.5 H1.5 Z" />
		<path d="M8 6.2 V9.6 M8 11.2 V12" />
	{:else if level === 'note'}
		<path d="M8 1.8 L14.2 8 L8 14.2 L1.8 8 Z" />
	{:else if pending}
		<circle cx="8" cy="8" r="6.2" stroke-dasharray="2 2.9" />
	{:else}
		<circle cx="8" cy="8" r="6.2" />
		<path d="M5 8.2 L7.2 10.4 L11 6" />
	{/if}
</svg>

<style>
	svg {
		fill: none;
		stroke-width: 1.6;
		stroke-linejoin: round;
		flex: none;
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
	.stop .fill {
		fill: var(--brick);
		stroke: none;
	}
	.stop .bar {
		fill: var(--sheet);
		stroke: none;
	}
</style>
