<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { places } from '$core/links/parts/places';
	import { KINDS, type PartKind } from '$core/parts/schema';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField } from '$lib/fields';
	import ProbeDialog from './ProbeDialog.svelte';

	const view = useEndpoint();
	let probing = $state(false);
	const drawer = $derived(view.context.drawer);
	const options = (kind: string): { value: string; text: string }[] => [
		{ value: '', text: 'none' },
		...drawer.filter((part) => part.kind === kind).map((part) => ({ value: part.id, text: part.name }))
	];
	/** Kinds that have no place of their own, and leads, of which there are many. */
	const kinds = $derived(
		(Object.keys(KINDS) as PartKind[]).filter(
			(kind) => kind === 'lead' || (kind !== 'kit' && !places.some((place) => place.kind === kind))
		)
	);
	const also = $derived(view.plan.parts.also);

	function add(select: HTMLSelectElement): void {
		const part = view.context.find(select.value);
		if (part) view.edit(`Add ${part.name}`, view.context.change.addPart(part.id));
		select.value = '';
	}
	const count = (id: string, by: number): void =>
		void view.edit('how many', (plan) => ({
			...plan,
			parts: {
				...plan.parts,
				also: plan.parts.also.flatMap((item) => {
					if (item.part !== id) return [item];
					return item.count + by < 1 ? [] : [{ ...item, count: Math.min(20, item.count + by) }];
				})
			}
		}));
</script>

{#each places as { key, kind, label } (key)}
	<ChoiceField path={`parts.${key}`} {label} value={view.plan.parts[key] ?? ''} options={options(kind)} />
{/each}
<div id="setting-parts.also" class="also">
	<h3>Also on the list</h3>
	<ul>
		{#each also as item (item.part)}
			{@const name = view.context.find(item.part)?.name ?? `${item.part} (not in the drawer)`}
			<li>
				<span>{name}</span>
				<span class="count">
					<button type="button" class="plain" aria-label={`One less: ${name}`} onclick={() => count(item.part, -1)}
						>{item.count === 1 ? '×' : '−'}</button
					>
					<span class="mono">{item.count}</span>
					<button type="button" class="plain" aria-label={`One more: ${name}`} onclick={() => count(item.part, 1)}
						>+</button
					>
				</span>
			</li>
		{:else}
			<li class="soft small">Cables, adapters, tuners, drives, fans and add-ons stand here.</li>
		{/each}
	</ul>
	<label class="small soft" for="add-part">Add to the list</label>
	<select id="add-part" onchange={(event) => add(event.currentTarget)}>
		<option value="">choose …</option>
		{#each kinds as kind (kind)}
			<optgroup label={KINDS[kind]}>
				{#each drawer.filter((part) => part.kind === kind) as part (part.id)}<option value={part.id}>{part.name}</option
					>{/each}
			</optgroup>
		{/each}
	</select>
	<p class="small"><a href="/parts">Search and compare in the parts drawer</a></p>
</div>
<div>
	<Button kind="tertiary" on:click={() => (probing = true)}
		>{view.context.probe ? 'Paste a newer probe report' : 'Paste what your board printed'}</Button
	>
</div>
{#if probing}<ProbeDialog onclose={() => (probing = false)} />{/if}

<style>
	.also {
		border-top: 1px solid var(--rule);
		padding-top: 10px;
		display: grid;
		gap: 5px;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 8px;
		padding: 4px 0;
		border-bottom: 1px solid var(--rule);
		font-size: var(--size-small);
	}
	.count {
		white-space: nowrap;
	}
	.count .plain {
		min-width: 26px;
		padding: 1px 6px;
	}
	select {
		height: 34px;
		width: 100%;
	}
</style>
