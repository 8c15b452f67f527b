<script lang="ts">
	import { deviceOf } from '$core/links/sound/deviceName';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import CopyButton from '$lib/shell/CopyButton.svelte';

	const view = useEndpoint();
	const device = $derived(deviceOf(view.plan.sound));
</script>

<section class="sheet">
	<h3>The name that the player opens</h3>
	{#if device}
		<p class="device"><code>{device.name}</code> <CopyButton text={device.name} /></p>
		<dl>
			{#each device.explained as { part, meaning }, n (n)}
				<dt class="mono">{part}</dt>
				<dd>{meaning}</dd>
			{/each}
		</dl>
	{:else}
		<p class="soft">
			It needs the name of the card first: paste a probe report in the Parts link, or type it on the left.
		</p>
	{/if}
</section>

<style>
	.device {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 8px;
		margin: 6px 0;
	}
	.device code {
		font-size: var(--size-text);
		overflow-wrap: anywhere;
	}
	dl {
		margin: 0;
		font-size: var(--size-small);
	}
	dt {
		font-weight: 600;
	}
	dd {
		margin: 0 0 4px;
		color: var(--ink-soft);
	}
</style>
