<script lang="ts">
	import { Editor } from '@tiptap/core';
	import StarterKit from '@tiptap/starter-kit';
	import { onMount } from 'svelte';
	import { documentOf, textOfDocument } from './richText';

	interface Props {
		label: string;
		value: string;
		/** Why it cannot be kept; null: it is. */
		put: (text: string) => string | null;
	}
	const { label, value, put }: Props = $props();
	let place: HTMLElement;
	let editor = $state.raw<Editor | null>(null);
	/** What it stands on, for the buttons. */
	let stands = $state({ bold: false, italic: false, heading: false, list: false });
	let problem = $state('');
	let kept = '';

	onMount(() => {
		kept = value;
		const made = new Editor({
			element: place,
			extensions: [
				StarterKit.configure({
					heading: { levels: [2] },
					...{ blockquote: false, code: false, codeBlock: false, hardBreak: false, horizontalRule: false },
					...{ link: false, orderedList: false, strike: false, underline: false, trailingNode: false }
				})
			],
			// Its style sheet is ours; the page's policy refuses another.
			injectCSS: false,
			content: documentOf(value),
			editorProps: { attributes: { class: 'typed', role: 'textbox', 'aria-multiline': 'true', 'aria-label': label } },
			onUpdate: ({ editor: { getJSON } }) => {
				const text = textOfDocument(getJSON.call(made));
				const why = put(text);
				problem = why ?? '';
				if (why === null) kept = text;
			},
			onTransaction: () => {
				stands = {
					bold: made.isActive('bold'),
					italic: made.isActive('italic'),
					heading: made.isActive('heading'),
					list: made.isActive('bulletList')
				};
			}
		});
		editor = made;
		return () => made.destroy();
	});
	// Undone, or changed elsewhere.
	$effect(() => {
		if (!editor || value === kept) return;
		kept = value;
		problem = '';
		editor.commands.setContent(documentOf(value), { emitUpdate: false });
	});

	type Chain = ReturnType<Editor['chain']>;
	const press = (does: (chain: Chain) => Chain): void => {
		if (editor) does(editor.chain().focus()).run();
	};
	const BUTTONS: readonly { name: string; on: keyof typeof stands; does: (chain: Chain) => Chain }[] = [
		{ name: 'Bold', on: 'bold', does: (chain) => chain.toggleBold() },
		{ name: 'Italic', on: 'italic', does: (chain) => chain.toggleItalic() },
		{ name: 'Heading', on: 'heading', does: (chain) => chain.toggleHeading({ level: 2 }) },
		{ name: 'List', on: 'list', does: (chain) => chain.toggleBulletList() }
	];
</script>

<p class="small label">{label}</p>
<div class="marks" role="toolbar" aria-label="Formatting">
	{#each BUTTONS as { name, on, does } (name)}
		<!-- Whoever clicks goes on typing where they were. -->
		<button
			type="button"
			aria-pressed={stands[on]}
			class={on}
			onmousedown={(event) => event.preventDefault()}
			onclick={() => press(does)}>{name}</button
		>
	{/each}
</div>
<div bind:this={place} class="field" class:wrong={problem !== ''}></div>
{#if problem}<p class="bad small" role="alert">{problem}</p>{/if}

<style>
	.label {
		margin: 8px 0 0;
		color: var(--ink-soft);
	}
	.field {
		background: var(--sheet);
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
	}
	.field:focus-within {
		outline: 2px solid var(--bottle);
		outline-offset: 1px;
	}
	.wrong {
		border-color: var(--brick);
	}
	.field :global(.typed) {
		min-height: 7em;
		max-height: 20em;
		overflow-y: auto;
		padding: 8px 10px;
		outline: none;
		white-space: pre-wrap;
		overflow-wrap: anywhere;
	}
	.field :global(.typed p) {
		margin: 0 0 4px;
	}
	.field :global(.typed h2) {
		font-size: var(--size-large);
		margin: 0 0 4px;
	}
	.field :global(.typed ul) {
		list-style: disc;
		padding-left: 20px;
		margin: 0 0 4px;
	}
	.field :global(.typed strong) {
		font-weight: 700;
	}
	.field :global(.typed em) {
		font-style: italic;
	}
	.marks {
		display: flex;
		gap: 4px;
		margin: 4px 0;
	}
	.marks button {
		min-width: 32px;
		min-height: 32px;
		padding: 2px 10px;
		font: inherit;
		background: var(--sheet);
		color: var(--ink);
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
	}
	.marks button[aria-pressed='true'] {
		background: var(--bottle-wash);
		border-color: var(--bottle);
	}
	.marks .bold {
		font-weight: 700;
	}
	.marks .italic {
		font-style: italic;
	}
</style>
