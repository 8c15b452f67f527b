<script lang="ts">
	import { nameOf } from '$core/plan/open';
	import { readCopies } from '$lib/store/storage';
	import type { KeptAside } from '$lib/store/storage';
	import { store } from '$lib/store/workshop.svelte';
	import { download } from './download';

	/** Everything that was put aside rather than lost: to download, to open again, or to be rid of. */
	let asking = $state('');
	let answer = $state('');
	let copies = $state.raw<Awaited<ReturnType<typeof readCopies>>>([]);
	$effect(() => {
		void readCopies().then(
			(found) => (copies = found),
			() => {}
		);
	});
	const when = (item: KeptAside): string => item.foundUtc.slice(0, 16).replace('T', ' ');
	const save = (name: string, value: unknown): void =>
		download(`${name}.json`, JSON.stringify(value, null, '\t'), 'application/json');
	async function forget(id: string): Promise<void> {
		await store.forgetKeptAside(id);
		asking = '';
		answer = 'It is gone.';
	}
</script>

{#if store.keptAside.length || copies.length}
	<section class="sheet" id="kept-aside" aria-label="Kept aside">
		<h2>Kept aside</h2>
		<ul>
			{#each store.keptAside as item (item.id)}
				<li>
					<span
						><b>{nameOf(item) || item.where}</b> <span class="soft small mono">{item.where} · {when(item)}</span><br
						/>{item.why}</span
					>
					<span class="acts">
						<button type="button" class="plain" onclick={() => save(`kept-${item.where}`, item.raw)}>Download</button>
						<button type="button" class="plain" onclick={async () => (answer = await store.reopen(item))}
							>Open again</button
						>
						{#if asking === item.id}
							<button type="button" class="plain danger" onclick={() => forget(item.id)}>Delete it for good</button>
							<button type="button" class="plain" onclick={() => (asking = '')}>Keep it</button>
						{:else}
							<button type="button" class="plain" onclick={() => (asking = item.id)}>Forget it</button>
						{/if}
					</span>
				</li>
			{/each}
			{#each copies as { version, record } (version)}
				<li>
					<span>The workshop as it was before version {version}</span>
					<span class="acts"
						><button type="button" class="plain" onclick={() => save(`before-version-${version}`, record)}
							>Download</button
						></span
					>
				</li>
			{/each}
		</ul>
		{#if answer}<p role="status">{answer}</p>{/if}
	</section>
{/if}

<style>
	section {
		display: grid;
		gap: 10px;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		justify-content: space-between;
		border-top: 1px solid var(--rule);
		padding: 6px 0;
		overflow-wrap: anywhere;
	}
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	.danger {
		color: var(--brick);
	}
</style>
