<script lang="ts">
	import { storeOf, storeWords } from '$core/links/sources/stores';
	import type { SourceItem } from '$core/links/sources/settings';
	import type { Media } from '$core/parts/media';
	import { placeKind } from '$core/files/mediaPlace';
	import { store } from '$lib/store/workshop.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	import BufferCurve from './BufferCurve.svelte';
	import Conversions from './Conversions.svelte';

	const view = useEndpoint();
	const items = $derived(view.plan.sources.items);
	const PLACES = { stream: 'stream', card: 'on the card', disk: 'on the endpoint' } as const;
	const whereOf = (location: string): string => {
		if (store.absent.has(location)) return 'not here: add it again';
		const place = storeOf(view.plan.sources.stores, location);
		return place ? `on ${storeWords(place)}` : PLACES[placeKind(location)];
	};
	const SHOWN = 200;

	const setItems = (label: string, change: (items: readonly SourceItem[]) => SourceItem[]): void =>
		void view.edit(label, (plan) => ({ ...plan, sources: { ...plan.sources, items: change(plan.sources.items) } }));
	function retitle(index: number, title: string): void {
		view.set(
			'sources.items',
			items.map((item, n) => (n === index ? { ...item, title } : item))
		);
	}
	function move(index: number, by: -1 | 1): void {
		setItems('move an entry', (all) => {
			const next = [...all];
			const [item] = next.splice(index, 1);
			next.splice(index + by, 0, item!);
			return next;
		});
	}
	/** "44.1/16" or "48/aac": what a person says of a source that cannot be asked. */
	function describe(location: string, text: string): void {
		const m = /^\s*(\d+(?:[.,]\d+)?)\s*\/\s*(\d+|[a-z0-9]+)\s*$/i.exec(text);
		const khz = Number(m?.[1]?.replace(',', '.'));
		if (!m || khz < 4 || khz > 3000) return;
		const bits = Number(m[2]);
		const lossless = Number.isInteger(bits) && bits >= 8 && bits <= 64;
		const known = view.context.media(location);
		const media: Media = {
			location,
			codec: lossless ? 'pcm' : m[2]!.toLowerCase(),
			lossless,
			sampleRateHz: Math.round(khz * 1000),
			bitDepth: lossless ? bits : 24,
			channels: 2,
			bitRateBps: known?.bitRateBps ?? null,
			durationMs: known?.durationMs ?? null,
			sizeBytes: known?.sizeBytes ?? null,
			sha256: known?.sha256 ?? '',
			kept: known?.kept ?? 'person',
			from: 'typed'
		};
		store.change('say how a source is made', (workshop) => ({
			...workshop,
			media: [...workshop.media.filter((other) => other.location !== location), media]
		}));
	}
	const made = (media: Media | null): string =>
		media ? `${media.sampleRateHz / 1000}/${media.lossless ? media.bitDepth : media.codec}` : '';
</script>

<div class="sheet">
	<h3>
		The list <span class="soft small"
			>{items.length} {items.length === 1 ? 'entry' : 'entries'}, played from the top</span
		>
	</h3>
	{#if items.length}
		<table id="setting-sources.items">
			<thead
				><tr
					><th scope="col" class="n">#</th><th scope="col">Title</th><th scope="col" class="where">Where from</th><th
						scope="col"
						class="made">Made (kHz/bit)</th
					><th scope="col" class="acts"><span class="visually-hidden">Move or remove</span></th></tr
				></thead
			>
			<tbody>
				{#each items.slice(0, SHOWN) as item, index (item.id)}
					{@const media = view.context.media(item.location)}
					<tr id={`setting-sources.items.${index}`}>
						<td class="mono n">{index + 1}</td>
						<td
							><input
								value={item.title}
								aria-label={`Title of entry ${index + 1}`}
								placeholder={item.location}
								oninput={(event) => retitle(index, event.currentTarget.value)}
							/></td
						>
						<td class="where" title={item.location}
							><span class={['small', store.absent.has(item.location) ? 'bad' : 'soft']}>{whereOf(item.location)}</span
							><br /><span class="mono">{item.location}</span></td
						>
						<td class="made"
							><input
								class="mono"
								value={made(media)}
								placeholder="unknown"
								aria-label={`How entry ${index + 1} is made`}
								title="Rate in kHz, a slash, bits or codec: 44.1/16 or 48/aac"
								onchange={(event) => describe(item.location, event.currentTarget.value)}
							/></td
						>
						<td class="acts">
							<button
								type="button"
								aria-label={`Move entry ${index + 1} up`}
								disabled={index === 0}
								onclick={() => move(index, -1)}>↑</button
							>
							<button
								type="button"
								aria-label={`Move entry ${index + 1} down`}
								disabled={index === items.length - 1}
								onclick={() => move(index, 1)}>↓</button
							>
							<button
								type="button"
								aria-label={`Remove entry ${index + 1}`}
								onclick={() => setItems('remove an entry', (all) => all.filter((other) => other.id !== item.id))}
								>✕</button
							>
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if items.length > SHOWN}<p class="soft small">
				and {items.length - SHOWN} more, which are written all the same
			</p>{/if}
	{:else}
		<p class="soft">
			Nothing to play yet. Import a playlist from your computer, add files of your own, or type the address of a stream
			on the left.
		</p>
	{/if}
</div>
<Conversions />
<BufferCurve />

<style>
	table {
		width: 100%;
		border-collapse: collapse;
		table-layout: fixed;
		margin-top: 6px;
	}
	th {
		text-align: left;
		font-size: var(--size-small);
		border-bottom: 1px solid var(--rule-strong);
		padding: 3px 6px;
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 3px 6px;
		vertical-align: middle;
	}
	.n {
		width: 24px;
		text-align: right;
	}
	.made {
		width: 104px;
	}
	.acts {
		width: 96px;
		white-space: nowrap;
		text-align: right;
	}
	.where {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		line-height: 1.25;
		font-size: var(--size-small);
	}
	input {
		width: 100%;
		box-sizing: border-box;
		border: 1px solid transparent;
		border-radius: var(--radius);
		background: transparent;
		color: var(--ink);
		padding: 4px 6px;
		font-size: var(--size-text);
	}
	input:hover,
	input:focus {
		border-color: var(--rule-strong);
		background: var(--sheet);
	}
	input.mono {
		font-size: var(--size-small);
	}
	.acts button {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--ink);
		width: 27px;
		height: 27px;
		cursor: pointer;
	}
	.acts button:disabled {
		opacity: 0.4;
	}
	/* On a phone the title is what matters; the rest stands on a larger screen. */
	@media (max-width: 480px) {
		.where,
		.made {
			display: none;
		}
	}
</style>
