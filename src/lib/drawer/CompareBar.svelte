<script lang="ts">
	import type { Part } from '$core/parts/schema';
	import Compare from './Compare.svelte';

	interface Props {
		parts: readonly Part[];
		currency: string;
		onforget: () => void;
	}
	let { parts, currency, onforget }: Props = $props();
	/** Until it is opened, what is marked is only counted. */
	let open = $state(false);
</script>

<div class="bar">
	{#if open}<Compare {parts} {currency} />{/if}
	<p>
		<span>{parts.length === 1 ? '1 part' : `${parts.length} parts`} to compare</span>
		<button type="button" class="plain" aria-expanded={open} onclick={() => (open = !open)}
			>{open ? 'Close' : 'Side by side'}</button
		>
		<button type="button" class="plain" onclick={onforget}>Forget them</button>
	</p>
</div>

<style>
	.bar {
		position: sticky;
		bottom: 0;
		max-height: 72vh;
		overflow-y: auto;
		background: var(--well);
		border-top: 1px solid var(--rule-strong);
		padding: 10px 20px;
		display: grid;
		gap: 10px;
	}
	.bar p {
		display: flex;
		gap: 12px;
		align-items: center;
	}
</style>
