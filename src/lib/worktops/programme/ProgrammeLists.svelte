<script lang="ts">
	import { Button, Select, SelectItem } from 'carbon-components-svelte';
	import EntryDays from './EntryDays.svelte';
	import ListWishes from './ListWishes.svelte';
	import { newList, type ProgrammeList } from '$core/onAir/when';
	import { everything, itemOf } from '$core/onAir/items';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { TextField } from '$lib/fields';

	const view = useEndpoint();
	const lists = $derived(view.plan.programme.lists);
	const entries = $derived(everything(view.context).flatMap((id) => itemOf(id, view.context) ?? []));
	const titleOf = (id: string): string => itemOf(id, view.context)?.title ?? 'no longer among the sources or pages';
	/** So many can be chosen from at once; longer lists are chosen from by their search. */
	const OFFERED = 500;

	const change = (list: ProgrammeList, part: Partial<ProgrammeList>): string | null =>
		view.set(
			'programme.lists',
			lists.map((one) => (one.id === list.id ? { ...one, ...part } : one))
		);
	function move(list: ProgrammeList, n: number, by: number): void {
		const items = [...list.items];
		const [item] = items.splice(n, 1);
		items.splice(n + by, 0, item!);
		change(list, { items });
	}
	function remove(list: ProgrammeList): void {
		view.edit('take a playlist out', (plan) => ({
			...plan,
			programme: {
				...plan.programme,
				lists: lists.filter(({ id }) => id !== list.id),
				rules: plan.programme.rules.filter(({ show }) => show !== list.id)
			}
		}));
	}
	let picked = $state<Record<string, string>>({});
</script>

<div id="setting-programme.lists" class="lists" tabindex="-1">
	{#each lists as list, n (list.id)}
		<section class="list" id={`setting-programme.lists.${n}`} aria-label={list.title || 'Playlist'} tabindex="-1">
			<TextField
				path={`programme.lists.${n}.title`}
				label="Playlist"
				value={list.title}
				put={(title) => change(list, { title })}
			/>
			<ol>
				{#each list.items as id, k (`${k} ${id}`)}
					<li>
						<span class="what">{titleOf(id)}</span>
						<button type="button" aria-label={`${titleOf(id)}: up`} disabled={k === 0} onclick={() => move(list, k, -1)}
							>↑</button
						>
						<button
							type="button"
							aria-label={`${titleOf(id)}: down`}
							disabled={k === list.items.length - 1}
							onclick={() => move(list, k, 1)}>↓</button
						>
						<button
							type="button"
							aria-label={`Take ${titleOf(id)} out`}
							onclick={() => change(list, { items: list.items.toSpliced(k, 1) })}>×</button
						>
					</li>
				{:else}
					<li class="soft small">Nothing yet: add pages, or entries of the sources.</li>
				{/each}
			</ol>
			<div class="add">
				<Select size="sm" labelText="Add an entry" bind:selected={picked[list.id]}>
					{#each entries.slice(0, OFFERED) as { id, title, kind } (id)}<SelectItem
							value={id}
							text={kind === 'page' ? `Page: ${title}` : title}
						/>{/each}
				</Select>
				<Button
					kind="tertiary"
					size="small"
					disabled={entries.length === 0}
					on:click={() => change(list, { items: [...list.items, picked[list.id] ?? entries[0]!.id] })}>Add</Button
				>
			</div>
			<EntryDays {list} put={(valid) => change(list, { valid })} />
			<ListWishes {list} put={(wishes) => change(list, { wishes })} />
			<Button kind="ghost" size="small" on:click={() => remove(list)}>Take the playlist and its rules out</Button>
		</section>
	{:else}
		<p class="soft">None besides the sources as a whole.</p>
	{/each}
</div>
<Button
	kind="tertiary"
	size="small"
	disabled={lists.length >= 50}
	on:click={() =>
		view.set('programme.lists', [
			...lists,
			newList(`list-${crypto.randomUUID().slice(0, 8)}`, `Playlist ${lists.length + 1}`)
		])}>Add a playlist</Button
>

<style>
	.lists {
		display: grid;
		gap: 8px;
	}
	.list {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 8px 10px;
		background: var(--sheet);
		display: grid;
		gap: 6px;
	}
	.list > :global(.bx--btn) {
		justify-self: start;
	}
	ol {
		margin: 0;
		padding-left: 22px;
	}
	li {
		padding: 2px 0;
	}
	li .what {
		margin-right: 6px;
		overflow-wrap: anywhere;
	}
	li button {
		width: 28px;
		height: 28px;
		border: 1px solid var(--rule-strong);
		background: var(--sheet);
		color: var(--ink);
		cursor: pointer;
	}
	li button:disabled {
		opacity: 0.5;
		cursor: default;
	}
	.add {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 8px;
		align-items: end;
	}
</style>
