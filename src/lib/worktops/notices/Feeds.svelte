<script lang="ts">
	import { Button, Select, SelectItem, TextArea } from 'carbon-components-svelte';
	import { readFeed } from '$core/links/notices/feeds/feed';
	import { FEED_KINDS, type Feed, type FeedKind } from '$core/links/notices/feeds/schema';
	import { freeId } from '$core/basics/text';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { TextField } from '$lib/fields';
	import { openThrough, readShort } from '$lib/media/openThrough';

	const view = useEndpoint();
	const notices = $derived(view.plan.notices);
	const WORDS: Readonly<Record<FeedKind, string>> = {
		table: 'Table (CSV)',
		calendar: 'Calendar (iCalendar)',
		news: 'News (RSS or Atom)',
		weather: 'Weather (JSON)'
	};
	let kind = $state<FeedKind>('table');
	/** As the person has left them; what cannot be read stands open. */
	let opened = $state<Record<string, boolean>>({});
	let busy = $state('');
	let said = $state<Record<string, string>>({});
	const MOST_BYTES = 400_000;

	const put = (feed: Feed, more: Partial<Feed>): string | null =>
		view.set(
			'notices.feeds',
			notices.feeds.map((one) => (one.id === feed.id ? { ...one, ...more } : one))
		);
	function add(): void {
		const id = freeId(kind, new Set(notices.feeds.map((feed) => feed.id)));
		view.set('notices.feeds', [
			...notices.feeds,
			{ id, title: WORDS[kind].split(' ')[0]!, kind, address: '', text: '' }
		]);
	}
	let stop: AbortController | null = null;
	async function fetchNow(feed: Feed): Promise<void> {
		stop?.abort();
		stop = new AbortController();
		busy = feed.id;
		said = { ...said, [feed.id]: '' };
		try {
			const { body } = await openThrough(feed.address, null, stop.signal);
			const bytes = await readShort(body, MOST_BYTES, 'This is longer than a feed may be (400 kB).');
			const text = new TextDecoder().decode(bytes);
			const read = readFeed(feed.kind, text, view.context.venue.timeZone);
			// What is wrong does not take the place of what is right.
			const refused = 'wrong' in read ? read.wrong : put(feed, { text });
			said = { ...said, [feed.id]: refused ?? 'Fetched, and it can be read.' };
		} catch (error) {
			said = { ...said, [feed.id]: (error as Error).name === 'AbortError' ? 'Stopped.' : (error as Error).message };
		} finally {
			busy = '';
		}
	}
	async function choose(feed: Feed, file: File | undefined): Promise<void> {
		if (!file) return;
		const refused =
			file.size > MOST_BYTES
				? 'This file is longer than a feed may be (400 kB).'
				: put(feed, { text: await file.text() });
		said = { ...said, [feed.id]: refused ?? '' };
	}
	const stateOf = (feed: Feed): { good: boolean; words: string } => {
		if (feed.text.trim() === '') return { good: false, words: 'empty' };
		const read = readFeed(feed.kind, feed.text, view.context.venue.timeZone);
		if ('wrong' in read) return { good: false, words: read.wrong };
		const { value } = read;
		return {
			good: true,
			words: Array.isArray(value)
				? `${value.length} ${feed.kind === 'news' ? 'headlines' : 'events'}`
				: 'rows' in value
					? `${value.rows.length} rows: ${value.columns.join(', ')}`
					: 'place' in value
						? `${value.place}, ${value.days.length} days`
						: ''
		};
	};
</script>

<section class="sheet" aria-label="Feeds" id="setting-notices.feeds" tabindex="-1">
	<h3>Feeds</h3>
	{#each notices.feeds as feed, n (feed.id)}
		{@const state = stateOf(feed)}
		<details
			id={`setting-notices.feeds.${n}`}
			open={opened[feed.id] ?? !state.good}
			ontoggle={({ currentTarget }) => (opened[feed.id] = currentTarget.open)}
		>
			<summary
				><b>{feed.title || feed.id}</b>
				<span class="soft small">{WORDS[feed.kind]}, {feed.address ? 'fetched' : 'goes along'},</span>
				<span class="small" class:bad={!state.good}>{state.words}</span></summary
			>
			<TextField
				path={`notices.feeds.${n}.title`}
				label="Title"
				value={feed.title}
				put={(title) => put(feed, { title })}
			/>
			<TextField
				path={`notices.feeds.${n}.address`}
				label="Address, if the endpoint is to fetch it"
				value={feed.address}
				placeholder="https://…"
				put={(address) => put(feed, { address: address as Feed['address'] })}
			/>
			{#if feed.address}
				<div class="row">
					{#if busy === feed.id}
						<Button kind="secondary" size="small" on:click={() => stop?.abort()}>Stop</Button>
					{:else}<Button kind="tertiary" size="small" on:click={() => fetchNow(feed)}>Fetch it here now</Button>{/if}
				</div>
			{/if}
			{#if said[feed.id]}<p class="small" role="status">{said[feed.id]}</p>{/if}
			<TextArea
				labelText={feed.address ? 'As it was last seen: shown until the endpoint has fetched it' : 'What it holds'}
				rows={6}
				value={feed.text}
				on:change={({ currentTarget }) =>
					(said = { ...said, [feed.id]: put(feed, { text: (currentTarget as HTMLTextAreaElement).value }) ?? '' })}
			/>
			<div class="row">
				<label class="small file"
					>Choose a file <input
						type="file"
						onchange={({ currentTarget }) => choose(feed, currentTarget.files?.[0])}
					/></label
				>
				<Button
					kind="ghost"
					size="small"
					on:click={() =>
						view.set(
							'notices.feeds',
							notices.feeds.filter(({ id }) => id !== feed.id)
						)}>Take out</Button
				>
			</div>
		</details>
	{:else}
		<p class="soft">
			None. Tides, timetables, prices are tables; events a calendar; each goes along as a file, or is fetched from an
			address.
		</p>
	{/each}
	<div class="add">
		<Select size="sm" labelText="Add a feed" bind:selected={kind}>
			{#each FEED_KINDS as one (one)}<SelectItem value={one} text={WORDS[one]} />{/each}
		</Select>
		<Button kind="tertiary" size="small" disabled={notices.feeds.length >= 20} on:click={add}>Add</Button>
	</div>
</section>

<style>
	section {
		display: grid;
		gap: 8px;
	}
	details {
		border-top: 1px solid var(--rule);
		padding: 8px 0;
	}
	details > :global(* + *) {
		margin-top: 8px;
	}
	summary {
		cursor: pointer;
	}
	.bad {
		color: var(--signal);
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 10px;
		align-items: center;
	}
	.add {
		display: grid;
		grid-template-columns: minmax(0, 260px) auto;
		gap: 8px;
		align-items: end;
		justify-content: start;
	}
</style>
