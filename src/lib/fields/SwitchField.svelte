<script lang="ts">
	import { labelOf } from '$core/fields';
	import type { SettingPath } from '$core/link/setting';
	import { Checkbox } from 'carbon-components-svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		path: SettingPath;
		/** Where it shows a part of the setting only; else it is called as the setting's field is. */
		label?: string;
		value: boolean;
		hint?: string;
	}
	let { path, label = labelOf(path), value, hint = '' }: Props = $props();
	const view = useEndpoint();
</script>

<div id={`setting-${path}`}>
	<Checkbox
		labelText={label}
		checked={value}
		on:check={(event) => event.detail !== value && view.set(path, event.detail)}
	/>
	{#if hint}<p class="soft small">{hint}</p>{/if}
</div>
