<script lang="ts">
	import { overlap, within, withoutZone, withZone } from '$core/links/notices/pages/edits';
	import { asDrawn } from '$core/links/notices/pages/letters';
	import type { TypefacePackage } from '$core/standards/typefaces';
	import { noticeScreen, zoneBox } from '$core/links/notices/pages/screen';
	import type { Page, Zone } from '$core/links/notices/settings';
	import { showOf } from '$core/links/notices/pages/show';
	import { worldOf } from '$core/links/notices/pages/world';
	import { SHOWS_WORDS } from '$core/links/notices/pages/zoneWords';
	import { wallClockMs } from '$core/formats/systemd/zone';
	import { itemAt } from '$core/onAir/item';
	import { instantOfClock } from '$core/onAir/slices';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { PageView } from '../../../player/draw';
	import '../../../player/player.css';
	import { chosen, editPages } from './chosen.svelte';
	import { noticeStage } from '$lib/media/noticeStage';

	const { page }: { page: Page } = $props();
	const view = useEndpoint();
	$effect(() => void view.loadMedia());

	const screen = $derived(noticeScreen(view.context));
	const show = $derived(showOf(view.plan.notices, view.context));
	const size = $derived(show.screen);
	const zone = $derived(chosen.zone(view));
	const { timeZone } = $derived(view.context.venue);
	const stage = $derived(noticeStage(show, view.plan.sources.items, view.mediaBytes));

	/** The instant that is looked at; it goes on as fast as it is let. */
	let nowMs = $state(Date.now());
	let follows = $state(true);
	let plays = $state(false);
	let speed = $state(1);
	$effect(() => {
		let last = performance.now();
		const timer = setInterval(() => {
			const passed = performance.now() - last;
			last = performance.now();
			if (plays) nowMs += passed * speed;
			else if (follows) nowMs = Date.now();
		}, 200);
		return () => clearInterval(timer);
	});
	const onNow = $derived(plays ? itemAt(show.book, (list) => show.lists[list] ?? [], nowMs) : null);
	const shownPage = $derived(onNow ? (show.pages.find(({ id }) => id === onNow.item?.id) ?? null) : page);
	const still = $derived(onNow?.item && onNow.item.kind !== 'page' ? stage.mediaOf(onNow.item.id) : null);
	const clockText = $derived(new Date(wallClockMs(timeZone, nowMs)).toISOString().slice(0, 16));
	const said = $derived(
		!onNow
			? ''
			: `${onNow.item?.title ?? 'Black'}: ${onNow.line ? `rule \u201c${onNow.line.title || onNow.line.rule}\u201d` : onNow.show === 'off' ? 'nothing starts it' : 'no rule holds'}`
	);

	let width = $state(320);
	const MOST_HEIGHT = 520;
	const scale = $derived(Math.min(width / size.widthPx, MOST_HEIGHT / size.heightPx));
	const drawing = new PageView();
	function mount(node: HTMLElement): void {
		node.append(drawing.root);
	}
	$effect(() => {
		if (shownPage)
			drawing.show(shownPage, stage, worldOf(show, nowMs, new Map(), view.plan.notices.shownBy === 'pictures'));
		if (view.plan.notices.shownBy === 'browser') showBoxes(drawing.root, view.plan.notices.fonts);
	});
	/** This browser may have typefaces that the endpoint lacks. */
	function showBoxes(root: HTMLElement, fonts: readonly TypefacePackage[]): void {
		const texts = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
		while (texts.nextNode()) {
			const { currentNode } = texts;
			const drawn = asDrawn(currentNode.nodeValue ?? '', fonts);
			if (drawn !== currentNode.nodeValue) currentNode.nodeValue = drawn;
		}
	}

	interface Drag {
		readonly id: string;
		readonly startX: number;
		readonly startY: number;
		readonly end: boolean;
		readonly dx: number;
		readonly dy: number;
	}
	let drag = $state.raw<Drag | null>(null);
	const cell = $derived.by(() => {
		const one = zoneBox(size, show.theme, show.grid, { x: 0, y: 0, w: 1, h: 1 });
		const next = zoneBox(size, show.theme, show.grid, { x: 1, y: 1, w: 1, h: 1 });
		return { width: (next.left - one.left) * scale, height: (next.top - one.top) * scale };
	});
	const moved = (one: Zone, dx: number, dy: number, end: boolean): Pick<Zone, 'x' | 'y' | 'w' | 'h'> =>
		within(
			end
				? {
						...one,
						w: Math.min(Math.max(1, one.w + dx), show.grid.columns - one.x),
						h: Math.min(Math.max(1, one.h + dy), show.grid.rows - one.y)
					}
				: { ...one, x: one.x + dx, y: one.y + dy },
			show.grid
		);
	function place(one: Zone, dx: number, dy: number, end: boolean): void {
		const next = moved(one, dx, dy, end);
		if (next.x === one.x && next.y === one.y && next.w === one.w && next.h === one.h) return;
		editPages(view, end ? 'stretch a zone' : 'move a zone', (pages) => withZone(pages, page.id, one.id, next));
	}
	function down(event: PointerEvent, one: Zone, end: boolean): void {
		if (event.button !== 0) return;
		event.stopPropagation();
		(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
		chosen.chooseZone(one.id);
		drag = { id: one.id, startX: event.clientX, startY: event.clientY, end, dx: 0, dy: 0 };
	}
	function move({ clientX, clientY }: PointerEvent): void {
		if (drag)
			drag = {
				...drag,
				dx: Math.round((clientX - drag.startX) / cell.width),
				dy: Math.round((clientY - drag.startY) / cell.height)
			};
	}
	function up(one: Zone): void {
		const done = drag;
		drag = null;
		if (done) place(one, done.dx, done.dy, done.end);
	}
	/** Arrows move it, with Shift they stretch it; Delete takes it out. */
	function key(event: KeyboardEvent, one: Zone): void {
		const ways: Readonly<Record<string, readonly [number, number]>> = {
			ArrowLeft: [-1, 0],
			ArrowRight: [1, 0],
			ArrowUp: [0, -1],
			ArrowDown: [0, 1]
		};
		const way = ways[event.key];
		if (way) {
			event.preventDefault();
			place(one, way[0], way[1], event.shiftKey);
		} else if (event.key === 'Delete' || event.key === 'Backspace') {
			event.preventDefault();
			editPages(view, 'take a zone out', (pages) => withoutZone(pages, page.id, one.id));
		}
	}
	const boxOf = (one: Zone) => {
		const at = drag?.id === one.id ? { ...one, ...moved(one, drag.dx, drag.dy, drag.end) } : one;
		const { left, top, width: wide, height } = zoneBox(size, show.theme, show.grid, at);
		return { left: left * scale, top: top * scale, width: wide * scale, height: height * scale };
	};
	const isUnder = (one: Zone): boolean =>
		page.zones.slice(page.zones.indexOf(one) + 1).some((other) => overlap(one, other));
</script>

<figure class="sheet" bind:clientWidth={width} style:padding="0">
	<div class="screen" style:width={`${size.widthPx * scale}px`} style:height={`${size.heightPx * scale}px`}>
		<div
			class="drawn"
			class:hidden={!shownPage}
			style:transform={`scale(${scale})`}
			{@attach mount}
			aria-hidden="true"
		></div>
		{#if plays && !shownPage && still}<img src={still} alt={onNow?.item?.title ?? ''} />{/if}
		{#if screen}
			<i
				class="edges"
				style:left={`${size.edges.left * scale}px`}
				style:top={`${size.edges.top * scale}px`}
				style:right={`${size.edges.right * scale}px`}
				style:bottom={`${size.edges.bottom * scale}px`}
			></i>
		{/if}
		{#if !plays}
			{#each page.zones as one (one.id)}
				{@const box = boxOf(one)}
				<button
					type="button"
					class="zone"
					class:chosen={zone?.id === one.id}
					style:left={`${box.left}px`}
					style:top={`${box.top}px`}
					style:width={`${box.width}px`}
					style:height={`${box.height}px`}
					aria-label={`${one.title || SHOWS_WORDS[one.shows]}, column ${one.x + 1}, row ${one.y + 1}, ${one.w} by ${one.h}${isUnder(one) ? ', under another' : ''}`}
					aria-pressed={zone?.id === one.id}
					onclick={() => chosen.chooseZone(one.id)}
					onfocus={() => chosen.chooseZone(one.id)}
					onkeydown={(event) => key(event, one)}
					onpointerdown={(event) => down(event, one, false)}
					onpointermove={move}
					onpointerup={() => up(one)}
					onpointercancel={() => (drag = null)}
				>
					<!-- svelte-ignore a11y_no_static_element_interactions -->
					<span
						class="handle"
						onpointerdown={(event) => down(event, one, true)}
						onpointermove={move}
						onpointerup={() => up(one)}
					></span>
				</button>
			{/each}
		{/if}
	</div>
	<figcaption>
		<div class="when">
			<label class="small"
				>At <input
					type="datetime-local"
					value={clockText}
					onchange={({ currentTarget }) => {
						const at = instantOfClock(timeZone, currentTarget.value);
						if (at === null) return;
						follows = false;
						nowMs = at;
					}}
				/></label
			>
			<button type="button" class="small" onclick={() => ((follows = true), (nowMs = Date.now()))}>Now</button>
			<button type="button" class="small" aria-pressed={plays} onclick={() => (plays = !plays)}
				>{plays ? 'Stop' : 'Play'}</button
			>
			<label class="small"
				>Speed <select bind:value={speed}>
					{#each [1, 10, 60, 600, 3600] as times (times)}<option value={times}>{times}×</option>{/each}
				</select></label
			>
		</div>
		<p class="soft small" role="status">
			{#if plays}{said}{:else}Drag a zone, or its corner. Arrows move it, with Shift they stretch it. The dotted line is
				what the set shows.{/if}
		</p>
	</figcaption>
</figure>

<style>
	figure {
		overflow: hidden;
		border: 0;
		background: none;
		box-shadow: none;
	}
	.screen {
		position: relative;
		overflow: hidden;
		background: #000;
		margin: 0 auto;
		touch-action: none;
	}
	.drawn {
		transform-origin: 0 0;
		position: absolute;
		left: 0;
		top: 0;
	}
	.drawn.hidden {
		visibility: hidden;
	}
	img {
		width: 100%;
		height: 100%;
		object-fit: contain;
	}
	.edges {
		position: absolute;
		border: 1px dashed #c8604f;
		pointer-events: none;
	}
	.zone {
		position: absolute;
		border: 1px solid transparent;
		background: none;
		cursor: move;
		padding: 0;
		touch-action: none;
	}
	.zone:hover {
		border-color: #9fd8c4;
	}
	.zone.chosen {
		border: 2px solid #9fd8c4;
	}
	.zone:focus-visible {
		outline: 2px solid #fff;
		outline-offset: 1px;
	}
	.handle {
		position: absolute;
		right: 0;
		bottom: 0;
		width: 18px;
		height: 18px;
		cursor: nwse-resize;
	}
	.zone.chosen .handle {
		background: linear-gradient(135deg, transparent 50%, #9fd8c4 50%);
	}
	figcaption {
		padding: 8px 0 0;
	}
	.when {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
	.when input,
	.when select,
	.when button {
		min-height: 32px;
		border: 1px solid var(--rule-strong);
		background: var(--sheet);
		color: var(--ink);
		padding: 2px 8px;
		font: inherit;
	}
	.when button {
		cursor: pointer;
	}
	.when button[aria-pressed='true'] {
		background: var(--bottle);
		color: var(--on-bottle);
	}
</style>
