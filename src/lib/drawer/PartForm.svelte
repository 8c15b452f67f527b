<script lang="ts">
	import { Button, Modal } from 'carbon-components-svelte';
	import { readPart } from '$core/parts/file';
	import { KINDS, SURENESS, type Part, type PartKind } from '$core/parts/schema';
	import { measuredWhereChanged, shapeOf } from '$core/parts/shape';
	import PartFields from './PartFields.svelte';

	interface Props {
		/** As it was, or as it is proposed; what is saved has the same id. */
		part: Readonly<Record<string, unknown>>;
		/** From nothing, a copy of another, or one's own as it is. */
		how: 'new' | 'copy' | 'change';
		onsave: (part: Part) => void;
		onremove: () => void;
		onclose: () => void;
	}
	let { part, how, onsave, onremove, onclose }: Props = $props();
	// The form starts from the part once; what is typed is kept until it is saved or closed.
	// svelte-ignore state_referenced_locally
	let values = $state.raw<Record<string, unknown>>({ ...part });
	const kind = $derived(part.kind as PartKind);
	const APART = new Set(['name', 'source', 'sure', 'price']);
	const fields = $derived(shapeOf(kind).fields.filter(([name]) => !APART.has(name)));
	let error = $state('');
	const HEADINGS = { new: 'New', copy: 'A copy of your own', change: 'Change this part' } as const;

	const put = (name: string, value: unknown): void => void (values = { ...values, [name]: value });
	function priceOf(text: string): unknown {
		const trimmed = text.trim().replace(',', '.');
		return trimmed === '' ? null : Number.isNaN(Number(trimmed)) ? text : Number(trimmed);
	}
	function save(): void {
		const read = readPart(values);
		if (!read.ok) error = read.faults[0]!.message;
		else onsave(how === 'copy' ? measuredWhereChanged(read.value, part as unknown as Part) : read.value);
	}
</script>

<Modal
	open
	modalHeading={how === 'new' ? `New part: ${KINDS[kind].toLowerCase()}` : HEADINGS[how]}
	primaryButtonText="Save"
	secondaryButtonText="Cancel"
	on:close={onclose}
	on:click:button--secondary={onclose}
	on:submit={save}
>
	<div class="form">
		<label class="wide"
			>Name<input
				value={String(values.name ?? '')}
				oninput={(event) => put('name', event.currentTarget.value)}
			/></label
		>
		<label
			>Price<input
				class="mono"
				inputmode="decimal"
				value={String(values.price ?? '')}
				oninput={(event) => put('price', priceOf(event.currentTarget.value))}
			/></label
		>
		<label
			>How sure are its figures<select
				value={String(values.sure)}
				onchange={(event) => put('sure', event.currentTarget.value)}
			>
				{#each SURENESS as sure (sure)}<option value={sure}>{sure}</option>{/each}
			</select></label
		>
		<label class="wide"
			>Where they come from<input
				value={String(values.source ?? '')}
				oninput={(event) => put('source', event.currentTarget.value)}
			/></label
		>
		{#if how === 'copy'}<p class="soft small wide">
				What you change counts as measured; the rest stays as sure as it was.
			</p>{/if}
	</div>
	<PartFields
		shape={{ is: 'group', fields }}
		value={values}
		label="Its figures"
		onchange={(next) => (values = next as Record<string, unknown>)}
	/>
	{#if error}<p class="bad" role="alert">Not saved. {error}</p>{/if}
	{#if how === 'change'}<p><Button kind="ghost" on:click={onremove}>Remove from the drawer</Button></p>{/if}
</Modal>

<style>
	.form {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
		gap: 10px 14px;
		margin-bottom: 10px;
	}
	label {
		display: grid;
		gap: 3px;
		font-size: var(--size-small);
		color: var(--ink-soft);
		align-content: start;
	}
	.wide {
		grid-column: 1 / -1;
	}
	input,
	select {
		width: 100%;
		font-size: var(--size-text);
	}
	.bad {
		color: var(--brick);
		font-weight: 600;
		margin-top: 10px;
	}
</style>
