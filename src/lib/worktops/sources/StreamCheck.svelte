<script lang="ts">
	import { Button, ProgressBar } from 'carbon-components-svelte';
	import { onDestroy } from 'svelte';
	import { isFetched } from '$core/links/sources/streams/receive';
	import type { SourceItem } from '$core/links/sources/settings';
	import type { Media } from '$core/parts/media';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { streamMedia } from '$lib/media/streamMedia';
	import { TryStream } from '$lib/media/tryStream.svelte';
	import { store } from '$lib/store/workshop.svelte';

	const view = useEndpoint();
	const streams = $derived(view.plan.sources.items.filter(isFetched));
	/** What became of one. */
	interface Answer {
		readonly item: SourceItem;
		readonly why: string;
		readonly leadsTo: string;
		readonly media: Media | null;
	}
	let answers = $state.raw<readonly Answer[]>([]);
	let asked = $state(0);
	let busy = $state(false);
	let giveUp: (() => void) | null = null;
	onDestroy(() => giveUp?.());

	const AT_ONCE = 3;
	/** Long enough to know how it is made, when it comes at all. */
	const MOST_MS = 6000;

	async function ask(item: SourceItem, stopped: Promise<void>): Promise<Answer> {
		const trial = new TryStream(item.location, null, null);
		const patience = new Promise<void>((done) => setTimeout(done, MOST_MS));
		const known = new Promise<void>((done) => {
			const look = setInterval(() => {
				if (trial.state !== 'ended' && !trial.head && !trial.variants.length) return;
				clearInterval(look);
				done();
			}, 50);
		});
		await Promise.race([trial.run(), known, patience, stopped]);
		trial.stop();
		const { head, came, variants } = trial;
		return {
			item,
			why: trial.why || (head || variants.length || trial.firstByteMs !== null ? '' : 'It did not answer in time.'),
			leadsTo: came?.hops.at(-1) ?? item.location,
			media: head && streamMedia(item.location, head, head.bitRateBps ?? came?.icyBps ?? null)
		};
	}
	async function start(): Promise<void> {
		answers = [];
		asked = streams.length;
		busy = true;
		const all = [...streams];
		const stopped = new Promise<void>((done) => (giveUp = done));
		let over = false;
		void stopped.then(() => (over = true));
		await Promise.all(
			Array.from({ length: AT_ONCE }, async () => {
				for (let item = all.shift(); item && !over; item = all.shift()) {
					const answer = await ask(item, stopped);
					if (!over) answers = [...answers, answer];
				}
			})
		);
		busy = false;
	}

	const failed = $derived(answers.filter(({ why }) => why !== ''));
	/** Later ones that lead where an earlier one does already. */
	const doubles = $derived.by(() => {
		const first = new Map<string, SourceItem>();
		return answers
			.filter(({ why }) => why === '')
			.sort((a, b) => streams.indexOf(a.item) - streams.indexOf(b.item))
			.flatMap(({ item, leadsTo }) => {
				const of = first.get(leadsTo);
				if (!of) first.set(leadsTo, item);
				return of ? [{ item, of }] : [];
			});
	});
	const found = $derived(answers.flatMap(({ media }) => media ?? []));
	const name = ({ title, location }: SourceItem): string => title || location;

	function take(): void {
		const fresh = new Map(found.map((media) => [media.location, media]));
		store.change('take what the stations say', (workshop) => ({
			...workshop,
			media: [...workshop.media.filter(({ location }) => !fresh.has(location)), ...fresh.values()]
		}));
	}
	function leaveOut(items: readonly SourceItem[]): void {
		const ids = new Set(items.map(({ id }) => id));
		view.edit('leave stations out', (plan) => ({
			...plan,
			sources: { ...plan.sources, items: plan.sources.items.filter(({ id }) => !ids.has(id)) }
		}));
		answers = answers.filter(({ item }) => !ids.has(item.id));
	}
</script>

<div class="row">
	{#if busy}
		<ProgressBar
			size="sm"
			value={(100 * answers.length) / Math.max(1, asked)}
			labelText={`Asked ${answers.length} of ${asked}`}
		/>
		<Button size="small" kind="ghost" on:click={() => giveUp?.()}>Stop</Button>
	{:else}
		<Button size="small" kind="tertiary" on:click={start}
			>Try {streams.length === 1 ? 'the stream' : `all ${streams.length} streams`}</Button
		>
	{/if}
</div>
{#if answers.length && !busy}
	<div role="status">
		<p class="small">{answers.length - failed.length} of {answers.length} answer.</p>
		{#if failed.length}
			<ul class="small">
				{#each failed as { item, why } (item.id)}<li>
						<strong>{name(item)}</strong>: <span class="bad">{why}</span>
					</li>{/each}
			</ul>
		{/if}
		{#if doubles.length}
			<ul class="small">
				{#each doubles as { item, of } (item.id)}<li>
						<strong>{name(item)}</strong> leads to the same as {name(of)}
					</li>{/each}
			</ul>
		{/if}
		<div class="row">
			{#if found.length}<Button size="small" kind="ghost" on:click={take}
					>Take how {found.length === 1 ? 'it is' : 'they are'} made</Button
				>{/if}
			{#if doubles.length}<Button size="small" kind="ghost" on:click={() => leaveOut(doubles.map(({ item }) => item))}
					>Keep each once</Button
				>{/if}
			{#if failed.length && failed.length < answers.length}<Button
					size="small"
					kind="ghost"
					on:click={() => leaveOut(failed.map(({ item }) => item))}>Leave out what does not answer</Button
				>{/if}
		</div>
	</div>
{/if}

<style>
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
	ul {
		margin: 4px 0;
		padding-left: 18px;
		overflow-wrap: anywhere;
	}
	p {
		margin: 4px 0;
	}
</style>
