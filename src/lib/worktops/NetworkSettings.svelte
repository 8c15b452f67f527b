<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, TextField } from '$lib/fields';

	const view = useEndpoint();
	const network = $derived(view.plan.network);
</script>

<TextField
	path="network.hostName"
	label="Host name"
	value={network.hostName}
	mono
	hint="What it is called on the network."
/>
<ChoiceField
	path="network.way"
	label="Way in"
	value={network.way}
	options={[
		{ value: 'wired', text: 'Cable' },
		{ value: 'radio', text: 'Radio network' },
		{ value: 'none', text: 'No network at all' }
	]}
	hint={network.way === 'radio'
		? 'Fine for one compressed stream. Its pass phrase is asked for when the set is written.'
		: network.way === 'wired'
			? 'Steady, and nothing to type. It costs a cable.'
			: 'Nothing can reach it, and it reaches nothing.'}
/>
{#if network.way === 'radio'}
	<TextField path="network.ssid" label="Name of the radio network" value={network.ssid} mono />
	<TextField
		path="network.countryCode"
		label="Country"
		value={network.countryCode}
		mono
		placeholder="NO"
		hint="Two letters; the radio follows that country's rules."
	/>
{/if}
