<script lang="ts">
	import { mediaWords } from '$core/parts/mediaWords';
	import { clockSeconds, clockText, partLastsMs } from '$core/files/entryPart';
	import { WHOLE_PART, withPart } from '$core/links/sources/lists/parts';
	import { TextInput } from 'carbon-components-svelte';
	import { readPreset, withPreset, type Preset } from '$core/formats/playlist/preset';
	import { fitLine } from '$core/basics/text';
	import { isFilm, judgeFilm, judgeOnPage } from '$core/links/sources/lists/convert';
	import { isFetched } from '$core/links/sources/streams/receive';
	import type { SourceItem } from '$core/links/sources/settings';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { NumberField } from '$lib/fields';
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

	const isStill = $derived(media?.picture?.framesPerSec === null);
	const part = $derived<NonNullable<SourceItem['part']>>(item.part ?? WHOLE_PART);
	let wrong = $state('');
	function setPart(next: Partial<typeof part>): string | null {
		const why = view.edit('what of an entry is played', (plan) => ({
			...plan,
			sources: {
				...plan.sources,
				items: plan.sources.items.map((one) => (one.id === item.id ? withPart(one, next) : one))
			}
		}));
		wrong = why ?? '';
		return why;
	}
	/** A time as it was typed; "" is none. */
	function setTime(key: 'fromSec' | 'untilSec', typed: string): void {
		const sec = typed.trim() === '' ? null : clockSeconds(typed);
		if (typed.trim() !== '' && sec === null) wrong = 'Type a time as 1:23.5, or seconds.';
		else if (key === 'fromSec') setPart({ fromSec: sec ?? 0 });
		else setPart({ untilSec: sec });
	}
	const lastsMs = $derived(partLastsMs(item.part, media?.durationMs ?? null, isStill));

	const facts = $derived.by((): (readonly [string, string])[] => {
		if (!media) return [];
		const board = view.context.part('board', view.context.facts.parts.board);
		const plays =
			board && isFilm(media) ? (view.context.facts.pageBrowser ? judgeOnPage : judgeFilm)(board, media) : null;
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
	<div class="part" role="group" aria-label="What of it is played">
		{#if !isFetched(item)}
			{#if !isStill}
				<TextInput
					size="sm"
					labelText="Begins at"
					placeholder="its beginning"
					helperText="As 1:23.5, or seconds."
					value={part.fromSec ? clockText(part.fromSec) : ''}
					on:change={(event) => setTime('fromSec', String(event.detail ?? ''))}
				/>
			{/if}
			<TextInput
				size="sm"
				labelText={isStill ? 'Stands for' : 'Ends at'}
				placeholder={isStill ? 'as long as the others' : 'its end'}
				helperText={isStill
					? 'As 1:30, or seconds.'
					: lastsMs !== null
						? `Plays for ${clockText(Math.round(lastsMs / 100) / 10)}.`
						: ''}
				value={part.untilSec === null ? '' : clockText(part.untilSec)}
				on:change={(event) => setTime('untilSec', String(event.detail ?? ''))}
			/>
		{/if}
		{#if !media?.silent}
			<NumberField
				path={`sources.items.${view.plan.sources.items.indexOf(item)}`}
				label="Softer by"
				unit="dB"
				step={0.5}
				value={part.quieterDb}
				put={(quieterDb) => setPart({ quieterDb })}
			/>
		{/if}
	</div>
	{#if wrong}<p class="wrong small" role="alert">{wrong}</p>{/if}
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
	.part {
		display: grid;
		grid-template-columns: repeat(3, minmax(0, 12rem));
		gap: 8px;
		margin-top: 8px;
	}
	.wrong {
		color: var(--brick);
	}
	.preset {
		display: grid;
		grid-template-columns: 1fr 1fr 2fr;
		gap: 8px;
		margin-top: 8px;
	}
	@media (max-width: 480px) {
		.preset,
		.part {
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
