<script lang="ts">
	import type { HostDisk } from '$core/disks/disk';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import CommandSection from '$lib/writing/CommandSection.svelte';
	import DiskSection from '$lib/writing/DiskSection.svelte';
	import ImageSection from '$lib/writing/ImageSection.svelte';

	const view = useEndpoint();
	let disk = $state.raw<HostDisk | null>(null);
	let unfit = $state('');
</script>

<svelte:head><title>Write the memory card · {view.plan.brief.name}</title></svelte:head>
<div class="page">
	<p class="soft">
		Which image, which disk, then the commands. Yphos writes nothing itself: you run them, and see what they say. <a
			href={`/endpoint/${view.endpoint!.id}/plan/card`}>Back to Card</a
		>
	</p>
	<div class="columns">
		<ImageSection bind:unfit />
		<DiskSection bind:chosen={disk} />
	</div>
	<CommandSection {disk} {unfit} />
</div>

<style>
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
		gap: 14px;
		align-items: start;
	}
	@media (max-width: 980px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
