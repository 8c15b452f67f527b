<script lang="ts">
	import type { Component } from 'svelte';
	import { tick } from 'svelte';
	import { afterNavigate } from '$app/navigation';
	import { page } from '$app/state';
	import { Button } from 'carbon-components-svelte';
	import { chain } from '$core/chain';
	import { useLink } from '$core/engines/derive';
	import type { Link } from '$core/link';
	import type { LinkId } from '$core/plan/plan';
	import ChainMap from '$lib/endpoint/ChainMap.svelte';
	import { goToField, hrefOf } from '$lib/endpoint/field';
	import FigureList from '$lib/endpoint/FigureList.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import Guarded from '$lib/shell/Guarded.svelte';
	import FindingCard from '$lib/shell/FindingCard.svelte';
	import { worktops } from '$lib/worktops';

	const view = useEndpoint();
	const id = $derived(page.params.link as LinkId);
	const link = $derived(view.assessment.links.find((state) => state.id === id)!);
	/** What stands above a drawing that may be long. */
	const urgent = $derived(link.findings.filter(({ level }) => level !== 'note'));
	const elsewhere = $derived(
		view.assessment.findings.filter((finding) => finding.link !== id && finding.level !== 'note')
	);
	const definition = $derived((chain as readonly Link[]).find((known) => known.id === id)!);
	const use = (on: boolean): void => {
		view.edit(`${on ? 'add' : 'do without'} ${link.title}`, useLink(chain, id, on));
	};
	const Settings: Component = $derived(worktops[id].settings);
	const Drawing: Component | undefined = $derived(worktops[id].drawing);
	const Beside: Component | undefined = $derived(worktops[id].beside);
	const Below: Component | undefined = $derived(worktops[id].below);

	/** On a phone the chain stands above all: a tapped tile brings its form into view. */
	afterNavigate(({ from, to }) => {
		if (from?.url && from.route.id === to?.route.id && !to?.url?.hash && matchMedia('(max-width: 980px)').matches)
			document.querySelector('.worktop')?.scrollIntoView({ block: 'start' });
	});

	/** Coming from a line of a card file or from a finding: the field behind it is ready to be changed. */
	$effect(() => {
		const setting = page.url.hash.slice('#setting-'.length);
		if (setting) void tick().then(() => goToField(setting));
	});
</script>

<svelte:head><title>{link.title} · {view.plan.brief.name}</title></svelte:head>
{#snippet findings(of: typeof link.findings)}
	{#each of as finding, n (`${finding.id} ${n}`)}
		<FindingCard
			{finding}
			href={finding.setting && hrefOf(view.id(), finding.setting)}
			cures={(known) => view.cures(known)}
			onfix={(fix) => view.apply(fix)}
		/>
	{:else}
		{#if link.used && link.findings.length === 0}<p class="soft">No problems found.</p>{/if}
	{/each}
{/snippet}

{#snippet below()}
	{#if Below && link.used}{#key id}<Guarded what="What stands below"><Below /></Guarded>{/key}{/if}
{/snippet}

<div class="strip"><Guarded what="The chain"><ChainMap /></Guarded></div>
<div class="worktop">
	<section class="settings" aria-label={`${link.title}: settings`}>
		<h2>{link.title}</h2>
		{#if link.used}
			{#key id}<Guarded what="These settings"><Settings /></Guarded>{/key}
			{#if definition.use}
				<button type="button" class="without" onclick={() => use(false)}>Do without {link.title.toLowerCase()}</button>
			{/if}
		{:else}
			<p>This endpoint does without it. Nothing of it goes on the card; its settings are kept for when it is added.</p>
			<Button on:click={() => use(true)}>Add {link.title.toLowerCase()}</Button>
		{/if}
	</section>
	<section class="follows" aria-label={`${link.title}: what follows`}>
		{#if worktops[id].list && urgent.length}<div class="findings">{@render findings(urgent)}</div>{/if}
		{#if Drawing && link.used}{#key id}<Guarded what="The drawing"><Drawing /></Guarded>{/key}{/if}
		<div class="pair" class:wide={worktops[id].wide}>
			{#if Beside && link.used}{#key id}<Guarded what="What stands beside it"><Beside /></Guarded
					>{/key}{:else if link.used}<FigureList
					figures={link.figures}
					hrefOf={(setting) => hrefOf(view.id(), setting)}
				/>{/if}
			<div class="findings">
				{@render findings(worktops[id].list ? link.findings.filter(({ level }) => level === 'note') : link.findings)}
				{#if elsewhere.length}
					<p class="soft small">
						Elsewhere in the chain:
						{#each elsewhere as finding, n (n)}{n ? ', ' : ''}<a
								href={`/endpoint/${view.endpoint!.id}/plan/${finding.link}`}>{finding.title}</a
							>{/each}.
					</p>
				{/if}
			</div>
		</div>
		{#if Beside}
			<div class="pair">
				<FigureList figures={link.figures} hrefOf={(setting) => hrefOf(view.id(), setting)} />
				{@render below()}
			</div>
		{:else}{@render below()}{/if}
	</section>
</div>

<style>
	.strip {
		background: var(--sheet);
		border-bottom: 1px solid var(--rule);
		overflow-x: auto;
	}
	.worktop {
		display: grid;
		grid-template-columns: 320px minmax(0, 1fr);
		min-height: calc(100vh - 258px);
	}
	.settings {
		padding: 14px 18px 24px;
		border-right: 1px solid var(--rule);
		display: flex;
		flex-direction: column;
		gap: 12px;
	}
	.follows {
		padding: 14px 20px 24px;
		display: flex;
		flex-direction: column;
		gap: 14px;
		min-width: 0;
	}
	.pair {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 14px;
		align-items: start;
	}
	.pair.wide {
		grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
	}
	.findings {
		display: grid;
		gap: 10px;
	}
	.without {
		align-self: start;
		border: 0;
		background: none;
		padding: 4px 0;
		color: var(--ink-soft);
		text-decoration: underline;
		cursor: pointer;
	}
	@media (max-width: 980px) {
		/* One column: what is wrong comes first. */
		.worktop {
			grid-template-columns: minmax(0, 1fr);
			gap: 14px;
			padding: 14px 18px 24px;
		}
		.follows,
		.pair {
			display: contents;
		}
		.findings {
			order: -1;
		}
		.settings {
			border: 0;
			padding: 0;
		}
	}
</style>
