<script lang="ts">
	import { Button, Modal } from 'carbon-components-svelte';
	import { fieldWords } from '$core/parts/describe';
	import { choicesOf, readPart } from '$core/parts/file';
	import { SURENESS, type Part } from '$core/parts/schema';

	interface Props {
		/** As it was, or as it is proposed; what is saved has the same id. */
		part: Part;
		isNew: boolean;
		onsave: (part: Part) => void;
		onremove: () => void;
		onclose: () => void;
	}
	let { part, isNew, onsave, onremove, onclose }: Props = $props();
	type Values = Record<string, unknown>;
	const HIDDEN = new Set(['id', 'kind', 'figures', 'name', 'source', 'sure', 'price']);
	// The form starts from the part once; what is typed is kept until it is saved or closed.
	// svelte-ignore state_referenced_locally
	const start = part as unknown as Values;
	let values = $state<Values>({ ...start });
	/** Lists and nested things are written as JSON. */
	const isNested = (key: string): boolean => typeof start[key] === 'object' || NESTABLE.has(key);
	const NESTABLE = new Set(['draw', 'header', 'lead', 'volume']);
	const keys = Object.keys(start).filter((key) => !HIDDEN.has(key));
	let nested = $state<Record<string, string>>(
		Object.fromEntries(keys.filter(isNested).map((key) => [key, JSON.stringify(start[key], null, 1)]))
	);
	let error = $state('');

	function numberOf(text: string): unknown {
		const trimmed = text.trim().replace(',', '.');
		return trimmed === '' ? null : Number.isNaN(Number(trimmed)) ? text : Number(trimmed);
	}
	function save(): void {
		const raw: Values = { ...values };
		for (const [key, text] of Object.entries(nested))
			try {
				raw[key] = JSON.parse(text);
			} catch (reason) {
				error = `${fieldWords(key).label}: not readable as JSON (${(reason as Error).message}).`;
				return;
			}
		const read = readPart(raw);
		if (read.ok) onsave(read.value);
		else error = read.faults[0]!.message;
	}
</script>

<Modal
	open
	modalHeading={isNew ? 'A copy of your own' : 'Change this part'}
	primaryButtonText="Save"
	secondaryButtonText="Cancel"
	on:close={onclose}
	on:click:button--secondary={onclose}
	on:submit={save}
>
	<div class="form">
		<label class="wide">Name<input bind:value={values.name as string} /></label>
		<label
			>Price<input
				class="mono"
				inputmode="decimal"
				value={values.price ?? ''}
				oninput={(event) => (values.price = numberOf(event.currentTarget.value))}
			/></label
		>
		<label
			>How sure are its figures<select bind:value={values.sure as string}>
				{#each SURENESS as sure (sure)}<option value={sure}>{sure}</option>{/each}
			</select></label
		>
		<label class="wide">Where they come from<input bind:value={values.source as string} /></label>
		{#each keys.filter((key) => !isNested(key)) as key (key)}
			{@const { label, unit } = fieldWords(key)}
			{@const choices = choicesOf(part.kind, key)}
			{#if choices}
				<label
					>{label}<select bind:value={values[key] as string}>
						{#each choices as choice (choice)}<option value={choice}>{choice}</option>{/each}
					</select></label
				>
			{:else if typeof start[key] === 'boolean'}
				<label class="tick"><input type="checkbox" bind:checked={values[key] as boolean} /> {label}</label>
			{:else}
				<label
					>{label}{unit ? ` (${unit})` : ''}<input
						class="mono"
						value={String(values[key] ?? '')}
						oninput={(event) =>
							(values[key] =
								typeof start[key] === 'string' ? event.currentTarget.value : numberOf(event.currentTarget.value))}
					/></label
				>
			{/if}
		{/each}
	</div>
	<details>
		<summary>Plugs, power and all that is made of several figures</summary>
		<p class="soft small">Written as JSON, as in the file of parts; null where there is none.</p>
		{#each keys.filter(isNested) as key (key)}
			<label>{fieldWords(key).label}<textarea rows="4" class="mono" bind:value={nested[key]}></textarea></label>
		{/each}
	</details>
	{#if error}<p class="bad" role="alert">Not saved. {error}</p>{/if}
	{#if !isNew}<p><Button kind="ghost" on:click={onremove}>Remove from the drawer</Button></p>{/if}
</Modal>

<style>
	.form {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
		gap: 10px 14px;
	}
	label {
		display: grid;
		gap: 3px;
		font-size: var(--size-small);
		color: var(--ink-soft);
		align-content: start;
	}
	details {
		margin-top: 14px;
	}
	details label {
		margin-top: 8px;
	}
	.wide {
		grid-column: 1 / -1;
	}
	.tick {
		display: flex;
		align-items: center;
		gap: 8px;
		color: var(--ink);
		font-size: var(--size-text);
	}
	input:not([type='checkbox']),
	select,
	textarea {
		width: 100%;
		font-size: var(--size-text);
	}
	.bad {
		color: var(--brick);
		font-weight: 600;
		margin-top: 10px;
	}
</style>
