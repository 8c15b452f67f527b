<script lang="ts">
	import 'carbon-components-svelte/css/all.css';
	import '$lib/app.css';
	import { onMount, type Snippet } from 'svelte';
	import { afterNavigate } from '$app/navigation';
	import { page } from '$app/state';
	import { commandsFor } from '$lib/shell/commands';
	import Guarded from '$lib/shell/Guarded.svelte';
	import Notices from '$lib/shell/Notices.svelte';
	import Shelf from '$lib/shell/Shelf.svelte';
	import { judging } from '$lib/shell/judging.svelte';
	import { applyTheme } from '$lib/shell/theme';
	import { store } from '$lib/store/workshop.svelte';

	let { children }: { children: Snippet } = $props();
	let palette = $state<'find' | 'keys' | null>(null);
	let shelfOpen = $state(false);
	/** The first key of a pair such as "g f". */
	let pending = '';
	const commands = $derived(commandsFor(store.workshop, page.params.id));

	onMount(() => {
		applyTheme();
		void store.open();
	});

	$effect(() => {
		if (store.workshop) judging.load();
	});

	$effect(() => {
		void page.url.pathname;
		shelfOpen = false;
	});

	/** A new page is read from its beginning, by eye, keyboard and screen reader alike; a field that is asked for has it instead. */
	afterNavigate(({ from, to }) => {
		if (from?.url && from.url.pathname !== to?.url?.pathname && !to?.url?.hash)
			document.getElementById('main')?.focus({ preventScroll: true });
	});

	const isTyping = (target: EventTarget | null): boolean =>
		target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

	/** What failed outside the drawing of a page, such as in a button: said, and the page goes on. */
	function broke(event: Event | string): void {
		const words = typeof event === 'string' ? event : event instanceof ErrorEvent ? event.message : 'an error';
		store.problem = `Something of Yphos failed (${words.slice(0, 200)}). Your workshop is unchanged; go on, or load the page again.`;
	}

	function key(event: KeyboardEvent): void {
		const withCtrl = event.ctrlKey || event.metaKey;
		const letter = event.key.toLowerCase();
		if (withCtrl && letter === 'k') palette = 'find';
		else if (withCtrl && letter === 'z' && !isTyping(event.target)) {
			if (event.shiftKey) store.redo();
			else store.undo();
		} else if (withCtrl || event.altKey || isTyping(event.target)) return;
		else if (event.key === '?') palette = 'keys';
		else if (pending === 'g') {
			pending = '';
			const command = commands.find((known) => known.keys === `g ${letter}`);
			if (!command) return;
			command.run();
		} else {
			pending = letter;
			return;
		}
		event.preventDefault();
	}
</script>

<svelte:window onkeydown={key} onerror={broke} onunhandledrejection={(event) => broke(String(event.reason))} />

<a class="skip" href="#main">Skip to the page</a>
<div class="frame">
	<header class="narrow">
		<button type="button" onclick={() => (shelfOpen = !shelfOpen)} aria-expanded={shelfOpen}
			>{shelfOpen ? 'Close' : 'Endpoints'}</button
		>
		<strong>Yphos</strong>
	</header>
	<div class="aside" class:open={shelfOpen}>
		<Guarded what="The shelf"><Shelf onpalette={() => (palette = 'find')} /></Guarded>
	</div>
	<main id="main" tabindex="-1">
		<Notices />
		{#if store.lock}
			{#await import('$lib/shell/LockPanel.svelte') then { default: LockPanel }}<LockPanel lock={store.lock} />{/await}
		{:else if store.workshop}
			<Guarded what="This page">{@render children()}</Guarded>
		{:else}
			<p class="opening soft">Opening the workshop …</p>
		{/if}
		<p class="visually-hidden" aria-live="polite">{store.said}</p>
	</main>
</div>
{#if store.message}
	{#key store.message.n}
		<div class="said" class:stays={store.message.undo}>
			<span>{store.message.text}</span>
			{#if store.message.undo}<button type="button" onclick={() => store.undo()}>Undo</button>{/if}
		</div>
	{/key}
{/if}
{#if palette}
	{#await Promise.all( [import('$lib/shell/Palette.svelte'), import('$lib/shell/settingCommands')] ) then [{ default: Palette }, { settingCommands }]}
		<Palette
			commands={[...commands, ...settingCommands(store.workshop, page.params.id)]}
			mode={palette}
			onclose={() => (palette = null)}
		/>
	{/await}
{/if}

<style>
	.skip {
		position: absolute;
		left: 8px;
		top: -60px;
		z-index: 10;
		background: var(--ink);
		color: var(--paper);
		padding: 8px 14px;
		border-radius: var(--radius);
	}
	.skip:focus {
		top: 8px;
	}
	main:focus {
		outline: none;
	}
	.frame {
		display: grid;
		grid-template-columns: 208px minmax(0, 1fr);
		min-height: 100vh;
	}
	.aside {
		position: sticky;
		top: 0;
		height: 100vh;
		overflow-y: auto;
	}
	.narrow {
		display: none;
	}
	.opening {
		padding: 32px;
	}
	.said {
		position: fixed;
		right: 16px;
		bottom: 16px;
		background: var(--ink);
		color: var(--paper);
		padding: 8px 14px;
		border-radius: var(--radius);
		display: flex;
		gap: 14px;
		align-items: center;
		max-width: calc(100vw - 32px);
		box-sizing: border-box;
		animation: fade 4s forwards;
		z-index: 5;
	}
	.said.stays {
		animation-duration: 12s;
	}
	.said:hover,
	.said:focus-within {
		animation-play-state: paused;
	}
	.said button {
		border: 1px solid var(--paper);
		border-radius: var(--radius);
		background: none;
		color: inherit;
		min-height: 32px;
		padding: 0 12px;
		cursor: pointer;
		font-weight: 600;
	}
	@keyframes fade {
		0%,
		80% {
			opacity: 1;
		}
		100% {
			opacity: 0;
			visibility: hidden;
		}
	}
	@media (max-width: 760px) {
		.frame {
			grid-template-columns: minmax(0, 1fr);
			grid-template-rows: auto 1fr;
		}
		.narrow {
			display: flex;
			gap: 12px;
			align-items: center;
			padding: 8px 12px;
			background: var(--well);
			border-bottom: 1px solid var(--rule);
		}
		.narrow button {
			min-height: 36px;
			border: 1px solid var(--rule-strong);
			border-radius: var(--radius);
			background: var(--sheet);
			color: var(--ink);
			padding: 0 12px;
		}
		.aside {
			display: none;
			position: static;
			height: auto;
		}
		.aside.open {
			display: block;
		}
	}
</style>
