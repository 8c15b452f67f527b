<script lang="ts">
	import type { Command } from './commands';
	import { found } from './found';

	interface Props {
		commands: readonly Command[];
		/** keys: show the list of shortcuts; find: search and run. */
		mode: 'find' | 'keys';
		onclose: () => void;
	}
	let { commands, mode, onclose }: Props = $props();
	/** As many as one looks through. */
	const MOST = 40;
	let wanted = $state('');
	let at = $state(0);
	let dialog: HTMLDialogElement;
	const shown = $derived(
		mode === 'keys' ? commands.filter((command) => command.keys) : found(commands, wanted).slice(0, MOST)
	);

	$effect(() => dialog.showModal());

	function run(command: Command | undefined): void {
		if (!command) return;
		onclose();
		command.run();
	}

	function key(event: KeyboardEvent): void {
		if (event.key === 'ArrowDown') at = Math.min(at + 1, shown.length - 1);
		else if (event.key === 'ArrowUp') at = Math.max(at - 1, 0);
		else if (event.key === 'Enter') run(shown[at]);
		else return;
		event.preventDefault();
	}
</script>

<dialog
	bind:this={dialog}
	{onclose}
	onclick={(event) => event.target === dialog && onclose()}
	aria-label={mode === 'keys' ? 'Shortcuts' : 'Find anything'}
>
	{#if mode === 'find'}
		<input
			autofocus
			type="text"
			placeholder="Where to, or what to do?"
			aria-label="Find anything"
			bind:value={wanted}
			oninput={() => (at = 0)}
			onkeydown={key}
		/>
	{:else}
		<h2>Shortcuts</h2>
		<p class="soft small">Keys named with a space are pressed one after the other. Ctrl is Cmd on some computers.</p>
	{/if}
	<ul>
		{#if mode === 'keys'}
			<li><span>Find anything</span><kbd>Ctrl K</kbd></li>
			<li><span>This list</span><kbd>?</kbd></li>
		{/if}
		{#each shown as command, index (index)}
			<li class:at={mode === 'find' && index === at}>
				<button type="button" onclick={() => run(command)}
					><span>{command.title}</span><kbd>{command.keys ?? ''}</kbd></button
				>
			</li>
		{:else}
			<li class="soft">Nothing is called that. Try the name of a link, a setting or an endpoint.</li>
		{/each}
	</ul>
</dialog>

<style>
	dialog {
		width: min(520px, calc(100vw - 32px));
		max-height: 70vh;
		margin: 10vh auto auto;
		padding: 14px;
		background: var(--sheet);
		color: var(--ink);
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		box-sizing: border-box;
	}
	dialog::backdrop {
		background: rgb(20 27 23 / 45%);
	}
	input {
		width: 100%;
		box-sizing: border-box;
		padding: 9px 10px;
		font-size: var(--size-text);
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--ink);
	}
	ul {
		list-style: none;
		margin: 10px 0 0;
		padding: 0;
	}
	li,
	li button {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		width: 100%;
		box-sizing: border-box;
	}
	li:not(:has(button)) {
		padding: 6px 8px;
	}
	li button {
		border: 0;
		background: none;
		color: inherit;
		font-size: var(--size-text);
		padding: 6px 8px;
		cursor: pointer;
		text-align: left;
	}
	li.at,
	li button:hover {
		background: var(--bottle-wash);
	}
	kbd {
		font-family: var(--mono);
		color: var(--ink-soft);
		font-size: var(--size-small);
		white-space: nowrap;
	}
</style>
