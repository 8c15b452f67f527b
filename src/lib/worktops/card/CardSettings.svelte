<script lang="ts">
	import { RELEASE } from '$core/links/card/release';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, SwitchField } from '$lib/fields';
	import BootText from './BootText.svelte';

	const view = useEndpoint();
	const card = $derived(view.plan.card);
	const cards = $derived(
		view.context.drawer.filter((part) => part.kind === 'card').map((part) => ({ value: part.id, text: part.name }))
	);
</script>

<p>
	<a class="go" href={`/endpoint/${view.endpoint!.id}/write-card`}>Write the memory card</a>
	<span class="soft small">image, right disk, commands</span>
</p>
<ChoiceField path="parts.card" value={view.plan.parts.card ?? ''} options={[{ value: '', text: 'none' }, ...cards]} />
<ChoiceField
	path="card.system"
	value={card.system}
	options={[
		{ value: 'plain', text: 'A plain system, set up by our files' },
		{ value: 'player', text: 'A ready-made player with its own pages' },
		{ value: 'platform', text: 'An application platform for a big screen' }
	]}
	hint={card.system === 'plain'
		? `Everything is in the card set, and can be rehearsed. The set is written for ${RELEASE.words}: apply.sh refuses another.`
		: 'You enter the settings sheet by hand; the run sheet says where and in which order.'}
/>
<ChoiceField
	path="card.prepare"
	value={card.prepare}
	options={[
		{ value: 'over', text: 'Write straight over what is there' },
		{ value: 'format', text: 'Format first' }
	]}
	hint={card.prepare === 'over'
		? 'Quick, and enough: the image brings its own table. What was there is gone all the same.'
		: 'Shows a false or worn card before hours are lost, and tells the card that all is free. It costs minutes.'}
/>
<ChoiceField
	path="card.root"
	value={card.root}
	options={[
		{ value: 'writable', text: 'Writable' },
		{ value: 'overlay', text: 'Read-only, with a layer in memory' }
	]}
	hint={card.root === 'writable'
		? 'Changes stay, updates are simple. A cut within a write tears something now and then.'
		: 'No cut can tear it, and the card hardly wears. Nothing stays unless it is done below the layer; logs are gone at each restart.'}
/>
<ChoiceField
	path="card.ends"
	value={card.ends}
	options={[
		{ value: 'cut', text: 'Cutting the power' },
		{ value: 'shutdown', text: 'Shutting down first' }
	]}
/>
<SwitchField
	path="card.logsInMemory"
	value={card.logsInMemory}
	hint="Fewer writes, and nothing torn when the power goes. The cost: after a power cut there is no log of what came before."
/>
<SwitchField path="card.mendAtStart" value={card.mendAtStart} />
<SwitchField
	path="card.secretsLeave"
	value={card.secretsLeave}
	hint="They are copied to the root, where the administrator alone reads them, and then deleted from the partition that any computer opens. The cost: to repair a spoilt copy, the card set is written once more."
/>
<SwitchField
	path="card.watchdog"
	value={card.watchdog}
	hint="The board’s own timer; a board without one is not harmed."
/>
<div class="two">
	<NumberField path="card.reservePercent" unit="%" value={card.reservePercent} />
	<NumberField path="card.swapMb" unit="MB" step={100} value={card.swapMb} />
</div>
<NumberField
	path="card.dailyMb"
	unit="MB"
	step={10}
	value={card.dailyMb}
	hint="20 for a quiet endpoint; hundreds where a database or a cache lies on the card."
/>
<BootText />

<style>
	.go {
		font-weight: 600;
		margin-right: 6px;
	}
</style>
