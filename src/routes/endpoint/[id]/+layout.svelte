<script lang="ts">
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';
	import EndpointHeader from '$lib/endpoint/EndpointHeader.svelte';
	import { EndpointView, provideEndpoint } from '$lib/endpoint/view.svelte';

	let { children }: { children: Snippet } = $props();
	const view = provideEndpoint(new EndpointView(() => page.params.id ?? ''));
	const locations = $derived(view.endpoint?.plan.sources.items.map((item) => item.location).join('\n'));

	$effect(() => {
		if (locations !== undefined) void view.loadMedia();
	});
</script>

{#if view.endpoint}
	<EndpointHeader />
	{@render children()}
{:else}
	<section class="gone">
		<h1>There is no such endpoint</h1>
		<p>It may have been removed, or belong to another workshop. Undo brings a removed one back.</p>
		<a href="/">To the shelf</a>
	</section>
{/if}

<style>
	.gone {
		padding: 32px;
		display: grid;
		gap: 8px;
	}
</style>
