<script lang="ts">
	import { activeArea, anyEdge } from '$core/links/picture/edges/overscan';
	import { hungEdges } from '$core/standards/edges';
	import { legibleSizes } from '$core/standards/legibility';
	import { panelShape, pictureWay } from '$core/links/picture/way';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const picture = $derived(view.plan.picture);
	const way = $derived(pictureWay(picture, view.context));
	const mode = $derived(way.chosen?.timing ?? { widthPx: 1920, heightPx: 1080 });
	const area = $derived(activeArea(mode, picture.edges));
	/** The set fits into the drawing, as it hangs. */
	const turned = $derived(picture.turn % 180 !== 0);
	const across = $derived(turned ? mode.heightPx : mode.widthPx);
	const down = $derived(turned ? mode.widthPx : mode.heightPx);
	const scale = $derived(Math.min(330 / across, 196 / down));
	const inner = $derived.by(() => {
		const { left, right, top, bottom } = hungEdges(picture.edges, picture.turn);
		return {
			x: left * scale,
			y: top * scale,
			width: (across - left - right) * scale,
			height: (down - top - bottom) * scale
		};
	});
	const panel = $derived(panelShape(way));
	const legible = $derived(panel && way.chosen ? legibleSizes(panel, mode.heightPx, picture.distanceM, picture) : null);
	const letterPx = $derived(legible ? Math.max(4, legible.fontPx * scale) : 10);
	const lines = $derived(legible ? Math.max(0, Math.floor(inner.height / (letterPx * 1.3))) : 0);
	/** The page of lines beside it, in the same shape. */
	const page = $derived.by(() => {
		const by = Math.min(150 / Math.max(1, inner.width), 146 / Math.max(1, inner.height));
		return { width: inner.width * by, height: inner.height * by, step: letterPx * 1.3 * by };
	});
	const unread = $derived(!!way.screen?.cutsEdges && picture.wholePicture !== 'on' && !anyEdge(picture.edges));
</script>

<figure class="sheet">
	<figcaption>
		<b>As the set shows it</b>
		<span class="soft small">
			{#if anyEdge(picture.edges)}hatched: cut off · {(100 - area.percent).toFixed(1)} % lost
			{:else if unread}how much it cuts is not known yet
			{:else}all of it{/if}
		</span>
	</figcaption>
	<svg
		viewBox="0 0 700 226"
		role="img"
		aria-label={`The set with what it shows: ${area.widthPx} by ${area.heightPx} pixels`}
	>
		<defs>
			<pattern id="cut" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
				<path d="M0 0V6" class="hatch" />
			</pattern>
		</defs>
		<g transform={`translate(${190 - (across * scale) / 2} ${112 - (down * scale) / 2})`}>
			<rect class="set" x="-7" y="-7" width={across * scale + 14} height={down * scale + 14} rx="3" />
			<rect width={across * scale} height={down * scale} class="mode" />
			<rect width={across * scale} height={down * scale} fill="url(#cut)" />
			<rect x={inner.x} y={inner.y} width={inner.width} height={inner.height} class="area" class:unread />
			<circle
				cx={inner.x + inner.width / 2}
				cy={inner.y + inner.height / 2}
				r={Math.min(inner.width, inner.height) * 0.4}
				class="ring"
			/>
			<text x={inner.x + inner.width / 2} y={inner.y + inner.height / 2 + 4} class="size"
				>{turned ? area.heightPx : area.widthPx} × {turned ? area.widthPx : area.heightPx}</text
			>
		</g>
		<g transform="translate(392 18)">
			<text class="head">From {picture.distanceM} m, the smallest letters</text>
			{#if legible}
				<text y="22" class="soft"
					>{legible.fontPx} px: {lines > 0 ? `${lines} lines of text fit` : 'no line of text fits'}</text
				>
				<g transform="translate(0 36)">
					<rect width={page.width} height={page.height} class="page" />
					{#each { length: Math.min(lines, 60) } as _, n (n)}
						<path
							d={`M6 ${(n + 0.6) * page.step} H${page.width - 6 - ((n * 37) % Math.max(1, page.width / 3))}`}
							class="line"
							style:stroke-width={Math.max(0.8, page.step * 0.45)}
						/>
					{/each}
				</g>
				<g transform={`translate(${page.width + 16} 54)`}>
					<text>icons from {legible.iconPx} px</text>
					<text y="20">codes from {legible.codePx} px</text>
					<text y="40" class="soft">capitals {legible.capitalMm.toFixed(0)} mm</text>
				</g>
			{:else}
				<text y="22" class="soft">Choose a screen: its size decides.</text>
			{/if}
		</g>
	</svg>
</figure>

<style>
	svg {
		width: 100%;
		max-height: 260px;
	}
	text {
		fill: var(--ink);
		font-size: 13px;
	}
	.head {
		font-weight: 700;
	}
	text.soft {
		fill: var(--ink-soft);
	}
	.size {
		text-anchor: middle;
		font-family: var(--mono);
		font-size: 11px;
	}
	.set {
		fill: var(--well);
		stroke: var(--rule-strong);
	}
	.mode {
		fill: var(--sheet);
	}
	.hatch {
		stroke: var(--brick);
		stroke-width: 2;
		opacity: 0.55;
	}
	.area {
		fill: var(--sheet);
		stroke: var(--bottle);
		stroke-width: 2;
	}
	.area.unread {
		stroke-dasharray: 5 4;
		stroke: var(--amber);
	}
	.ring {
		fill: none;
		stroke: var(--rule-strong);
	}
	.page {
		fill: none;
		stroke: var(--rule);
	}
	.line {
		stroke: var(--ink-soft);
		stroke-linecap: butt;
	}
</style>
