<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { chosen } from './chosen.svelte';
	import PageStage from './PageStage.svelte';
	import ZoneSettings from './ZoneSettings.svelte';

	const view = useEndpoint();
	const page = $derived(chosen.page(view));
</script>

{#if page}
	<div class="work">
		<PageStage {page} />
		<ZoneSettings {page} />
	</div>
{:else}
	<p class="sheet soft">
		Add a page at the left: it is drawn here, in the shape of this endpoint’s screen, and can be changed by hand.
	</p>
{/if}

<style>
	.work {
		display: grid;
		grid-template-columns: minmax(280px, 1.1fr) minmax(280px, 1fr);
		gap: 16px;
		align-items: start;
	}
	@media (max-width: 980px) {
		.work {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
