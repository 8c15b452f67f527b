<script lang="ts">
	import type { Stage } from '$core/links/sound/levels';

	let { stages }: { stages: readonly Stage[] } = $props();
	const LOW_DB = -64;
	const x = (n: number): number => 90 + n * 150;
	const y = (db: number): number => 22 + (Math.max(LOW_DB, db) / LOW_DB) * 100;
	/** Level within each stage, falling or rising between two. */
	const path = (level: (stage: Stage) => number): string =>
		stages
			.map((stage, n) => `${n ? 'L' : 'M'}${x(n) - 45} ${y(level(stage))} L${x(n) + 45} ${y(level(stage))}`)
			.join(' ');
</script>

<figure class="sheet">
	<figcaption>
		<b>Level, from file to ear</b>
		<span class="soft small">dB below clipping at each stage · line: music on average · dashed: peaks</span>
	</figcaption>
	<svg viewBox="0 0 760 152" role="img" aria-label={stages.map((stage) => `${stage.name}: ${stage.text}`).join(', ')}>
		{#each [0, -20, -40, -60] as db (db)}
			<path class={db ? 'grid' : 'clip'} d={`M40 ${y(db)} H750`} />
			<text class="axis" x="34" y={y(db) + 4}>{String(db).replace('-', '−')}</text>
		{/each}
		<text class="clips" x="44" y="15">clips</text>
		<path class="peak" d={path((stage) => stage.peakDb)} />
		<path class="average" d={path((stage) => stage.averageDb)} />
		{#each stages as stage, n (n)}
			<circle cx={x(n)} cy={y(stage.averageDb)} r="4" />
			<text class="value mono" x={x(n)} y={y(stage.averageDb) + 19}>{stage.text}</text>
			<text class="name" x={x(n)} y="148">{stage.name}</text>
		{/each}
	</svg>
</figure>

<style>
	figcaption {
		display: flex;
		justify-content: space-between;
		flex-wrap: wrap;
	}
	svg {
		width: 100%;
		max-height: 176px;
		fill: none;
	}
	text {
		fill: var(--ink);
		font-size: var(--size-small);
		text-anchor: middle;
	}
	.axis {
		text-anchor: end;
		fill: var(--ink-soft);
	}
	.clips {
		text-anchor: start;
		fill: var(--brick);
	}
	.name {
		fill: var(--ink-soft);
	}
	.grid {
		stroke: var(--rule);
	}
	.clip {
		stroke: var(--brick);
		stroke-dasharray: 5 4;
	}
	.average {
		stroke: var(--trace);
		stroke-width: 3;
		stroke-linejoin: round;
	}
	.peak {
		stroke: var(--trace);
		stroke-dasharray: 2 4;
		stroke-width: 1.6;
	}
	circle {
		fill: var(--sheet);
		stroke: var(--trace);
		stroke-width: 2;
	}
</style>
