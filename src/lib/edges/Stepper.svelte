<script lang="ts">
	interface Props {
		label: string;
		value: number;
		/** Gives a sentence when the value is not allowed. */
		put: (value: number) => string | null;
	}
	let { label, value, put }: Props = $props();
	let error = $state('');
	const id = $props.id();
	function to(next: number): void {
		error = Number.isInteger(next) && next >= 0 ? (put(next) ?? '') : 'A whole number, 0 or more.';
	}
</script>

<div class="row">
	<label for={id}>{label}</label>
	<button type="button" aria-label={`${label}: one less`} onclick={() => to(value - 1)} disabled={value === 0}>−</button
	>
	<input
		{id}
		inputmode="numeric"
		autocomplete="off"
		{value}
		aria-invalid={error !== ''}
		aria-describedby={error ? `${id}e` : undefined}
		onchange={(event) => to(Number(event.currentTarget.value.trim() || NaN))}
	/>
	<button type="button" aria-label={`${label}: one more`} onclick={() => to(value + 1)}>+</button>
	{#if error}<p class="bad" id={`${id}e`} role="alert">{error}</p>{/if}
</div>

<style>
	.row {
		display: grid;
		grid-template-columns: 5.2em 52px minmax(0, 1fr) 52px;
		gap: 8px;
		align-items: center;
	}
	label {
		font-weight: 700;
	}
	button,
	input {
		height: 48px;
		border: 1px solid var(--bottle);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--bottle);
		font-size: 20px;
		font-weight: 700;
	}
	button:disabled {
		opacity: 0.4;
	}
	input {
		border-color: var(--rule-strong);
		color: var(--ink);
		font-family: var(--mono);
		font-weight: 400;
		text-align: center;
		min-width: 0;
	}
	.bad {
		grid-column: 1 / -1;
	}
</style>
