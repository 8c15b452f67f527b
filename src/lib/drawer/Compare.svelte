<script lang="ts">
	import { describePart } from '$core/parts/describe';
	import type { Part } from '$core/parts/schema';

	interface Props {
		parts: readonly Part[];
		currency: string;
	}
	let { parts, currency }: Props = $props();
	const described = $derived(parts.map(describePart));
	const labels = $derived([...new Set(described.flatMap((list) => list.map(({ label }) => label)))]);
	const cell = (n: number, label: string) => described[n]!.filter((known) => known.label === label);
	const differs = (label: string): boolean =>
		new Set(
			parts.map((_, n) =>
				cell(n, label)
					.map(({ text }) => text)
					.join()
			)
		).size > 1;
</script>

<section class="sheet" aria-label="Side by side">
	<h2>Side by side</h2>
	<div class="scroll">
		<table class="rows">
			<thead>
				<tr
					><th></th>{#each parts as part (part.id)}<th scope="col">{part.name}</th>{/each}</tr
				>
			</thead>
			<tbody>
				<tr>
					<th scope="row">Price</th>
					{#each parts as part (part.id)}<td class="mono"
							>{part.price === null ? 'unknown' : `${part.price.toFixed(2)} ${currency}`}</td
						>{/each}
				</tr>
				{#each labels as label, n (n)}
					<tr class:differs={parts.length > 1 && differs(label)}>
						<th scope="row">{label}</th>
						{#each parts as part, n (part.id)}
							<td>
								{#each cell(n, label) as figure, k (k)}
									<span title={figure.source}>{figure.text}</span>
									{#if figure.sure !== 'typical'}<small class="soft">{figure.sure}</small>{/if}
								{:else}<span class="soft">—</span>{/each}
							</td>
						{/each}
					</tr>
				{/each}
				<tr>
					<th scope="row">Where from</th>
					{#each parts as part (part.id)}<td class="soft small">{part.source}</td>{/each}
				</tr>
			</tbody>
		</table>
	</div>
	<p class="soft small">Rows that differ are in bold. Figures without a word beside them are typical of the class.</p>
</section>

<style>
	.scroll {
		overflow-x: auto;
	}
	table {
		margin: 8px 0;
	}
	tbody th {
		color: var(--ink-soft);
		white-space: nowrap;
	}
	.differs td {
		font-weight: 600;
	}
</style>
