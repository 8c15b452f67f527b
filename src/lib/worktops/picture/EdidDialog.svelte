<script lang="ts">
	import { FileUploaderButton, Modal, TextArea } from 'carbon-components-svelte';
	import { withUnit } from '$core/basics/format';
	import { sentence } from '$core/basics/result';
	import { findEdids, readEdid, toBase64 } from '$core/formats/edid';
	import { modeInWords } from '$core/links/picture/modes/written';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	let { onclose }: { onclose: () => void } = $props();
	const view = useEndpoint();
	let text = $state('');
	let bytes = $state.raw<Uint8Array>(new Uint8Array());
	let chosen = $state(0);
	/** Even a long probe report is smaller. */
	const MOST_BYTES = 4_000_000;
	let refused = $state('');
	const found = $derived(text.trim() === '' && bytes.length === 0 ? null : findEdids(bytes, text));
	const list = $derived(
		found?.ok ? found.value.map((one) => ({ ...one, edid: readEdid(one.bytes) })).filter(({ edid }) => edid.ok) : []
	);
	const take = (): void => {
		const one = list[Math.min(chosen, list.length - 1)];
		if (!one) return;
		const error = view.edit('Picture: EDID', (plan) => ({
			...plan,
			picture: {
				...plan.picture,
				edid: toBase64(one.bytes),
				mode: null,
				...(one.connector && /^[A-Za-z]+(?:-[A-Z])?-\d{1,2}$/.test(one.connector) ? { connector: one.connector } : {})
			}
		}));
		if (error === null) onclose();
	};
	async function open(files: readonly File[]): Promise<void> {
		const [file] = files;
		if (!file) return;
		refused =
			file.size > MOST_BYTES
				? `${file.name} has ${withUnit(file.size / 1e6, 0, 'MB')}; nothing that holds an EDID is larger than ${MOST_BYTES / 1e6}. Choose the file of one screen, or paste the part with its bytes.`
				: '';
		if (refused) return;
		bytes = new Uint8Array(await file.arrayBuffer());
		text = bytes[0] === 0 ? '' : new TextDecoder().decode(bytes);
		chosen = 0;
	}
</script>

<Modal
	open
	modalHeading="What the screen says of itself"
	primaryButtonText="Take it in"
	secondaryButtonText="Not now"
	primaryButtonDisabled={list.length === 0}
	on:click:button--secondary={onclose}
	on:close={onclose}
	on:submit={take}
>
	<p>
		Drop the file of a screen, or paste any text with its bytes: a hexadecimal dump, base64, what
		<code>xrandr --verbose</code> or <code>edid-decode</code> prints, or a whole probe report. On the endpoint itself:
	</p>
	<p class="mono">od -An -v -tx1 /sys/class/drm/card*-HDMI-A-1/edid</p>
	<p>
		<FileUploaderButton
			size="small"
			kind="tertiary"
			labelText="Open a file"
			disableLabelChanges
			on:change={(event) => open(event.detail)}
		/>
	</p>
	<TextArea
		labelText="Paste it here"
		rows={6}
		bind:value={text}
		spellcheck="false"
		on:input={() => (bytes = new Uint8Array())}
	/>
	{#if refused}<p class="bad" role="alert">{refused}</p>{/if}
	{#if found && !found.ok}<p class="bad" role="alert">{sentence(found.faults)}</p>{/if}
	{#if found?.ok && list.length === 0}<p class="bad" role="alert">
			What was found is no whole EDID. Copy all of it.
		</p>{/if}
	{#each list as one, n (n)}
		{#if one.edid.ok}
			<label class="found">
				<input type="radio" name="edid" checked={n === chosen} onchange={() => (chosen = n)} />
				<span>
					<b>{one.edid.value.name ?? one.edid.value.manufacturer}</b>{one.connector ? ` on ${one.connector}` : ''},
					{one.bytes.length} bytes, {one.edid.value.modes.length} modes{one.edid.value.preferred
						? `; prefers ${modeInWords(one.edid.value.preferred)}`
						: ''}.
					{#each one.edid.value.remarks as remark, k (k)}<span class="soft small">{remark.message} </span>{/each}
				</span>
			</label>
		{/if}
	{/each}
</Modal>

<style>
	.found {
		display: flex;
		gap: 8px;
		padding: 6px 0;
	}
	.mono {
		font-family: var(--mono);
		font-size: var(--size-small);
		margin: 6px 0;
	}
</style>
