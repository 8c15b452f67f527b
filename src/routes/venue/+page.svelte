<script lang="ts">
	import { Button, FileUploaderButton, TextInput } from 'carbon-components-svelte';
	import { venueSchema, type Venue } from '$core/plan/venue';
	import { canonicalTimeZone, TIME_ZONES } from '$core/standards/timeZones';
	import KeptAsideList from '$lib/shell/KeptAsideList.svelte';
	import OwnWorkshop from '$lib/shell/OwnWorkshop.svelte';
	import LanFields from '$lib/shell/LanFields.svelte';
	import { download, safeName } from '$lib/shell/download';
	import { store } from '$lib/store/workshop.svelte';
	import { readInWorker } from '$lib/readers/readInWorker';
	import { sentence } from '$core/basics/result';
	import { demoWorkshop } from '$demo/workshop';

	const workshop = $derived(store.workshop!);
	let drafts = $state<Partial<Venue>>({});
	let errors = $state<Partial<Record<keyof Venue, string>>>({});
	let answer = $state('');
	let starting = $state(false);
	const FIELDS: { key: Exclude<keyof Venue, 'lan'>; label: string; hint: string }[] = [
		{ key: 'name', label: 'Name of the venue', hint: '' },
		{ key: 'timeZone', label: 'Time zone', hint: 'As in the tz database: quiet hours and timers follow it.' },
		{ key: 'currency', label: 'Currency', hint: 'Three letters.' },
		{ key: 'pricePerKwh', label: 'What a kilowatt hour costs', hint: 'In that currency; it is on the bill.' },
		{ key: 'mainsV', label: 'Mains voltage (V)', hint: '230 in most of the world, 120 in North America.' }
	];

	function typed(key: Exclude<keyof Venue, 'lan'>, value: string): void {
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
			store.change(`venue: ${key}`, (current) => ({ ...current, venue: { ...current.venue, [key]: meant } }));
		} else drafts = { ...drafts, [key]: value as never };
	}
	const save = (): void =>
		download(
			`${safeName(workshop.venue.name)}.yphos.json`,
			`${JSON.stringify(workshop, null, '\t')}\n`,
			'application/json'
		);
	function openDemo(): void {
		store.change('open the demo workshop', () => demoWorkshop);
		answer = 'The demo is open. Ctrl Z brings back what was here before.';
	}
	async function open(files: readonly File[]): Promise<void> {
		if (!files[0]) return;
		const read = await readInWorker('workshop', files[0], store.zone);
		answer =
			(read.ok ? await store.importOpened(read.value) : sentence(read.faults)) ??
			`${files[0].name} is open. Ctrl Z brings back what was here before.`;
	}
</script>

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
		<h2>The workshop file</h2>
		<p>
			Everything you keep, in one open file. Passwords are never in it. Nothing is sent anywhere: keep a copy yourself.
		</p>
		<div class="row">
			<Button on:click={save}>Export the workshop</Button>
			<FileUploaderButton
				kind="tertiary"
				labelText="Open a workshop file"
				disableLabelChanges
				accept={['.json']}
				on:change={(event) => open(event.detail)}
			/>
			<Button kind="ghost" on:click={openDemo}>Open the demo workshop</Button>
			<Button kind="ghost" on:click={() => (starting = true)}>Start your own workshop</Button>
		</div>
		{#if answer}<p role="status">{answer}</p>{/if}
	</section>
	<KeptAsideList />
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
