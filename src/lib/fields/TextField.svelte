<script lang="ts">
	import type { SettingPath } from '$core/link';
	import { TextInput } from 'carbon-components-svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		path: SettingPath;
		label: string;
		value: string;
		hint?: string;
		placeholder?: string;
		mono?: boolean;
		/** Where the text is not the setting itself. */
		put?: (text: string) => string | null;
	}
	let { path, label, value, hint = '', placeholder = '', mono = false, put }: Props = $props();
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
		on:input={(event) => typed(String(event.detail ?? ''))}
	/>
</div>

<style>
	.mono-field :global(input) {
		font-family: var(--mono);
	}
</style>
