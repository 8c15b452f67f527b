<script lang="ts">
	import { labelOf } from '$core/fields';
	import type { SettingPath } from '$core/link/setting';
	import { Select, SelectItem } from 'carbon-components-svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		path: SettingPath;
		/** Where it shows a part of the setting only; else it is called as the setting's field is. */
		label?: string;
		value: string;
		options: readonly { value: string; text: string }[];
		hint?: string;
		/** Where the choice is not the setting's own text. */
		onpick?: (value: string) => void;
	}
	let { path, label = labelOf(path), value, options, hint = '', onpick }: Props = $props();
	const view = useEndpoint();

	function picked(choice: string): void {
		if (choice === value) return;
		if (onpick) onpick(choice);
		else view.set(path, choice === '' ? null : choice);
	}
</script>

<div id={`setting-${path}`}>
	<Select labelText={label} helperText={hint} selected={value} on:update={(event) => picked(String(event.detail))}>
		{#each options as option (option.value)}
			<SelectItem value={option.value} text={option.text} />
		{/each}
	</Select>
</div>
