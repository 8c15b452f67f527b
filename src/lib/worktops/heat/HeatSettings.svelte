<script lang="ts">
	import { Checkbox } from 'carbon-components-svelte';
	import { PLACE_AIR } from '$core/links/heat/model';
	import { heatSettings, PLACES } from '$core/links/heat/settings';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField } from '$lib/fields';

	const view = useEndpoint();
	const heat = $derived(view.plan.heat);
	const of = (kind: string): { value: string; text: string }[] => [
		{ value: '', text: 'none' },
		...view.context.drawer.filter((part) => part.kind === kind).map((part) => ({ value: part.id, text: part.name }))
	];
	let afterMin = $state('');
	let chipC = $state('');
	let error = $state('');

	function add(event: SubmitEvent): void {
		event.preventDefault();
		const reading = { afterMin: Number(afterMin.replace(',', '.')), chipC: Number(chipC.replace(',', '.')) };
		const readings = [...heat.readings, reading].sort((a, b) => a.afterMin - b.afterMin);
		const parsed = heatSettings.shape.readings.safeParse(readings);
		if (afterMin.trim() === '' || chipC.trim() === '' || !parsed.success) {
			error = parsed.success ? 'Both numbers are needed.' : 'Minutes from 0.5 to 600, degrees from 0 to 125.';
			return;
		}
		error = afterMin = chipC = '';
		view.edit('add a reading', (plan) => ({
			...plan,
			heat: { ...plan.heat, readings, useReadings: readings.length >= 2 || plan.heat.useReadings }
		}));
	}
	const remove = (n: number): void =>
		void view.edit('remove a reading', (plan) => ({
			...plan,
			heat: { ...plan.heat, readings: plan.heat.readings.filter((_, k) => k !== n) }
		}));
</script>

<ChoiceField
	path="heat.place"
	value={heat.place}
	options={PLACES.map((place) => ({ value: place, text: PLACE_AIR[place].words }))}
/>
<NumberField path="heat.roomC" unit="°C" value={heat.roomC} />
<ChoiceField path="parts.case" value={view.plan.parts.case ?? ''} options={of('case')} />
<ChoiceField path="parts.cooler" value={view.plan.parts.cooler ?? ''} options={of('cooler')} />
<div class="two">
	<NumberField path="heat.fanOnC" unit="°C" value={heat.fanOnC} />
	<NumberField path="heat.fanOffC" unit="°C" value={heat.fanOffC} />
</div>
<section class="group" id="setting-heat.readings">
	<h3>Your own readings</h3>
	<p class="soft small">
		From a cold start, while it plays: one after some five minutes, one after an hour. Two make the figures those of
		your own board.
	</p>
	<ul>
		{#each heat.readings as reading, n (n)}
			<li class="mono">
				{reading.afterMin} min <span>{reading.chipC} °C</span>
				<button type="button" class="plain" aria-label="Remove this reading" onclick={() => remove(n)}>×</button>
			</li>
		{/each}
	</ul>
	<form onsubmit={add}>
		<label class="small soft">after (min)<input class="mono" inputmode="decimal" bind:value={afterMin} /></label>
		<label class="small soft">chip (°C)<input class="mono" inputmode="decimal" bind:value={chipC} /></label>
		<button type="submit" class="plain">Add</button>
	</form>
	{#if error}<p class="bad small" role="alert">{error}</p>{/if}
	<Checkbox
		labelText="Use them in place of typical constants"
		checked={heat.useReadings}
		on:check={(event) => event.detail !== heat.useReadings && view.set('heat.useReadings', event.detail)}
	/>
</section>

<style>
	li {
		display: grid;
		grid-template-columns: 1fr 1fr auto;
		border-bottom: 1px solid var(--rule);
		padding: 3px 0;
		align-items: center;
	}
	form {
		display: grid;
		grid-template-columns: 1fr 1fr auto;
		gap: 8px;
		align-items: end;
	}
	label {
		display: grid;
		gap: 3px;
		min-width: 0;
	}
	input {
		height: 32px;
		min-width: 0;
	}
	form button {
		height: 32px;
	}
</style>
