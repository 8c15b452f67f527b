<script lang="ts">
	import { Modal, TextInput } from 'carbon-components-svelte';
	import { proposeVenue } from '$core/plan/proposeVenue';
	import { venueSchema, type Venue } from '$core/plan/venue';
	import { emptyWorkshop } from '$core/plan/workshop';
	import { TIME_ZONES } from '$core/standards/timeZones';
	import { isDemoVenue } from '$lib/store/demoVenue';
	import { store } from '$lib/store/workshop.svelte';

	let { onclose }: { onclose: () => void } = $props();
	const proposed = proposeVenue(store.zone, navigator.language);
	type Key = 'name' | 'timeZone' | 'currency' | 'mainsV';
	const FIELDS: readonly { key: Key; label: string; hint: string }[] = [
		{ key: 'name', label: 'What it is called', hint: 'Your home, your hall, your museum.' },
		{ key: 'timeZone', label: 'Time zone', hint: 'As your browser has it. Endpoints keep this time.' },
		{ key: 'currency', label: 'Currency', hint: 'Three letters, for the shopping list.' },
		{ key: 'mainsV', label: 'Mains voltage (V)', hint: 'Of the sockets where the endpoints stand.' }
	];
	let values = $state<Record<Key, string>>({
		name: '',
		timeZone: proposed.timeZone,
		currency: proposed.currency,
		mainsV: String(proposed.mainsV)
	});
	const venue = $derived(
		venueSchema.safeParse({ ...proposed, ...values, mainsV: Number(values.mainsV) } satisfies Venue)
	);
	const errorOf = (key: Key): string =>
		(values[key] !== '' && venue.error?.issues.find(({ path }) => path[0] === key)?.message) || '';

	function begin(): void {
		if (!venue.success) return;
		const isDemo = isDemoVenue(store.workshop!);
		store.change('begin your own workshop', (current) => ({
			...emptyWorkshop(venue.data.timeZone),
			venue: venue.data,
			// What somebody has measured and owns goes along; what the demo made up does not.
			...(isDemo ? {} : { parts: current.parts, owned: current.owned })
		}));
		store.offerUndo(`${venue.data.name} begins.`);
		onclose();
	}
</script>

<Modal
	open
	modalHeading="Start your own workshop"
	primaryButtonText="Start"
	secondaryButtonText="Not now"
	primaryButtonDisabled={!venue.success}
	on:click:button--secondary={onclose}
	on:close={onclose}
	on:submit={begin}
>
	<p>
		It takes the place of what is open now, which Undo brings back. {isDemoVenue(store.workshop!)
			? 'The demo stays at hand under Venue.'
			: 'Your own parts and what you own go along; export the workshop first to keep its endpoints.'}
	</p>
	<div class="fields">
		{#each FIELDS as { key, label, hint } (key)}
			<TextInput
				labelText={label}
				helperText={hint}
				bind:value={values[key]}
				invalid={errorOf(key) !== ''}
				invalidText={errorOf(key)}
				list={key === 'timeZone' ? 'own-time-zones' : undefined}
			/>
		{/each}
	</div>
	<datalist id="own-time-zones">
		{#each TIME_ZONES as zone (zone)}<option value={zone}></option>{/each}
	</datalist>
</Modal>

<style>
	.fields {
		display: grid;
		gap: 12px;
		margin-top: 12px;
	}
</style>
