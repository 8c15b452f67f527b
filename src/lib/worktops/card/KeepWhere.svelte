<script lang="ts">
	import { keepWhere } from '$core/links/card/keepWhere';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const rows = $derived(keepWhere(view.plan.card, view.context, view.claims));
</script>

<section class="sheet">
	<h3>Where to keep what</h3>
	<dl class="facts">
		{#each rows as { what, where, why }, n (n)}
			<dt>{what}</dt>
			<dd><b>{where}</b> <span class="soft small">{why}</span></dd>
		{/each}
	</dl>
</section>
