<script lang="ts">
	import { isQuiet, quietLine } from '$core/links/programme/quiet';
	import { WEEKDAYS } from '$core/basics/weekdays';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const STEP_MIN = 15;
	/** For each day its runs of sound and quiet, in minutes, by the very data that go on the card. */
	const days = $derived.by(() => {
		const data = view.plan.programme.quiet.map(quietLine).join('\n');
		return WEEKDAYS.map((day, index) => {
			const runs: { from: number; to: number; quiet: boolean }[] = [];
			for (let minute = 0; minute < 1440; minute += STEP_MIN) {
				const quiet = isQuiet(data, index + 1, Math.floor(minute / 60) * 100 + (minute % 60));
				const last = runs.at(-1);
				if (last?.quiet === quiet) last.to = minute + STEP_MIN;
				else runs.push({ from: minute, to: minute + STEP_MIN, quiet });
			}
			return { day, runs };
		});
	});
	const x = (minute: number): number => 50 + (minute / 1440) * 620;
</script>

<figure class="sheet">
	<figcaption>
		<b>A week</b>
		<span class="soft small"
			>filled: may sound · open: quiet{view.plan.programme.startAtBoot ? '' : ' · nothing starts by itself'}</span
		>
	</figcaption>
	<svg viewBox="0 0 690 188" role="img" aria-label="A week of sound and quiet hours">
		{#each [0, 6, 12, 18, 24] as hour (hour)}
			<path class="grid" d={`M${x(hour * 60)} 18 V182`} />
			<text x={x(hour * 60)} y="12" class="hour">{String(hour).padStart(2, '0')}</text>
		{/each}
		{#each days as { day, runs }, n (day)}
			<text x="8" y={34 + n * 23}>{day}</text>
			{#each runs as run, k (k)}
				<rect
					x={x(run.from)}
					y={22 + n * 23}
					width={x(run.to) - x(run.from)}
					height="16"
					class:quiet={run.quiet || !view.plan.programme.startAtBoot}
				/>
			{/each}
		{/each}
	</svg>
</figure>

<style>
	svg {
		width: 100%;
		max-height: 240px;
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
	rect {
		fill: var(--trace);
	}
	rect.quiet {
		fill: var(--sheet);
		stroke: var(--rule-strong);
		stroke-dasharray: 3 3;
	}
</style>
