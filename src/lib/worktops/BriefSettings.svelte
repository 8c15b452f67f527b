<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { NumberField, SwitchField, TextField } from '$lib/fields';

	const view = useEndpoint();
	const brief = $derived(view.plan.brief);
</script>

<TextField path="brief.name" label="Name" value={brief.name} />
<TextField path="brief.room" label="Room" value={brief.room} />
<TextField path="brief.purpose" label="What it is for, in your words" value={brief.purpose} />
<NumberField
	path="brief.soundWithinSec"
	label="Sound after power-on within"
	unit="s"
	step={5}
	value={brief.soundWithinSec}
/>
<SwitchField path="brief.comesBackAlone" label="Comes back alone after a power cut" value={brief.comesBackAlone} />
