<script lang="ts">
	import { goesDark } from '$core/onAir/followed';
	import { Button, TextInput } from 'carbon-components-svelte';
	import { choiceOf, pictureWay } from '$core/links/picture/way';
	import { anyEdge, SIDES, type Side } from '$core/links/picture/edges/overscan';
	import type { PictureSettings } from '$core/links/picture/settings';
	import { modeInWords } from '$core/links/picture/modes/written';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, SwitchField, TextField } from '$lib/fields';
	import Controls from './Controls.svelte';
	import EdidDialog from './EdidDialog.svelte';

	const view = useEndpoint();
	const picture = $derived(view.plan.picture);
	const way = $derived(pictureWay(picture, view.context));
	const screens = $derived([
		{ value: '', text: 'none' },
		...view.context.drawer.filter(({ kind }) => kind === 'screen').map(({ id, name }) => ({ value: id, text: name }))
	]);
	/** More modes than these nobody reads in a list; the table shows them all. */
	const MOST_LISTED = 40;
	const keyOf = (choice: PictureSettings['mode']): string =>
		choice ? `${choice.widthPx} ${choice.heightPx} ${choice.milliHz} ${choice.interlaced}` : '';
	const modes = $derived([
		{ value: '', text: way.chosen && !picture.mode ? `Best: ${modeInWords(way.chosen.timing)}` : 'The best one' },
		...way.candidates
			.filter(({ refused }) => refused.length === 0)
			.slice(0, MOST_LISTED)
			.map((candidate) => ({ value: keyOf(choiceOf(candidate)), text: modeInWords(candidate.timing) })),
		...(picture.mode &&
		!way.candidates.some(
			(candidate) => candidate.refused.length === 0 && keyOf(choiceOf(candidate)) === keyOf(picture.mode)
		)
			? [
					{
						value: keyOf(picture.mode),
						text: `${picture.mode.widthPx} × ${picture.mode.heightPx} at ${picture.mode.milliHz / 1000}\u2009Hz (does not go)`
					}
				]
			: [])
	]);
	let asking = $state(false);

	function pickMode(value: string): void {
		const found = way.candidates.map(choiceOf).find((choice) => keyOf(choice) === value);
		view.set('picture.mode', found ?? null);
	}
	const putEdge =
		(side: Side) =>
		(value: number): string | null =>
			view.set('picture.edges', { ...picture.edges, [side]: value });
	const RATES = [
		{ key: 'hMinKhz', label: 'Across, from', unit: 'kHz' },
		{ key: 'hMaxKhz', label: 'to', unit: 'kHz' },
		{ key: 'vMinHz', label: 'Down, from', unit: 'Hz' },
		{ key: 'vMaxHz', label: 'to', unit: 'Hz' }
	] as const;
	const putRange =
		(key: (typeof RATES)[number]['key']) =>
		(value: number): string | null =>
			view.set('picture.ranges', { ...picture.ranges, [key]: value });
	/** Times that are not allowed yet. */
	let drafts = $state<{ from?: string; until?: string }>({});
	function putHour(key: 'from' | 'until', text: string): void {
		const error = view.set('picture.hours', { ...picture.hours, [key]: text });
		drafts = { ...drafts, [key]: error ? text : undefined };
	}
	const SIDE_WORDS: Record<Side, string> = { left: 'Left', right: 'Right', top: 'Top', bottom: 'Bottom' };
</script>

<ChoiceField path="parts.screen" value={view.plan.parts.screen ?? ''} options={screens} />
<div id="setting-picture.edid" class="word">
	<span class="label">What the screen says of itself (EDID)</span>
	{#if way.edid}
		<p>
			<b>{way.edid.name ?? way.edid.manufacturer}</b>, {way.edid.modes.length} modes{way.edid.preferred
				? `; prefers ${modeInWords(way.edid.preferred)}`
				: ''}.
		</p>
	{:else}
		<p class="soft">Not read yet: modes are those of its class.</p>
	{/if}
	<span class="row">
		<Button kind="tertiary" size="small" on:click={() => (asking = true)}>Read EDID</Button>
		{#if picture.edid}<Button kind="ghost" size="small" on:click={() => view.set('picture.edid', '')}>Take out</Button
			>{/if}
	</span>
</div>
{#if asking}<EdidDialog onclose={() => (asking = false)} />{/if}
{#if way.output !== 'digital' || picture.ranges}
	<div id="setting-picture.ranges">
		{#if picture.ranges}
			<span class="label">Rates on the monitor's label</span>
			<div class="two">
				{#each RATES as { key, label, unit } (key)}
					<NumberField path={`picture.ranges.${key}`} {label} {unit} value={picture.ranges[key]} put={putRange(key)} />
				{/each}
			</div>
			<Button kind="ghost" size="small" on:click={() => view.set('picture.ranges', null)}>No label</Button>
		{:else}
			<Button
				kind="tertiary"
				size="small"
				on:click={() => view.set('picture.ranges', { hMinKhz: 30, hMaxKhz: 80, vMinHz: 56, vMaxHz: 75 })}
				>Enter the rates on its label</Button
			>
		{/if}
	</div>
{/if}
<div class="two">
	<TextField path="picture.connector" value={picture.connector} mono placeholder="HDMI-A-1" />
	<ChoiceField
		path="picture.turn"
		value={String(picture.turn)}
		options={[
			{ value: '0', text: 'upright' },
			{ value: '90', text: '90° clockwise' },
			{ value: '180', text: 'upside down' },
			{ value: '270', text: '90° anticlockwise' }
		]}
		onpick={(turn) => view.set('picture.turn', Number(turn))}
	/>
</div>
<ChoiceField path="picture.mode" value={keyOf(picture.mode)} options={modes} onpick={pickMode} />
<h3>Edges that the set cuts off</h3>
<ChoiceField
	path="picture.wholePicture"
	value={picture.wholePicture}
	options={[
		{ value: 'untried', text: 'Not looked for yet' },
		{ value: 'on', text: 'It has one, and it is on' },
		{ value: 'none', text: 'It has none' }
	]}
	hint="Full pixel, just scan, 1:1: always the first thing to try."
/>
<div class="two" id="setting-picture.edges">
	{#each SIDES as side (side)}
		<NumberField
			path={`picture.edges.${side}`}
			label={SIDE_WORDS[side]}
			unit="px"
			value={picture.edges[side]}
			put={putEdge(side)}
		/>
	{/each}
</div>
<div class="row">
	<Button kind="tertiary" size="small" href={`/endpoint/${view.id()}/edges`}>Read edges, test cards</Button>
</div>
{#if anyEdge(picture.edges)}
	<ChoiceField
		path="picture.edgesBy"
		value={picture.edgesBy}
		options={[
			{ value: 'player', text: 'the player' },
			{ value: 'kernel', text: 'the kernel, where its driver can' }
		]}
		hint="The player works everywhere; the kernel shrinks the console too."
	/>
{/if}
<h3>At the start, and by the hour</h3>
<ChoiceField
	path="picture.whenOff"
	value={picture.whenOff}
	options={[
		{ value: 'force', text: 'Switch the connector on all the same' },
		{ value: 'restart', text: 'Start the player anew when it comes' }
	]}
/>
<SwitchField
	path="picture.writesEdid"
	value={picture.writesEdid}
	hint="The kernel takes it for the screen's word, also while that is off."
/>
<SwitchField path="picture.hidesBoot" value={picture.hidesBoot} />
<NumberField path="picture.blankMin" unit="min" value={picture.blankMin} hint="0: never." />
<div id="setting-picture.hours">
	{#if picture.hours}
		<div class="two">
			{#each ['from', 'until'] as const as key (key)}
				<TextInput
					id="setting-picture.hours.{key}"
					labelText={key === 'from' ? 'Screen on from' : 'until'}
					value={drafts[key] ?? picture.hours[key]}
					invalid={drafts[key] !== undefined}
					invalidText="As in 07:30."
					on:input={(event) => putHour(key, String(event.detail ?? ''))}
				/>
			{/each}
		</div>
		<Button kind="ghost" size="small" on:click={() => view.set('picture.hours', null)}>At any hour</Button>
	{:else}
		<Button kind="tertiary" size="small" on:click={() => view.set('picture.hours', { from: '08:00', until: '20:00' })}
			>Switch it by the hour</Button
		>
	{/if}
</div>
<SwitchField
	path="picture.darkWhileResting"
	value={picture.darkWhileResting}
	hint="By the programme's rules and quiet hours; otherwise it is lit, and black."
/>
{#if goesDark(picture)}
	<ChoiceField
		path="picture.offBy"
		value={picture.offBy}
		options={[
			{ value: 'cec', text: 'CEC: the set obeys over the HDMI cable' },
			{ value: 'signal', text: 'no signal: the set goes to sleep by itself' },
			{ value: 'socket', text: 'a switched socket that takes its mains' }
		]}
	/>
{/if}
<ChoiceField
	path="picture.afterCut"
	value={picture.afterCut}
	options={[
		{ value: 'untried', text: 'Nobody has tried yet' },
		{ value: 'comes-on', text: 'Comes on by itself' },
		{ value: 'stays-off', text: 'Waits for its button' }
	]}
	hint={picture.afterCut === 'stays-off' && picture.offBy === 'cec' ? 'It is woken by CEC at each start.' : ''}
/>
<h3>Who looks at it</h3>
<div class="two">
	<NumberField path="picture.distanceM" unit="m" step={0.5} value={picture.distanceM} />
	<ChoiceField
		path="picture.light"
		value={picture.light}
		options={[
			{ value: 'dim', text: 'a dim room' },
			{ value: 'room', text: 'room light' },
			{ value: 'bright', text: 'a bright hall' },
			{ value: 'daylight', text: 'daylight, as behind a shop window' }
		]}
	/>
	<ChoiceField
		path="picture.eyes"
		value={picture.eyes}
		options={[
			{ value: 'good', text: 'good eyes' },
			{ value: 'usual', text: 'usual eyes' },
			{ value: 'weak', text: 'weak eyes' }
		]}
	/>
	<NumberField path="picture.angleDeg" unit="°" step={5} value={picture.angleDeg} />
	<NumberField path="picture.stillSec" unit="s" value={picture.stillSec} />
</div>
<SwitchField
	path="picture.shifts"
	value={picture.shifts}
	hint="Against burn-in at edges; up to 3 of 1000 are cut at one side."
/>
<div class="two">
	<ChoiceField
		path="picture.draws"
		value={picture.draws}
		options={[
			{ value: 'gpu', text: 'graphics unit' },
			{ value: 'plain', text: 'processor' }
		]}
	/>
	<ChoiceField
		path="picture.levels"
		value={picture.levels}
		options={[
			{ value: 'auto', text: 'as found' },
			{ value: 'full', text: 'full, 0–255' },
			{ value: 'limited', text: '16–235' }
		]}
	/>
</div>

<h3>How a person drives it</h3>
<Controls />

<style>
	.word {
		display: grid;
		gap: 4px;
	}
	.label {
		font-size: var(--size-small);
		color: var(--ink-soft);
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
</style>
