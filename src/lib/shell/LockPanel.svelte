<script lang="ts">
	import { Button, FileUploaderButton } from 'carbon-components-svelte';
	import { nameOf } from '$core/plan/open';
	import { sentence } from '$core/basics/result';
	import { readInWorker } from '$lib/readers/readInWorker';
	import type { Lock } from '$lib/store/opening';
	import { store } from '$lib/store/workshop.svelte';
	import { demoWorkshop } from '$demo/workshop';
	import { download } from './download';
	import Mark from './Mark.svelte';

	/** In place of every page, while the person has not decided what becomes of a store that was not simply opened. */
	let { lock }: { lock: Lock } = $props();
	let asking = $state<'empty' | 'demo' | 'sound-only' | null>(null);

	const opened = $derived(lock.reason === 'damaged' || lock.reason === 'no-copy' ? lock.opened : null);
	const TITLES: Readonly<Record<Lock['reason'], string>> = {
		newer: 'A newer Yphos has saved this workshop',
		unreachable: 'This browser does not give the saved workshop out',
		'no-copy': 'There is no room to keep a copy of the workshop as it was',
		damaged: 'Part of the saved workshop cannot be understood',
		unreadable: 'The saved workshop cannot be understood'
	};
	const SURE = {
		empty: 'Start an empty workshop; what is stored is kept aside whole',
		demo: 'Start with the demo; what is stored is kept aside whole',
		'sound-only': 'Open without the damaged parts; they are kept aside'
	} as const;
	const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;
	const save = (name: string, value: unknown): void =>
		download(name, JSON.stringify(value, null, '\t'), 'application/json');

	async function reload(): Promise<void> {
		// An old build served offline is let go of, so that the newer one can be fetched.
		for (const known of (await navigator.serviceWorker?.getRegistrations()) ?? []) await known.update().catch(() => {});
		for (const name of await caches.keys()) await caches.delete(name);
		location.reload();
	}
</script>

<section aria-labelledby="lock-title">
	<h1 id="lock-title"><Mark level="stop" size={20} /> {TITLES[lock.reason]}</h1>
	{#if lock.reason === 'newer'}
		<p>
			This page is an older build, perhaps from another tab or kept for use without a network. It writes nothing, so
			nothing is lost. Reload for the newer version.
		</p>
		<p class="row">
			<Button on:click={reload}>Reload for the newer version</Button>
			{#if store.workshop}<Button kind="tertiary" on:click={() => save('this-tab.yphos.json', store.workshop)}
					>Download what this tab has</Button
				>{/if}
		</p>
	{:else}
		<p><b>Nothing has been written, and nothing is until you decide.</b></p>
		{#if 'why' in lock}<p>{lock.why}</p>{/if}
		{#if opened?.damaged.length}
			<ul>
				{#each opened.damaged as damaged, n (n)}
					<li><b>{nameOf(damaged) || damaged.where}</b> <code class="small">{damaged.where}</code>: {damaged.why}</li>
				{/each}
			</ul>
			<p class="soft">
				The rest is sound: {count(opened.workshop.endpoints.length, 'endpoint')}, {count(
					opened.workshop.parts.length,
					'part'
				)} of your own.
			</p>
		{/if}
		<p class="row">
			{#if opened}
				<Button on:click={() => store.decide('mend')}
					>{opened.damaged.length ? 'Open all, mended as far as it can be' : 'Open it without a copy'}</Button
				>
				{#if opened.damaged.length}<Button kind="tertiary" on:click={() => (asking = 'sound-only')}
						>Open without the damaged parts</Button
					>{/if}
			{/if}
			{#if 'raw' in lock}<Button kind="tertiary" on:click={() => save('yphos-stored.json', lock.raw)}
					>Download what is stored</Button
				>{/if}
			<Button kind="tertiary" on:click={() => store.retry()}>Try again</Button>
			{#if lock.reason === 'unreachable'}
				<Button kind="ghost" on:click={() => store.workUnsaved(demoWorkshop)}
					>Work with the demo; nothing is kept</Button
				>
			{:else}
				<Button kind="ghost" on:click={() => (asking = 'demo')}>Start with the demo</Button>
				<Button kind="ghost" on:click={() => (asking = 'empty')}>Start an empty workshop</Button>
			{/if}
		</p>
		{#if asking}
			<p class="sure" role="alert">
				{SURE[asking]}. It can be opened again later from Venue and workshop file.
				<Button size="small" kind="danger" on:click={() => asking && store.decide(asking)}>Yes, do that</Button>
				<Button size="small" kind="ghost" on:click={() => (asking = null)}>No</Button>
			</p>
		{/if}
		{#if lock.reason === 'unreadable'}
			<p class="soft small">
				If you have an exported file, start an empty workshop and open the file there: <FileUploaderButton
					size="small"
					kind="ghost"
					labelText="Open a workshop file"
					disableLabelChanges
					accept={['.json']}
					on:change={async (event) => {
						const file = event.detail[0];
						if (!file) return;
						const read = await readInWorker('workshop', file, store.zone);
						if (!read.ok) return void (store.problem = sentence(read.faults));
						await store.decide('empty');
						store.problem = await store.importOpened(read.value);
					}}
				/>
			</p>
		{/if}
	{/if}
</section>

<style>
	section {
		max-width: 760px;
		padding: 28px 24px;
		display: grid;
		gap: 12px;
	}
	h1 {
		display: flex;
		gap: 10px;
		align-items: center;
	}
	ul {
		margin: 0;
		padding-left: 20px;
		list-style: disc;
		overflow-wrap: anywhere;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	.sure {
		display: flex;
		flex-wrap: wrap;
		gap: 10px;
		align-items: center;
		background: var(--amber-wash);
		padding: 8px 12px;
	}
</style>
