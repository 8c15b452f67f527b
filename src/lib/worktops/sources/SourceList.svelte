<script lang="ts">
	import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
	import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
	import { attachClosestEdge, extractClosestEdge } from '@atlaskit/pragmatic-drag-and-drop-hitbox/closest-edge';
	import { autoScrollForElements } from '@atlaskit/pragmatic-drag-and-drop-auto-scroll/element';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { Button, Search } from 'carbon-components-svelte';
	import { tick, untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { placeKind } from '$core/files/mediaPlace';
	import { lengthMs, moveBy, moveTo, searchIn, sortBy, type Sort } from '$core/links/sources/lists/listEdits';
	import { ruleOf } from '$core/links/sources/lists/rules';
	import type { SourceItem } from '$core/links/sources/settings';
	import { storeOf, storeWords } from '$core/links/sources/stores/stores';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { store } from '$lib/store/workshop.svelte';
	import { clockText, partLastsMs } from '$core/files/entryPart';
	import EntryDetails from './EntryDetails.svelte';
	import { describeMade, madeWords } from './made';

	const view = useEndpoint();
	const items = $derived(view.plan.sources.items);
	const mediaOf = $derived((location: string) => view.context.media(location));
	let wanted = $state('');
	const shown = $derived(wanted.trim() ? searchIn(items, wanted, mediaOf) : items);
	/** Where each stands in the whole list, while only some are shown. */
	const places = $derived(new Map(items.map(({ id }, n) => [id, n])));

	const selected = new SvelteSet<string>();
	let cursor = $state('');
	let anchor = '';
	const current = $derived(items.find(({ id }) => id === cursor) ?? null);
	/** What a command is for: all that is chosen, or where the person is. */
	const meant = (id: string): Set<string> => (selected.has(id) ? new Set(selected) : new Set([id]));

	const ROW_PX = 46;
	let scroller = $state<HTMLDivElement>();
	const virtual = createVirtualizer<HTMLDivElement, HTMLTableRowElement>({
		count: 0,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => ROW_PX,
		overscan: 8
	});
	$effect(() => {
		const count = shown.length;
		const element = scroller ?? null;
		untrack(() => $virtual.setOptions({ count, getScrollElement: () => element }));
	});
	const rows = $derived($virtual.getVirtualItems().filter(({ index }) => index < shown.length));
	const abovePx = $derived(rows[0]?.start ?? 0);
	const belowPx = $derived(Math.max(0, shown.length * ROW_PX - (rows.at(-1)?.end ?? 0)));

	const PLACES = { stream: 'stream', card: 'on the card', disk: 'on the endpoint' } as const;
	const whereOf = (location: string): string => {
		if (store.absent.has(location)) return 'not here: add it again';
		if (ruleOf(view.plan.sources.rules, location)) return 'chosen by the endpoint';
		const place = storeOf(view.plan.sources.stores, location);
		return place ? `on ${storeWords(place)}` : PLACES[placeKind(location)];
	};
	const lengthText = (item: SourceItem): string => {
		const known = mediaOf(item.location);
		const ms = partLastsMs(item.part, lengthMs(item, known), known?.picture?.framesPerSec === null);
		if (ms === null) return '';
		return clockText(Math.max(1, Math.round(ms / 1000)));
	};

	const setItems = (label: string, change: (all: readonly SourceItem[]) => SourceItem[]): void =>
		void view.edit(label, (plan) => ({ ...plan, sources: { ...plan.sources, items: change(plan.sources.items) } }));
	function retitle(id: string, title: string): void {
		view.set(
			'sources.items',
			items.map((item) => (item.id === id ? { ...item, title } : item))
		);
	}
	const countWords = (ids: ReadonlySet<string>): string => (ids.size === 1 ? 'an entry' : `${ids.size} entries`);
	function move(id: string, by: -1 | 1): void {
		const ids = meant(id);
		setItems(`move ${countWords(ids)}`, (all) => moveBy(all, ids, by));
	}
	function remove(ids: ReadonlySet<string>): void {
		const next = shown.find(({ id }, n) => n >= shown.findIndex((one) => ids.has(one.id)) && !ids.has(id));
		setItems(`remove ${countWords(ids)}`, (all) => all.filter(({ id }) => !ids.has(id)));
		if (ids.size > 1) store.offerUndo(`${ids.size} entries removed.`);
		for (const id of ids) selected.delete(id);
		cursor = next?.id ?? '';
	}
	const sort = (by: Sort): void => setItems(`put the list in order by ${by}`, (all) => sortBy(all, by, mediaOf));

	function choose(id: string, { extend = false, toggle = false } = {}): void {
		if (extend && anchor) {
			const [a, b] = [anchor, id].map((one) => shown.findIndex((item) => item.id === one)) as [number, number];
			selected.clear();
			for (const item of shown.slice(Math.min(a, b), Math.max(a, b) + 1)) selected.add(item.id);
		} else {
			if (toggle && selected.has(id)) selected.delete(id);
			else if (toggle) selected.add(id);
			else {
				selected.clear();
				selected.add(id);
			}
			anchor = id;
		}
		cursor = id;
	}

	/** The row to which the focus is on its way; a key that comes meanwhile is meant for that one. */
	let headingFor: string | null = null;
	/** The person stands in a row: on its number, or in its title. */
	async function goTo(index: number, part: string, extend: boolean): Promise<void> {
		const item = shown[Math.min(shown.length - 1, Math.max(0, index))];
		if (!item) return;
		if (extend) choose(item.id, { extend });
		cursor = headingFor = item.id;
		$virtual.scrollToIndex(shown.indexOf(item), { align: 'auto' });
		await tick();
		// A row that comes into sight is drawn a moment later.
		requestAnimationFrame(() => {
			if (headingFor !== item.id) return;
			headingFor = null;
			scroller?.querySelector<HTMLElement>(`[data-id="${CSS.escape(item.id)}"] [data-part="${part}"]`)?.focus();
		});
	}
	const PAGE_ROWS = 10;
	function onkeydown(event: KeyboardEvent): void {
		const at = event.target as HTMLElement;
		const id = headingFor ?? at.closest('tr')?.dataset.id;
		const part = at.dataset.part;
		if (!id || !part) return;
		const index = shown.findIndex((item) => item.id === id);
		const step = { ArrowUp: -1, ArrowDown: 1, PageUp: -PAGE_ROWS, PageDown: PAGE_ROWS }[event.key];
		if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
			move(id, event.key === 'ArrowUp' ? -1 : 1);
			void goTo(index + (event.key === 'ArrowUp' ? -1 : 1), part, false);
		} else if (step !== undefined) void goTo(index + step, part, event.shiftKey);
		else if (part !== 'choose') return;
		else if (event.key === 'Home' || event.key === 'End')
			void goTo(event.key === 'Home' ? 0 : shown.length - 1, part, event.shiftKey);
		else if (event.key === 'Delete' || event.key === 'Backspace') remove(meant(id));
		else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a')
			for (const item of shown) selected.add(item.id);
		else if (event.key === 'Escape') selected.clear();
		else return;
		event.preventDefault();
		event.stopPropagation();
	}

	/** Where what is dragged would go: before or behind that row. */
	let target = $state<{ id: string; edge: 'top' | 'bottom' } | null>(null);
	const dragged = (id: string) => (row: HTMLTableRowElement) => {
		const handle = row.querySelector<HTMLElement>('[data-part="choose"]')!;
		return combine(
			draggable({ element: row, dragHandle: handle, getInitialData: () => ({ id }) }),
			dropTargetForElements({
				element: row,
				getData: ({ input, element }) => attachClosestEdge({ id }, { input, element, allowedEdges: ['top', 'bottom'] }),
				onDrag: ({ self }) => {
					const edge = extractClosestEdge(self.data);
					target = edge === 'top' || edge === 'bottom' ? { id, edge } : null;
				},
				onDragLeave: () => (target = null),
				onDrop: ({ source, self }) => {
					target = null;
					const ids = meant(String(source.data.id));
					const index = places.get(id)! + (extractClosestEdge(self.data) === 'bottom' ? 1 : 0);
					setItems(`move ${countWords(ids)}`, (all) => moveTo(all, ids, index));
				}
			})
		);
	};
	const scrolledWhileDragged = (element: HTMLDivElement) => autoScrollForElements({ element });
	$effect(() => {
		for (const id of selected) if (!places.has(id)) selected.delete(id);
	});
	const HEADS: readonly (readonly [Sort, string, string])[] = [
		['title', 'Title', 'title'],
		['place', 'Where from', 'where'],
		['made', 'Made (kHz/bit)', 'made'],
		['length', 'Length', 'length']
	];
</script>

<div class="tools">
	<div class="find">
		<Search size="sm" placeholder="Find in the list" labelText="Find in the list" bind:value={wanted} />
	</div>
	<span class="soft small" role="status">
		{#if wanted.trim()}{shown.length} of {items.length} found{:else if selected.size > 1}{selected.size} chosen{/if}
	</span>
	{#if selected.size > 1}
		<Button
			size="small"
			kind="ghost"
			on:click={() => setItems(`move ${selected.size} entries`, (all) => moveTo(all, selected, 0))}>To the top</Button
		>
		<Button
			size="small"
			kind="ghost"
			on:click={() => setItems(`move ${selected.size} entries`, (all) => moveTo(all, selected, all.length))}
			>To the end</Button
		>
		<Button size="small" kind="ghost" on:click={() => remove(new Set(selected))}>Remove</Button>
	{/if}
</div>
<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="scroller" bind:this={scroller} {@attach scrolledWhileDragged} {onkeydown}>
	<table id="setting-sources.items" aria-rowcount={shown.length + 1} aria-label="The list">
		<thead
			><tr aria-rowindex={1}
				><th scope="col" class="n">#</th>{#each HEADS as [by, text, kind] (by)}<th scope="col" class={kind}
						><button
							type="button"
							title={`Put the list in order by ${by}; once more for the other way round`}
							onclick={() => sort(by)}>{text}</button
						></th
					>{/each}<th scope="col" class="acts"><span class="visually-hidden">Move or remove</span></th></tr
			></thead
		>
		<tbody>
			{#if abovePx > 0}<tr aria-hidden="true" style:height={`${abovePx}px`}></tr>{/if}
			{#each rows as row (shown[row.index]!.id)}
				{@const item = shown[row.index]!}
				{@const index = places.get(item.id)!}
				<tr
					id={`setting-sources.items.${index}`}
					data-id={item.id}
					aria-rowindex={row.index + 2}
					class={[
						selected.has(item.id) && 'chosen',
						cursor === item.id && 'current',
						target?.id === item.id && `drop-${target.edge}`
					]}
					{@attach dragged(item.id)}
					onfocusin={() => (cursor = item.id)}
				>
					<td class="n"
						><button
							type="button"
							class="mono"
							data-part="choose"
							aria-pressed={selected.has(item.id)}
							aria-label={`Choose entry ${index + 1}`}
							title="Choose; drag to move; Shift for a range, Ctrl for one more; Alt and arrows move"
							onclick={(event) =>
								choose(item.id, {
									extend: event.shiftKey,
									toggle: event.ctrlKey || event.metaKey || event.detail === 0
								})}>{index + 1}</button
						></td
					>
					<td
						><input
							value={item.title}
							data-part="title"
							aria-label={`Title of entry ${index + 1}`}
							placeholder={item.location}
							oninput={(event) => retitle(item.id, event.currentTarget.value)}
						/></td
					>
					<td class="where" title={item.location}
						><span class={['small', store.absent.has(item.location) ? 'bad' : 'soft']}>{whereOf(item.location)}</span
						><br /><span class="mono">{item.location}</span></td
					>
					<td class="made"
						><input
							class="mono"
							data-part="made"
							value={madeWords(mediaOf(item.location))}
							placeholder={ruleOf(view.plan.sources.rules, item.location)
								? 'varies'
								: mediaOf(item.location)?.silent
									? 'no sound'
									: 'unknown'}
							aria-label={`How entry ${index + 1} is made`}
							title="Rate in kHz, a slash, bits or codec: 44.1/16 or 48/aac"
							onchange={(event) => describeMade(item.location, event.currentTarget.value, mediaOf(item.location))}
						/></td
					>
					<td class="length mono">{lengthText(item)}</td>
					<td class="acts">
						<button
							type="button"
							aria-label={`Move entry ${index + 1} up`}
							disabled={index === 0}
							onclick={() => move(item.id, -1)}>↑</button
						>
						<button
							type="button"
							aria-label={`Move entry ${index + 1} down`}
							disabled={index === items.length - 1}
							onclick={() => move(item.id, 1)}>↓</button
						>
						<button type="button" aria-label={`Remove entry ${index + 1}`} onclick={() => remove(new Set([item.id]))}
							>✕</button
						>
					</td>
				</tr>
			{/each}
			{#if belowPx > 0}<tr aria-hidden="true" style:height={`${belowPx}px`}></tr>{/if}
		</tbody>
	</table>
	{#if shown.length === 0}<p class="soft">No entry has that in its title, place or tags.</p>{/if}
</div>
{#if current}<EntryDetails item={current} />{/if}

<style>
	.tools {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
		margin-top: 6px;
		min-height: 34px;
	}
	.find {
		flex: 0 1 240px;
	}
	.scroller {
		max-height: 520px;
		overflow: auto;
		margin-top: 4px;
	}
	table {
		width: 100%;
		border-collapse: separate;
		border-spacing: 0;
		table-layout: fixed;
	}
	th {
		text-align: left;
		font-size: var(--size-small);
		border-bottom: 1px solid var(--rule-strong);
		padding: 3px 6px;
		position: sticky;
		top: 0;
		background: var(--sheet);
		z-index: 1;
	}
	th button {
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		font-weight: 600;
		padding: 2px 0;
		cursor: pointer;
	}
	th button:hover {
		text-decoration: underline;
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 3px 6px;
		vertical-align: middle;
		height: 46px;
		box-sizing: border-box;
	}
	.n {
		width: 52px;
		text-align: right;
	}
	.n button {
		width: 100%;
		border: 1px solid transparent;
		border-radius: var(--radius);
		background: none;
		color: var(--ink-soft);
		text-align: right;
		padding: 6px 4px;
		cursor: grab;
	}
	.n button:hover {
		border-color: var(--rule-strong);
	}
	.chosen td {
		background: var(--bottle-wash);
	}
	.chosen .n button {
		color: var(--ink);
		font-weight: 600;
	}
	.current td:first-child {
		box-shadow: inset 3px 0 0 var(--bottle);
	}
	.drop-top td {
		box-shadow: inset 0 2px 0 var(--bottle);
	}
	.drop-bottom td {
		box-shadow: inset 0 -2px 0 var(--bottle);
	}
	.made {
		width: 112px;
	}
	.length {
		width: 74px;
		text-align: right;
		font-size: var(--size-small);
	}
	.acts {
		width: 96px;
		white-space: nowrap;
		text-align: right;
	}
	.where {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		line-height: 1.25;
		font-size: var(--size-small);
	}
	input {
		width: 100%;
		box-sizing: border-box;
		border: 1px solid transparent;
		border-radius: var(--radius);
		background: transparent;
		color: var(--ink);
		padding: 4px 6px;
		font-size: var(--size-text);
	}
	input:hover,
	input:focus {
		border-color: var(--rule-strong);
		background: var(--sheet);
	}
	input.mono {
		font-size: var(--size-small);
	}
	.acts button {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--ink);
		width: 27px;
		height: 27px;
		cursor: pointer;
	}
	.acts button:disabled {
		opacity: 0.4;
	}
	/* On a phone the title is what matters; the rest stands on a larger screen, and below the list. */
	@media (max-width: 480px) {
		.where,
		.made,
		.length {
			display: none;
		}
	}
</style>
