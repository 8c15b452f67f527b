<script lang="ts">
	import type { Plan } from '$core/plan/plan';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField } from '$lib/fields';
	import InletSettings from './InletSettings.svelte';

	const view = useEndpoint();
	const of = (kind: string): { value: string; text: string }[] => [
		{ value: '', text: 'none' },
		...view.context.drawer.filter((part) => part.kind === kind).map((part) => ({ value: part.id, text: part.name }))
	];
	const leads = $derived([
		{ value: '', text: 'none' },
		...view.context.drawer
			.filter((part) => part.kind === 'lead' && part.areaMm2 !== null && part.carries.includes('power'))
			.map((part) => ({ value: part.id, text: part.name }))
	]);
	const supply = $derived(view.context.part('supply', view.plan.parts.supply));
	const holdUps = $derived(of('hold-up'));
	const holdUp = $derived(
		view.plan.parts.also.find(({ part }) => view.context.find(part)?.kind === 'hold-up')?.part ?? ''
	);
	const useHoldUp = (id: string): void =>
		void view.edit('hold-up', (plan: Plan) => ({
			...plan,
			parts: {
				...plan.parts,
				also: [...plan.parts.also.filter(({ part }) => part !== holdUp), ...(id ? [{ part: id, count: 1 }] : [])]
			}
		}));
	const power = $derived(view.plan.power);
</script>

<ChoiceField path="parts.supply" value={view.plan.parts.supply ?? ''} options={of('supply')} />
{#if supply?.lead}
	<p class="soft small">
		Its cable cannot be taken off: {supply.lead.lengthM} m of {supply.lead.areaMm2} mm².
	</p>
{:else}
	<ChoiceField
		path="parts.lead"
		value={view.plan.parts.lead ?? ''}
		options={leads}
		hint="Its thickness is printed on it, mostly as AWG: 20 is thick, 28 is thin. Add yours in the parts drawer."
	/>
{/if}
<NumberField
	path="power.contactMilliohm"
	unit="mΩ"
	step={5}
	value={power.contactMilliohm}
	hint="40 is usual for two good plugs; worn ones have 100 and more."
/>
<NumberField path="power.onHoursPerDay" unit="h" value={power.onHoursPerDay} />
<ChoiceField path="parts.also" label="When mains fail" value={holdUp} options={holdUps} onpick={useHoldUp} />
<NumberField
	path="power.shutdownSec"
	unit="s"
	step={5}
	value={power.shutdownSec}
	hint="Time it once: from the command to the moment its light stays off."
/>
<InletSettings />
