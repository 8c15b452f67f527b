<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { store } from '$lib/store/workshop.svelte';
	import { download } from './download';
	import Mark from './Mark.svelte';

	/** What concerns the whole workshop: another tab, what was kept aside, a browser that keeps nothing. */
	const saveWorkshop = (): void =>
		download('workshop.yphos.json', JSON.stringify(store.workshop, null, '\t'), 'application/json');
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
{#if store.save === 'failed'}
	<section class="stop" role="alert">
		<Mark level="stop" />
		<p>
			<strong>The last changes are not saved.</strong>
			{store.saveProblem}. It is tried again by itself. Export the workshop now, then make room in the browser’s
			storage.
		</p>
		<Button size="small" on:click={saveWorkshop}>Export the workshop</Button>
		<Button size="small" kind="tertiary" on:click={() => store.flush()}>Try now</Button>
	</section>
{/if}
{#if store.unsaved}
	<section class="caution" role="status">
		<Mark level="caution" />
		<p><strong>Nothing is kept.</strong> What you change here is gone when the page is closed, unless you export it.</p>
		<Button size="small" on:click={saveWorkshop}>Export the workshop</Button>
	</section>
{/if}
{#if store.remarks.length}
	<section class="caution" role="status">
		<Mark level="caution" />
		<p>
			<strong>The workshop was opened with changes.</strong>
			{store.remarks.slice(0, 5).join(' ')}
			{store.remarks.length > 5 ? `And ${store.remarks.length - 5} more.` : ''}
		</p>
		<Button size="small" kind="tertiary" on:click={() => (store.remarks = [])}>Understood</Button>
	</section>
{/if}
{#if store.keptAside.length}
	<section class="caution" role="status">
		<Mark level="caution" />
		<p>
			<strong
				>{store.keptAside.length === 1 ? 'One thing is' : `${store.keptAside.length} things are`} kept aside:</strong
			>
			{store.keptAside[0]!.where}: {store.keptAside[0]!.why}
		</p>
		<Button size="small" kind="tertiary" href="/venue#kept-aside">See what is kept aside</Button>
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
		overflow-wrap: anywhere;
	}
</style>
