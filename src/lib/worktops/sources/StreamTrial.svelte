<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { onDestroy } from 'svelte';
	import { formatBps, formatHz, formatSeconds } from '$core/basics/format';
	import { LIST_LIMITS } from '$core/formats/playlist/limits';
	import { heldBy } from '$core/links/sources/streams/buffer';
	import type { SourceItem } from '$core/links/sources/settings';
	import { fitLine } from '$core/basics/text';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { streamMedia } from '$lib/media/streamMedia';
	import { TryStream } from '$lib/media/tryStream.svelte';
	import { store } from '$lib/store/workshop.svelte';

	const { item }: { item: SourceItem } = $props();
	const view = useEndpoint();
	let trial = $state.raw<TryStream | null>(null);
	let audio = $state<HTMLAudioElement>();
	let inVenue = $state(false);
	const lan = $derived(view.context.venue.lan);
	const range = $derived(lan?.cidr ?? null);
	const busy = $derived(trial?.state === 'opening' || trial?.state === 'runs');

	function start(): void {
		trial?.stop();
		trial = new TryStream(item.location, inVenue ? range : null, audio ?? null);
		void trial.run();
	}
	onDestroy(() => trial?.stop());

	/** Fewer seconds say nothing about pauses. */
	const TELLING_SEC = 60;
	const buffers = $derived([...new Set([0, view.plan.sources.bufferSec, 5])].sort((a, b) => a - b));
	const moved = $derived(trial?.came && trial.came.hops.length > 1 ? trial.came.hops.at(-1)! : null);

	/** What was found out becomes what the workshop knows of it. */
	function take(): void {
		const { head, bitRateBps, tried, lastedSec, came } = trial!;
		if (head) {
			const media = streamMedia(item.location, head, bitRateBps);
			store.change('take what a try of the stream found', (workshop) => ({
				...workshop,
				media: [...workshop.media.filter(({ location }) => location !== item.location), media]
			}));
		}
		const name = fitLine(came?.icyName ?? '', LIST_LIMITS.title);
		view.edit('take what a try of the stream found', (plan) => ({
			...plan,
			sources: {
				...plan.sources,
				items: plan.sources.items.map((one) =>
					one.id === item.id && one.title === '' && name ? { ...one, title: name } : one
				),
				pauses:
					tried && lastedSec >= TELLING_SEC
						? {
								perHour: Math.min(3600, Number(((tried.pauses.length * 3600) / lastedSec).toFixed(1))),
								meanSec: tried.pauses.length
									? Math.min(
											60,
											Math.max(
												0.01,
												Number(
													(
														tried.pauses.reduce((sum, { lastedMs }) => sum + lastedMs, 0) /
														tried.pauses.length /
														1000
													).toFixed(2)
												)
											)
										)
									: 0.3
							}
						: plan.sources.pauses
			}
		}));
	}
	function moveTo(address: string): void {
		view.edit('the address that the stream leads to', (plan) => ({
			...plan,
			sources: {
				...plan.sources,
				items: plan.sources.items.map((one) =>
					one.id === item.id ? { ...one, location: fitLine(address, LIST_LIMITS.location) } : one
				)
			}
		}));
	}

	const WIDTH = 560;
	const HEIGHT = 90;
	/** What came, beside what playing it takes. */
	const curve = $derived.by(() => {
		if (!trial?.bitRateBps || trial.arrivals.length < 2) return null;
		const all = trial.arrivals;
		const [from, to] = [all[0]!, all.at(-1)!];
		const spanMs = Math.max(1, to.atMs - from.atMs);
		const most = Math.max(to.bytes, (spanMs * trial.bitRateBps) / 8000);
		const step = Math.max(1, Math.ceil(all.length / 200));
		const x = (ms: number): string => (((ms - from.atMs) / spanMs) * WIDTH).toFixed(1);
		const y = (bytes: number): string => (HEIGHT - (bytes / most) * HEIGHT).toFixed(1);
		return {
			came: all
				.filter((_, n) => n % step === 0 || n === all.length - 1)
				.map(({ atMs, bytes }) => `${x(atMs)},${y(bytes)}`)
				.join(' '),
			played: `0,${HEIGHT} ${WIDTH},${y((spanMs * trial.bitRateBps) / 8000)}`
		};
	});
</script>

<div class="trial">
	<div class="row">
		{#if busy}
			<Button size="small" kind="tertiary" on:click={() => trial?.stop()}>Stop</Button>
		{:else}
			<Button size="small" kind="tertiary" on:click={start}>Try this stream</Button>
		{/if}
		<audio bind:this={audio} controls hidden={!trial?.heard} aria-label="The stream"></audio>
		{#if range}<Checkbox labelText={`It is in the venue\u2019s own network (${range})`} bind:checked={inVenue} />{/if}
	</div>
	{#if trial}
		<p class={['small', trial.why ? 'bad' : 'soft']} role="status">
			{#if trial.why}{trial.why}{:else if trial.state === 'opening'}Asking for it…{:else if trial.state === 'runs'}It
				comes, for {formatSeconds(trial.lastedSec * 1000)} now.{trial.heard
					? ''
					: ' This browser does not play it; it is measured.'}{:else}Tried for {formatSeconds(
					trial.lastedSec * 1000
				)}.{/if}
		</p>
		<dl>
			{#if trial.head}<dt>Made</dt>
				<dd>
					{trial.head.codec}, {formatHz(trial.head.sampleRateHz)}, {trial.head.channels === 1
						? 'mono'
						: trial.head.channels === 2
							? 'stereo'
							: `${trial.head.channels} channels`}{trial.bitRateBps ? `, ${formatBps(trial.bitRateBps)}` : ''}
				</dd>{/if}
			{#if trial.variants.length}<dt>Variants</dt>
				<dd>{trial.variants.map(formatBps).join(', ')}; the first is tried</dd>{/if}
			{#if trial.firstByteMs !== null}<dt>Until it comes</dt>
				<dd>
					{formatSeconds(trial.firstByteMs)}{trial.firstSoundMs === null
						? ''
						: `; heard after ${formatSeconds(trial.firstSoundMs)}`}
				</dd>{/if}
			{#if trial.tried && trial.lastedSec > 2}
				<dt>Rate</dt>
				<dd>
					{formatBps(trial.tried.rateBps)} on average{trial.bitRateBps && trial.tried.rateBps < 0.95 * trial.bitRateBps
						? ': less than playing it takes'
						: ''}
				</dd>
				<dt>Pauses</dt>
				<dd>
					{trial.tried.pauses.length === 0
						? 'none'
						: `${trial.tried.pauses.length}, the longest ${formatSeconds(Math.max(...trial.tried.pauses.map(({ lastedMs }) => lastedMs)))}`}
				</dd>
				<dt>Dropouts</dt>
				<dd>
					{buffers
						.map((sec) => {
							const { startSec, refillSec } = heldBy(sec);
							const count = trial!.tried!.dropouts(startSec, refillSec);
							return `${count} ${sec === 0 ? 'begun at once' : `with ${sec}\u2009s gathered before`}`;
						})
						.join(', ')}
				</dd>
			{/if}
			{#if trial.came?.icyName}<dt>Calls itself</dt>
				<dd>{trial.came.icyName}</dd>{/if}
			{#if trial.titles.length}<dt>Titles</dt>
				<dd>
					{#each trial.titles.slice(-4) as { atSec, title }, n (n)}<span class="mono">{atSec.toFixed(0)}&thinsp;s</span>
						{title}<br />{/each}
				</dd>{/if}
			{#if moved}<dt>Leads to</dt>
				<dd class="mono">{moved}</dd>{/if}
		</dl>
		{#if curve}
			<svg
				viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
				role="img"
				aria-label="Bytes that came against time, beside what playing takes"
			>
				<polyline points={curve.played} class="played" />
				<polyline points={curve.came} class="came" />
			</svg>
			<p class="small soft">
				Solid: what came. Dashed: what playing it takes. Where the solid line falls below, it stands still.
			</p>
		{/if}
		{#if !busy && trial.firstByteMs !== null}
			<div class="row">
				<Button size="small" kind="tertiary" disabled={!trial.head && trial.lastedSec < TELLING_SEC} on:click={take}
					>Take these figures</Button
				>
				{#if moved}<Button size="small" kind="ghost" on:click={() => moveTo(moved)}
						>Use the address that it leads to</Button
					>{/if}
			</div>
			{#if trial.lastedSec < TELLING_SEC}<p class="small soft">
					Tried for less than a minute: how it is made is taken, not how often it stands still.
				</p>{/if}
		{/if}
	{/if}
</div>

<style>
	.trial {
		margin-top: 8px;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 14px;
		align-items: center;
	}
	audio {
		height: 32px;
		width: min(320px, 100%);
	}
	audio[hidden] {
		display: none;
	}
	p {
		margin: 6px 0 4px;
	}
	dl {
		display: grid;
		grid-template-columns: max-content 1fr;
		gap: 2px 12px;
		margin: 0 0 6px;
		font-size: var(--size-small);
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		margin: 0;
		overflow-wrap: anywhere;
	}
	svg {
		display: block;
		width: 100%;
		max-width: 560px;
		height: 90px;
		background: var(--well);
		border-radius: var(--radius);
	}
	polyline {
		fill: none;
		stroke-width: 2;
		vector-effect: non-scaling-stroke;
	}
	.came {
		stroke: var(--bottle);
	}
	.played {
		stroke: var(--brick);
		stroke-dasharray: 5 4;
	}
</style>
