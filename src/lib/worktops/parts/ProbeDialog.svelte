<script lang="ts">
	import { Button, FileUploaderButton, Modal, TextArea } from 'carbon-components-svelte';
	import { readProbe } from '$core/probe';
	import probeScript from '$core/probe/probe.sh?raw';
	import { sentence } from '$core/basics/result';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { download } from '$lib/shell/download';
	import { store } from '$lib/store/workshop.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	let { onclose }: { onclose: () => void } = $props();
	const view = useEndpoint();
	let text = $state('');
	const read = $derived(text.trim() === '' ? null : readProbe(text));
	const facts = $derived(read?.ok ? read.value.facts : null);

	function take(): void {
		if (!facts) return;
		if (
			store.changeEndpoint(view.endpoint!.id, 'take in a probe report', (endpoint) => ({ ...endpoint, probe: facts }))
		)
			return;
		store.offerUndo('Probe report taken in.');
		onclose();
	}

	async function readFile(files: readonly File[]): Promise<void> {
		if (files[0]) text = await files[0].text();
	}
</script>

<Modal
	open
	modalHeading="What your board printed"
	primaryButtonText="Take it in"
	secondaryButtonText="Not now"
	primaryButtonDisabled={!facts}
	on:click:button--secondary={onclose}
	on:close={onclose}
	on:submit={take}
>
	<p>
		Run this small script on the board: it only reads, and sends nothing anywhere. Or paste the answer of a single
		command, such as <code>aplay -l</code>.
	</p>
	<p class="row">
		<Button size="small" kind="tertiary" on:click={() => download('probe.sh', probeScript, 'text/x-shellscript')}
			>Download probe.sh</Button
		>
		<CopyButton text={probeScript} label="Copy the script" />
		<FileUploaderButton
			size="small"
			kind="tertiary"
			labelText="Open a file"
			accept={['.txt', '.log', 'text/plain']}
			disableLabelChanges
			on:change={(event) => readFile(event.detail)}
		/>
	</p>
	<div class="paste"><TextArea labelText="Paste it here" rows={7} bind:value={text} spellcheck="false" /></div>
	{#if read && !read.ok}
		<p class="bad">{sentence(read.faults)}</p>
	{:else if read?.ok && facts}
		<p><strong>Understood:</strong> {read.value.understood.join(', ')}.</p>
		{#if facts.soundDevices.length}
			<ul>
				{#each facts.soundDevices as device (`${device.cardId},${device.deviceNumber}`)}
					<li>
						<code>{device.cardId}</code>, device {device.deviceNumber}: {device.cardName}
						{#if device.playback}<span class="soft"
								>· {device.playback.ratesHz.map((hz) => hz / 1000).join(', ')} kHz, {device.playback.formats.join(
									', '
								)}</span
							>{/if}
					</li>
				{/each}
			</ul>
		{:else}
			<p class="soft">No sound device in it.</p>
		{/if}
		{#if read.value.leftOut.length}
			<details open>
				<summary>{read.value.leftOut.length} things were left out, because they cannot be</summary>
				<pre>{read.value.leftOut.join('\n')}</pre>
			</details>
		{/if}
		{#if read.value.notUnderstood.length}
			<details>
				<summary>{read.value.notUnderstood.length} lines were not understood</summary>
				<pre>{read.value.notUnderstood.join('\n')}</pre>
			</details>
		{/if}
	{/if}
</Modal>

<style>
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
		margin: 10px 0;
	}
	.paste :global(textarea) {
		font-family: var(--mono);
		font-size: var(--size-small);
	}
	pre {
		overflow-x: auto;
		font-size: var(--size-small);
	}
	ul {
		padding-left: 18px;
	}
</style>
