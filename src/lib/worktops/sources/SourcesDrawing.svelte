<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import BufferCurve from './BufferCurve.svelte';
	import Conversions from './Conversions.svelte';
	import Photographs from './Photographs.svelte';
	import SourceList from './SourceList.svelte';

	const view = useEndpoint();
	const count = $derived(view.plan.sources.items.length);
</script>

<div class="sheet">
	<h3>
		The list <span class="soft small">{count} {count === 1 ? 'entry' : 'entries'}, played from the top</span>
	</h3>
	{#if count}
		<SourceList />
	{:else}
		<p class="soft" id="setting-sources.items">
			Nothing to play yet. Import a playlist from your computer, add files of your own, or type the address of a stream
			on the left.
		</p>
	{/if}
</div>
<Conversions />
<Photographs />
<BufferCurve />
