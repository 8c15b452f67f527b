<script lang="ts">
	import { dateOf } from '$core/basics/calendar';
	import { WEEKDAYS } from '$core/basics/weekdays';
	import { wallClockMs } from '$core/formats/systemd/zone';
	import { slices } from '$core/onAir/slices';
	import { programmeBook } from '$core/onAir/book';
	import { becauseWords, showWords, whatsOn } from '$core/links/programme/rules/whatsOn';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { timeOfDay } from '$lib/shell/times';
	import { mondayOf, shadeOf } from '$lib/week/axis';

	const view = useEndpoint();
	const programme = $derived(view.plan.programme);
	const book = $derived(programmeBook(programme, view.context.venue));
	let nowMs = $state(Date.now());
	$effect(() => {
		const timer = setInterval(() => (nowMs = Date.now()), 30_000);
		return () => clearInterval(timer);
	});
	/** The week that holds today, and those before and after. */
	let shift = $state(0);
	const monday = $derived(mondayOf(wallClockMs(book.zone, nowMs)) + 7 * shift);
	const shown = $derived(slices(book, monday, 7));
	const now = $derived(whatsOn(book, nowMs));
	const words = (show: string): string => showWords(show, programme, view.plan.sources.listTitle);
	const x = (minute: number): number => 56 + (minute / 1440) * 614;
	const clock = (minute: number): string =>
		`${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(Math.floor(minute % 60)).padStart(2, '0')}`;
	const fits = (text: string, width: number): string => {
		const most = Math.floor((width - 6) / 6.2);
		return most < 3 ? '' : text.length <= most ? text : `${text.slice(0, most - 1)}…`;
	};
</script>

<figure class="sheet">
	<figcaption>
		<b>{shift === 0 ? 'This week' : `Week of ${dateOf(monday)}`}</b>
		<span class="soft small"
			>now: {words(now.show)} ({becauseWords(now, book)}){now.untilUtcMs === null
				? ''
				: `, until ${timeOfDay(new Date(now.untilUtcMs), book.zone)}`}</span
		>
		<span class="turn">
			<button type="button" onclick={() => shift--}>Earlier</button>
			<button type="button" disabled={shift === 0} onclick={() => (shift = 0)}>This week</button>
			<button type="button" onclick={() => shift++}>Later</button>
			<a href="/week">All endpoints</a>
		</span>
	</figcaption>
	<svg viewBox="0 0 690 188" role="img" aria-label={`What is on in the week of ${dateOf(monday)}`}>
		{#each [0, 6, 12, 18, 24] as hour (hour)}
			<path class="grid" d={`M${x(hour * 60)} 18 V182`} />
			<text x={x(hour * 60)} y="12" class="hour">{String(hour).padStart(2, '0')}</text>
		{/each}
		{#each WEEKDAYS as day, n (day)}
			<text x="4" y={34 + n * 23}>{day} {dateOf(monday + n).slice(8)}</text>
		{/each}
		{#each shown as slice (`${slice.day} ${slice.fromMin}`)}
			{@const width = x(slice.untilMin) - x(slice.fromMin)}
			<g>
				<title
					>{WEEKDAYS[slice.day]}
					{clock(slice.fromMin)} to {clock(slice.untilMin)}: {words(slice.on.show)}, {becauseWords(
						slice.on,
						book
					)}</title
				>
				<rect
					x={x(slice.fromMin)}
					y={22 + slice.day * 23}
					width={Math.max(1, width)}
					height="16"
					class={shadeOf(slice.on.show, programme.lists)}
				/>
				<text x={x(slice.fromMin) + 4} y={34 + slice.day * 23} class={`bar ${shadeOf(slice.on.show, programme.lists)}`}
					>{fits(words(slice.on.show), width)}</text
				>
			</g>
		{/each}
	</svg>
	<ul class="legend small">
		{#each [...new Set(shown.map(({ on }) => on.show))] as show (show)}
			<li>
				<svg viewBox="0 0 14 14" aria-hidden="true"
					><rect x="1" y="1" width="12" height="12" class={shadeOf(show, programme.lists)} /></svg
				>{words(show)}
			</li>
		{/each}
	</ul>
</figure>

<style>
	figcaption {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
		align-items: baseline;
	}
	.turn {
		margin-left: auto;
		display: flex;
		gap: 6px;
		align-items: baseline;
		font-size: var(--size-small);
	}
	.turn button {
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--ink);
		min-height: 28px;
		padding: 0 8px;
		cursor: pointer;
	}
	.turn button:disabled {
		opacity: 0.5;
		cursor: default;
	}
	figure > svg {
		width: 100%;
		max-height: 240px;
	}
	.legend {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 16px;
		list-style: none;
		margin: 4px 0 0;
		padding: 0;
	}
	.legend li {
		display: flex;
		gap: 6px;
		align-items: center;
	}
	.legend svg {
		width: 14px;
		height: 14px;
	}
	text {
		fill: var(--ink);
		font-size: var(--size-small);
	}
	.hour {
		text-anchor: middle;
		fill: var(--ink-soft);
	}
	.grid {
		stroke: var(--rule);
	}
	text.bar {
		font-size: 11px;
		pointer-events: none;
	}
	rect.all {
		fill: var(--bottle-wash);
		stroke: var(--bottle);
	}
	rect.list {
		fill: var(--bottle);
	}
	text.bar.list {
		fill: var(--on-bottle);
	}
	rect.other {
		fill: var(--slate);
	}
	text.bar.other {
		fill: var(--sheet);
	}
	rect.none {
		fill: var(--sheet);
		stroke: var(--rule-strong);
		stroke-dasharray: 3 3;
	}
	text.bar.none {
		fill: var(--ink-soft);
	}
</style>
