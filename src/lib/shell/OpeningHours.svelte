<script lang="ts">
	import { Button, Checkbox, FileUploaderButton, TextInput } from 'carbon-components-svelte';
	import { sentence } from '$core/basics/result';
	import { venueSchema, type Venue } from '$core/plan/venue';
	import { DaysField } from '$lib/fields';
	import { readInWorker } from '$lib/readers/readInWorker';
	import { store } from '$lib/store/workshop.svelte';

	const venue = $derived(store.workshop!.venue);
	/** What is half typed stays in its field, with the reason. */
	let drafts = $state<Record<string, string>>({});
	let errors = $state<Record<string, string>>({});

	function put<K extends keyof Venue>(key: K, value: Venue[K]): string | null {
		const parsed = venueSchema.shape[key].safeParse(value);
		if (!parsed.success) return parsed.error.issues[0]!.message;
		return store.change('venue: opening hours', (current) => ({
			...current,
			venue: { ...current.venue, [key]: value }
		}));
	}
	function typed(place: string, text: string, error: string | null): void {
		if (error === null) {
			delete drafts[place];
			delete errors[place];
		} else {
			drafts[place] = text;
			errors[place] = error;
		}
	}
	type Hours = Venue['opening'][number];
	const changed = (n: number, part: Partial<Hours>): Hours[] =>
		venue.opening.map((hours, k) => (k === n ? { ...hours, ...part } : hours));

	let newDate = $state('');
	let newTitle = $state('');
	let holidayProblem = $state('');
	function addHoliday(): void {
		const next = [...venue.holidays, { date: newDate.trim(), title: newTitle.trim() }].sort((a, b) =>
			a.date.localeCompare(b.date)
		);
		holidayProblem = put('holidays', next) ?? '';
		if (!holidayProblem) newDate = newTitle = '';
	}
	let answer = $state('');
	async function bring(files: readonly File[]): Promise<void> {
		if (!files[0]) return;
		const read = await readInWorker('holidays', files[0], new Date().getFullYear());
		if (!read.ok) {
			answer = sentence(read.faults);
			return;
		}
		const there = new Set(venue.holidays.map(({ date }) => date));
		const added = read.value.filter(({ date }) => !there.has(date));
		const refused = put(
			'holidays',
			[...venue.holidays, ...added].sort((a, b) => a.date.localeCompare(b.date))
		);
		answer = refused ?? `${added.length} added; ${read.value.length - added.length} were there already.`;
	}
	const PLACE = [
		['latitudeDeg', 'Latitude (°, south negative)'],
		['longitudeDeg', 'Longitude (°, west negative)']
	] as const;
	/** Nothing is kept before both are there. */
	function typedPlace(key: (typeof PLACE)[number][0], text: string): void {
		const texts = { latitudeDeg: '', longitudeDeg: '' };
		for (const [name] of PLACE) texts[name] = name === key ? text : (drafts[name] ?? String(venue.place?.[name] ?? ''));
		const numbers = Object.values(texts).map((value) =>
			value.trim() === '' ? NaN : Number(value.replace(',', '.').replace('\u2212', '-'))
		);
		drafts[key] = text;
		delete errors[key];
		if (Object.values(texts).every((value) => value.trim() === '')) {
			put('place', null);
			drafts = {};
		} else if (numbers.every((value) => !Number.isNaN(value))) {
			const error = put('place', { latitudeDeg: numbers[0]!, longitudeDeg: numbers[1]! });
			if (error) errors[key] = error;
			else for (const [name] of PLACE) delete drafts[name];
		}
	}
</script>

<p class="soft small">Rules of a programme may go by it: notices before opening, a film until closing.</p>
{#each venue.opening as hours, n (n)}
	<div class="hours" role="group" aria-label={`Opening hours ${n + 1}`}>
		<DaysField days={hours.weekdays} label="Open on" onpick={(weekdays) => put('opening', changed(n, { weekdays }))} />
		<div class="four">
			{#each ['from', 'until'] as const as key (key)}
				<TextInput
					size="sm"
					labelText={key === 'from' ? 'From' : 'Until'}
					value={drafts[`${n} ${key}`] ?? hours[key]}
					invalid={Boolean(errors[`${n} ${key}`])}
					invalidText={errors[`${n} ${key}`] ?? ''}
					on:input={(event) => {
						const text = String(event.detail ?? '');
						typed(`${n} ${key}`, text, put('opening', changed(n, { [key]: text.trim() })));
					}}
				/>
			{/each}
			{#each ['from', 'until'] as const as key (key)}
				<TextInput
					size="sm"
					labelText={key === 'from' ? 'First day (month-day)' : 'Last day'}
					placeholder="all year"
					value={drafts[`${n} season ${key}`] ?? hours.season?.[key] ?? ''}
					invalid={Boolean(errors[`${n} season ${key}`])}
					invalidText={errors[`${n} season ${key}`] ?? ''}
					on:input={(event) => {
						const text = String(event.detail ?? '').trim();
						const season = text === '' ? null : { ...(hours.season ?? { from: '01-01', until: '12-31' }), [key]: text };
						typed(`${n} season ${key}`, text, put('opening', changed(n, { season })));
					}}
				/>
			{/each}
		</div>
		<Button kind="ghost" size="small" on:click={() => put('opening', venue.opening.toSpliced(n, 1))}>Take out</Button>
	</div>
{:else}
	<p class="soft">Not said.</p>
{/each}
<div>
	<Button
		kind="tertiary"
		size="small"
		disabled={venue.opening.length >= 20}
		on:click={() => put('opening', [...venue.opening, { weekdays: [], season: null, from: '10:00', until: '17:00' }])}
		>Add opening hours</Button
	>
</div>
<h3>Holidays</h3>
<Checkbox
	labelText="Closed on holidays"
	checked={venue.closedOnHolidays}
	on:check={(event) => event.detail !== venue.closedOnHolidays && put('closedOnHolidays', event.detail)}
/>
{#if venue.holidays.length}
	<ul class="days">
		{#each venue.holidays as holiday (holiday.date)}
			<li>
				<span class="mono">{holiday.date}</span>
				{holiday.title}
				<button
					type="button"
					aria-label={`Take ${holiday.date} out`}
					onclick={() =>
						put(
							'holidays',
							venue.holidays.filter(({ date }) => date !== holiday.date)
						)}>×</button
				>
			</li>
		{/each}
	</ul>
{/if}
<div class="add">
	<TextInput
		size="sm"
		labelText="Date"
		placeholder="2027-12-25"
		bind:value={newDate}
		invalid={holidayProblem !== ''}
		invalidText={holidayProblem}
	/>
	<TextInput size="sm" labelText="Called" bind:value={newTitle} />
	<Button kind="tertiary" size="small" on:click={addHoliday}>Add the day</Button>
</div>
<FileUploaderButton
	size="small"
	kind="tertiary"
	labelText="Add holidays from a calendar file"
	disableLabelChanges
	accept={['.ics']}
	on:change={(event) => bring(event.detail)}
/>
{#if answer}<p class="small" role="status">{answer}</p>{/if}
<h3>Where it is</h3>
<p class="soft small">For sunrise and sunset; two decimals are near enough. Nothing of it is sent anywhere.</p>
<div class="add">
	{#each PLACE as [key, label] (key)}
		<TextInput
			size="sm"
			labelText={label}
			value={drafts[key] ?? String(venue.place?.[key] ?? '')}
			invalid={Boolean(errors[key])}
			invalidText={errors[key] ?? ''}
			on:input={(event) => typedPlace(key, String(event.detail ?? ''))}
		/>
	{/each}
</div>

<style>
	.hours {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 4px 10px 8px;
		margin-bottom: 8px;
	}
	.four {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(110px, 1fr));
		gap: 8px;
	}
	.add {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
		gap: 8px;
		align-items: end;
		margin: 8px 0;
	}
	.days {
		list-style: none;
		margin: 8px 0;
		padding: 0;
		columns: 240px;
		max-height: 260px;
		overflow-y: auto;
	}
	.days button {
		width: 28px;
		height: 28px;
		border: 0;
		background: none;
		color: var(--ink);
		cursor: pointer;
	}
</style>
