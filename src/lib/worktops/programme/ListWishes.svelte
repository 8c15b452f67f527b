<script lang="ts">
	import { Checkbox, NumberInput, Select, SelectItem } from 'carbon-components-svelte';
	import { formatSeconds } from '$core/basics/format';
	import { lengthsIn } from '$core/links/programme/lists/assessWishes';
	import { leastPerHour, percentOf, type ListWish } from '$core/links/programme/lists/wishes';
	import type { ProgrammeList } from '$core/onAir/when';
	import { itemOf } from '$core/onAir/items';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		list: ProgrammeList;
		put: (wishes: ProgrammeList['wishes']) => string | null;
	}
	let { list, put }: Props = $props();
	const view = useEndpoint();
	const lengthOf = $derived(lengthsIn(view.context));
	const titleOf = (id: string): string => itemOf(id, view.context)?.title ?? id;
	const items = $derived(list.items.filter((id) => itemOf(id, view.context)));
	const entries = $derived([...new Set(items)]);
	const totalMs = $derived(items.reduce((sum, id) => sum + lengthOf(id), 0));
	let chosen = $state('');
	const one = $derived(entries.includes(chosen) ? chosen : (entries[0] ?? ''));
	const NONE = { perHour: null, percent: null, apartFrom: [] };
	const wish = $derived<ListWish>(list.wishes.find(({ item }) => item === one) ?? { item: one, ...NONE });
	let problem = $state('');

	function change(part: Partial<ListWish>): void {
		const next = { ...wish, ...part, apartFrom: [...(part.apartFrom ?? wish.apartFrom)] };
		const asks = next.perHour !== null || next.percent !== null || next.apartFrom.length > 0;
		const others = list.wishes.filter(({ item }) => item !== one);
		problem = put(asks ? [...others, next] : others) ?? '';
	}
	const number = (value: unknown): number | null =>
		value === null || value === '' || !Number.isFinite(Number(value)) ? null : Math.round(Number(value));
	const AT_LEAST = [
		{ what: 'perHour', label: 'At least, times an hour', max: 360 },
		{ what: 'percent', label: 'At least, % of the time', max: 100 }
	] as const;
	/** A turn with less than this part of the round has no room for its number. */
	const LETTERS_FROM = 0.035;
</script>

{#if entries.length > 1}
	<details open={list.wishes.length > 0}>
		<summary>How often each comes</summary>
		<div class="round" role="img" aria-label={`One round, ${formatSeconds(totalMs)}: ${items.map(titleOf).join(', ')}`}>
			{#each items as id, n (n)}
				<span
					class:one={id === one}
					style:flex-grow={lengthOf(id) / totalMs}
					title={`${titleOf(id)}, ${formatSeconds(lengthOf(id))}`}
					>{lengthOf(id) / totalMs > LETTERS_FROM ? entries.indexOf(id) + 1 : ''}</span
				>
			{/each}
		</div>
		<p class="soft small">One round: {formatSeconds(totalMs)}, {items.length} turns.</p>
		<Select size="sm" labelText="Entry" selected={one} on:update={(event) => (chosen = String(event.detail))}>
			{#each entries as id, n (id)}<SelectItem value={id} text={`${n + 1}  ${titleOf(id)}`} />{/each}
		</Select>
		<p class="small">
			Comes at least {leastPerHour(items, one, lengthOf)} times in an hour, and has
			{percentOf(items, one, lengthOf).toFixed(0)}&#8201;% of the time.
		</p>
		<div class="two">
			{#each AT_LEAST as { what, label, max } (what)}
				<NumberInput
					size="sm"
					labelText={label}
					allowEmpty
					min={1}
					{max}
					value={wish[what]}
					hideSteppers
					on:change={(event) => change({ [what]: number(event.detail) })}
				/>
			{/each}
		</div>
		<fieldset>
			<legend class="small">Never right beside</legend>
			{#each entries as id (id)}
				<Checkbox
					labelText={id === one ? 'itself' : titleOf(id)}
					checked={wish.apartFrom.includes(id)}
					on:check={(event) =>
						event.detail !== wish.apartFrom.includes(id) &&
						change({
							apartFrom: event.detail ? [...wish.apartFrom, id] : wish.apartFrom.filter((known) => known !== id)
						})}
				/>
			{/each}
		</fieldset>
		{#if problem}<p class="bad small" role="alert">{problem}</p>{/if}
	</details>
{/if}

<style>
	details {
		display: grid;
		gap: 6px;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
		padding: 4px 0;
	}
	.round {
		display: flex;
		gap: 1px;
		height: 24px;
		margin: 6px 0;
	}
	.round span {
		flex-basis: 0;
		overflow: hidden;
		background: var(--rule);
		color: var(--ink);
		font-size: var(--size-small);
		line-height: 24px;
		text-align: center;
	}
	.round .one {
		background: var(--trace);
		color: var(--sheet);
		font-weight: 700;
	}
	.small {
		margin: 6px 0;
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 10px;
		margin: 6px 0;
	}
	fieldset {
		border: 0;
		padding: 0;
		margin: 0;
	}
	.bad {
		color: var(--signal);
	}
</style>
