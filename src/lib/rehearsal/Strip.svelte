<script lang="ts">
	import { formatSeconds } from '$core/format';
	import type { Span } from '$core/engines/machine';

	interface Props {
		spans: readonly Span[];
		untilMs: number;
		nowMs: number;
		onseek: (ms: number) => void;
	}
	let { spans, untilMs, nowMs, onseek }: Props = $props();
	const W = 1000;
	const LABEL_PX = 76;
	let widthPx = $state(W);
	const x = (ms: number): number => (ms / untilMs) * W;
	const label = (span: Span): string =>
		span.state === 'sound'
			? 'sound'
			: span.state === 'quiet'
				? 'quiet'
				: span.state === 'off'
					? 'off'
					: `silence ${formatSeconds(span.toMs - span.fromMs)}`;

	function seek(event: MouseEvent): void {
		const box = (event.currentTarget as Element).getBoundingClientRect();
		onseek(((event.clientX - box.left) / box.width) * untilMs);
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

<div
	class="strip"
	bind:clientWidth={widthPx}
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
	<svg viewBox={`0 0 ${W} 44`} preserveAspectRatio="none" aria-hidden="true">
		<path class="base" d={`M0 31 H${W}`} />
		{#each spans as span, n (n)}<rect
				class={span.state}
				x={x(span.fromMs)}
				width={Math.max(1, x(span.toMs) - x(span.fromMs))}
				y={span.state === 'off' ? 29 : 24}
				height={span.state === 'off' ? 4 : 14}
			/>{/each}
		<path class="now" d={`M${x(nowMs)} 14 V44`} />
	</svg>
	{#each spans as span, n (n)}
		{#if ((span.toMs - span.fromMs) / untilMs) * widthPx > LABEL_PX}<span
				class={`label ${span.state}`}
				style:left={`${(span.fromMs / untilMs) * 100}%`}>{label(span)}</span
			>{/if}
	{/each}
</div>

<style>
	.strip {
		position: relative;
		flex: 1 1 320px;
		height: 44px;
		cursor: pointer;
	}
	svg {
		width: 100%;
		height: 44px;
	}
	path {
		fill: none;
		vector-effect: non-scaling-stroke;
	}
	.base {
		stroke: var(--rule-strong);
	}
	.now {
		stroke: var(--ink);
		stroke-width: 2;
	}
	rect.sound {
		fill: var(--bottle);
	}
	rect.silence {
		fill: var(--brick);
	}
	rect.quiet {
		fill: var(--slate);
	}
	rect.off {
		fill: var(--ink);
	}
	.label {
		position: absolute;
		top: 2px;
		font-size: 12px;
		white-space: nowrap;
		pointer-events: none;
	}
	.label.silence {
		color: var(--brick);
	}
</style>
