<script lang="ts">
	import { Button, FileUploaderButton } from 'carbon-components-svelte';
	import { formatBytes, formatSeconds } from '$core/basics/format';
	import { digestFor, readDigests, type DigestKind } from '$core/image/digest';
	import { fitLine } from '$core/basics/text';
	import { sentence } from '$core/basics/result';
	import Mark from '$lib/shell/Mark.svelte';
	import { readImage, type ImageDone } from '$lib/image/readImage';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import CopyButton from '$lib/shell/CopyButton.svelte';

	interface Props {
		/** Why what was dropped must not be written; "": nothing speaks against it. */
		unfit: string;
	}
	let { unfit = $bindable() }: Props = $props();
	const view = useEndpoint();
	const kept = $derived(view.plan.card.image);
	let file = $state.raw<File | null>(null);
	let digestText = $state('');
	let result = $state.raw<ImageDone | null>(null);
	let reading = $state.raw<{ cancel(): void } | null>(null);
	let bytes = $state(0);
	let startedMs = 0;
	let elapsedMs = $state(0);
	let problem = $state('');
	let over = $state(false);

	const digests = $derived(digestText.trim() === '' ? null : readDigests(digestText));
	const wanted = $derived(digests?.ok ? digestFor(digests.value, file?.name ?? kept?.name ?? '') : null);
	const compared = $derived(wanted && result?.digests[wanted.kind] ? result.digests[wanted.kind] === wanted.hex : null);
	const rawBytes = $derived(result?.scan?.rawBytes ?? 0);
	const smallest = $derived(
		Math.min(
			...view.context.drawer.flatMap((part) =>
				part.kind === 'card' && part.capacityGb * 1e9 >= rawBytes ? [part.capacityGb] : []
			)
		)
	);
	const grows = $derived.by(() => {
		const card = view.context.part('card', view.plan.parts.card);
		return card && card.capacityGb * 1e9 > rawBytes ? formatBytes(card.capacityGb * 1e9 - rawBytes) : '';
	});
	const rate = $derived(elapsedMs > 0 ? bytes / (elapsedMs / 1000) : 0);

	async function read(chosen: File): Promise<void> {
		reading?.cancel();
		file = chosen;
		result = null;
		problem = '';
		bytes = elapsedMs = 0;
		startedMs = performance.now();
		const more: DigestKind[] = digests?.ok ? digests.value.map(({ kind }) => kind) : [];
		const task = readImage(chosen, [...new Set<DigestKind>(['sha256', ...more])], (done) => {
			bytes = done;
			elapsedMs = performance.now() - startedMs;
		});
		reading = task;
		try {
			const done = await task.done;
			bytes = chosen.size;
			elapsedMs = performance.now() - startedMs;
			result = done;
		} catch (error) {
			problem = (error as Error).message;
		}
		reading = null;
	}
	function cancel(): void {
		reading?.cancel();
		reading = null;
		file = null;
	}

	/** A digest of another kind was pasted after the image had been read: once more, for that one. */
	$effect(() => {
		if (wanted && file && result && !reading && result.digests[wanted.kind] === undefined) void read(file);
	});

	$effect(() => {
		unfit =
			compared === false
				? `${file?.name ?? 'It'} differs from what its publisher made. Fetch it again, or paste the right digest.`
				: result?.torn
					? `${file?.name ?? 'It'} is cut off or damaged. Fetch it again.`
					: '';
	});

	/** The plan keeps what was found; a digest that differs keeps nothing. */
	$effect(() => {
		if (!result || !file || compared === false || result.torn) return;
		const facts = {
			name: fitLine(file.name, 255),
			form: result.form,
			fileBytes: file.size,
			rawBytes: result.scan?.rawBytes ?? (result.form === 'raw' ? file.size : null),
			sha256: result.digests.sha256 ?? '',
			checked: compared ? ('same' as const) : ('no' as const),
			takesSeed: result.scan?.takesSeed ?? null,
			firstFreeBytes: result.scan?.firstFreeBytes ?? null
		};
		if (JSON.stringify(facts) !== JSON.stringify(view.plan.card.image)) problem = view.set('card.image', facts) ?? '';
	});
	async function takeDigestFile(files: readonly File[]): Promise<void> {
		if (files[0]) digestText = await files[0].text();
	}
</script>

<section class="sheet" aria-label="The image">
	<h2>1. The image</h2>
	{#if reading && file}
		<p>Reading <b>{file.name}</b>, once, piece by piece. Nothing leaves this computer.</p>
		<progress max={file.size} value={bytes}></progress>
		<p class="mono small">
			{formatBytes(bytes)} of {formatBytes(file.size)} · {formatBytes(rate)}/s{rate > 0
				? ` · ${formatSeconds(((file.size - bytes) / rate) * 1000)} left`
				: ''}
		</p>
		<Button kind="tertiary" on:click={cancel}>Cancel</Button>
	{:else}
		<label
			class="drop"
			class:over
			ondragover={(event) => (event.preventDefault(), (over = true))}
			ondragleave={() => (over = false)}
			ondrop={(event) => {
				event.preventDefault();
				over = false;
				const dropped = event.dataTransfer?.files[0];
				if (dropped) void read(dropped);
			}}
		>
			<span
				>{kept
					? `Now: ${kept.name}. Drop another image here, or choose one.`
					: 'Drop the image file here, or choose it. Any size.'}</span
			>
			<input
				type="file"
				class="visually-hidden"
				onchange={(event) => {
					const picked = event.currentTarget.files?.[0];
					if (picked) void read(picked);
				}}
			/>
		</label>
	{/if}
	{#if problem}<p class="bad" role="alert">{problem}</p>{/if}
	<label class="small soft"
		>The publisher’s digest, or the file it stands in
		<textarea
			rows="2"
			class="mono"
			spellcheck="false"
			placeholder="64 letters and digits, or SHA256SUMS"
			bind:value={digestText}></textarea>
	</label>
	<FileUploaderButton
		kind="ghost"
		labelText="Read it from a file"
		disableLabelChanges
		accept={['.sha256', '.sha1', '.md5', '.txt', '.asc', '.sig', '.minisig']}
		on:change={(event) => takeDigestFile(event.detail)}
	/>
	{#if digests && !digests.ok}<p class="bad small" role="alert">{sentence(digests.faults)}</p>{/if}
	{#if digests?.ok && file && !wanted}<p class="bad small">None of these digests is of {file.name}.</p>{/if}
	{#if compared === false}
		<p class="verdict stop" role="alert">
			<Mark level="stop" /> It differs. Do not write it: fetch it again from the publisher’s own page.
		</p>
	{:else if compared}
		<p class="verdict well" role="status"><Mark level={null} /> The same as the publisher’s digest ({wanted!.kind}).</p>
	{/if}
	{#if result?.digests.sha256}
		<p class="mono small digest">SHA-256 {result.digests.sha256} <CopyButton text={result.digests.sha256} /></p>
	{/if}
	{#if result?.scan}
		{@const { scan } = result}
		{#if scan.table}
			<table class="rows">
				<caption class="small soft"
					>{scan.table.kind.toUpperCase()}, {formatBytes(scan.rawBytes)} on the card.
					{Number.isFinite(smallest) ? `The smallest card that fits: ${smallest} GB.` : ''}
					{grows ? `On the plan’s card ${grows} are left for it to grow.` : ''}
					{scan.takesSeed === true
						? 'It has a place for a seed.'
						: scan.takesSeed === false
							? 'No place for a seed was seen.'
							: ''}</caption
				>
				<thead><tr><th>No.</th><th>Kind</th><th>Holds</th><th>Name</th><th class="n">Size</th></tr></thead>
				<tbody>
					{#each scan.partitions as part, n (n)}
						<tr>
							<td>{part.number}</td><td>{part.type}</td><td>{part.fileSystem?.type ?? 'unknown'}</td>
							<td>{part.fileSystem?.label || part.name}</td><td class="n mono">{formatBytes(part.bytes)}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}
			<p class="bad small">{scan.why}</p>
		{/if}
	{:else if result?.torn}
		<p class="bad small" role="alert">
			It is cut off, or damaged: it could not be unpacked to its end. Do not write it; fetch it again.
		</p>
	{:else if result}
		<p class="soft small">
			Packed as {result.form}: its digest is known, what is in it shows only when it is unpacked. Raw images and gzip
			are looked into.
		</p>
	{/if}
</section>

<style>
	section {
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	.drop {
		border: 1.5px dashed var(--rule-strong);
		border-radius: var(--radius);
		padding: 20px 14px;
		box-sizing: border-box;
		color: var(--bottle);
		font-weight: 600;
		cursor: pointer;
		text-align: center;
	}
	.drop:hover,
	.drop.over,
	.drop:focus-within {
		background: var(--bottle-wash);
		border-color: var(--bottle);
	}
	progress {
		width: 100%;
		accent-color: var(--bottle);
	}
	label {
		display: grid;
		gap: 3px;
		width: 100%;
	}
	textarea {
		font-size: var(--size-small);
	}
	.digest {
		overflow-wrap: anywhere;
	}
	.verdict {
		display: flex;
		gap: 8px;
		align-items: center;
		padding: 6px 10px;
		border-radius: var(--radius);
	}
	.stop {
		background: var(--brick-wash);
	}
	.well {
		background: var(--bottle-wash);
	}
	caption {
		text-align: left;
		padding-bottom: 4px;
	}
</style>
