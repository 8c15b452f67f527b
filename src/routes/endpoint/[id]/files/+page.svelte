<script lang="ts">
	import { tick } from 'svelte';
	import { diffLines } from 'diff';
	import { goto } from '$app/navigation';
	import type { CardLine } from '$core/link/file';
	import { chain } from '$core/chain';
	import { cardSize, cardText } from '$core/files/cardBytes';
	import { compareWritten, shownText, type FileChange } from '$lib/endpoint/written';
	import { hrefOf } from '$lib/endpoint/field';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { safeName } from '$lib/shell/download';
	import { dayAndTime } from '$lib/shell/times';
	import { store } from '$lib/store/workshop.svelte';
	import { formatBytes } from '$core/basics/format';

	const view = useEndpoint();
	const written = $derived(view.endpoint!.written);
	const changes = $derived(compareWritten(view.files, written));
	const gone = $derived([...(changes ?? [])].filter(([, change]) => change === 'gone').map(([path]) => path));
	/** What stays on the card first, then what goes to the endpoint. */
	const listed = $derived(
		[...view.files].sort(
			(a, b) =>
				Number(a.path.startsWith(ROOT)) - Number(b.path.startsWith(ROOT)) ||
				(folder(a.path) < folder(b.path) ? -1 : folder(a.path) > folder(b.path) ? 1 : a.path < b.path ? -1 : 1)
		)
	);
	let chosen = $state<string | null>(null);
	let at = $state<number | null>(null);
	let comparing = $state(false);
	let pane = $state<HTMLElement>();
	const file = $derived(
		view.files.find((known) => known.path === (chosen ?? 'boot/yphos/root/etc/mpv/mpv.conf')) ?? view.files[0]!
	);
	const words: Record<FileChange, string> = { same: '', changed: 'changed', new: 'new', gone: 'gone' };
	const line = $derived(at !== null && 'lines' in file ? file.lines[at] : undefined);
	const before = $derived(written?.files[file.path]);
	const send = $derived(
		`npx yphos send ${safeName(store.workshop!.venue.name)}.yphos.json --endpoint ${view.endpoint!.id}`
	);

	function choose(path: string): void {
		chosen = path;
		at = null;
		// On a narrow screen the list stands above: the file comes into view.
		void tick().then(() => pane?.scrollIntoView({ block: 'nearest' }));
	}
	/** Where a file stands: on the endpoint for what apply.sh places, on the card for the rest. */
	const folder = (path: string): string =>
		((shown) => shown.slice(0, shown.lastIndexOf('/') + 1))(
			path.startsWith(ROOT) ? `/${path.slice(ROOT.length)}` : `card: ${path}`
		);
	const ROOT = 'boot/yphos/root/';
	/** "sound.cardId" as "Sound › card id", "programme.quiet.0" as "Programme › quiet › 1". */
	const inWords = (setting: string): string => {
		const [link, ...rest] = setting.split('.');
		const words = rest.map((part) =>
			/^\d+$/.test(part) ? String(Number(part) + 1) : part.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)
		);
		return [chain.find((known) => known.id === link)?.title ?? link, ...words].join(' › ');
	};
	const open = (picked: CardLine): void => void goto(hrefOf(view.id(), picked.setting));
</script>

<svelte:head><title>Card files · {view.plan.brief.name}</title></svelte:head>
<div class="files">
	<nav aria-label="Files of the card set">
		<p class="soft small">
			{written ? `Compared with the set written ${dayAndTime(new Date(written.atUtc))}` : 'Never written yet'}
		</p>
		{#if written && view.context.facts.keeper !== '' && view.context.facts.way !== 'none'}
			<details class="send">
				<summary>Send it to the running endpoint</summary>
				<p class="small">
					Over SSH, without the card: <a href="/venue">export the workshop</a>, then run this in its folder. It shows
					what changes there before it sends anything.
				</p>
				<code class="mono small">{send}</code>
				<CopyButton text={send} />
			</details>
		{/if}
		{#each listed as known, n (known.path)}
			{#if n === 0 || folder(known.path) !== folder(listed[n - 1]!.path)}<p class="folder mono">
					{folder(known.path)}
				</p>{/if}
			<button type="button" class:here={known.path === file.path} onclick={() => choose(known.path)}>
				<span class="mono">{known.path.split('/').at(-1)}</span>
				{#if changes && words[changes.get(known.path) ?? 'same']}<em>{words[changes.get(known.path)!]}</em>{/if}
			</button>
		{/each}
		{#each gone as path (path)}<p class="soft small mono">{path} <em>gone</em></p>{/each}
	</nav>
	<section aria-label={file.path} bind:this={pane}>
		<div class="head">
			<div>
				<h2 class="mono">{file.path.replace(/^boot\/yphos\/root/, '')}</h2>
				<p class="soft">{file.why} <span class="small">Mode {file.mode}.</span></p>
			</div>
			<div class="row">
				{#if before !== undefined && 'lines' in file}<button
						type="button"
						class="plain"
						aria-pressed={comparing}
						onclick={() => (comparing = !comparing)}>{comparing ? 'Show the file' : 'Show what changed'}</button
					>{/if}
				{#if 'lines' in file}<CopyButton text={cardText(file)} label="Copy the file" />{/if}
			</div>
		</div>
		{#if !('lines' in file)}
			<p class="sheet">{formatBytes(cardSize(file))} of media, put in place as they are.</p>
		{:else if comparing && before !== undefined}
			<pre class="sheet compare">{#each diffLines(`${before}\n`, `${shownText(file)}\n`) as part, n (n)}<span
						class:added={part.added}
						class:removed={part.removed}
						>{part.value
							.replace(/\n$/, '')
							.split('\n')
							.map((line) => `${part.added ? '+ ' : part.removed ? '− ' : '  '}${line}\n`)
							.join('')}</span
					>{/each}</pre>
		{:else}
			<div class="code sheet">
				{#each file.lines as text, n (n)}
					<button
						type="button"
						class:here={at === n}
						onclick={() => (at = n)}
						title={`because of ${inWords(text.setting)}`}
					>
						<span class="no mono">{n + 1}</span><code>{text.secret ? '(kept secret)' : text.text || ' '}</code>
					</button>
				{/each}
			</div>
		{/if}
	</section>
	<aside aria-live="polite">
		{#if line}
			<h3>Line {at! + 1}</h3>
			<p>It is there because of</p>
			<p><strong>{inWords(line.setting)}</strong></p>
			<button type="button" class="plain" onclick={() => open(line)}>Go to that setting</button>
		{:else}
			<p class="soft">Press a line to see which setting caused it.</p>
		{/if}
	</aside>
</div>

<style>
	.send {
		display: grid;
		gap: 6px;
		margin-bottom: 8px;
	}
	.send summary {
		cursor: pointer;
		font-weight: 600;
	}
	.send code {
		display: block;
		overflow-wrap: anywhere;
		padding: 6px 8px;
		border: 1px solid var(--rule);
		user-select: all;
	}
	.files {
		display: grid;
		grid-template-columns: 260px minmax(0, 1fr) 170px;
		min-height: calc(100vh - 60px);
	}
	nav {
		padding: 12px 8px;
		border-right: 1px solid var(--rule);
		overflow-x: hidden;
	}
	nav button {
		display: flex;
		justify-content: space-between;
		gap: 6px;
		width: 100%;
		box-sizing: border-box;
		border: 0;
		border-radius: var(--radius);
		background: none;
		color: var(--ink);
		padding: 3px 6px 3px 16px;
		cursor: pointer;
		font-size: var(--size-small);
		text-align: left;
	}
	nav button .mono {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	nav button:hover {
		background: var(--well);
	}
	nav button.here {
		background: var(--bottle);
		color: var(--on-bottle);
	}
	em {
		color: var(--amber);
		font-size: var(--size-small);
	}
	.here em {
		color: inherit;
	}
	.folder {
		color: var(--ink-soft);
		font-size: var(--size-small);
		margin-top: 6px;
		overflow-wrap: anywhere;
	}
	section {
		padding: 14px 18px;
		min-width: 0;
	}
	.head {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		margin-bottom: 10px;
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: start;
	}
	.code {
		padding: 6px 0;
		overflow-x: auto;
	}
	.code button {
		display: flex;
		gap: 10px;
		min-width: 100%;
		border: 0;
		background: none;
		color: var(--ink);
		padding: 0 10px;
		cursor: pointer;
		text-align: left;
		font-size: var(--size-small);
		line-height: 1.5;
	}
	.code button:hover {
		background: var(--well);
	}
	.code button.here {
		background: var(--bottle-wash);
	}
	.code code {
		white-space: pre;
		tab-size: 4;
		font-size: var(--size-small);
	}
	.no {
		color: var(--ink-faint);
		width: 2.4em;
		text-align: right;
		flex: none;
		font-size: var(--size-small);
		line-height: 1.6;
	}
	.compare {
		margin: 0;
		overflow-x: auto;
		font-size: var(--size-small);
	}
	.added {
		background: var(--bottle-wash);
	}
	.removed {
		background: var(--brick-wash);
	}
	aside {
		padding: 14px;
		border-left: 1px solid var(--rule);
	}
	@media (max-width: 980px) {
		.files {
			grid-template-columns: minmax(0, 1fr);
		}
		nav {
			border-right: 0;
			border-bottom: 1px solid var(--rule);
			max-height: 220px;
			overflow-y: auto;
		}
		aside {
			border-left: 0;
		}
	}
</style>
