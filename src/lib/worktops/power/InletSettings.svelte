<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { powerSettings } from '$core/links/power/settings';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const inlet = $derived(view.plan.power.inlet);
	const UNSAFE = {
		watts: 40,
		powerFactor: 0.6,
		marginPercent: 50,
		inrushA: 20,
		earthed: false,
		strainRelief: false,
		touchSafe: false
	};
	type Inlet = typeof UNSAFE;
	const NUMBERS = [
		['watts', 'Drawn through it at the busiest', 'W'],
		['powerFactor', 'Power factor', '0.6 for plain small supplies'],
		['marginPercent', 'Margin for the fuse', '%'],
		['inrushA', 'Inrush when switched on', 'A, from the supply\u2019s sheet']
	] as const;
	const GUARDS = [
		['earthed', 'Every metal part that can be touched is earthed'],
		['strainRelief', 'The cable is relieved of strain'],
		['touchSafe', 'Nothing live can be touched without a tool']
	] as const;
	let errors = $state<Partial<Record<keyof Inlet, string>>>({});

	const put = (value: Inlet | null, label: string): void =>
		void view.edit(label, (plan) => ({ ...plan, power: { ...plan.power, inlet: value } }));
	function typed(key: keyof Inlet, text: string): void {
		const next = { ...inlet!, [key]: Number(text.replace(',', '.')) };
		const parsed = powerSettings.shape.inlet.safeParse(next);
		errors[key] = parsed.success ? undefined : parsed.error.issues[0]!.message;
		if (parsed.success) put(next, `inlet: ${key}`);
	}
</script>

<section class="group" id="setting-power.inlet">
	<h3>Mains inlet in a box of one’s own</h3>
	{#if inlet}
		<p class="care small">
			Mains can kill. This is work for a competent person under the wiring rules of your country. A ready-made supply
			outside the box needs none of it.
		</p>
		{#each NUMBERS as [key, label, unit] (key)}
			<label class="small">
				{label} <span class="soft">({unit})</span>
				<input
					class="mono"
					inputmode="decimal"
					value={inlet[key]}
					aria-invalid={Boolean(errors[key])}
					onchange={(event) => typed(key, event.currentTarget.value)}
				/>
				{#if errors[key]}<span class="bad">{errors[key]}</span>{/if}
			</label>
		{/each}
		{#each GUARDS as [key, label] (key)}
			<Checkbox
				labelText={label}
				checked={inlet[key]}
				on:check={(event) => event.detail !== inlet[key] && put({ ...inlet, [key]: event.detail }, label)}
			/>
		{/each}
		<Button kind="tertiary" on:click={() => put(null, 'ready-made supply')}>Use a ready-made supply instead</Button>
	{:else}
		<p class="soft small">None: a ready-made supply in a wall socket, which is what we advise.</p>
		<button type="button" class="plain" onclick={() => put(UNSAFE, 'mains inlet')}>Plan one all the same</button>
	{/if}
</section>

<style>
	section {
		justify-items: start;
	}
	label {
		display: grid;
		gap: 3px;
		width: 100%;
		color: var(--ink-soft);
	}
	input {
		height: 34px;
	}
	.care {
		background: var(--amber-wash);
		border-left: 3px solid var(--amber);
		padding: 6px 9px;
	}
</style>
