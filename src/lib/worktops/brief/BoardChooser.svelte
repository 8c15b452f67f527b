<script lang="ts">
	import { rankBoards } from '$core/links/parts/chooser';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import Mark from '$lib/shell/Mark.svelte';

	const view = useEndpoint();
	const ranked = $derived(rankBoards(view.plan.parts, view.context));
	const fitting = $derived(ranked.filter(({ fits }) => fits).length);
	let all = $state(false);
	/** The best, and the one in use, wherever it stands. */
	const shown = $derived(
		all
			? ranked
			: ranked.filter(({ board }, n) => n < Math.max(4, Math.min(fitting, 6)) || board.id === view.plan.parts.board)
	);
	const use = (id: string, name: string): void =>
		void view.edit(`Use ${name}`, (plan) => ({ ...plan, parts: { ...plan.parts, board: id } }));
</script>

<section class="sheet">
	<h3>Which board does it? <span class="soft small">{fitting} of {ranked.length} fit, the cheapest first</span></h3>
	<div class="scroll">
		<table class="rows">
			<thead>
				<tr
					><th scope="col">Board</th><th scope="col">Why, or by how much not</th><th scope="col" class="n">Price</th><th
						><span class="visually-hidden">Choose</span></th
					></tr
				>
			</thead>
			<tbody>
				{#each shown as { board, fits, reasons } (board.id)}
					{@const here = board.id === view.plan.parts.board}
					<tr class:here>
						<td class="name"><Mark level={fits ? null : 'stop'} size={15} /> {board.name}</td>
						<td class="why">
							{#each reasons as reason, n (n)}<span class:bad={!reason.good}>{reason.words}</span>{/each}
						</td>
						<td class="n mono">{board.price === null ? '?' : board.price.toFixed(0)}</td>
						<td class="n">
							{#if here}<span class="soft small">in use</span>{:else}<button
									type="button"
									class="plain"
									aria-label={`Use ${board.name}`}
									onclick={() => use(board.id, board.name)}>Use</button
								>{/if}
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	{#if ranked.length > shown.length || all}
		<button type="button" class="plain" onclick={() => (all = !all)}
			>{all ? 'Show the best only' : `Show all ${ranked.length}`}</button
		>
	{/if}
</section>

<style>
	.scroll {
		overflow-x: auto;
	}
	table {
		margin: 6px 0 8px;
	}
	tr.here td {
		background: var(--bottle-wash);
	}
	.name {
		width: 36%;
	}
	.name :global(svg) {
		vertical-align: -2px;
		margin-right: 5px;
	}
	.why span {
		color: var(--ink-soft);
	}
	.why span:not(:last-child)::after {
		content: ' · ';
		color: var(--ink-faint);
	}
	.why .bad {
		color: var(--brick);
		font-weight: 600;
	}
</style>
