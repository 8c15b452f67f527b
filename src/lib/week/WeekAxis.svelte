<script lang="ts">
	import Lane from './Lane.svelte';
	import type { WeekView } from './week.svelte';

	const { week }: { week: WeekView } = $props();
</script>

<div class="scroll">
	<div class="axis sheet">
		<div class="head">
			<span></span>
			<div class="time">
				{#each week.ticks as { at, words } (at)}<span class="tick small" style:left={`${at}%`}>{words}</span>{/each}
			</div>
		</div>
		{#each week.rows as row (row.endpoint.id)}<Lane {week} {row} />{/each}
	</div>
</div>

<style>
	.scroll {
		overflow-x: auto;
	}
	.axis {
		padding: 0;
		min-width: 760px;
	}
	.head {
		display: grid;
		grid-template-columns: 150px minmax(0, 1fr);
	}
	/* Where the days are scrolled, none of them stands over the names. */
	.head > span {
		position: sticky;
		left: 0;
		z-index: 3;
		background: var(--sheet);
	}
	.time {
		position: relative;
		min-height: 28px;
		overflow: hidden;
		border-left: 1px solid var(--rule);
	}
	.tick {
		position: absolute;
		top: 6px;
		padding-left: 6px;
		white-space: nowrap;
		color: var(--ink-soft);
	}
	@media (max-width: 480px) {
		.head {
			grid-template-columns: 104px minmax(0, 1fr);
		}
	}
</style>
