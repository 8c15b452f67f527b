<script lang="ts">
	import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
	import type { Moment } from '$core/onAir/when';

	interface Props {
		label: string;
		value: Moment;
		/** Gives a sentence when that is not possible. */
		put: (moment: Moment) => string | null;
	}
	const { label, value, put }: Props = $props();
	const AT: Readonly<Record<Moment['at'], string>> = {
		clock: 'at',
		opens: 'opening',
		closes: 'closing',
		sunrise: 'sunrise',
		sunset: 'sunset'
	};
	const shown = $derived(value.at === 'clock' ? value.time : String(value.offsetMin));
	let draft = $state<string | null>(null);
	let error = $state('');
	function typed(text: string): void {
		const minutes = Number(text.replace('\u2212', '-'));
		error =
			(value.at === 'clock'
				? put({ ...value, time: text.trim() })
				: text.trim() === '' || !Number.isInteger(minutes)
					? 'Whole minutes, such as 15 or -15.'
					: put({ ...value, offsetMin: minutes })) ?? '';
		draft = error ? text : null;
	}
	function picked(at: Moment['at']): void {
		if (at === value.at) return;
		draft = null;
		error = put({ ...value, at }) ?? '';
	}
</script>

<div class="moment" role="group" aria-label={label}>
	<Select size="sm" labelText={label} selected={value.at} on:update={(event) => picked(event.detail as Moment['at'])}>
		{#each Object.entries(AT) as [at, text] (at)}<SelectItem value={at} {text} />{/each}
	</Select>
	<TextInput
		size="sm"
		labelText={value.at === 'clock' ? 'Time' : 'Minutes after; before with \u2212'}
		value={draft ?? shown}
		invalid={error !== ''}
		invalidText={error}
		on:input={(event) => typed(String(event.detail ?? ''))}
	/>
</div>

<style>
	.moment {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 8px;
		align-items: end;
	}
</style>
