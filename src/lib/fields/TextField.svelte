<script lang="ts">
	import { labelOf } from '$core/fields';
	import type { SettingPath } from '$core/link/setting';
	import { TextInput } from 'carbon-components-svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		path: SettingPath;
		/** Where it shows a part of the setting only; else it is called as the setting's field is. */
		label?: string;
		value: string;
		hint?: string;
		placeholder?: string;
		mono?: boolean;
		/** What may stand there, each with its name: a list to search in. */
		choices?: readonly (readonly [value: string, name: string])[];
		/** Where the text is not the setting itself. */
		put?: (text: string) => string | null;
	}
	let { path, label = labelOf(path), value, hint = '', placeholder = '', mono = false, choices, put }: Props = $props();
	const view = useEndpoint();

	/** What stands in the field while it is not allowed: it is never thrown away. */
	let draft = $state<string | null>(null);
	let error = $state('');

	function typed(text: string): void {
		error = (put ? put(text) : view.set(path, text)) ?? '';
		draft = error ? text : null;
	}
</script>

<div id={`setting-${path}`} class:mono-field={mono}>
	<TextInput
		labelText={label}
		helperText={hint}
		{placeholder}
		value={draft ?? value}
		invalid={error !== ''}
		invalidText={error}
		autocomplete="off"
		spellcheck="false"
		list={choices ? `choices-${path}` : undefined}
		on:input={(event) => typed(String(event.detail ?? ''))}
	/>
	{#if choices}<datalist id={`choices-${path}`}
			>{#each choices as [choice, name] (choice)}<option value={choice}>{name}</option>{/each}</datalist
		>{/if}
</div>

<style>
	.mono-field :global(input) {
		font-family: var(--mono);
	}
</style>
