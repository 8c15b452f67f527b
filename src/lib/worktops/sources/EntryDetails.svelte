<script lang="ts">
	import { mediaWords } from '$core/parts/mediaWords';
	import { TextInput } from 'carbon-components-svelte';
	import { readPreset, withPreset, type Preset } from '$core/formats/playlist/preset';
	import { fitLine } from '$core/plan/text';
	import { isFilm, judgeFilm } from '$core/links/sources/convert';
	import { isFetched } from '$core/links/sources/receive';
	import type { SourceItem } from '$core/links/sources/settings';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { STRIP, type Strip } from '$lib/media/strip';
	import { readStrip } from '$lib/store/storage';
	import StationLogo from './StationLogo.svelte';
	import StreamTrial from './StreamTrial.svelte';

	const { item }: { item: SourceItem } = $props();
	const view = useEndpoint();
	const media = $derived(view.context.media(item.location));
	const details = $derived(media?.details);
	let strip = $state<Strip | null>(null);
	$effect(() => {
		const { sha256 = '' } = media ?? {};
		strip = null;
		if (sha256) void readStrip(sha256).then((found) => media?.sha256 === sha256 && (strip = found as Strip | null));
	});

	const preset = $derived(readPreset(item.extra));
	const PRESET_FIELDS = [
		['language', 'Language'],
		['country', 'Country'],
		['logo', 'Address of its logo']
	] as const;
	function setPreset(key: keyof Preset, text: string): void {
		view.edit('what is said of a station', (plan) => ({
			...plan,
			sources: {
				...plan.sources,
				items: plan.sources.items.map((one) =>
					one.id === item.id ? { ...one, extra: withPreset(one.extra, { [key]: fitLine(text, 300) }) } : one
				)
			}
		}));
	}

	const facts = $derived.by((): (readonly [string, string])[] => {
		if (!media) return [];
		const board = view.context.part('board', view.context.facts.parts.board);
		const plays = board && isFilm(media) ? judgeFilm(board, media) : null;
		return [
			...(plays
				? ([['On this board', plays.plays ? `plays: ${plays.why}` : `does not play: ${plays.why}`]] as const)
				: []),
			...mediaWords(media)
		];
	});
	const chapterTime = (ms: number): string => new Date(ms).toISOString().slice(11, 19);
</script>

<section class="details" aria-label={`About ${item.title || item.location}`}>
	{#if strip}<div class="strip">
			<img
				src={strip.dataUrl}
				width={STRIP.widthPx * strip.frames}
				height={STRIP.heightPx}
				alt={strip.frames > 1 ? 'Six frames of the film, from its beginning to its end' : 'What it shows, or its cover'}
			/>
		</div>{/if}
	<p><strong>{item.title || item.location}</strong> <span class="mono small soft">{item.location}</span></p>
	{#if facts.length}
		<dl>
			{#each facts as [name, text] (name)}<dt>{name}</dt>
				<dd>{text}</dd>{/each}
		</dl>
	{:else}
		<p class="soft small">Nobody has said how it is made. Add the file, or type rate and width in its row.</p>
	{/if}
	{#if isFetched(item)}
		<div class="preset">
			{#each PRESET_FIELDS as [key, label] (key)}
				<TextInput
					size="sm"
					labelText={label}
					value={preset[key]}
					on:change={(event) => setPreset(key, String(event.detail ?? ''))}
				/>
			{/each}
		</div>
		{#if /^https?:/.test(preset.logo)}<StationLogo url={preset.logo} of={item.title || item.location} />{/if}
	{/if}
	{#if isFetched(item)}{#key item.id + item.location}<StreamTrial {item} />{/key}{/if}
	{#if details?.chapters.length}
		<details>
			<summary>{details.chapters.length} chapters</summary>
			<ol>
				{#each details.chapters as { startMs, title }, n (n)}<li>
						<span class="mono">{chapterTime(startMs)}</span>
						{title || 'without a name'}
					</li>{/each}
			</ol>
		</details>
	{/if}
</section>

<style>
	.details {
		border-top: 1px solid var(--rule-strong);
		margin-top: 8px;
		padding-top: 8px;
	}
	.preset {
		display: grid;
		grid-template-columns: 1fr 1fr 2fr;
		gap: 8px;
		margin-top: 8px;
	}
	@media (max-width: 480px) {
		.preset {
			grid-template-columns: 1fr;
		}
	}
	.strip {
		overflow-x: auto;
		background: var(--well);
		border-radius: var(--radius);
		margin-bottom: 8px;
	}
	.strip img {
		display: block;
		max-width: 100%;
		height: auto;
	}
	p {
		margin: 0 0 6px;
		overflow-wrap: anywhere;
	}
	dl {
		display: grid;
		grid-template-columns: max-content 1fr;
		gap: 2px 12px;
		margin: 0;
		font-size: var(--size-small);
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		margin: 0;
		overflow-wrap: anywhere;
	}
	ol {
		margin: 4px 0 0;
		padding-left: 18px;
		font-size: var(--size-small);
	}
	summary {
		cursor: pointer;
		margin-top: 6px;
		font-size: var(--size-small);
	}
</style>
