<script lang="ts">
	import type { SettingPath } from '$core/link/setting';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import NumberField from './NumberField.svelte';

	/** One number of a setting that is made of several: "network.radio" and its "signalDbm". */
	interface Props {
		path: SettingPath;
		field: string;
		label: string;
		unit: string;
		step?: number;
		hint?: string;
	}
	let { path, field, label, unit, step = 1, hint = '' }: Props = $props();
	const view = useEndpoint();
	const group = $derived.by(() => {
		const [link, key] = path.split('.') as [keyof typeof view.plan, string];
		return (view.plan[link] as Record<string, unknown>)[key] as Record<string, unknown>;
	});
</script>

<NumberField
	path={`${path}.${field}` as SettingPath}
	{label}
	{unit}
	{step}
	{hint}
	value={group[field] as number}
	put={(value) => view.set(path, { ...group, [field]: value })}
/>
