<script lang="ts">
	import { fieldWords } from '$core/parts/describe';
	import { PLUGS } from '$core/parts/plugs';
	import { blankOf, type Shape } from '$core/parts/shape';
	import PartFields from './PartFields.svelte';

	interface Props {
		shape: Shape;
		value: unknown;
		label: string;
		onchange: (value: unknown) => void;
	}
	let { shape, value, label, onchange }: Props = $props();

	const wordsFor = (option: string | number): string =>
		option in PLUGS ? PLUGS[option as keyof typeof PLUGS].words : String(option);
	const named = (name: string): string => {
		const { label, unit } = fieldWords(name);
		return unit ? `${label} (${unit})` : label;
	};
	const list = $derived(Array.isArray(value) ? (value as unknown[]) : []);
	const group = $derived((value ?? {}) as Record<string, unknown>);
	const put = (n: number, next: unknown): void => onchange(list.map((item, k) => (k === n ? next : item)));

	/** What is half typed, such as "0.", stays as it stands. */
	const numberOf = (text: string): unknown => {
		const trimmed = text.trim().replace(',', '.');
		return trimmed === '' || Number.isNaN(Number(trimmed)) ? text : Number(trimmed);
	};
	const numbersOf = (text: string): unknown[] =>
		text
			.split(/[\s;]+/)
			.filter(Boolean)
			.map(numberOf);
</script>

{#if shape.is === 'yes-no'}
	<label class="tick"
		><input type="checkbox" checked={value === true} onchange={(event) => onchange(event.currentTarget.checked)} />
		{label}</label
	>
{:else if shape.is === 'choice'}
	<label
		>{label}<select
			value={String(value)}
			onchange={(event) => onchange(shape.options.find((option) => String(option) === event.currentTarget.value))}
		>
			{#each shape.options as option (option)}<option value={String(option)}>{wordsFor(option)}</option>{/each}
		</select></label
	>
{:else if shape.is === 'text'}
	<label>{label}<input value={String(value ?? '')} oninput={(event) => onchange(event.currentTarget.value)} /></label>
{:else if shape.is === 'number'}
	<label
		>{label}<input
			class="mono"
			inputmode="decimal"
			value={String(value ?? '')}
			oninput={(event) => onchange(numberOf(event.currentTarget.value))}
		/></label
	>
{:else if shape.is === 'maybe'}
	<div class="maybe" class:wide={value !== null && shape.of.is !== 'number'}>
		<label class="tick"
			><input
				type="checkbox"
				checked={value !== null && value !== undefined}
				onchange={(event) => onchange(event.currentTarget.checked ? blankOf(shape.of) : null)}
			/>
			{label}</label
		>
		{#if value !== null && value !== undefined}<PartFields shape={shape.of} {value} {label} {onchange} />{/if}
	</div>
{:else if shape.is === 'list' && shape.of.is === 'choice'}
	{@const { options } = shape.of}
	<fieldset class="wide">
		<legend>{label}</legend>
		{#each options as option (option)}
			<label class="tick"
				><input
					type="checkbox"
					checked={list.includes(option)}
					onchange={(event) =>
						onchange(
							options.filter((known) => (known === option ? event.currentTarget.checked : list.includes(known)))
						)}
				/>
				{wordsFor(option)}</label
			>
		{/each}
	</fieldset>
{:else if shape.is === 'list' && shape.of.is === 'number'}
	<label class="wide"
		>{label}, parted by blanks<input
			class="mono"
			value={list.join(' ')}
			onchange={(event) => onchange(numbersOf(event.currentTarget.value))}
		/></label
	>
{:else if shape.is === 'list'}
	<fieldset class="wide rows">
		<legend>{label}</legend>
		{#each list as item, n (n)}
			<div class="item">
				<PartFields shape={shape.of} value={item} label={String(n + 1)} onchange={(next) => put(n, next)} />
				<button type="button" class="plain" onclick={() => onchange(list.filter((_, k) => k !== n))}>Remove</button>
			</div>
		{/each}
		<button type="button" class="plain" onclick={() => onchange([...list, blankOf(shape.of)])}>Add</button>
	</fieldset>
{:else if shape.is === 'row'}
	<fieldset class="wide rows">
		<legend>{label}</legend>
		{#each shape.items as item, n (n)}
			<PartFields shape={item} value={list[n]} label={`${label} ${n + 1}`} onchange={(next) => put(n, next)} />
		{/each}
	</fieldset>
{:else if shape.is === 'group'}
	<div class="group wide" role="group" aria-label={label}>
		{#each shape.fields as [name, field] (name)}
			<PartFields
				shape={field}
				value={group[name]}
				label={named(name)}
				onchange={(next) => onchange({ ...group, [name]: next })}
			/>
		{/each}
	</div>
{/if}

<style>
	.group {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
		gap: 8px 14px;
		align-items: end;
	}
	.wide {
		grid-column: 1 / -1;
	}
	label {
		display: grid;
		gap: 3px;
		font-size: var(--size-small);
		color: var(--ink-soft);
	}
	.tick {
		display: flex;
		align-items: center;
		gap: 8px;
		color: var(--ink);
	}
	.maybe {
		display: grid;
		gap: 6px;
	}
	fieldset {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 6px 10px 10px;
		margin: 0;
		display: flex;
		flex-wrap: wrap;
		gap: 6px 14px;
		min-width: 0;
	}
	.rows {
		display: grid;
		justify-items: start;
	}
	legend {
		font-size: var(--size-small);
		color: var(--ink-soft);
		padding: 0 4px;
	}
	.item {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 10px;
		align-items: end;
		width: 100%;
		padding-bottom: 8px;
		border-bottom: 1px solid var(--rule);
	}
	input:not([type='checkbox']),
	select {
		width: 100%;
		font-size: var(--size-text);
	}
</style>
