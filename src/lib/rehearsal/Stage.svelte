<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { BenchScreen } from '$core/links/picture/bench';
	import { TEST_CARDS } from '$core/links/picture/edges/cards';
	import { NO_EDGES } from '$core/links/picture/edges/overscan';
	import { windowOf, type Seen } from '$core/links/picture/seen';
	import { addressOf } from '$lib/media/address';
	import { writeSvg } from '$core/formats/drawing';

	interface Props {
		screen: BenchScreen;
		/** The eye's state now, and why. */
		now: string;
		why: string;
		/** What is shown now; null: nothing of the player. */
		seen: Seen | null;
		/** A still picture's own bytes, where the app has them. */
		still: Uint8Array | null;
		nowMs: number;
		/** Draws a page on the whole screen, upright; null: none is shown. */
		page: Snippet | null;
	}
	let { screen, now, why, seen, still, nowMs, page }: Props = $props();
	/** To practise: the card with the numbered edges, on this very set. */
	let practises = $state(false);

	const size = $derived(seen ?? screen.fixed ?? { widthPx: 1920, heightPx: 1080 });
	const turned = $derived(screen.hangsDeg % 180 !== 0);
	const seenOf = $derived(windowOf(screen));
	const lit = $derived(now === 'picture' || (now === 'wrong' && seen !== null) || practises);
	const W = $derived(size.widthPx);
	const H = $derived(size.heightPx);
	/** The panel in the drawing, before it is hung. */
	const scale = $derived(turned ? Math.min(284 / W, 184 / H) : Math.min(296 / W, 172 / H));
	const area = $derived(seen?.area ?? { left: 0, right: 1, top: 0, bottom: 1 });
	const turn = $derived(((seen?.turnedDeg ?? 0) + screen.hangsDeg) % 360);
	const inner = $derived({
		x: area.left * W,
		y: area.top * H,
		width: (area.right - area.left) * W,
		height: (area.bottom - area.top) * H
	});
	/** The picture before it is turned into its place. */
	const flat = $derived(turn % 180 === 0 ? { w: inner.width, h: inner.height } : { w: inner.height, h: inner.width });
	const upright = $derived(turn % 180 === 0 ? { w: W, h: H } : { w: H, h: W });
	const cards = $derived(
		practises
			? `data:image/svg+xml,${encodeURIComponent(writeSvg(TEST_CARDS[0]!.draw({ widthPx: W, heightPx: H }, NO_EDGES)))}`
			: ''
	);
	const image = $derived((seen?.wantedFps === null && addressOf(still)) || '');
	/** A film's bar: as often as frames are really shown. */
	const bar = $derived.by(() => {
		const fps = seen?.shownFps ?? 25;
		return ((Math.floor((nowMs / 1000) * fps) / fps) % 2) / 2;
	});
	const said = $derived(
		practises
			? 'the card with the numbered edges'
			: now === 'picture'
				? `${seen?.title ?? ''}, ${seen?.mode ?? ''}`
				: now === 'off'
					? 'off'
					: why
	);
</script>

<figure>
	<svg viewBox={turned ? '0 0 200 300' : '0 0 320 196'} role="img" aria-label={`The screen: ${said}`}>
		<g
			transform={`translate(${turned ? 100 : 160} ${turned ? 150 : 98}) rotate(${-screen.hangsDeg}) translate(${(-W * scale) / 2} ${(-H * scale) / 2})`}
		>
			<rect x="-8" y="-8" width={W * scale + 16} height={H * scale + 16} rx="3" class="set" />
			<svg
				width={W * scale}
				height={H * scale}
				viewBox={`${seenOf.left * W} ${seenOf.top * H} ${(seenOf.right - seenOf.left) * W} ${(seenOf.bottom - seenOf.top) * H}`}
				preserveAspectRatio="none"
			>
				<rect width={W} height={H} fill="#05080a" />
				{#if practises}
					<image href={cards} width={W} height={H} preserveAspectRatio="none" />
				{:else if lit && seen && page}
					<g transform={`translate(${W / 2} ${H / 2}) rotate(${turn}) translate(${-upright.w / 2} ${-upright.h / 2})`}>
						<foreignObject width={upright.w} height={upright.h}>{@render page()}</foreignObject>
					</g>
				{:else if lit && seen}
					<g
						transform={`translate(${inner.x + inner.width / 2} ${inner.y + inner.height / 2}) rotate(${turn}) translate(${-flat.w / 2} ${-flat.h / 2})`}
					>
						{#if image}
							<image href={image} width={flat.w} height={flat.h} preserveAspectRatio="none" />
						{:else}
							<rect width={flat.w} height={flat.h} fill="#16313a" />
							<circle cx={flat.w / 2} cy={flat.h * 0.42} r={flat.h * 0.22} fill="#e0c070" opacity="0.8" />
							<path
								d={`M${flat.w * 0.42} ${flat.h * 0.78} h${flat.w * 0.16} v${flat.h * 0.12} h${-flat.w * 0.16}z`}
								fill="#4d6a66"
							/>
							<rect
								x={flat.w * (0.06 + 0.86 * bar)}
								y={flat.h * 0.92}
								width={flat.w * 0.02}
								height={flat.h * 0.04}
								fill="#f4e6b0"
							/>
							<rect width={flat.w} height={flat.h} fill="none" stroke="#c4ded6" stroke-width={flat.h * 0.012} />
							<text x={flat.w / 2} y={flat.h * 0.15} font-size={flat.h * 0.07} fill="#f4f0e2" text-anchor="middle"
								>{seen.title}</text
							>
						{/if}
					</g>
				{:else if now === 'console'}
					{#each { length: 5 } as _, n (n)}
						<rect
							x={W * 0.03}
							y={H * (0.05 + n * 0.05)}
							width={W * (0.3 + ((n * 7) % 4) * 0.1)}
							height={H * 0.02}
							fill="#8f9a90"
						/>
					{/each}
				{/if}
			</svg>
			{#if !lit && now !== 'console' && now !== 'off'}
				<g transform={`translate(${(W * scale) / 2} ${(H * scale) / 2}) rotate(${screen.hangsDeg})`}>
					<text y="4" class="no">{now === 'wrong' ? 'mode not supported' : 'no picture'}</text>
				</g>
			{/if}
		</g>
	</svg>
	<figcaption>
		<span class="small">{said}</span>
		{#if seen && lit && !practises && seen.bitsPerColour < 8}<span class="soft small"
				>{seen.bitsPerColour} bits a colour: gradients show {2 ** seen.bitsPerColour} steps</span
			>{/if}
		<label class="small"
			><input type="checkbox" bind:checked={practises} /> Practise: show the card with the edges</label
		>
	</figcaption>
</figure>

<style>
	svg {
		width: 100%;
		max-height: 300px;
	}
	svg svg {
		width: auto;
		max-height: none;
	}
	.set {
		fill: var(--well);
		stroke: var(--rule-strong);
	}
	.no {
		text-anchor: middle;
		font-size: 13px;
		fill: #9aa89e;
	}
	figcaption {
		display: grid;
		gap: 2px;
	}
	label {
		display: flex;
		gap: 6px;
		align-items: center;
		color: var(--ink-soft);
	}
</style>
