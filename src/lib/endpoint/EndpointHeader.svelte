<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { page } from '$app/state';
	import { homeOf } from './home';
	import { useEndpoint } from './view.svelte';
	import WriteDialog from './WriteDialog.svelte';

	const view = useEndpoint();
	let writing = $state(false);
	$effect(() => {
		if (page.url.hash === '#download') writing = true;
	});
	const counts = $derived.by(() => {
		const { findings } = view.assessment;
		const count = (level: string): number => findings.filter((finding) => finding.level === level).length;
		const many = (n: number, word: string): string[] => (n ? [`${n} ${word}${n > 1 ? 's' : ''}`] : []);
		const list = [...many(count('stop'), 'stop'), ...many(count('caution'), 'caution')].join(', ');
		return `${list || 'nothing wrong'} · ${count('stop') ? 'not ready to write' : 'ready to write'}`;
	});
	const base = $derived(`/endpoint/${view.endpoint!.id}`);
	const tabs = $derived([
		{
			href: homeOf(view.id(), view.plan),
			text: 'Plan',
			here: ['plan', 'write-card'].some((view) => page.url.pathname.startsWith(`${base}/${view}`))
		},
		{ href: `${base}/files`, text: 'Card files', here: page.url.pathname === `${base}/files` },
		{ href: `${base}/rehearsal`, text: 'Rehearsal', here: page.url.pathname === `${base}/rehearsal` },
		{ href: `${base}/run-sheet`, text: 'Run sheet', here: page.url.pathname === `${base}/run-sheet` }
	]);
</script>

<header>
	<div class="name">
		<h1>{view.plan.brief.name}</h1>
		<span class="soft small">{counts}</span>
	</div>
	<nav aria-label="Views of this endpoint">
		{#each tabs as tab (tab.text)}
			<a href={tab.href} class:here={tab.here} aria-current={tab.here ? 'page' : undefined}>{tab.text}</a>
		{/each}
	</nav>
	<Button on:click={() => (writing = true)}>Download card set</Button>
</header>
{#if writing}<WriteDialog onclose={() => (writing = false)} />{/if}

<style>
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px 12px;
		padding: 9px 20px;
		border-bottom: 1px solid var(--rule);
	}
	.name {
		flex: 1 1 220px;
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 2px 12px;
	}
	nav {
		display: flex;
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		overflow: hidden;
	}
	nav a {
		padding: 6px 12px;
		color: var(--ink);
		text-decoration: none;
		background: var(--sheet);
	}
	nav a + a {
		border-left: 1px solid var(--rule);
	}
	nav a.here {
		background: var(--ink);
		color: var(--paper);
	}
	nav a:focus-visible {
		outline-offset: -3px;
	}
	@media (max-width: 760px) {
		header {
			padding: 9px 12px;
		}
		nav {
			width: 100%;
		}
		nav a {
			flex: 1;
			padding: 8px 2px;
			text-align: center;
			font-size: var(--size-small);
		}
	}
</style>
