<script lang="ts">
	import { page } from '$app/state';
	import { homeOf } from '$lib/endpoint/home';
	import { store } from '$lib/store/workshop.svelte';
	import Mark from './Mark.svelte';
	import SaveState from './SaveState.svelte';
	import { summaries } from './summaries.svelte';

	interface Props {
		onpalette: () => void;
	}
	let { onpalette }: Props = $props();
	const rows = $derived(
		(store.workshop?.endpoints ?? []).map((endpoint) => {
			const summary = summaries.of(endpoint, store.workshop!, store.absent, page.params.id);
			return {
				id: endpoint.id,
				name: endpoint.plan.brief.name,
				home: homeOf(endpoint.id, endpoint.plan),
				worst: summary.worst,
				pending: summary.pending,
				line: summary.links
					.filter(({ id, used }) => used && (id === 'sources' || id === 'programme'))
					.map(({ telling }) => telling)
					.join(' · ')
			};
		})
	);
	$effect(() => {
		if (store.workshop) summaries.want(store.workshop, store.absent, page.params.id);
	});
</script>

<nav class="shelf" aria-label="Shelf">
	<a class="brand" href="/"><strong>Yphos</strong> <span class="soft">{store.workshop?.venue.name}</span></a>
	<h2 class="small soft">Endpoints</h2>
	<ul>
		{#each rows as row (row.id)}
			{@const here = page.params.id === row.id}
			<li>
				<a href={row.home} class:here aria-current={here ? 'page' : undefined}>
					<Mark level={row.worst} pending={row.pending} size={15} />
					<span><b>{row.name}</b><small class="soft">{row.line}</small></span>
				</a>
			</li>
		{/each}
	</ul>
	<h2 class="small soft">All together</h2>
	<ul>
		<li><a href="/" class:here={page.url.pathname === '/'}>Shelf</a></li>
		<li><a href="/week" class:here={page.url.pathname === '/week'}>Week</a></li>
		<li><a href="/parts" class:here={page.url.pathname === '/parts'}>Parts drawer</a></li>
		<li><a href="/shopping" class:here={page.url.pathname === '/shopping'}>Shopping list</a></li>
		<li><a href="/venue" class:here={page.url.pathname === '/venue'}>Venue and workshop file</a></li>
	</ul>
	<div class="foot">
		<SaveState />
		<button type="button" onclick={onpalette}>Find anything <kbd>Ctrl K</kbd></button>
	</div>
</nav>

<style>
	.shelf {
		background: var(--well);
		border-right: 1px solid var(--rule);
		padding: 16px 12px 12px;
		display: flex;
		flex-direction: column;
		gap: 6px;
		box-sizing: border-box;
		min-height: 100%;
	}
	.brand {
		color: var(--ink);
		text-decoration: none;
		padding: 0 4px 10px;
		font-size: var(--size-small);
	}
	.brand strong {
		font-size: var(--size-large);
		margin-right: 4px;
	}
	h2 {
		padding: 8px 4px 2px;
		font-weight: 600;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li a {
		display: flex;
		gap: 9px;
		padding: 8px;
		color: var(--ink);
		text-decoration: none;
		border: 1px solid transparent;
		border-radius: var(--radius);
	}
	li a :global(svg) {
		margin-top: 3px;
	}
	li a:hover {
		background: var(--paper);
	}
	li a.here {
		background: var(--sheet);
		border-color: var(--rule);
		border-left: 3px solid var(--bottle);
	}
	li span {
		min-width: 0;
	}
	li b {
		display: block;
		font-weight: 500;
	}
	li a.here b {
		font-weight: 700;
	}
	li small {
		display: block;
		font-size: var(--size-small);
	}
	.foot {
		margin-top: auto;
		display: grid;
		gap: 8px;
		padding: 8px 4px 0;
	}
	.foot button {
		border: 1px solid var(--rule-strong);
		background: transparent;
		color: var(--ink-soft);
		border-radius: var(--radius);
		padding: 5px 8px;
		cursor: pointer;
		display: flex;
		justify-content: space-between;
	}
	kbd {
		font-family: var(--mono);
		font-size: var(--size-small);
	}
</style>
