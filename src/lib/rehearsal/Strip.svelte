<script lang="ts">
	import { chain } from '$core/chain';
	import type { RehearsedTrack } from '$core/engines/rehearse';
	import type { Link } from '$core/link';
	import { formatSeconds } from '$core/basics/format';

	interface Props {
		tracks: readonly RehearsedTrack[];
		untilMs: number;
		nowMs: number;
		onseek: (ms: number) => void;
	}
	let { tracks, untilMs, nowMs, onseek }: Props = $props();
	const links: readonly Link[] = chain;
	const kinds = new Map(links.flatMap(({ tracks: own = [] }) => own.map((kind) => [kind.id, kind] as const)));
	const W = 1000;
	const ROW = 15;
	/** As many rows as there will be, so that nothing jumps when the first result comes. */
	const rows = $derived(Math.max(tracks.length, kinds.size));
	const LABEL_PX = 76;
	let widthPx = $state(W);
	const x = (ms: number): number => (untilMs > 0 ? (ms / untilMs) * W : 0);
	const toneOf = (track: string, state: string): string => kinds.get(track)?.states[state]?.tone ?? 'bad';
	const label = (track: string, span: { state: string; fromMs: number; toMs: number }): string => {
		const known = kinds.get(track)?.states[span.state];
		return `${known?.words ?? span.state}${known?.tone === 'bad' ? ` ${formatSeconds(span.toMs - span.fromMs)}` : ''}`;
	};

	function seek(event: MouseEvent): void {
		const box = (event.currentTarget as Element).getBoundingClientRect();
		onseek(Math.max(0, Math.min(untilMs, ((event.clientX - box.left) / box.width) * untilMs)));
	}
	function key(event: KeyboardEvent): void {
		const step = untilMs / (event.shiftKey ? 10 : 100);
		if (event.key === 'ArrowRight') onseek(Math.min(untilMs, nowMs + step));
		else if (event.key === 'ArrowLeft') onseek(Math.max(0, nowMs - step));
		else if (event.key === 'Home') onseek(0);
		else if (event.key === 'End') onseek(untilMs);
		else return;
		event.preventDefault();
	}
</script>

<div class="strips">
	<div class="names" aria-hidden="true">
		{#each tracks as track (track.id)}<span>{track.title}</span>{/each}
	</div>
	<div
		class="strip"
		bind:clientWidth={widthPx}
		style:height={`${rows * ROW + 8}px`}
		role="slider"
		tabindex="0"
		aria-label="Moment of the rehearsal"
		aria-valuemin="0"
		aria-valuemax={untilMs}
		aria-valuenow={Math.round(nowMs)}
		aria-valuetext={formatSeconds(nowMs)}
		onclick={seek}
		onkeydown={key}
	>
		<svg viewBox={`0 0 ${W} ${rows * ROW + 8}`} preserveAspectRatio="none" aria-hidden="true">
			{#each tracks as track, row (track.id)}
				<path class="base" d={`M0 ${row * ROW + 15} H${W}`} />
				{#each track.spans as span, n (n)}
					{@const tone = toneOf(track.id, span.state)}
					<rect
						class={tone}
						x={x(span.fromMs)}
						width={Math.max(1.5, x(span.toMs) - x(span.fromMs))}
						y={row * ROW + (tone === 'off' ? 12 : 4)}
						height={tone === 'off' ? 3 : 11}
					/>
				{/each}
			{/each}
			<path class="now" d={`M${x(nowMs)} 0 V${rows * ROW + 8}`} />
		</svg>
		{#each tracks as track, row (track.id)}
			{#each track.spans as span, n (n)}
				{#if ((span.toMs - span.fromMs) / untilMs) * widthPx > LABEL_PX && toneOf(track.id, span.state) !== 'off'}<span
						class={`label ${toneOf(track.id, span.state)}`}
						style:left={`${(span.fromMs / untilMs) * 100}%`}
						style:width={`${((span.toMs - span.fromMs) / untilMs) * 100}%`}
						style:top={`${row * ROW + 2}px`}>{label(track.id, span)}</span
					>{/if}
			{/each}
		{/each}
	</div>
</div>

<style>
	.strips {
		flex: 1 1 100%;
		display: grid;
		grid-template-columns: auto minmax(0, 1fr);
		gap: 10px;
	}
	.names {
		display: grid;
		grid-auto-rows: 15px;
		padding-top: 3px;
		font-size: var(--size-small);
		line-height: 13px;
		color: var(--ink-soft);
	}
	.strip {
		position: relative;
		cursor: pointer;
	}
	svg {
		width: 100%;
		height: 100%;
	}
	path {
		fill: none;
		vector-effect: non-scaling-stroke;
	}
	.base {
		stroke: var(--rule);
	}
	.now {
		stroke: var(--ink);
		stroke-width: 2;
	}
	rect.good {
		fill: var(--bottle);
	}
	rect.bad {
		fill: var(--brick);
	}
	rect.rest {
		fill: var(--slate);
	}
	rect.off {
		fill: var(--ink);
	}
	.label {
		position: absolute;
		box-sizing: border-box;
		padding: 0 4px;
		overflow: hidden;
		text-overflow: ellipsis;
		font-size: var(--size-small);
		line-height: 14px;
		white-space: nowrap;
		pointer-events: none;
		color: var(--on-bottle);
	}
</style>
