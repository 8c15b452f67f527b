<script lang="ts">
	import { Select, SelectItem } from 'carbon-components-svelte';
	import { formatSeconds } from '$core/basics/format';
	import { airtime } from '$core/links/programme/rules/year';
	import { shadeOf } from './axis';
	import { wordsOf, type WeekView } from './week.svelte';

	const { week }: { week: WeekView } = $props();
	let wanted = $state('');
	/** The one with most to say, until another is asked for. */
	const row = $derived(
		week.rows.find(({ endpoint }) => endpoint.id === wanted) ??
			[...week.rows].sort((a, b) => b.book.lines.length - a.book.lines.length)[0]!
	);
	const air = $derived(airtime(row.book, row.endpoint.plan.programme.rules, week.spanUtc[0], week.spanUtc[1]));
</script>

<section class="sheet">
	<h2>Airtime in sight</h2>
	<Select
		size="sm"
		labelText="Endpoint"
		selected={row.endpoint.id}
		on:update={(event) => (wanted = String(event.detail))}
	>
		{#each week.rows as { endpoint } (endpoint.id)}<SelectItem
				value={endpoint.id}
				text={endpoint.plan.brief.name}
			/>{/each}
	</Select>
	<ul>
		{#each air.byShow as { show, ms } (show)}
			<li>
				<span>{wordsOf(row.endpoint, show)}</span>
				<i
					class={`meter ${shadeOf(show, row.endpoint.plan.programme.lists)}`}
					style:width={`${(100 * ms) / (week.spanUtc[1] - week.spanUtc[0])}%`}
				></i>
				<span class="mono small">{formatSeconds(ms)}</span>
			</li>
		{/each}
	</ul>
	<p class="small soft">{air.changes} change{air.changes === 1 ? '' : 's'} of what is on.</p>
</section>

<style>
	h2 {
		font-size: var(--size-text);
		margin: 0 0 8px;
	}
	ul {
		list-style: none;
		margin: 10px 0 0;
		padding: 0;
		display: grid;
		gap: 6px;
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 2px 8px;
	}
	.meter {
		grid-column: 1 / -1;
		grid-row: 2;
		height: 10px;
		min-width: 2px;
		border: 1px solid transparent;
		box-sizing: border-box;
	}
	.all {
		background: var(--bottle-wash);
		border-color: var(--bottle);
	}
	.list {
		background: var(--bottle);
	}
	.other {
		background: var(--slate);
	}
	.none {
		border: 1px dashed var(--trace-idle);
	}
</style>
