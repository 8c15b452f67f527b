<script lang="ts">
	import { confirmationOf, isConfirmed, proveCommands, writeCommands, type DiskCommand } from '$core/disks/commands';
	import type { HostDisk } from '$core/disks/disk';
	import { formatSeconds } from '$core/basics/format';
	import { writeTime } from '$core/links/card/writeTime';
	import { computeWriteMin } from '$core/links/card/wear';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import NumberField from '$lib/fields/NumberField.svelte';

	let { disk, unfit }: { disk: HostDisk | null; unfit: string } = $props();
	const view = useEndpoint();
	const image = $derived(view.plan.card.image);
	let folder = $state('');
	let typed = $state('');
	const separator = $derived(disk?.system === 'windows' ? '\\' : '/');
	const path = $derived(
		image ? (folder.trim() ? `${folder.trim().replace(/[\\/]$/, '')}${separator}${image.name}` : image.name) : ''
	);
	const confirmed = $derived(disk !== null && isConfirmed(typed, disk));
	const commands = $derived(
		disk && image ? writeCommands(disk, { path, form: image.form, rawBytes: image.rawBytes }) : []
	);
	const proof = $derived(disk ? proveCommands(disk) : []);
	const proofTakes = $derived.by(() => {
		const card = view.context.part('card', view.plan.parts.card);
		return card && disk?.sizeBytes ? formatSeconds(computeWriteMin(disk.sizeBytes, card) * 60_000) : null;
	});
	const takes = $derived(writeTime(view.plan.card, view.context));
	/** What was typed was for another disk. */
	$effect(() => {
		void disk;
		typed = '';
	});
</script>

{#snippet list(commands: readonly DiskCommand[])}
	<ol>
		{#each commands as { what, command, note }, n (n)}
			<li>
				<b>{what}</b>{note ? ` — ${note}` : ''}
				{#if command}<div class="line"><code>{command}</code><CopyButton text={command} /></div>{/if}
			</li>
		{/each}
	</ol>
{/snippet}

<section class="sheet" aria-label="The commands">
	<h2>3. Write, read back, eject</h2>
	{#if unfit}
		<p class="care stop" role="alert"><b>Not this image.</b> {unfit}</p>
	{:else if !image || !disk}
		<p class="soft">
			{!image ? 'Choose the image first.' : 'Choose the right disk first: the commands carry its name.'}
		</p>
	{:else}
		<label class="small soft"
			>The folder in which {image.name} lies; empty: where you type the commands. ~ is your own folder<input
				class="mono"
				bind:value={folder}
			/></label
		>
		<p class="care">
			<b>Take care.</b> Writing wipes the whole of {disk.id}. Look at size and model once more, and type them:
			<b class="mono">{confirmationOf(disk)}</b>
		</p>
		<label class="small soft"
			>Size and model of the card<input
				class="mono"
				autocomplete="off"
				bind:value={typed}
				aria-invalid={typed !== '' && !confirmed}
			/></label
		>
		{#if confirmed}
			{@render list(commands)}
			{#if takes}<p class="soft small">Writing takes about {takes}.</p>{/if}
			<NumberField
				path="card.wroteInMin"
				label="It took"
				unit="min"
				value={view.plan.card.wroteInMin}
				mayBeEmpty
				hint="Tells what the card is worth; the verdict stands under Card."
			/>
			{#if proof.length}
				<details>
					<summary>Is the card as large as it says?</summary>
					<p class="soft small">
						A false card takes everything, and loses what is beyond its true size. To find out, fill it with what cannot
						be made up, and read all of it back. Do this before the image is written: it wipes the card.
						{proofTakes ? `About ${proofTakes} for filling, and less for reading.` : ''}
					</p>
					{@render list(proof)}
				</details>
			{/if}
		{:else}
			<p class="soft small">The commands come when it is typed as it stands there.</p>
		{/if}
	{/if}
</section>

<style>
	section {
		display: grid;
		gap: 9px;
	}
	label {
		display: grid;
		gap: 3px;
	}
	label input {
		height: 34px;
	}
	.care {
		background: var(--amber-wash);
		border-left: 4px solid var(--amber);
		padding: 7px 11px;
	}
	.care.stop {
		background: var(--brick-wash);
		border-color: var(--brick);
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	details p {
		margin: 5px 0 9px;
	}
	ol {
		list-style: decimal;
		margin: 0;
		padding-left: 20px;
		display: grid;
		gap: 10px;
	}
</style>
