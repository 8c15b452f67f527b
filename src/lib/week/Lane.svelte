<script lang="ts">
	import { wallClockMs } from '$core/formats/systemd/zone';
	import { movedBy, stretchedBy } from '$core/links/programme/rules/ruleEdits';
	import { slices, type Slice } from '$core/onAir/slices';
	import { becauseWords } from '$core/links/programme/rules/whatsOn';
	import { whenNear } from '$lib/shell/whenNear';
	import { shadeOf } from './axis';
	import { changeRule, dayWords, STEP_MIN, wordsOf, type Row, type WeekView } from './week.svelte';

	interface Props {
		week: WeekView;
		row: Row;
	}
	const { week, row }: Props = $props();
	const { endpoint, book } = $derived(row);
	const { first, days, zoom, ticks } = $derived(week);
	const allMin = $derived(days * 1440);
	/** Hundreds of bars each: drawn once the lane is in sight, or nearly. */
	let near = $state(false);
	const bars = $derived(near ? slices(book, first, days) : []);
	const nowPercent = $derived((100 * (wallClockMs(week.venue.timeZone, week.nowMs) / 60_000 - first * 1440)) / allMin);
	/** A bar that is too narrow for a word bears none; its title and its description have it all. */
	const WORD_PERCENT = 4;
	const clock = (minute: number): string =>
		`${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(Math.floor(minute % 60)).padStart(2, '0')}`;
	/** The rule that can be changed by its bar; null: quiet hours, or none. */
	const ruleOf = ({ on }: Slice): string | null => (on.show === 'quiet' ? null : (on.line?.rule ?? null));

	function change(endpoint: string, rule: string, byMin: number, end: boolean): void {
		changeRule(endpoint, rule, end ? 'stretch a rule' : 'move a rule', (one) =>
			end ? stretchedBy(one, byMin) : movedBy(one, byMin)
		);
	}
	/** A bar is moved and stretched by the keyboard too: arrows, with Shift its end. */
	function barKey(event: KeyboardEvent, endpoint: string, rule: string): void {
		if (event.key === 'Escape') week.chosen = null;
		const by = event.key === 'ArrowLeft' ? -STEP_MIN : event.key === 'ArrowRight' ? STEP_MIN : 0;
		if (by === 0) return;
		event.preventDefault();
		change(endpoint, rule, by, event.shiftKey);
	}
	interface Drag {
		readonly key: string;
		readonly startX: number;
		readonly perMin: number;
		readonly end: boolean;
		readonly byMin: number;
	}
	let drag = $state.raw<Drag | null>(null);
	function barDown(event: PointerEvent, key: string): void {
		if (event.button !== 0 || zoom === 'season') return;
		const bar = event.currentTarget as HTMLElement;
		const box = bar.getBoundingClientRect();
		bar.setPointerCapture(event.pointerId);
		drag = {
			key,
			startX: event.clientX,
			perMin: bar.parentElement!.getBoundingClientRect().width / allMin,
			// The last few pixels are its end.
			end: box.right - event.clientX < Math.min(10, box.width / 3),
			byMin: 0
		};
	}
	function barMove({ clientX }: PointerEvent): void {
		if (drag) drag = { ...drag, byMin: Math.round((clientX - drag.startX) / drag.perMin / STEP_MIN) * STEP_MIN };
	}
	function barUp(endpoint: string, rule: string): void {
		const done = drag;
		drag = null;
		if (done && done.byMin !== 0) change(endpoint, rule, done.byMin, done.end);
	}
	/** Where a bar stands, in per cent of the lane, while it is dragged too. */
	function placeOf(slice: Slice, key: string): { readonly left: number; readonly width: number } {
		const by = drag?.key === key ? drag : { byMin: 0, end: false };
		return {
			left: (100 * (slice.day * 1440 + slice.fromMin + (by.end ? 0 : by.byMin))) / allMin,
			width: (100 * (slice.untilMin - slice.fromMin + (by.end ? by.byMin : 0))) / allMin
		};
	}
</script>

<div class="lane" class:season={zoom === 'season'}>
	<a href={`/endpoint/${endpoint.id}/plan/programme`}>{endpoint.plan.brief.name}</a>
	<div class="time" role="group" {@attach whenNear(() => (near = true))} aria-label={endpoint.plan.brief.name}>
		{#each ticks as { at } (at)}<i class="grid" style:left={`${at}%`}></i>{/each}
		{#each bars as slice (`${slice.day} ${slice.fromMin}`)}
			{@const key = `${endpoint.id} ${slice.day} ${slice.fromMin}`}
			{@const { left, width } = placeOf(slice, key)}
			{@const words = wordsOf(endpoint, slice.on.show)}
			{@const rule = ruleOf(slice)}
			{@const shade = shadeOf(slice.on.show, endpoint.plan.programme.lists)}
			{@const said = `${dayWords(first + slice.day)}, ${clock(slice.fromMin)} to ${clock(slice.untilMin)}: ${words} (${becauseWords(slice.on, book)})`}
			{#if rule}
				<button
					type="button"
					class={`slice ${shade}`}
					class:chosen={week.chosen?.endpoint === endpoint.id && week.chosen.rule === rule}
					style:left={`${left}%`}
					style:width={`${Math.max(0.15, width)}%`}
					title={said}
					aria-label={said}
					onclick={() => (week.chosen = { endpoint: endpoint.id, rule })}
					onkeydown={(event) => barKey(event, endpoint.id, rule)}
					onpointerdown={(event) => barDown(event, key)}
					onpointermove={barMove}
					onpointerup={() => barUp(endpoint.id, rule)}
					onpointercancel={() => (drag = null)}>{width < WORD_PERCENT ? '' : words}</button
				>
			{:else}
				<span class={`slice ${shade}`} style:left={`${left}%`} style:width={`${width}%`} title={said}
					>{width < WORD_PERCENT ? '' : words}</span
				>
			{/if}
		{/each}
		{#if nowPercent >= 0 && nowPercent <= 100}<i class="now" style:left={`${nowPercent}%`}></i>{/if}
	</div>
</div>

<style>
	.lane {
		display: grid;
		grid-template-columns: 150px minmax(0, 1fr);
		border-top: 1px solid var(--rule);
		align-items: stretch;
		/* What is out of sight is neither laid out nor painted. */
		content-visibility: auto;
		contain-intrinsic-size: auto 44px;
	}
	.lane > a {
		position: sticky;
		left: 0;
		z-index: 3;
		background: var(--sheet);
		padding: 10px;
		color: var(--ink);
		font-weight: 600;
		text-decoration: none;
	}
	.lane > a:hover {
		text-decoration: underline;
	}
	.time {
		position: relative;
		min-height: 44px;
		overflow: hidden;
		border-left: 1px solid var(--rule);
	}
	.grid,
	.now {
		position: absolute;
		top: 0;
		bottom: 0;
		width: 1px;
		background: var(--rule);
	}
	.now {
		width: 2px;
		background: var(--brick);
		pointer-events: none;
	}
	.slice {
		position: absolute;
		top: 8px;
		height: 28px;
		box-sizing: border-box;
		overflow: hidden;
		white-space: nowrap;
		text-overflow: ellipsis;
		font: inherit;
		font-size: 11.5px;
		line-height: 26px;
		padding: 0 4px;
		border: 1px solid transparent;
		border-radius: 2px;
		text-align: left;
		touch-action: none;
	}
	button.slice {
		cursor: grab;
		z-index: 1;
	}
	button.slice:focus-visible,
	button.slice.chosen {
		outline: 2px solid var(--amber);
		outline-offset: 1px;
		z-index: 2;
	}
	.all {
		background: var(--bottle-wash);
		border-color: var(--bottle);
		color: var(--ink);
	}
	.list {
		background: var(--bottle);
		color: var(--on-bottle);
	}
	.other {
		background: var(--slate);
		color: var(--sheet);
	}
	.list,
	.other {
		border-color: transparent;
	}
	.none {
		background: transparent;
		border: 1px dashed var(--trace-idle);
		color: var(--ink-soft);
	}
	.season .slice {
		padding: 0;
		border-width: 0;
	}
	.season .none {
		background: var(--well);
	}
	@media (max-width: 480px) {
		.lane {
			grid-template-columns: 104px minmax(0, 1fr);
		}
	}
</style>
