<script lang="ts">
	import { tellingOf } from '$core/parts/describe';
	import type { Part } from '$core/parts/schema';
	import { store } from '$lib/store/workshop.svelte';

	interface Props {
		part: Part;
		/** How many of it one has already. */
		there: number;
		own: boolean;
		/** Marked for comparison. */
		marked: boolean;
		onmark: () => void;
		onchange: () => void;
		oncopy: () => void;
	}
	let { part, there, own, marked, onmark, onchange, oncopy }: Props = $props();
</script>

<tr>
	<td class="name"
		>{part.name}{#if own}<small class="mine">yours</small>{/if}</td
	>
	<td class="telling soft small">{tellingOf(part)}</td>
	<td class="mono n">{part.price === null ? '?' : part.price === 0 ? '—' : part.price.toFixed(0)}</td>
	<td class="n">
		<button
			type="button"
			class="plain"
			disabled={there === 0}
			aria-label={`One less there: ${part.name}`}
			onclick={() => store.own(part.id, -1, part.name)}>−</button
		>
		<span class="mono there" class:soft={there === 0} title="There already">{there}</span>
		<button
			type="button"
			class="plain"
			aria-label={`I have this already: ${part.name}`}
			title="I have this already"
			onclick={() => store.own(part.id, 1, part.name)}>+</button
		>
	</td>
	<td class="n">
		<button type="button" class="plain" aria-pressed={marked} aria-label={`Compare ${part.name}`} onclick={onmark}
			>Compare</button
		>
		{#if own}<button type="button" class="plain" aria-label={`Change ${part.name}`} onclick={onchange}>Change</button>
		{:else}<button type="button" class="plain" aria-label={`Copy ${part.name}`} onclick={oncopy}>Copy</button>{/if}
	</td>
</tr>

<style>
	td {
		vertical-align: middle;
	}
	.mine {
		margin-left: 6px;
		background: var(--bottle-wash);
		color: var(--bottle);
		border-radius: 3px;
		padding: 0 5px;
		font-weight: 600;
	}
	.there {
		display: inline-block;
		min-width: 18px;
		text-align: center;
	}
	.plain[aria-pressed='true'] {
		background: var(--bottle);
		color: var(--on-bottle);
		border-color: var(--bottle);
	}
	.plain:disabled {
		color: var(--ink-faint);
		border-color: var(--rule);
		cursor: default;
	}
	@media (max-width: 980px) {
		tr {
			display: grid;
			grid-template-columns: 1fr auto auto;
			border-bottom: 1px solid var(--rule);
		}
		td {
			border: 0;
		}
		.name,
		.telling {
			grid-column: 1 / -1;
		}
	}
</style>
