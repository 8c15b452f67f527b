<script lang="ts">
	import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
	import {
		contrast,
		FONTS,
		LEAST_CONTRAST,
		noticeTheme,
		THEMES,
		towardsContrast,
		type NoticeTheme
	} from '$core/standards/pageTheme';
	import { store } from '$lib/store/workshop.svelte';

	const theme = $derived(store.workshop!.venue.noticeTheme);
	const COLOURS = [
		['ground', 'Behind everything'],
		['panel', 'Behind each zone'],
		['ink', 'Text'],
		['accent', 'Headings and curves']
	] as const;
	const FONT_WORDS: Readonly<Record<NoticeTheme['font'], string>> = {
		hyperlegible: 'Atkinson Hyperlegible Next',
		mono: 'Atkinson Hyperlegible Mono'
	};
	let errors = $state<Partial<Record<keyof NoticeTheme, string>>>({});

	function put(next: NoticeTheme, label = 'change the notices\u2019 theme'): void {
		store.change(`venue: ${label}`, (current) => ({ ...current, venue: { ...current.venue, noticeTheme: next } }));
	}
	function percent(key: 'marginPercent' | 'gapPercent', text: string): void {
		const parsed = noticeTheme.shape[key].safeParse(Number(text.trim().replace(',', '.')));
		errors[key] = parsed.success ? undefined : 'A number, please, as small as it says.';
		if (parsed.success) put({ ...theme, [key]: parsed.data });
	}
	const ratios = $derived(
		(['ink', 'accent'] as const).map((which) => ({
			which,
			ratio: contrast(theme[which], theme.panel),
			better: towardsContrast(theme[which], [theme.panel, theme.ground], LEAST_CONTRAST)
		}))
	);
</script>

<section id="notice-theme" aria-label="How notices look">
	<h2>How notices look</h2>
	<div class="theme">
		<div class="fields">
			<Select
				labelText="Begin with"
				selected=""
				on:update={({ detail }) => {
					const found = THEMES.find(({ title }) => title === detail);
					if (found) put(found.theme, `theme ${found.title}`);
				}}
			>
				<SelectItem value="" text="a theme of ours" />
				{#each THEMES as { title } (title)}<SelectItem value={title} text={title} />{/each}
			</Select>
			{#each COLOURS as [key, label] (key)}
				<label class="colour"
					><input
						type="color"
						value={theme[key]}
						onchange={({ currentTarget }) => put({ ...theme, [key]: currentTarget.value })}
					/>
					{label} <code class="mono small">{theme[key]}</code></label
				>
			{/each}
			<Select
				labelText="Typeface"
				selected={theme.font}
				on:update={({ detail }) => detail !== theme.font && put({ ...theme, font: detail as NoticeTheme['font'] })}
			>
				{#each FONTS as font (font)}<SelectItem value={font} text={FONT_WORDS[font]} />{/each}
			</Select>
			<div class="two">
				<TextInput
					labelText="Free at the edge (% of the shorter side)"
					value={String(theme.marginPercent)}
					invalid={!!errors.marginPercent}
					invalidText={errors.marginPercent}
					on:change={({ currentTarget }) => percent('marginPercent', (currentTarget as HTMLInputElement).value)}
				/>
				<TextInput
					labelText="Between zones (%)"
					value={String(theme.gapPercent)}
					invalid={!!errors.gapPercent}
					invalidText={errors.gapPercent}
					on:change={({ currentTarget }) => percent('gapPercent', (currentTarget as HTMLInputElement).value)}
				/>
			</div>
		</div>
		<div class="sample" style:background={theme.ground} style:color={theme.ink}>
			<div style:background={theme.panel}>
				<b style:color={theme.accent}>Open</b>
				<p class:mono={theme.font === 'mono'}>Today 10:00–18:00</p>
			</div>
		</div>
	</div>
	<ul>
		{#each ratios as { which, ratio, better } (which)}
			<li class="small">
				{which === 'ink' ? 'Text' : 'Headings'}: {ratio.toFixed(1)} to 1{ratio < LEAST_CONTRAST
					? `; what is read in passing wants ${LEAST_CONTRAST}. `
					: '.'}
				{#if ratio < LEAST_CONTRAST && better}<button type="button" onclick={() => put({ ...theme, [which]: better })}
						>Take {better}</button
					>{/if}
			</li>
		{/each}
	</ul>
</section>

<style>
	.theme {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 16px;
	}
	.fields {
		display: grid;
		gap: 10px;
	}
	.colour {
		display: flex;
		gap: 10px;
		align-items: center;
	}
	.colour input {
		width: 44px;
		height: 32px;
		border: 1px solid var(--rule-strong);
		background: none;
		padding: 2px;
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 10px;
	}
	.sample {
		padding: 16px;
		border-radius: var(--radius);
		font-size: 24px;
	}
	.sample div {
		padding: 14px;
	}
	ul {
		margin-top: 8px;
	}
	@media (max-width: 700px) {
		.theme {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
