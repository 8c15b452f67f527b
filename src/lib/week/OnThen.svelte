<script lang="ts">
	import { TextInput } from 'carbon-components-svelte';
	import { wallClockMs } from '$core/formats/systemd/zone';
	import { instantOfClock } from '$core/onAir/slices';
	import { becauseWords, whatsOn } from '$core/links/programme/rules/whatsOn';
	import { wordsOf, type WeekView } from './week.svelte';

	const { week }: { week: WeekView } = $props();
	const zone = $derived(week.venue.timeZone);
	const nowText = $derived(new Date(wallClockMs(zone, week.nowMs)).toISOString().slice(0, 16));
	/** As the venue's clock shows it; null: now. */
	let asked = $state<string | null>(null);
	const askedUtcMs = $derived(instantOfClock(zone, asked ?? nowText));
</script>

<section class="sheet">
	<h2>What is on then?</h2>
	<TextInput
		size="sm"
		type="datetime-local"
		labelText={`Day and time in ${zone}`}
		value={asked ?? nowText}
		on:input={(event) => (asked = String(event.detail ?? '') || null)}
	/>
	{#if askedUtcMs !== null}
		<table>
			<thead><tr><th>Endpoint</th><th>Shows</th><th>Because</th></tr></thead>
			<tbody>
				{#each week.rows as { endpoint, book } (endpoint.id)}
					{@const on = whatsOn(book, askedUtcMs)}
					<tr>
						<td>{endpoint.plan.brief.name}</td>
						<td>{wordsOf(endpoint, on.show)}</td>
						<td>{becauseWords(on, book)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
</section>

<style>
	h2 {
		font-size: var(--size-text);
		margin: 0 0 8px;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		margin-top: 8px;
		font-size: var(--size-small);
	}
	th {
		text-align: left;
		border-bottom: 1px solid var(--ink);
		padding: 4px 6px 4px 0;
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 6px 6px 6px 0;
		vertical-align: top;
	}
</style>
