<script lang="ts">
	import { Button, FileUploaderButton, Modal, ProgressBar, TextInput } from 'carbon-components-svelte';
	import { venueSchema, type Venue } from '$core/plan/venue';
	import { canonicalTimeZone, TIME_ZONES } from '$core/standards/timeZones';
	import KeptAsideList from '$lib/shell/KeptAsideList.svelte';
	import OwnWorkshop from '$lib/shell/OwnWorkshop.svelte';
	import NoticeTheme from '$lib/shell/NoticeTheme.svelte';
	import OpeningHours from '$lib/shell/OpeningHours.svelte';
	import LanFields from '$lib/shell/LanFields.svelte';
	import { download, safeName } from '$lib/shell/download';
	import { Packer } from '$lib/pack/packer.svelte';
	import { store } from '$lib/store/workshop.svelte';
	import { readInWorker } from '$lib/readers/readInWorker';
	import { sentence, type Result } from '$core/basics/result';
	import type { Opened } from '$core/plan/open';
	import type { Workshop } from '$core/plan/workshop';
	import { demoWorkshop } from '$demo/workshop';

	/** What is a line of text or a number; the rest has a form of its own. */
	type VenueField = 'name' | 'timeZone' | 'currency' | 'pricePerKwh' | 'mainsV';
	const workshop = $derived(store.workshop!);
	let drafts = $state<Partial<Venue>>({});
	let errors = $state<Partial<Record<keyof Venue, string>>>({});
	let answer = $state('');
	let starting = $state(false);
	/** What was just done can be taken back by one press. */
	let undoable = $state(false);
	let replacing = $state.raw<{ name: string; opened: Opened } | null>(null);
	const packer = new Packer();
	const FIELDS: { key: VenueField; label: string; hint: string }[] = [
		{ key: 'name', label: 'Name of the venue', hint: '' },
		{ key: 'timeZone', label: 'Time zone', hint: 'As in the tz database: quiet hours and timers follow it.' },
		{ key: 'currency', label: 'Currency', hint: 'Three letters.' },
		{ key: 'pricePerKwh', label: 'What a kilowatt hour costs', hint: 'In that currency; it is on the bill.' },
		{ key: 'mainsV', label: 'Mains voltage (V)', hint: '230 in most of the world, 120 in North America.' }
	];

	function typed(key: VenueField, value: string): void {
		const isNumber = typeof workshop.venue[key] === 'number';
		const meant = isNumber
			? value.trim() === ''
				? value
				: Number(value.trim().replace(',', '.'))
			: key === 'timeZone'
				? (canonicalTimeZone(value) ?? value)
				: value;
		const parsed = venueSchema.shape[key].safeParse(meant);
		errors[key] = parsed.success
			? undefined
			: isNumber && typeof meant !== 'number'
				? 'A number, please.'
				: parsed.error.issues[0]!.message;
		if (parsed.success) {
			// What is half typed, such as "0.", stays as it stands.
			if (String(meant) !== value) drafts = { ...drafts, [key]: value as never };
			else delete drafts[key];
			store.change(`venue: ${FIELDS.find((field) => field.key === key)!.label.toLowerCase()}`, (current) => ({
				...current,
				venue: { ...current.venue, [key]: meant }
			}));
		} else drafts = { ...drafts, [key]: value as never };
	}
	const save = (): void =>
		download(
			`${safeName(workshop.venue.name)}.yphos.json`,
			`${JSON.stringify(workshop, null, '\t')}\n`,
			'application/json'
		);
	const openDemo = (): void => {
		replacing = { name: 'The demo', opened: { workshop: demoWorkshop, damaged: [], remarks: [] } };
	};
	const counted = ({ endpoints, parts }: Workshop): string =>
		`${endpoints.length} endpoint${endpoints.length === 1 ? '' : 's'}, ${parts.length} own part${parts.length === 1 ? '' : 's'}`;
	async function open(files: readonly File[]): Promise<void> {
		if (!files[0]) return;
		const file = files[0];
		const isArchive = /\.zip$/i.test(file.name);
		const read = isArchive ? await openArchive(file) : await readInWorker('workshop', file, store.zone);
		if (!read) return;
		if (!read.ok) answer = sentence(read.faults);
		else replacing = { name: file.name, opened: read.value };
	}
	/** Nothing takes the place of what is open before the person has seen what goes and what comes. */
	async function replace(): Promise<void> {
		if (!replacing) return;
		const { name, opened } = replacing;
		replacing = null;
		answer = (await store.importOpened(opened)) ?? `${name} is open.`;
		undoable = true;
	}
	async function openArchive(file: File): Promise<Result<Opened> | null> {
		try {
			return await packer.run<Result<Opened>>((remote, onPart) => remote.open(file, store.zone, onPart));
		} catch (error) {
			answer = `${file.name} could not be opened: ${(error as Error).message}. Nothing was changed.`;
			return null;
		}
	}
	async function saveWithMedia(): Promise<void> {
		answer = '';
		const workshopNow = workshop;
		try {
			const made = await packer.run((remote, onPart) => remote.workshop(workshopNow, onPart));
			if (!made) return;
			download(`${safeName(workshop.venue.name)}.yphos.zip`, made.zip);
			answer = `${made.count} media ${made.count === 1 ? 'file is' : 'files are'} in it.${made.missing.length ? ` Not here, and so not in it: ${made.missing.slice(0, 5).join(', ')}.` : ''}`;
		} catch (error) {
			answer = `It could not be exported: ${(error as Error).message}. Export it without media, or make room and try again.`;
		}
	}
</script>

<svelte:head><title>Venue and workshop file · Yphos</title></svelte:head>
<div class="page">
	<h1>Venue and workshop file</h1>
	<section class="sheet">
		<h2>Where the endpoints live</h2>
		{#each FIELDS as { key, label, hint } (key)}
			<TextInput
				labelText={label}
				helperText={hint}
				value={String(drafts[key] ?? workshop.venue[key])}
				invalid={Boolean(errors[key])}
				invalidText={errors[key] ?? ''}
				on:input={(event) => typed(key, String(event.detail ?? ''))}
				on:blur={() => !errors[key] && delete drafts[key]}
				list={key === 'timeZone' ? 'time-zones' : undefined}
			/>
		{/each}
		<datalist id="time-zones"
			>{#each TIME_ZONES as zone (zone)}<option value={zone}></option>{/each}</datalist
		>
		<LanFields />
	</section>
	<section class="sheet">
		<h2>When it is open</h2>
		<OpeningHours />
		<NoticeTheme />
	</section>
	<section class="sheet">
		<h2>The workshop file</h2>
		<p>
			Everything you keep, in one open file. Passwords are never in it. Nothing is sent anywhere: keep a copy yourself.
		</p>
		<div class="row">
			<Button on:click={save}>Export the workshop</Button>
			<Button kind="tertiary" disabled={packer.busy} on:click={saveWithMedia}>Export with media</Button>
			<FileUploaderButton
				kind="tertiary"
				labelText="Open a workshop file"
				disableLabelChanges
				accept={['.json', '.zip']}
				on:change={(event) => open(event.detail)}
			/>
			<Button kind="ghost" on:click={openDemo}>Open the demo workshop</Button>
			<Button kind="ghost" on:click={() => (starting = true)}>Start your own workshop</Button>
		</div>
		{#if packer.busy}
			<div class="row">
				<ProgressBar value={packer.part * 100} labelText="Media" helperText={`${Math.round(packer.part * 100)} %`} />
				<Button kind="ghost" size="small" on:click={() => packer.cancel()}>Stop</Button>
			</div>
		{/if}
		{#if answer}<p role="status">
				{answer}
				{#if undoable}<Button
						size="small"
						kind="ghost"
						on:click={() => {
							store.undo();
							answer = 'What was here before is back.';
							undoable = false;
						}}>Undo</Button
					>{/if}
			</p>{/if}
	</section>
	<KeptAsideList />
	{#if replacing}
		<Modal
			open
			size="sm"
			modalHeading={`Open ${replacing.opened.workshop.venue.name}?`}
			primaryButtonText="Open it"
			secondaryButtonText="Not now"
			on:click:button--secondary={() => (replacing = null)}
			on:close={() => (replacing = null)}
			on:submit={replace}
		>
			<p>
				It takes the place of <b>{workshop.venue.name}</b> ({counted(workshop)}). {replacing.name} holds {counted(
					replacing.opened.workshop
				)}{replacing.opened.damaged.length
					? `, and ${replacing.opened.damaged.length} part${replacing.opened.damaged.length === 1 ? '' : 's'} that cannot be understood: they are kept aside`
					: ''}.
			</p>
			<p>Undo brings back what is open now, with all its steps. Export it first to keep a file of it.</p>
		</Modal>
	{/if}
	{#if starting}<OwnWorkshop onclose={() => (starting = false)} />{/if}
</div>

<style>
	.page {
		max-width: 640px;
	}
	section {
		display: grid;
		gap: 12px;
	}
</style>
