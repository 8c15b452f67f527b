<script lang="ts">
	import { legibleToM, noticeScreen } from '$core/links/notices/pages/screen';
	import { isBare } from '$core/links/notices/settings';
	import { SHOWS_WORDS } from '$core/links/notices/pages/zoneWords';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { chosen } from './chosen.svelte';

	const view = useEndpoint();
	const page = $derived(chosen.page(view));
	const screen = $derived(noticeScreen(view.context));
	const theme = $derived(view.context.venue.noticeTheme);
	const bars = $derived(
		!page || !screen?.panel
			? []
			: page.zones
					.filter((zone) => !isBare(zone) && zone.shows !== 'code')
					.map((zone) => ({
						id: zone.id,
						name: zone.title || SHOWS_WORDS[zone.shows],
						m: legibleToM(screen, theme, zone.textPx)!
					}))
					.sort((a, b) => b.m - a.m)
	);
	const LEFT = 118;
	const RIGHT = 270;
	const ROW = 24;
	const most = $derived(Math.max(screen?.distanceM ?? 1, ...bars.map(({ m }) => m)) * 1.12);
	const x = (m: number): number => LEFT + (m / most) * (RIGHT - LEFT);
	const height = $derived(bars.length * ROW + 34);
	const EYES = { good: 'good eyes', usual: 'usual eyes', weak: 'weak eyes' } as const;
	const short = (text: string): string => (text.length > 17 ? `${text.slice(0, 16)}…` : text);
</script>

{#if page}
	<figure class="sheet">
		<figcaption>
			<b>Read from how far?</b>
			{#if screen}<span class="soft small">on this screen, by {EYES[screen.reader.eyes]}</span>{/if}
		</figcaption>
		{#if bars.length === 0}
			<p class="soft small">
				{screen?.panel
					? 'No zone of this page has text.'
					: 'Choose a screen under Board and parts: nobody knows yet how large a pixel is.'}
			</p>
		{:else}
			<svg
				viewBox={`0 0 320 ${height}`}
				role="img"
				aria-label={bars.map(({ name, m }) => `${name} ${m.toFixed(1)} m`).join(', ')}
			>
				{#each bars as { id, name, m }, n (id)}
					<text x="0" y={16 + n * ROW}>{short(name)}<title>{name}</title></text>
					<rect x={LEFT} y={5 + n * ROW} width={x(m) - LEFT} height="14" class:bad={m < screen!.distanceM - 0.005} />
					<text x={x(m) + 6} y={16 + n * ROW}>{m.toFixed(1)} m</text>
				{/each}
				<path d={`M${x(screen!.distanceM)} 0V${bars.length * ROW + 6}`} />
				<text class="where" x={x(screen!.distanceM)} y={bars.length * ROW + 22}
					>they stand {screen!.distanceM} m away</text
				>
			</svg>
		{/if}
	</figure>
{/if}

<style>
	svg {
		width: 100%;
	}
	text {
		fill: var(--ink);
		font-size: var(--size-small);
	}
	rect {
		fill: var(--trace);
	}
	rect.bad {
		fill: var(--amber, #9a5b00);
	}
	path {
		stroke: var(--signal);
		stroke-dasharray: 4 3;
	}
	.where {
		fill: var(--signal);
		text-anchor: middle;
	}
</style>
