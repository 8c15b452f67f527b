<script lang="ts">
	import { Button, FileUploaderButton } from 'carbon-components-svelte';
	import { page } from '$app/state';
	import { drawerOf } from '$core/engines/context';
	import { catalogue } from '$core/parts/catalogue';
	import { tellingOf } from '$core/parts/describe';
	import { partsJsonSchema, writePartsFile } from '$core/parts/file';
	import { blankPart } from '$core/parts/shape';
	import { KINDS, type Part, type PartKind } from '$core/parts/schema';
	import { sentence } from '$core/basics/result';
	import CompareBar from '$lib/drawer/CompareBar.svelte';
	import PartForm from '$lib/drawer/PartForm.svelte';
	import PartRow from '$lib/drawer/PartRow.svelte';
	import { readInWorker } from '$lib/readers/readInWorker';
	import { download } from '$lib/shell/download';
	import { store } from '$lib/store/workshop.svelte';

	const workshop = $derived(store.workshop!);
	const drawer = $derived(drawerOf(workshop.parts).drawer);
	const ownIds = $derived(new Set(workshop.parts.map((part) => part.id)));
	const shippedIds = new Set(catalogue.map((part) => part.id));
	type Filter = PartKind | 'all' | 'own' | 'owned';
	const asked = page.url.searchParams.get('kind');
	let filter = $state<Filter>(asked !== null && asked in KINDS ? (asked as PartKind) : 'all');
	let wanted = $state('');
	let compared = $state.raw<readonly string[]>([]);
	let editing = $state.raw<{ part: Readonly<Record<string, unknown>>; how: 'new' | 'copy' | 'change' } | null>(null);
	let kindOfNew = $state<PartKind>('board');
	let answer = $state('');

	const words = $derived(wanted.toLowerCase().split(/\s+/).filter(Boolean));
	const within = (part: Part, which: Filter): boolean =>
		which === 'all' ||
		(which === 'own' ? ownIds.has(part.id) : which === 'owned' ? part.id in workshop.owned : part.kind === which);
	const texts = $derived(
		new Map(drawer.map((part) => [part, `${part.name} ${KINDS[part.kind]} ${tellingOf(part)}`.toLowerCase()]))
	);
	const found = $derived(drawer.filter((part) => words.every((word) => texts.get(part)!.includes(word))));
	const kinds = Object.keys(KINDS) as PartKind[];
	const groups = $derived(
		kinds
			.map((kind) => ({ kind, parts: found.filter((part) => part.kind === kind && within(part, filter)) }))
			.filter(({ parts }) => parts.length > 0)
	);
	const count = (which: Filter): number => found.filter((part) => within(part, which)).length;
	const FILTERS = $derived<readonly (readonly [Filter, string])[]>([
		['all', 'Everything'],
		['own', 'Your own'],
		['owned', 'There already'],
		...kinds.map((kind) => [kind, KINDS[kind]] as const)
	]);

	const mark = (id: string): void => {
		compared = compared.includes(id) ? compared.filter((known) => known !== id) : [...compared.slice(-3), id];
	};
	const copy = (part: Part): void => {
		editing = { part: { ...structuredClone(part), id: newId(), name: `${part.name}, mine`.slice(0, 80) }, how: 'copy' };
	};
	const newId = (): string => `own-${crypto.randomUUID().slice(0, 8)}`;
	const begin = (): void => void (editing = { part: blankPart(kindOfNew, newId()), how: 'new' });
	function save(part: Part): void {
		store.change(`part ${part.name}`, (current) => ({
			...current,
			parts: [...current.parts.filter((known) => known.id !== part.id), part]
		}));
		store.said = `${part.name} is in the drawer`;
		editing = null;
	}
	function remove(part: Part): void {
		store.change(`remove ${part.name}`, (current) => ({
			...current,
			parts: current.parts.filter((known) => known.id !== part.id)
		}));
		store.offerUndo(shippedIds.has(part.id) ? `${part.name} is as it was shipped.` : `${part.name} removed.`);
		editing = null;
	}
	async function take(files: readonly File[]): Promise<void> {
		if (!files[0]) return;
		const read = await readInWorker('parts', files[0]);
		if (!read.ok) {
			answer = sentence(read.faults);
			return;
		}
		const { parts, refused } = read.value;
		const ids = new Set(parts.map(({ id }) => id));
		const unfit = parts.length
			? store.change(`import ${parts.length} parts`, (current) => ({
					...current,
					parts: [...current.parts.filter((part) => !ids.has(part.id)), ...parts]
				}))
			: null;
		answer = [
			unfit ?? `${parts.length} part${parts.length === 1 ? '' : 's'} taken from ${files[0].name}.`,
			...refused.map(({ name, why }) => `${name} is refused: ${why}.`)
		].join(' ');
	}
	const json = (name: string, text: string): void => download(name, text, 'application/json');
</script>

<svelte:head><title>Parts drawer · Yphos</title></svelte:head>
<div class="page">
	<header>
		<div>
			<h1>Parts drawer</h1>
			<p class="soft">
				{drawer.length} parts by class, {workshop.parts.length} of them your own. Figures are typical until you measure yours.
			</p>
		</div>
		<div class="row">
			<label class="new"
				><span class="visually-hidden">Kind of the new part</span><select bind:value={kindOfNew}>
					{#each kinds as kind (kind)}<option value={kind}>{KINDS[kind]}</option>{/each}
				</select></label
			>
			<Button on:click={begin}>New part</Button>
			<Button
				kind="tertiary"
				on:click={() => json('my-parts.json', writePartsFile(workshop.parts))}
				disabled={workshop.parts.length === 0}>Export your own</Button
			>
			<FileUploaderButton
				kind="tertiary"
				labelText="Import parts"
				disableLabelChanges
				accept={['.json']}
				on:change={(event) => take(event.detail)}
			/>
			<Button
				kind="ghost"
				on:click={() => json('parts.schema.json', `${JSON.stringify(partsJsonSchema(), null, '\t')}\n`)}
				>JSON Schema</Button
			>
		</div>
	</header>
	{#if answer}<p class="sheet" role="status">
			{answer} <button type="button" class="plain" onclick={() => (answer = '')}>Close</button>
		</p>{/if}
	<div class="columns">
		<nav aria-label="Kinds of parts">
			<input type="search" placeholder="Search the drawer" aria-label="Search the drawer" bind:value={wanted} />
			<ul>
				{#each FILTERS as [which, label] (which)}
					<li>
						<button
							type="button"
							class:here={filter === which}
							aria-pressed={filter === which}
							onclick={() => (filter = which)}><span>{label}</span><span class="mono soft">{count(which)}</span></button
						>
					</li>
				{/each}
			</ul>
		</nav>
		<div class="list">
			{#each groups as { kind, parts } (kind)}
				<section class="sheet">
					<h2>{KINDS[kind]}</h2>
					<table class="rows">
						<colgroup><col class="name" /><col /><col class="price" /><col class="have" /><col class="do" /></colgroup>
						<thead class="visually-hidden"
							><tr><th>Part</th><th>Figures</th><th>Price</th><th>There already</th><th>Do</th></tr></thead
						>
						<tbody>
							{#each parts as part (part.id)}
								<PartRow
									{part}
									there={workshop.owned[part.id] ?? 0}
									own={ownIds.has(part.id)}
									marked={compared.includes(part.id)}
									onmark={() => mark(part.id)}
									onchange={() => (editing = { part: { ...part }, how: 'change' })}
									oncopy={() => copy(part)}
								/>
							{/each}
						</tbody>
					</table>
				</section>
			{:else}
				<p class="soft">
					Nothing in the drawer is called that. Search for fewer words, copy the nearest part and change it, or begin a
					new one.
				</p>
			{/each}
		</div>
	</div>
</div>
{#if compared.length}
	<CompareBar
		parts={compared.flatMap((id) => drawer.find((part) => part.id === id) ?? [])}
		currency={workshop.venue.currency}
		onforget={() => (compared = [])}
	/>
{/if}
{#if editing}
	{@const { part, how } = editing}
	<PartForm
		{part}
		{how}
		onsave={save}
		onremove={() => remove(part as unknown as Part)}
		onclose={() => (editing = null)}
	/>
{/if}

<style>
	.columns {
		display: grid;
		grid-template-columns: 216px minmax(0, 1fr);
		gap: 18px;
		align-items: start;
	}
	nav {
		position: sticky;
		top: 14px;
	}
	input[type='search'] {
		width: 100%;
		height: 34px;
	}
	ul {
		list-style: none;
		margin: 8px 0 0;
		padding: 0;
	}
	nav button {
		display: flex;
		justify-content: space-between;
		width: 100%;
		border: 0;
		border-left: 3px solid transparent;
		background: none;
		color: var(--ink);
		padding: 4px 8px;
		cursor: pointer;
		font-size: var(--size-text);
		text-align: left;
	}
	nav button.here {
		background: var(--sheet);
		border-left-color: var(--bottle);
		font-weight: 700;
	}
	.list {
		display: grid;
		gap: 14px;
		min-width: 0;
	}
	table {
		margin-top: 4px;
		table-layout: fixed;
	}
	.name {
		width: 36%;
	}
	.price {
		width: 44px;
	}
	.have {
		width: 104px;
	}
	.do {
		width: 132px;
	}
	@media (max-width: 980px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
		nav {
			position: static;
		}
		nav ul {
			display: flex;
			flex-wrap: wrap;
		}
		nav button {
			gap: 6px;
		}
		table,
		tbody {
			display: block;
		}
		colgroup {
			display: none;
		}
	}
</style>
