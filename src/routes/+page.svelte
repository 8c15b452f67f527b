<script lang="ts">
	import { Button, Select, SelectItem } from 'carbon-components-svelte';
	import { quietNow } from '$core/links/programme/quiet';
	import { NOT_YET } from '$core/links/brief/notYet';
	import type { Wish } from '$core/link/wish';
	import type { Endpoint } from '$core/plan/workshop';
	import { homeOf } from '$lib/endpoint/home';
	import { newEndpoint } from '$lib/endpoint/newEndpoint';
	import { WISH_WORDS } from '$lib/endpoint/wishes';
	import Mark from '$lib/shell/Mark.svelte';
	import { summaries } from '$lib/shell/summaries.svelte';
	import { timeOfDay } from '$lib/shell/times';
	import { isDemoVenue } from '$lib/store/demoVenue';
	import { store } from '$lib/store/workshop.svelte';
	import MiniChain from '$lib/shell/MiniChain.svelte';

	/** The hour moves on while the page stands open. */
	let nowMs = $state(Date.now());
	$effect(() => {
		const timer = setInterval(() => (nowMs = Date.now()), 30_000);
		return () => clearInterval(timer);
	});

	function nowAndNext({ plan }: Endpoint): string {
		if (!plan.programme.used) return 'Plays no list of its own';
		if (!plan.programme.startAtBoot) return 'Nothing starts it by itself';
		const zone = store.workshop!.venue.timeZone;
		const { isQuiet, changesUtcMs } = quietNow(plan.programme.quiet, zone, nowMs);
		const time = changesUtcMs === null ? '' : timeOfDay(new Date(changesUtcMs), zone);
		if (isQuiet) return `Quiet now; sound again at ${time}`;
		const does = plan.sound.used ? 'May sound' : 'Shows';
		return time ? `${does} now; quiet from ${time}` : plan.sound.used ? 'May sound at any hour' : 'Shows all day';
	}

	const rows = $derived(
		store.workshop!.endpoints.map((endpoint) => ({
			endpoint,
			assessment: summaries.of(endpoint, store.workshop!, store.absent, undefined)
		}))
	);

	let starting = $state(false);
	let kind = $state<Wish>('music');
	const add = (): void => newEndpoint(kind);

	function remove(id: string, name: string): void {
		store.change(`remove ${name}`, (workshop) => ({
			...workshop,
			endpoints: workshop.endpoints.filter((endpoint) => endpoint.id !== id)
		}));
		store.offerUndo(`${name} removed.`);
	}
</script>

<svelte:head><title>Shelf · Yphos</title></svelte:head>

<header>
	<h1>Shelf</h1>
	<div class="new">
		<Select hideLabel labelText="Kind of the new endpoint" size="sm" bind:selected={kind}>
			{#each WISH_WORDS as { value, text } (value)}<SelectItem {value} {text} />{/each}
		</Select>
		<Button on:click={add}>New endpoint</Button>
	</div>
	{#if NOT_YET[kind]}<p class="not-yet small" role="status"><Mark level="stop" size={15} /> {NOT_YET[kind]}</p>{/if}
</header>
{#if isDemoVenue(store.workshop!)}
	<aside class="demo">
		<p>
			<b>This is the demo.</b> Skerrin Light is made up: its time zone ({store.workshop!.venue.timeZone}), its network
			and its prices are not yours, and a new endpoint here takes them over.
		</p>
		<Button size="small" on:click={() => (starting = true)}>Start your own workshop</Button>
	</aside>
{/if}
{#if starting}
	{#await import('$lib/shell/OwnWorkshop.svelte') then { default: OwnWorkshop }}
		<OwnWorkshop onclose={() => (starting = false)} />
	{/await}
{/if}
<div class="shelf">
	{#each rows as { endpoint, assessment } (endpoint.id)}
		{@const telling = (id: string) => assessment.links.find((link) => link.id === id)?.telling ?? ''}
		{@const worst = assessment.first}
		<article class="sheet">
			<div class="head">
				<h2><a href={homeOf(endpoint.id, endpoint.plan)}>{endpoint.plan.brief.name}</a></h2>
				<span class="soft small">{endpoint.plan.brief.room}</span>
				<button type="button" class="quiet" onclick={() => remove(endpoint.id, endpoint.plan.brief.name)}>Remove</button
				>
			</div>
			<MiniChain links={assessment.links} />
			<p class="now"><b>{nowAndNext(endpoint)}</b> <span class="soft">· {telling('sources')}</span></p>
			<p class="now soft">
				<span class="mono">{telling('sound')}</span> · <span class="mono">{telling('power')}</span> ·
				<span class="mono">{telling('card')}</span>
			</p>
			<p class="worst">
				<Mark level={assessment.worst} pending={assessment.pending} />
				{#if worst}
					<a href={`/endpoint/${endpoint.id}/plan/${worst.link}`}>{worst.title}</a>
					{#if assessment.findings > 1}<span class="soft small">and {assessment.findings - 1} more</span>{/if}
				{:else}
					<span>{assessment.pending ? 'Being looked at' : 'No problems found'}</span>
				{/if}
			</p>
		</article>
	{:else}
		<article class="sheet">
			<h2>The shelf is empty</h2>
			<p>Begin with a new endpoint, or open a workshop that you have exported.</p>
			<p class="row">
				<Button on:click={add}>New endpoint</Button><Button kind="tertiary" href="/venue">Open a workshop</Button>
			</p>
		</article>
	{/each}
</div>

<style>
	.demo {
		display: flex;
		flex-wrap: wrap;
		gap: 12px;
		align-items: center;
		justify-content: space-between;
		background: var(--slate-wash);
		padding: 10px 20px;
	}
	.demo p {
		flex: 1 1 320px;
	}
	header {
		display: flex;
		justify-content: space-between;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: center;
		padding: 9px 20px;
		border-bottom: 1px solid var(--rule);
	}
	.not-yet {
		flex-basis: 100%;
		text-align: right;
	}
	.new {
		display: flex;
		align-items: center;
		gap: 10px;
	}
	.shelf {
		padding: 18px 20px;
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(100%, 400px), 1fr));
		gap: 16px;
		align-items: start;
	}
	article {
		display: grid;
		gap: 8px;
		/* What is out of sight is neither laid out nor painted. */
		content-visibility: auto;
		contain-intrinsic-size: auto 270px;
	}
	.head {
		display: flex;
		align-items: baseline;
		gap: 10px;
	}
	.head h2 a {
		color: var(--ink);
		text-decoration: none;
	}
	.head h2 a:hover {
		text-decoration: underline;
	}
	.quiet {
		margin-left: auto;
		border: 0;
		background: none;
		color: var(--ink-soft);
		font-size: var(--size-small);
		cursor: pointer;
		text-decoration: underline;
	}
	.worst {
		display: flex;
		gap: 8px;
		align-items: center;
		flex-wrap: wrap;
	}
	.now {
		font-size: var(--size-text);
	}
	.row {
		display: flex;
		gap: 8px;
	}
</style>
