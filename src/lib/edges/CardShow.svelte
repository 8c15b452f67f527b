<script lang="ts">
	import { onMount } from 'svelte';
	import { writeSvg } from '$core/formats/drawing';
	import { SIDES, type Side, type Size } from '$core/links/picture/edges/overscan';
	import type { Edges } from '$core/standards/edges';
	import type { TestCard } from '$core/links/picture/edges/cards';

	interface Props {
		/** null: the moving bar. */
		card: TestCard | null;
		size: Size;
		edges: Edges;
		onedges: (edges: Edges) => void;
		onclose: () => void;
	}
	let { card, size, edges, onedges, onclose }: Props = $props();
	let box: HTMLDivElement | undefined = $state();
	let bar: HTMLDivElement | undefined = $state();
	let side = $state<Side>('left');
	let told = $state(true);
	const source = $derived(card ? `data:image/svg+xml,${encodeURIComponent(writeSvg(card.draw(size, edges)))}` : '');
	/** The browser draws in its own pixels: only in the mode's own size is each of the card's pixels one of the screen's. */
	const own = $derived(
		typeof window === 'undefined'
			? size
			: {
					widthPx: Math.round(window.screen.width * window.devicePixelRatio),
					heightPx: Math.round(window.screen.height * window.devicePixelRatio)
				}
	);
	const exact = $derived(own.widthPx === size.widthPx && own.heightPx === size.heightPx);

	onMount(() => {
		box?.focus();
		void box?.requestFullscreen?.().catch(() => {});
		const left = (): void => {
			if (!document.fullscreenElement) onclose();
		};
		document.addEventListener('fullscreenchange', left);
		const hide = setTimeout(() => (told = false), 6000);
		let frame = 0;
		let step = 0;
		const move = (): void => {
			step++;
			if (bar) bar.style.transform = `translateX(${(step % 120) * (100 / 120)}vw)`;
			frame = requestAnimationFrame(move);
		};
		if (!card) frame = requestAnimationFrame(move);
		return () => {
			document.removeEventListener('fullscreenchange', left);
			clearTimeout(hide);
			cancelAnimationFrame(frame);
			if (document.fullscreenElement) void document.exitFullscreen().catch(() => {});
		};
	});

	const KEYS: Readonly<Record<string, Side>> = { l: 'left', r: 'right', t: 'top', b: 'bottom' };
	function key(event: KeyboardEvent): void {
		if (event.key === 'Escape') return onclose();
		const chosen = KEYS[event.key.toLowerCase()];
		if (chosen) {
			side = chosen;
			told = true;
			return;
		}
		const step =
			event.key === 'ArrowRight' || event.key === 'ArrowDown'
				? 1
				: event.key === 'ArrowLeft' || event.key === 'ArrowUp'
					? -1
					: 0;
		if (step === 0 || card?.id !== 'proof') return;
		event.preventDefault();
		// Right and bottom edges move inwards to the left and upwards.
		const inwards = side === 'right' || side === 'bottom' ? -step : step;
		const next = edges[side] + inwards * (event.shiftKey ? 10 : 1);
		told = true;
		if (next >= 0) onedges({ ...edges, [side]: next });
	}
</script>

<div
	class="card"
	bind:this={box}
	role="dialog"
	aria-modal="true"
	aria-label={card?.title ?? 'Moving bar'}
	tabindex="0"
	onkeydown={key}
	ondblclick={onclose}
>
	{#if card}<img src={source} alt={card.look} />{:else}<div class="bar" bind:this={bar}></div>{/if}
	{#if told}
		<p>
			{#if card?.id === 'proof'}
				{#each SIDES as known (known)}<b class:on={known === side}>{known} {edges[known]}</b>{/each}
				· L, R, T, B choose an edge, arrows move it, with Shift by ten · Esc ends
			{:else}{card?.look ??
					'The bar moves a step with each refresh: it should glide, and its upright edges stay whole.'} Esc ends{/if}
			{#if !exact}<br />This screen has {own.widthPx} × {own.heightPx}; in {size.widthPx} × {size.heightPx} the card would
				be exact.{/if}
		</p>
	{/if}
	<button type="button" onclick={onclose}>Close</button>
</div>

<style>
	.card {
		position: fixed;
		inset: 0;
		z-index: 9000;
		background: #000;
		outline: none;
	}
	img {
		width: 100vw;
		height: 100vh;
		object-fit: fill;
		image-rendering: pixelated;
	}
	.bar {
		width: 6vw;
		height: 100vh;
		background: #f4f0e2;
	}
	p {
		position: absolute;
		left: 50%;
		bottom: 16%;
		transform: translateX(-50%);
		width: min(90vw, 760px);
		padding: 8px 14px;
		background: rgb(0 0 0 / 78%);
		color: #f4f0e2;
		text-align: center;
	}
	b {
		margin-right: 10px;
		font-family: var(--mono);
		font-weight: 400;
	}
	b.on {
		text-decoration: underline;
		font-weight: 700;
	}
	button {
		position: absolute;
		right: 30%;
		top: 16%;
		opacity: 0.25;
		border: 1px solid #f4f0e2;
		background: #000;
		color: #f4f0e2;
		padding: 6px 12px;
	}
	button:hover,
	button:focus {
		opacity: 1;
	}
</style>
