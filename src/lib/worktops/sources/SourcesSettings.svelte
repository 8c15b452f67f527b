<script lang="ts">
	import { Button, Checkbox, FileUploaderButton, ProgressBar, TextInput } from 'carbon-components-svelte';
	import { isStream, writeM3u, writeOpml, writeXspf } from '$core/formats/playlist';
	import { sourceItem } from '$core/links/sources/settings';
	import { formatBytes, formatSeconds } from '$core/basics/format';
	import { sentence } from '$core/basics/result';
	import { download, safeName } from '$lib/shell/download';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, SwitchField, TextField } from '$lib/fields';
	import { readInWorker } from '$lib/readers/readInWorker';
	import { pausesOf, USUAL_PAUSES } from '$core/links/sources/streams/buffer';
	import { isFetched } from '$core/links/sources/streams/receive';
	import { mountPoint, storeOf } from '$core/links/sources/stores/stores';
	import Rules from './Rules.svelte';
	import Stores from './Stores.svelte';
	import StreamCheck from './StreamCheck.svelte';
	import { addPlaylist, mediaIn, roomIn, takeMediaFiles } from './sourcesIntake';

	const view = useEndpoint();
	const sources = $derived(view.plan.sources);
	/** Streams that are fetched, not waited for. */
	const fetched = $derived(sources.items.some(isFetched));
	let address = $state('');
	let problem = $state('');
	let remarks = $state<readonly string[]>([]);

	function addStream(): void {
		const location = address.trim();
		const parsed = sourceItem.safeParse({
			id: crypto.randomUUID(),
			location,
			title: '',
			durationSec: null,
			extra: [],
			part: null
		});
		problem = !parsed.success
			? parsed.error.issues[0]!.message
			: isStream(location) || storeOf(sources.stores, location)
				? ''
				: location.startsWith('/')
					? 'No share or stick of this endpoint is mounted there. Add it below first.'
					: 'An address begins with http:// or https://, a path on a share or stick with /srv/. For a file of yours, use the button below.';
		if (problem || !parsed.success) return;
		view.edit('add to the list', (plan) => ({
			...plan,
			sources: { ...plan.sources, items: [...plan.sources.items, parsed.data] }
		}));
		address = '';
	}

	async function importLists(files: readonly File[]): Promise<void> {
		problem = '';
		remarks = [];
		for (const file of files) {
			const read = await readInWorker('playlist', file);
			if (!read.ok) {
				problem = [problem, `${file.name}: ${sentence(read.faults)}`].filter(Boolean).join(' ');
				continue;
			}
			const { entries, format, remarks: said } = read.value;
			const room = roomIn(view.plan);
			let odd: readonly string[] = [];
			const refused = view.edit('import a playlist', (plan) => {
				const added = addPlaylist(plan, read.value, () => crypto.randomUUID());
				odd = added.refused;
				return added.plan;
			});
			remarks = [
				...remarks,
				refused ?? `${file.name}: ${Math.min(room, entries.length) - odd.length} entries, ${format}.`,
				...odd.slice(0, 5).map((words) => `Left out: ${words}`),
				...(odd.length > 5 ? [`${odd.length - 5} more were left out for the like.`] : []),
				...(entries.length > room
					? [
							`The list is full: ${entries.length - room} of ${file.name} ${entries.length - room === 1 ? 'was' : 'were'} left out.`
						]
					: []),
				...said
			];
		}
	}

	/** The buttons gather what was picked before; each time only what is new is meant. */
	let pickedLists = $state.raw<readonly File[]>([]);
	let pickedFiles = $state.raw<readonly File[]>([]);
	/** How far taking in is; null while nothing is taken in. */
	let intake = $state<{
		done: number;
		of: number;
		bytes: number;
		ofBytes: number;
		sinceMs: number;
		stop: () => void;
	} | null>(null);
	let folder = $state<HTMLInputElement>();
	let loudness = $state(true);
	const intakeWords = $derived.by(() => {
		if (!intake) return '';
		const { done, of, bytes, ofBytes, sinceMs } = intake;
		const seconds = (performance.now() - sinceMs) / 1000;
		if (done === 0 || seconds < 1) return `Reading ${of} file${of === 1 ? '' : 's'}`;
		const left = (seconds * (ofBytes - bytes)) / Math.max(1, bytes);
		return `Read ${done} of ${of}, ${formatBytes(bytes / seconds)} a second; ${formatSeconds(left * 1000)} left`;
	});

	async function addFiles(files: readonly File[]): Promise<void> {
		const giveUp = new AbortController();
		intake = {
			done: 0,
			of: files.length,
			bytes: 0,
			ofBytes: files.reduce((sum, { size }) => sum + size, 0),
			sinceMs: performance.now(),
			stop: () => giveUp.abort()
		};
		try {
			remarks = await takeMediaFiles(view.endpoint!.id, files, {
				onFile: (done, bytes) => (intake = intake && { ...intake, done, bytes }),
				signal: giveUp.signal,
				loudness
			});
			await view.loadMedia();
		} finally {
			intake = null;
		}
	}
	async function addFolder(all: readonly File[]): Promise<void> {
		const files = mediaIn(all);
		if (files.length) return addFiles(files);
		remarks = [`None of the ${all.length} files in that folder can be played.`];
	}

	const list = $derived({
		title: sources.listTitle || null,
		header: sources.header,
		entries: sources.items.map((item) => ({ ...item, title: item.title || null }))
	});
	const name = $derived(safeName(sources.listTitle || view.plan.brief.name));
</script>

<TextField path="sources.listTitle" value={sources.listTitle} />
<SwitchField path="sources.waitForNetwork" value={sources.waitForNetwork} />
<ChoiceField
	path="sources.carry"
	value={sources.carry}
	options={[
		{ value: 'set', text: 'In the card set' },
		{ value: 'self', text: 'You copy them over the network' }
	]}
	hint={sources.carry === 'set'
		? 'Nothing to copy by hand; the first partition must have the room. Files over 64 MB are copied in any case.'
		: 'No limit but the card; the run sheet has the command, and a list of names for it.'}
/>
<form
	onsubmit={(event) => {
		event.preventDefault();
		addStream();
	}}
>
	<TextInput
		labelText={sources.stores.length ? 'Address of a stream, or path on a share or stick' : 'Address of a stream'}
		placeholder={sources.stores[0] ? `${mountPoint(sources.stores[0])}/…` : 'http://…'}
		bind:value={address}
		invalid={problem !== ''}
		invalidText={problem}
	/>
	<Button size="small" kind="tertiary" type="submit">{sources.stores.length ? 'Add to the list' : 'Add stream'}</Button>
</form>
<div class="row">
	<FileUploaderButton
		size="small"
		kind="tertiary"
		multiple
		labelText="Import a playlist"
		disableLabelChanges
		accept={['.m3u', '.m3u8', '.pls', '.xspf', '.opml']}
		bind:files={pickedLists}
		on:change={(event) => {
			const files = [...event.detail];
			pickedLists = [];
			void importLists(files);
		}}
	/>
	<FileUploaderButton
		size="small"
		kind="tertiary"
		multiple
		disabled={intake !== null}
		labelText="Add files"
		disableLabelChanges
		accept={['audio/*', 'video/*', 'image/*', '.flac', '.wav', '.mp4']}
		bind:files={pickedFiles}
		on:change={(event) => {
			const files = [...event.detail];
			pickedFiles = [];
			void addFiles(files);
		}}
	/>
	<Button size="small" kind="tertiary" disabled={intake !== null} on:click={() => folder?.click()}>Add a folder</Button>
	<input
		bind:this={folder}
		type="file"
		webkitdirectory
		hidden
		aria-label="Folder with media files"
		onchange={(event) => {
			void addFolder([...(event.currentTarget.files ?? [])]);
			event.currentTarget.value = '';
		}}
	/>
</div>
<div><Checkbox labelText="Measure loudness of files that are added (takes longer)" bind:checked={loudness} /></div>
{#if intake}
	<div class="row" role="status">
		<ProgressBar size="sm" value={(100 * intake.bytes) / Math.max(1, intake.ofBytes)} labelText={intakeWords} />
		<Button size="small" kind="ghost" on:click={intake.stop}>Stop</Button>
	</div>
{/if}
{#if remarks.length}<ul class="soft small" aria-live="polite">
		{#each remarks as remark, n (n)}<li>{remark}</li>{/each}
	</ul>{/if}
<div class="row">
	<Button
		size="small"
		kind="ghost"
		disabled={sources.items.length === 0}
		on:click={() => download(`${name}.m3u8`, writeM3u(list), 'audio/x-mpegurl')}>Save as M3U8</Button
	>
	<Button
		size="small"
		kind="ghost"
		disabled={sources.items.length === 0}
		on:click={() => download(`${name}.xspf`, writeXspf(list), 'application/xspf+xml')}>Save as XSPF</Button
	>
	<Button
		size="small"
		kind="ghost"
		disabled={!fetched}
		on:click={() => download(`${name}.opml`, writeOpml(list), 'text/x-opml')}>Save streams as OPML</Button
	>
</div>

{#if fetched}
	<h3>Streams</h3>
	<StreamCheck />
	<NumberField
		path="sources.bufferSec"
		unit="s"
		step={0.5}
		value={sources.bufferSec}
		hint="Bridges pauses; each start waits for it, and a live programme comes as much later."
	/>
	{#if sources.pauses}
		<div class="two" id="setting-sources.pauses">
			<NumberField
				path="sources.pauses.perHour"
				label="Pauses"
				unit="an hour"
				value={sources.pauses.perHour}
				put={(perHour) => view.set('sources.pauses', { ...sources.pauses, perHour })}
			/>
			<NumberField
				path="sources.pauses.meanSec"
				label="each lasts"
				unit="s"
				step={0.1}
				value={sources.pauses.meanSec}
				put={(meanSec) => view.set('sources.pauses', { ...sources.pauses, meanSec })}
			/>
		</div>
		<Button kind="ghost" size="small" on:click={() => view.set('sources.pauses', null)}>As is usual of this way</Button>
	{:else}
		<div id="setting-sources.pauses">
			<Button
				kind="tertiary"
				size="small"
				on:click={() => view.set('sources.pauses', { ...(pausesOf(sources, view.context) ?? USUAL_PAUSES.wired) })}
				>Enter pauses that were measured</Button
			>
		</div>
	{/if}
{/if}
<h3>Shares and sticks</h3>
<Stores />
{#if sources.stores.length || sources.rules.length}
	<h3>Rules</h3>
	<Rules />
{/if}

<style>
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	form {
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	form > :global(.bx--form-item) {
		width: 100%;
	}
	ul {
		margin: 0;
		padding-left: 18px;
	}
</style>
