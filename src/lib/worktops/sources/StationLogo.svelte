<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { sentence } from '$core/basics/result';
	import { fetchLogo } from '$lib/media/logo';
	import { readLogo, writeLogo } from '$lib/store/storage';

	/** The address of a station's logo, and whose it is. */
	const { url, of }: { url: string; of: string } = $props();
	let picture = $state<string | null>(null);
	let problem = $state('');
	let busy = $state(false);
	$effect(() => {
		const asked = url;
		picture = null;
		problem = '';
		void readLogo(asked)
			.then((found) => asked === url && (picture = found))
			.catch(() => undefined);
	});

	async function fetchIt(): Promise<void> {
		const asked = url;
		busy = true;
		const found = await fetchLogo(asked, null);
		busy = false;
		if (asked !== url) return;
		problem = found.ok ? '' : sentence(found.faults);
		if (!found.ok) return;
		picture = found.value;
		await writeLogo(asked, found.value).catch(() => undefined);
	}
</script>

<div class="logo">
	{#if picture}<img src={picture} alt={`Logo of ${of}`} />{/if}
	<Button size="small" kind="ghost" disabled={busy} on:click={fetchIt}
		>{busy ? 'Fetching the logo' : picture ? 'Fetch the logo again' : 'Show the logo'}</Button
	>
	{#if problem}<span class="small" role="status">{problem}</span>{/if}
</div>

<style>
	.logo {
		display: flex;
		align-items: center;
		gap: 10px;
		margin-top: 6px;
	}
	img {
		max-width: 48px;
		max-height: 48px;
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		background: var(--sheet);
	}
</style>
