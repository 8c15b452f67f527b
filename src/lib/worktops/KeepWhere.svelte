<script lang="ts">
	import { keepWhere } from '$core/links/card/keepWhere';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const rows = $derived(keepWhere(view.plan, view.context, view.claims));
</script>

<section class="sheet">
	<h3>Where to keep what</h3>
	<dl>
		{#each rows as { what, where, why } (what)}
			<dt>{what}</dt>
			<dd><b>{where}</b> <span class="soft small">{why}</span></dd>
		{/each}
	</dl>
</section>

<style>
	dl {
		display: grid;
		grid-template-columns: max-content 1fr;
		gap: 4px 16px;
		margin: 8px 0 0;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		margin: 0;
	}
</style>
