<script lang="ts">
	import { Button, FileUploaderButton, ProgressBar } from 'carbon-components-svelte';
	import { RENEW_UNIT } from '$core/links/delivery/places';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { Packer } from '$lib/pack/packer.svelte';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { download, safeName } from '$lib/shell/download';
	import { store } from '$lib/store/workshop.svelte';

	const view = useEndpoint();
	const delivery = $derived(view.plan.delivery);
	const stops = $derived(view.assessment.findings.filter(({ level }) => level === 'stop').length);
	/** The private key, for as long as this page stands; it is kept nowhere. */
	let privatePem = $state('');
	let keyName = $state('');
	let failed = $state('');
	const packer = new Packer();
	const { facts } = $derived(view.context);
	const look = $derived(`ssh ${facts.keeper}@${facts.hostName}.local sudo systemctl start ${RENEW_UNIT}.service`);

	async function takeKey(files: readonly File[]): Promise<void> {
		failed = '';
		const [file] = files;
		if (!file) return;
		if (file.size > 10_000) failed = `${file.name} is too large for a key.`;
		else [privatePem, keyName] = [await file.text(), file.name];
	}

	async function packSet(): Promise<void> {
		failed = '';
		try {
			const workshop = store.workshop!;
			const made = await packer.run(async (remote, onPart, signal) =>
				remote.content(workshop, view.endpoint!.id, privatePem, await packer.drawn(view, signal), onPart)
			);
			if (!made) return;
			failed = made.problem;
			if (!made.zip) return;
			download(`${safeName(view.plan.brief.name)}-content.zip`, made.zip);
			store.said = 'Content packed; unpack it where the endpoint looks for it';
		} catch (error) {
			failed = `The set could not be made: ${(error as Error).message}. Nothing was downloaded; try again.`;
		}
	}
</script>

<section class="sheet" aria-label="Packing new content">
	<h3>Pack new content</h3>
	<p class="small">
		Pages, lists, rules and media as they stand now, in one archive. Unpack it into
		{#if delivery.from}<code class="mono">{delivery.from}</code>{:else}the folder that you name{/if}, over what is
		there: an endpoint that is fetching at that moment goes on undisturbed.
	</p>
	{#if delivery.publicKey}
		<div class="row">
			<FileUploaderButton
				labelText="Choose your signing key"
				kind="tertiary"
				size="small"
				accept={['.pem', '.key']}
				disableLabelChanges
				on:change={(event) => takeKey(event.detail)}
			/>
			<span class="soft small">{keyName || 'yphos-signing-key.pem; it is read here and kept nowhere'}</span>
		</div>
	{/if}
	{#if packer.busy}
		<ProgressBar
			value={packer.part * 100}
			labelText={packer.draws ? 'Drawing the pages' : 'Packing'}
			helperText={`${Math.round(packer.part * 100)} %`}
		/>
		<Button size="small" kind="ghost" on:click={() => packer.cancel()}>Stop</Button>
	{:else}
		<div class="row">
			<Button size="small" disabled={stops > 0 || (delivery.publicKey !== '' && privatePem === '')} on:click={packSet}
				>Pack and download</Button
			>
			{#if stops}<span class="soft small"
					>A plan with a stop is never packed: mend {stops === 1 ? 'it' : 'them'} first.</span
				>{:else if delivery.publicKey && !privatePem}<span class="soft small"
					>It must be signed: choose the key first.</span
				>{/if}
		</div>
	{/if}
	{#if failed}<p class="bad" role="alert">{failed}</p>{/if}
	{#if facts.keeper && facts.way !== 'none'}
		<div class="command">
			<span class="head"><b>Not to wait until then</b><CopyButton text={look} /></span>
			<code class="mono small">{look}</code>
		</div>
	{/if}
</section>

<style>
	section {
		display: grid;
		gap: 12px;
		justify-items: start;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 12px;
	}
	.command {
		display: grid;
		gap: 4px;
		width: 100%;
	}
	.head {
		display: flex;
		justify-content: space-between;
		gap: 12px;
	}
	.command code {
		overflow-wrap: anywhere;
		background: var(--paper);
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 6px 8px;
		user-select: all;
	}
	.bad {
		color: var(--signal);
	}
</style>
