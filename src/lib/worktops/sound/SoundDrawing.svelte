<script lang="ts">
	import { computeLevels } from '$core/links/sound/levels';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import LevelPath from './LevelPath.svelte';

	const view = useEndpoint();
	const levels = $derived(computeLevels(view.plan.sound, view.context));
</script>

{#if levels}<LevelPath stages={levels.stages} />{/if}
