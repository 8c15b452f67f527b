<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { store } from '$lib/store/workshop.svelte';
	import { download } from './download';
	import Mark from './Mark.svelte';

	/** What concerns the whole workshop: another tab, a damaged store, a browser that keeps nothing. */
	const saveAside = (): void =>
		download('yphos-kept-aside.json', JSON.stringify(store.keptAside, null, '\t'), 'application/json');
</script>

{#if store.conflict}
	<section class="caution" role="alert">
		<Mark level="caution" />
		<p>
			<strong>Another tab has changed the workshop.</strong> This tab has changes of its own, so nothing was overwritten.
			Which of the two shall stay?
		</p>
		<Button size="small" on:click={() => store.settle('mine')}>Keep this tab's</Button>
		<Button size="small" kind="tertiary" on:click={() => store.settle('theirs')}>Take the other's</Button>
	</section>
{/if}
{#if store.keptAside.length}
	<section class="caution" role="status">
		<Mark level="caution" />
		<p>
			<strong
				>{store.keptAside.length === 1 ? 'One part' : `${store.keptAside.length} parts`} of the saved workshop could not be
				understood.</strong
			>
			{store.keptAside[0]!.where}: {store.keptAside[0]!.why}. It is kept as it was; the rest is open.
		</p>
		<Button size="small" on:click={saveAside}>Download what was kept</Button>
		<Button size="small" kind="tertiary" on:click={() => store.forgetKeptAside()}>Forget it</Button>
	</section>
{/if}
{#if store.problem}
	<section class="stop" role="alert">
		<Mark level="stop" />
		<p>{store.problem}</p>
		<Button size="small" kind="tertiary" on:click={() => (store.problem = null)}>Understood</Button>
	</section>
{/if}

<style>
	section {
		display: flex;
		align-items: center;
		gap: 10px;
		padding: 8px 16px;
		flex-wrap: wrap;
	}
	.caution {
		background: var(--amber-wash);
	}
	.stop {
		background: var(--brick-wash);
	}
	p {
		flex: 1 1 300px;
	}
</style>
