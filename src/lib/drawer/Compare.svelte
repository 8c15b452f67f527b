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
		<table>
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
				{#each labels as label (label)}
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
		border-collapse: collapse;
		width: 100%;
		margin: 8px 0;
	}
	th,
	td {
		text-align: left;
		vertical-align: top;
		padding: 4px 14px 4px 0;
		border-bottom: 1px solid var(--rule);
		font-size: 13px;
		font-weight: 400;
	}
	tbody th {
		color: var(--ink-soft);
		white-space: nowrap;
	}
	thead th {
		font-weight: 700;
		border-bottom-color: var(--rule-strong);
	}
	.differs td {
		font-weight: 600;
	}
</style>
