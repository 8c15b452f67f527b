<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, SwitchField } from '$lib/fields';

	const view = useEndpoint();
	const cards = $derived(
		view.context.drawer.filter((part) => part.kind === 'card').map((part) => ({ value: part.id, text: part.name }))
	);
</script>

<ChoiceField
	path="parts.card"
	label="Card"
	value={view.plan.parts.card ?? ''}
	options={[{ value: '', text: 'none' }, ...cards]}
/>
<NumberField
	path="card.reservePercent"
	label="Keep free"
	unit="%"
	value={view.plan.card.reservePercent}
	hint="So that the card can spread its wear, and updates have room."
/>
<SwitchField
	path="card.logsInMemory"
	label="Keep the log in memory only"
	value={view.plan.card.logsInMemory}
	hint="Fewer writes, and nothing torn when the power goes. The cost: after a power cut there is no log of what came before."
/>
