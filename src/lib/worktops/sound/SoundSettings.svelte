<script lang="ts">
	import { cardInLine } from '$core/formats/alsa/cardLine';
	import { driverOf, loadOf } from '$core/parts/amplifier';
	import { nameCard } from '$core/probe/nameCard';
	import { soundSettings } from '$core/links/sound/settings';
	import { isUnnamed } from '$core/links/sound/route';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, TextField } from '$lib/fields';

	const view = useEndpoint();
	const sound = $derived(view.plan.sound);
	const of = (kind: string): { value: string; text: string }[] => [
		{ value: '', text: 'none' },
		...view.context.drawer.filter((part) => part.kind === kind).map((part) => ({ value: part.id, text: part.name }))
	];
	const several = $derived.by(() => {
		const speakers = view.context.part('speakers', view.plan.parts.speakers);
		const driver = driverOf(view.context);
		return driver && speakers && loadOf(speakers, driver.channels, 'parallel').onOneChannel > 1;
	});
	/** A whole line of aplay -l says name and device. */
	function putCard(text: string): string | null {
		const found = /[\s:[]/.test(text.trim()) ? cardInLine(text) : null;
		const named = found ?? { cardId: text };
		const { error } = soundSettings.shape.cardId.safeParse(named.cardId);
		return error ? error.issues[0]!.message : view.edit('Sound: card name', nameCard(named));
	}
	const travelHint = $derived(
		{
			follow: 'The purest, and only one program may sound at a time.',
			fixed:
				'One rate for a converter that clicks when it changes; what is made otherwise is resampled well, in the player.',
			shared: 'Announcements over music, for instance. Costs: one rate, and a few thousandths of a second.'
		}[sound.travel]
	);
</script>

<ChoiceField path="parts.converter" value={view.plan.parts.converter ?? ''} options={of('converter')} />
<div class="two">
	<TextField path="sound.cardId" value={sound.cardId} mono placeholder="Field24" put={putCard} />
	<NumberField path="sound.deviceNumber" unit="no." value={sound.deviceNumber} />
</div>
{#if isUnnamed(view.context)}
	<TextField
		path="sound.overlay"
		value={sound.overlay}
		mono
		hint="What its maker prints behind dtoverlay=; it carries no memory that would tell the board."
	/>
{/if}
<ChoiceField
	path="sound.door"
	value={sound.door}
	options={[
		{ value: 'hw', text: 'Direct (hw)' },
		{ value: 'iec958', text: 'Digital frame (iec958)' },
		{ value: 'hdmi', text: 'HDMI (hdmi)' }
	]}
/>
<ChoiceField
	path="sound.travel"
	value={sound.travel}
	options={[
		{ value: 'follow', text: 'As each source has it, unchanged' },
		{ value: 'fixed', text: 'Fixed rate' },
		{ value: 'shared', text: 'Shared by several programs (dmix)' }
	]}
	hint={travelHint}
/>
{#if sound.travel !== 'follow'}
	<ChoiceField
		path="sound.fixedRateHz"
		value={String(sound.fixedRateHz)}
		options={[44100, 48000, 88200, 96000, 192000].map((hz) => ({ value: String(hz), text: `${hz / 1000} kHz` }))}
		onpick={(hz) => view.set('sound.fixedRateHz', Number(hz))}
	/>
{/if}
<div class="two">
	<ChoiceField
		path="sound.volumeAt"
		value={sound.volumeAt}
		options={[
			{ value: 'fixed', text: 'on the amplifier' },
			{ value: 'player', text: 'in the player' },
			{ value: 'converter', text: 'in the converter' }
		]}
	/>
	{#if sound.volumeAt !== 'fixed'}<NumberField path="sound.volumeDb" unit="dB" step={0.5} value={sound.volumeDb} />{/if}
</div>
{#if sound.volumeAt === 'converter'}
	<TextField path="sound.mixerName" value={sound.mixerName} mono hint="As amixer calls it." />
{/if}
<div class="two">
	<ChoiceField path="parts.amplifier" value={view.plan.parts.amplifier ?? ''} options={of('amplifier')} />
	<ChoiceField path="parts.speakers" value={view.plan.parts.speakers ?? ''} options={of('speakers')} />
</div>
{#if several}
	<ChoiceField
		path="sound.wiring"
		value={sound.wiring}
		options={[
			{ value: 'parallel', text: 'In parallel: full voltage each' },
			{ value: 'series', text: 'In series: shares the voltage' }
		]}
		hint="Parallel lowers the impedance that the amplifier sees, series raises it."
	/>
{/if}
<ChoiceField
	path="sound.place"
	value={sound.place}
	options={[
		{ value: 'unknown', text: 'Not known yet' },
		{ value: 'room', text: 'In a room' },
		{ value: 'outdoors', text: 'Outdoors' }
	]}
	hint={sound.place === 'unknown' ? 'The loudest of all likely rooms counts.' : ''}
/>
{#if sound.place === 'room'}
	<div class="two">
		<NumberField path="sound.roomM3" unit="m³" step={5} value={sound.roomM3} />
		<ChoiceField
			path="sound.furnishing"
			value={sound.furnishing}
			options={[
				{ value: 'hard', text: 'Stone, glass, tiles' },
				{ value: 'ordinary', text: 'Furnished' },
				{ value: 'soft', text: 'Carpet and curtains' },
				{ value: 'measured', text: 'RT60 measured' }
			]}
		/>
	</div>
	{#if sound.furnishing === 'measured'}
		<NumberField
			path="sound.reverbSec"
			unit="s"
			step={0.1}
			value={sound.reverbSec}
			hint="How long a clap takes to fall by 60 dB."
		/>
	{/if}
{/if}
<div class="two">
	<NumberField path="sound.distanceM" unit="m" step={0.1} value={sound.distanceM} />
	<NumberField path="sound.loudestDb" unit="dB" value={sound.loudestDb} />
</div>
