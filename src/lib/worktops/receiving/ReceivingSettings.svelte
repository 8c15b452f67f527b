<script lang="ts">
	import { keptMs } from '$core/links/receiving/delay';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, SwitchField, TextField } from '$lib/fields';

	const view = useEndpoint();
	const receiving = $derived(view.plan.receiving);
	const kept = $derived(keptMs(receiving.bufferMs, view.context.facts.soundShared === true));
</script>

<SwitchField path="receiving.bluetooth" value={receiving.bluetooth} />
{#if receiving.bluetooth}
	<TextField
		path="receiving.name"
		value={receiving.name}
		placeholder={view.context.facts.endpointName}
		hint="Empty: the endpoint’s own name."
	/>
	<ChoiceField
		path="receiving.pairing"
		value={receiving.pairing}
		options={[
			{ value: 'once', text: 'Phones that you let in, by a command' },
			{ value: 'open', text: 'Whoever is near, at any time' }
		]}
		hint={receiving.pairing === 'once'
			? 'Done once for each phone, on the run sheet; it comes back by itself.'
			: 'Nothing to do for guests; neighbours are guests too.'}
	/>
	<NumberField
		path="receiving.beginsPercent"
		unit="%"
		step={5}
		value={receiving.beginsPercent}
		hint="The phone’s own keys change it from there, in the samples before the converter."
	/>
	<div class="two">
		<NumberField path="receiving.farthestM" unit="m" value={receiving.farthestM} />
		<NumberField path="receiving.walls" unit="no." value={receiving.walls} />
	</div>
{/if}
<SwitchField
	path="receiving.server"
	value={receiving.server}
	hint={receiving.server ? 'PulseAudio waits at port 4713, for private addresses that the firewall lets in.' : ''}
/>
<SwitchField path="receiving.rtp" value={receiving.rtp} />
{#if receiving.rtp}
	<NumberField path="receiving.rtpPort" unit="UDP" step={2} value={receiving.rtpPort} />
{/if}
<NumberField
	path="receiving.bufferMs"
	unit="ms"
	step={50}
	value={receiving.bufferMs}
	hint={kept === receiving.bufferMs
		? 'More bears longer pauses; less answers sooner.'
		: `The mixing device makes ${kept} ms of it: it gives 250 or 375.`}
/>
{#if view.context.facts.programme}
	<ChoiceField
		path="receiving.meanwhile"
		value={receiving.meanwhile}
		options={[
			{ value: 'rests', text: 'Rests, and goes on afterwards' },
			{ value: 'mixes', text: 'Goes on beneath' }
		]}
		hint={receiving.meanwhile === 'rests' ? 'Afterwards it begins at its first entry.' : ''}
	/>
	{#if view.plan.programme.quiet.length}
		<SwitchField path="receiving.quietToo" value={receiving.quietToo} />
	{/if}
{/if}
