<script lang="ts">
	import { labelOf } from '$core/fields';
	import type { SettingPath } from '$core/link/setting';
	import { TextInput } from 'carbon-components-svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		path: SettingPath;
		/** Where it shows a part of the setting only; else it is called as the setting's field is. */
		label?: string;
		/** Null: not known, which an empty field says. */
		value: number | null;
		unit: string;
		step?: number;
		hint?: string;
		/** Where the number is not the setting itself. */
		put?: (value: number) => string | null;
		/** The setting may be unknown. */
		mayBeEmpty?: boolean;
		/** What an empty field does, where the number is not the setting itself. */
		clear?: () => string | null;
	}
	let {
		path,
		label = labelOf(path),
		value,
		unit,
		step = 1,
		hint = '',
		put,
		mayBeEmpty = false,
		clear
	}: Props = $props();
	const view = useEndpoint();
	const set = (number: number): string | null => (put ? put(number) : view.set(path, number));
	let draft = $state<string | null>(null);
	let error = $state('');

	function typed(text: string): void {
		const number = Number(text.trim().replace(',', '.').replace('\u2212', '-'));
		if (mayBeEmpty && text.trim() === '') error = (clear ? clear() : view.set(path, null)) ?? '';
		else error = text.trim() === '' || Number.isNaN(number) ? 'A number, please.' : (set(number) ?? '');
		draft = text;
	}

	/** Arrow keys count up and down, as people expect of a number. */
	function nudge(event: KeyboardEvent): void {
		if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
		event.preventDefault();
		const next = Math.round(((value ?? 0) + (event.key === 'ArrowUp' ? step : -step)) * 1000) / 1000;
		if (set(next) === null) {
			draft = null;
			error = '';
		}
	}
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div id={`setting-${path}`} class="number" onkeydown={nudge} onfocusout={() => error === '' && (draft = null)}>
	<TextInput
		labelText={`${label} (${unit})`}
		helperText={hint}
		value={draft ?? String(value ?? '')}
		invalid={error !== ''}
		invalidText={error}
		inputmode="decimal"
		autocomplete="off"
		on:input={(event) => typed(String(event.detail ?? ''))}
	/>
</div>

<style>
	.number :global(input) {
		font-family: var(--mono);
	}
</style>
