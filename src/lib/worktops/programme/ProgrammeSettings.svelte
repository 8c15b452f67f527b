<script lang="ts">
	import { Button, TextInput } from 'carbon-components-svelte';
	import type { QuietHours } from '$core/onAir/when';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, DaysField, NumberField, SwitchField } from '$lib/fields';
	import ProgrammeLists from './ProgrammeLists.svelte';
	import ProgrammeRules from './ProgrammeRules.svelte';

	const view = useEndpoint();
	const programme = $derived(view.plan.programme);
	/** Times that are not allowed yet, by place. */
	let drafts = $state<Record<string, string>>({});
	let error = $state('');

	const setQuiet = (quiet: readonly QuietHours[]): string | null => view.set('programme.quiet', quiet);
	const replace = (index: number, part: Partial<QuietHours>): string | null =>
		setQuiet(programme.quiet.map((hours, n) => (n === index ? { ...hours, ...part } : hours)));

	function time(index: number, key: 'from' | 'until', text: string): void {
		error = replace(index, { [key]: text }) ?? '';
		drafts[`${index}${key}`] = text;
		if (!error) delete drafts[`${index}${key}`];
	}
</script>

<SwitchField path="programme.startAtBoot" value={programme.startAtBoot} />
<ChoiceField
	path="programme.loop"
	value={programme.loop}
	options={[
		{ value: 'list', text: 'Repeat all' },
		{ value: 'one', text: 'Repeat the first' },
		{ value: 'once', text: 'The list once, then silence' }
	]}
/>
<SwitchField
	path="programme.shuffle"
	value={programme.shuffle}
	hint={view.context.facts.pageBrowser
		? 'Another order each round; nothing comes again before a third of the others.'
		: 'Another order each round; the last of one may be the first of the next.'}
/>
{#if (view.context.facts.streams ?? 0) > 0}
	<ChoiceField
		path="programme.whenGone"
		value={programme.whenGone}
		options={[
			{ value: 'list', text: 'The list goes on' },
			{ value: 'back', text: 'The list goes on, then back to it' },
			{ value: 'file', text: 'The first file of the list plays' },
			{ value: 'sign', text: 'A soft tone each ten seconds' }
		]}
		hint={programme.whenGone === 'sign'
			? 'Quieter than what is usually played; it says that the endpoint is well and the stream is not.'
			: ''}
	/>
	{#if programme.whenGone !== 'list'}
		<NumberField
			path="programme.lookSec"
			unit="s"
			step={10}
			value={programme.lookSec}
			hint="Each try asks the station for a second of sound."
		/>
	{/if}
{/if}
<h3>Rules: what is on when</h3>
<ProgrammeRules />
{#if programme.rules.length > 0 && !view.context.facts.pageBrowser}
	<ChoiceField
		path="programme.atChange"
		value={programme.atChange}
		options={[
			{ value: 'cut', text: 'What plays is cut off' },
			{ value: 'finish', text: 'What plays is finished first' }
		]}
		hint={programme.atChange === 'finish'
			? 'The new list begins late, by up to the longest title. Streams are cut off, for they have no end; so is everything at quiet hours.'
			: 'The new list begins to the minute, in the middle of a title if need be.'}
	/>
{/if}
<h3>Playlists</h3>
<ProgrammeLists />
<h3>Quiet hours</h3>
{#each programme.quiet as hours, index (index)}
	<div class="quiet" id={`setting-programme.quiet.${index}`}>
		<div class="two">
			<TextInput
				labelText="From"
				value={drafts[`${index}from`] ?? hours.from}
				invalid={`${index}from` in drafts}
				on:input={(event) => time(index, 'from', String(event.detail ?? ''))}
			/>
			<TextInput
				labelText="Until"
				value={drafts[`${index}until`] ?? hours.until}
				invalid={`${index}until` in drafts}
				on:input={(event) => time(index, 'until', String(event.detail ?? ''))}
			/>
		</div>
		<DaysField days={hours.weekdays} label="On evenings of" onpick={(weekdays) => replace(index, { weekdays })} />
		<Button kind="ghost" size="small" on:click={() => setQuiet(programme.quiet.filter((_, n) => n !== index))}
			>Take out</Button
		>
	</div>
{:else}
	<p class="soft">None: it may sound at any hour.</p>
{/each}
{#if error}<p class="bad" role="alert">{error}</p>{/if}
<div id="setting-programme.quiet">
	<Button
		kind="tertiary"
		size="small"
		on:click={() => setQuiet([...programme.quiet, { weekdays: [], from: '22:00', until: '07:00' }])}
		>Add quiet hours</Button
	>
</div>

<style>
	.quiet {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 8px 10px;
		background: var(--sheet);
	}
</style>
