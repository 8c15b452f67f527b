<script lang="ts">
	import { TextInput } from 'carbon-components-svelte';
	import type { ProgrammeList } from '$core/onAir/when';
	import { itemOf } from '$core/onAir/items';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		list: ProgrammeList;
		put: (valid: ProgrammeList['valid']) => string | null;
	}
	let { list, put }: Props = $props();
	const view = useEndpoint();
	const titleOf = (id: string): string => itemOf(id, view.context)?.title ?? id;
	const entries = $derived([...new Set(list.items)]);
	const daysOf = (id: string): ProgrammeList['valid'][number] =>
		list.valid.find(({ item }) => item === id) ?? { item: id, from: '', until: '' };
	/** What is typed and not yet a date, by entry and end. */
	let drafts = $state<Record<string, { text: string; why: string }>>({});

	function typed(id: string, key: 'from' | 'until', text: string): void {
		const next = { ...daysOf(id), [key]: text.trim() };
		const others = list.valid.filter(({ item }) => item !== id && list.items.includes(item));
		const why = put(next.from || next.until ? [...others, next] : others) ?? '';
		drafts = { ...drafts, [`${id} ${key}`]: { text, why } };
	}
	const ENDS = [
		{ key: 'from', label: 'First day' },
		{ key: 'until', label: 'Last day' }
	] as const;
</script>

{#if entries.length}
	<details open={list.valid.length > 0}>
		<summary>On which days</summary>
		<p class="soft small">An entry without days is on as long as the playlist is. Days are those of the venue.</p>
		{#each entries as id (id)}
			<fieldset>
				<legend class="small">{titleOf(id)}</legend>
				{#each ENDS as { key, label } (key)}
					{@const draft = drafts[`${id} ${key}`]}
					<TextInput
						size="sm"
						labelText={label}
						placeholder={key === 'from' ? 'from the start' : 'without end'}
						value={draft?.why ? draft.text : daysOf(id)[key]}
						invalid={!!draft?.why}
						invalidText={draft?.why ?? ''}
						on:input={(event) => typed(id, key, String(event.detail ?? ''))}
					/>
				{/each}
			</fieldset>
		{/each}
	</details>
{/if}

<style>
	details {
		display: grid;
		gap: 8px;
	}
	fieldset {
		border: 0;
		margin: 6px 0;
		padding: 0;
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 8px;
	}
	legend {
		overflow-wrap: anywhere;
		font-weight: 600;
	}
</style>
