<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField } from '$lib/fields';

	const view = useEndpoint();
	const supplies = $derived(
		view.context.drawer.filter((part) => part.kind === 'supply').map((part) => ({ value: part.id, text: part.name }))
	);
</script>

<ChoiceField
	path="parts.supply"
	label="Supply"
	value={view.plan.parts.supply ?? ''}
	options={[{ value: '', text: 'none' }, ...supplies]}
/>
<NumberField path="power.leadLengthM" label="Lead, length" unit="m" step={0.1} value={view.plan.power.leadLengthM} />
<NumberField
	path="power.leadAreaMm2"
	label="Lead, cross-section"
	unit="mm²"
	step={0.01}
	value={view.plan.power.leadAreaMm2}
	hint="Thick leads have 0.33 or more, thin ones 0.08. It is printed on the lead, sometimes as AWG: 22 is 0.33, 28 is 0.08."
/>
