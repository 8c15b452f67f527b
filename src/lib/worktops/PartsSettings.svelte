<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { places } from '$core/links/parts/places';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField } from '$lib/fields';
	import ProbeDialog from './ProbeDialog.svelte';

	const view = useEndpoint();
	let probing = $state(false);
	const options = (kind: string): { value: string; text: string }[] => [
		{ value: '', text: 'none' },
		...view.context.drawer.filter((part) => part.kind === kind).map((part) => ({ value: part.id, text: part.name }))
	];
</script>

{#each places as { key, kind, label } (key)}
	<ChoiceField path={`parts.${key}`} {label} value={view.plan.parts[key] ?? ''} options={options(kind)} />
{/each}
<div>
	<Button kind="tertiary" on:click={() => (probing = true)}
		>{view.context.probe ? 'Paste a newer probe report' : 'Paste what your board printed'}</Button
	>
</div>
{#if probing}<ProbeDialog onclose={() => (probing = false)} />{/if}
