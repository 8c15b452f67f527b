<script lang="ts">
	import { Checkbox, PasswordInput } from 'carbon-components-svelte';
	import { onMount } from 'svelte';
	import { sentence } from '$core/basics/result';
	import { emptyVault, hasVault, unlock } from '$lib/vault/keeping';
	import type { VaultEntry } from '$lib/vault/vault';

	interface Props {
		endpointId: string;
		/** What is to be kept once the set is written; null: nothing. */
		keepWith: string | null;
		onentry: (entry: VaultEntry) => void;
	}
	let { endpointId, keepWith = $bindable(), onentry }: Props = $props();
	let there = $state(false);
	let wanted = $state(false);
	let phrase = $state('');
	/** A new phrase twice: nobody could ever open what a slip of the finger sealed. */
	let again = $state('');
	let asking = $state(false);
	let problem = $state('');
	let busy = $state(false);

	onMount(async () => (there = await hasVault()));
	$effect(() => {
		keepWith = !wanted ? null : there || phrase === again ? phrase : '';
	});
	async function open(): Promise<void> {
		busy = true;
		const opened = await unlock(phrase);
		busy = false;
		problem = opened.ok ? '' : sentence(opened.faults);
		if (opened.ok) onentry(opened.value[endpointId] ?? {});
	}
	async function empty(): Promise<void> {
		await emptyVault();
		there = asking = false;
		problem = '';
	}
</script>

<div class="vault">
	<Checkbox labelText="Keep them in this browser’s vault" bind:checked={wanted} />
	{#if there || wanted}
		<PasswordInput
			labelText={there ? 'Pass phrase of the vault' : 'A new pass phrase, for the vault alone'}
			helperText="It is kept nowhere. Without it nobody opens the vault, you neither."
			bind:value={phrase}
			invalid={problem !== ''}
			invalidText={problem}
			autocomplete="off"
		/>
		{#if !there}
			<PasswordInput
				labelText="The same pass phrase once more"
				bind:value={again}
				invalid={again !== '' && again !== phrase}
				invalidText="The two are not the same."
				autocomplete="off"
			/>
		{/if}
	{/if}
	{#if there}
		<p>
			<button type="button" class="plain" disabled={busy || phrase === ''} onclick={open}
				>{busy ? 'Opening …' : 'Take them out of the vault'}</button
			>
			{#if asking}
				<span role="alert">Everything in it is gone then, for every endpoint.</span>
				<button type="button" class="plain" onclick={empty}>Yes, empty it</button>
				<button type="button" class="plain" onclick={() => (asking = false)}>No</button>
			{:else}
				<button type="button" class="plain" onclick={() => (asking = true)}>Empty the vault</button>
			{/if}
		</p>
	{/if}
</div>

<style>
	.vault {
		margin-top: 16px;
		border-top: 1px solid var(--rule);
		padding-top: 10px;
		display: grid;
		gap: 8px;
	}
</style>
