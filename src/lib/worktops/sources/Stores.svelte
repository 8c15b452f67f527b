<script lang="ts">
	import { Button, FileUploaderButton, TextArea } from 'carbon-components-svelte';
	import { sentence } from '$core/basics/result';
	import { fromListing, LISTING_COMMANDS } from '$core/links/sources/stores/fromListing';
	import { readListing, type Listing } from '$core/links/sources/stores/storeListing';
	import { listCommand } from '$core/links/sources/stores/storeSteps';
	import { asksPassword, isShare, mountPoint, newStore, type Store } from '$core/links/sources/stores/stores';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, TextField } from '$lib/fields';
	import { readInWorker } from '$lib/readers/readInWorker';
	import { takeListing } from './sourcesIntake';
	import CopyButton from '$lib/shell/CopyButton.svelte';

	const view = useEndpoint();
	/** What became of the last listing, by the store's id. */
	let brought = $state<Record<string, readonly string[]>>({});

	async function addListed(store: Store, files: readonly File[]): Promise<void> {
		const remarks: string[] = [];
		for (const file of files) {
			const read = await readInWorker('listing', file);
			remarks.push(
				...(read.ok
					? takeListing(view.endpoint!.id, fromListing(read.value, store))
					: [`${file.name}: ${sentence(read.faults)}`])
			);
		}
		brought[store.id] = remarks;
		await view.loadMedia();
	}
	const stores = $derived(view.plan.sources.stores);
	/** What a server printed, by the store's id. */
	let said = $state<Record<string, string>>({});

	const KINDS = {
		smb: 'Windows share (SMB)',
		nfs: 'Exported folder (NFS)',
		stick: 'Stick or drive'
	} as const satisfies Record<Store['kind'], string>;
	const KIND_IDS = Object.keys(KINDS) as Store['kind'][];

	function add(kind: Store['kind']): void {
		view.set('sources.stores', [...stores, newStore(kind, crypto.randomUUID(), stores)]);
	}
	const put =
		(store: Store, key: string) =>
		(value: string): string | null =>
			view.set(
				'sources.stores',
				stores.map((one) => (one.id === store.id ? { ...one, [key]: value } : one))
			);
	/** A folder that is renamed takes its entries along. */
	function rename(store: Store, name: string): string | null {
		return view.edit('rename the folder', (plan) => {
			const renamed = plan.sources.stores.map((one) => (one.id === store.id ? { ...one, name } : one));
			const from = `${mountPoint(store)}/`;
			return {
				...plan,
				sources: {
					...plan.sources,
					stores: renamed,
					rules: plan.sources.rules.map((rule) => ({
						...rule,
						folders: rule.folders.map((folder) =>
							`${folder}/`.startsWith(from) ? `${mountPoint({ name })}${folder.slice(from.length - 1)}` : folder
						)
					})),
					items: plan.sources.items.map((item) =>
						item.location.startsWith(from)
							? { ...item, location: `${mountPoint({ name })}/${item.location.slice(from.length)}` }
							: item
					)
				}
			};
		});
	}
	function readSaid(store: Store): { listing: Listing | null; problem: string } {
		const text = said[store.id] ?? '';
		if (text.trim() === '') return { listing: null, problem: '' };
		const read = readListing(text);
		return read.ok ? { listing: read.value, problem: '' } : { listing: null, problem: sentence(read.faults) };
	}
</script>

<div id="setting-sources.stores" class="list" tabindex="-1">
	{#each stores as store, n (store.id)}
		{@const { listing, problem } = readSaid(store)}
		<section class="one" aria-label={KINDS[store.kind]}>
			<h4>{KINDS[store.kind]}</h4>
			{#if isShare(store)}
				<TextField
					path={`sources.stores.${n}.server`}
					label="Server"
					value={store.server}
					put={put(store, 'server')}
					hint="Its name or its number."
				/>
				<TextField
					path={`sources.stores.${n}.share`}
					label={store.kind === 'smb' ? 'Share, and a folder in it' : 'Exported folder'}
					value={store.share}
					put={put(store, 'share')}
				/>
			{/if}
			{#if store.kind === 'smb'}
				<TextField
					path={`sources.stores.${n}.user`}
					label="User"
					value={store.user}
					put={put(store, 'user')}
					hint={asksPassword(store)
						? 'Its password is asked for when the set is written, and stands on the card readable: use an account made for this endpoint alone.'
						: 'Empty: as a guest, which most servers refuse.'}
				/>
				<ChoiceField
					path={`sources.stores.${n}.version`}
					label="Protocol"
					value={store.version}
					onpick={put(store, 'version')}
					options={[
						{ value: 'auto', text: 'the newest that both know' },
						{ value: '3.1.1', text: 'SMB 3.1.1' },
						{ value: '3.0', text: 'SMB 3.0' },
						{ value: '2.1', text: 'SMB 2.1, of old servers' }
					]}
				/>
			{:else if store.kind === 'nfs'}
				<ChoiceField
					path={`sources.stores.${n}.version`}
					label="Protocol"
					value={store.version}
					onpick={put(store, 'version')}
					options={[
						{ value: 'auto', text: 'the newest that both know' },
						{ value: '4.2', text: 'NFS 4.2' },
						{ value: '3', text: 'NFS 3' }
					]}
				/>
			{:else}
				<TextField
					path={`sources.stores.${n}.label`}
					label="Its name (label)"
					value={store.label}
					put={put(store, 'label')}
				/>
				<ChoiceField
					path={`sources.stores.${n}.fileSystem`}
					label="File system"
					value={store.fileSystem}
					onpick={put(store, 'fileSystem')}
					options={[
						{ value: 'exfat', text: 'exFAT: any size, every computer' },
						{ value: 'vfat', text: 'FAT: files up to 4 GB' },
						{ value: 'ntfs-3g', text: 'NTFS: of Windows, by a program of its own' },
						{ value: 'ext4', text: 'ext4: of Linux' }
					]}
				/>
			{/if}
			{#if isShare(store)}
				<ChoiceField
					path={`sources.stores.${n}.access`}
					label="The endpoint may"
					value={store.access}
					onpick={put(store, 'access')}
					options={[
						{ value: 'read', text: 'only read: enough for what plays' },
						{ value: 'write', text: 'read and write: for recordings' }
					]}
					hint={store.access === 'write' ? 'It tries at each start whether it can, and says so where it cannot.' : ''}
				/>
			{/if}
			<TextField
				path={`sources.stores.${n}.name`}
				label="Folder on the endpoint"
				value={store.name}
				put={(name) => rename(store, name)}
				hint={`Its files are listed as ${mountPoint(store)}/…`}
			/>
			{#if isShare(store)}
				<details>
					<summary>Ask the server what it has</summary>
					<p class="small soft">On your own computer run this, and paste what it prints.</p>
					<div class="command"><code>{listCommand(store)}</code><CopyButton text={listCommand(store)} /></div>
					<TextArea
						labelText="What it printed"
						rows={3}
						bind:value={said[store.id]}
						invalid={problem !== ''}
						invalidText={problem}
					/>
					{#if listing}
						<div class="found" role="status">
							{#if listing.shares.some(({ name }) => name === store.share || store.share.startsWith(`${name}/`))}
								<p>{store.share} is there.</p>
							{:else if listing.shares.length === 0}
								<p>It has no share that holds files.</p>
							{:else}
								<p>There is no {store.share}. It has:</p>
								{#each listing.shares as { name, note } (name)}
									<Button size="small" kind="tertiary" on:click={() => put(store, 'share')(name)}
										>{`Use ${name}${note ? ` (${note})` : ''}`}</Button
									>
								{/each}
							{/if}
						</div>
					{/if}
				</details>
			{/if}
			<details>
				<summary>Add its files from a list</summary>
				<p class="small soft">
					In the folder that holds them, on the server or on your own computer, run one of these, and choose the file
					that it makes.
				</p>
				{#each Object.entries(LISTING_COMMANDS) as [id, { words, command }] (id)}
					<p class="small">{words}</p>
					<div class="command"><code>{command}</code><CopyButton text={command} /></div>
				{/each}
				<FileUploaderButton
					size="small"
					kind="tertiary"
					labelText="Choose the list"
					disableLabelChanges
					accept={['.json', '.txt', '.tsv', '.list']}
					on:change={(event) => addListed(store, event.detail)}
				/>
				{#if brought[store.id]?.length}
					<ul class="small" aria-live="polite">
						{#each brought[store.id] ?? [] as remark, k (k)}<li>{remark}</li>{/each}
					</ul>
				{/if}
			</details>
			<Button
				kind="ghost"
				size="small"
				on:click={() =>
					view.set(
						'sources.stores',
						stores.filter(({ id }) => id !== store.id)
					)}>Take out</Button
			>
		</section>
	{:else}
		<p class="soft">Files may also lie on a file server, or on a stick in the endpoint.</p>
	{/each}
	<div class="row">
		{#each KIND_IDS as kind (kind)}
			<Button kind="tertiary" size="small" disabled={stores.length >= 8} on:click={() => add(kind)}
				>Add {kind === 'smb' ? 'SMB share' : kind === 'nfs' ? 'NFS folder' : 'stick'}</Button
			>
		{/each}
	</div>
</div>

<style>
	.list,
	.one,
	.found {
		display: grid;
		gap: 8px;
	}
	.one {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 8px 10px;
		background: var(--sheet);
	}
	.one > :global(.bx--btn),
	.found > :global(.bx--btn) {
		justify-self: start;
	}
	.command {
		display: flex;
		gap: 8px;
		align-items: center;
		overflow-x: auto;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	.command code {
		overflow-wrap: anywhere;
		flex: 1;
	}
	ul {
		margin: 0;
		padding-left: 18px;
	}
	h4 {
		margin: 0;
		font-size: inherit;
	}
</style>
