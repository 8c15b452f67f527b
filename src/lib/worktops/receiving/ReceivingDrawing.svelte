<script lang="ts">
	import { delaysOf } from '$core/links/receiving/delay';
	import { FADING_DB, marginDb, reachM } from '$core/links/receiving/reach';
	import { adapterDbm, WAY_WORDS } from '$core/links/receiving/ways';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const receiving = $derived(view.plan.receiving);
	const delays = $derived(delaysOf(receiving, view.context.facts.soundShared === true));
	const LEFT = 104;
	const RIGHT = 640;
	const ROW = 34;
	const STEPS_MS = [100, 200, 500, 1000] as const;
	const mostMs = $derived(Math.max(200, ...delays.map(({ totalMs }) => totalMs)) * 1.12);
	const stepMs = $derived(STEPS_MS.find((step) => mostMs / step <= 8) ?? 1000);
	const x = (ms: number): number => LEFT + (ms / mostMs) * (RIGHT - LEFT);
	const ticks = $derived(Array.from({ length: Math.floor(mostMs / stepMs) + 1 }, (_, n) => n * stepMs));
	const bars = $derived(
		delays.map(({ way, stages, totalMs }) => {
			let at = 0;
			return {
				way,
				totalMs,
				stages: stages.map((stage) => {
					const from = at;
					at += stage.ms;
					return { ...stage, from };
				})
			};
		})
	);
	const reachTop = $derived(34 + bars.length * ROW + 30);

	const dbm = $derived(receiving.bluetooth ? adapterDbm(view.context) : null);
	const reach = $derived.by(() => {
		if (dbm === null) return null;
		const sure = Math.max(0, reachM(dbm, receiving.walls, FADING_DB));
		const most = Math.max(0, reachM(dbm, receiving.walls, 0));
		const endM = Math.max(receiving.farthestM * 1.15, Math.min(most * 1.1, receiving.farthestM * 6), 5);
		return { sure, most, endM, margin: marginDb(dbm, receiving.farthestM, receiving.walls) };
	});
	const metres = (m: number): number => LEFT + (Math.min(m, reach!.endM) / reach!.endM) * (RIGHT - LEFT);
	const height = $derived(reach ? reachTop + 60 : reachTop - 12);
</script>

<figure class="sheet">
	<figcaption>
		<b>From pressing to hearing</b>
		<span class="soft small">
			<i class="key other"></i> sender and way <i class="key own"></i> kept ready here
		</span>
	</figcaption>
	{#if bars.length === 0}
		<p class="soft">Choose a way by which others may send.</p>
	{:else}
		<svg
			viewBox={`0 0 690 ${height}`}
			role="img"
			aria-label={bars.map(({ way, totalMs }) => `${WAY_WORDS[way]} ${totalMs.toFixed(0)} ms`).join(', ')}
		>
			{#each ticks as ms (ms)}
				<path class="grid" d={`M${x(ms)} 20 V${26 + bars.length * ROW}`} />
				<text class="tick" x={x(ms)} y="13">{ms} ms</text>
			{/each}
			{#each bars as { way, stages, totalMs }, n (way)}
				<text x="4" y={46 + n * ROW}>{WAY_WORDS[way]}</text>
				{#each stages as { what, ms, from }, k (what)}
					<rect
						x={x(from)}
						y={30 + n * ROW}
						width={Math.max(1, x(from + ms) - x(from))}
						height="24"
						class:own={k === stages.length - 1}><title>{what}: {ms.toFixed(0)} ms</title></rect
					>
				{/each}
				<text class="sum" x={x(totalMs) + 6} y={46 + n * ROW}>{totalMs.toFixed(0)}</text>
			{/each}
			{#if reach}
				<text x="4" y={reachTop + 24}>Reach</text>
				<rect class="sure" x={LEFT} y={reachTop + 8} width={metres(reach.sure) - LEFT} height="24" />
				<rect
					class="maybe"
					x={metres(reach.sure)}
					y={reachTop + 8}
					width={Math.max(0, metres(reach.most) - metres(reach.sure))}
					height="24"
				/>
				<path class="line" d={`M${LEFT} ${reachTop + 32} H${RIGHT}`} />
				<g class:bad={reach.margin < FADING_DB}>
					<path class="mark" d={`M${metres(receiving.farthestM)} ${reachTop + 2} V${reachTop + 38}`} />
					<text class="tick" x={metres(receiving.farthestM)} y={reachTop + 52}
						>{receiving.farthestM} m{receiving.walls
							? `, ${receiving.walls} wall${receiving.walls > 1 ? 's' : ''}`
							: ''}</text
					>
				</g>
				<text class="tick" x={metres(reach.sure)} y={reachTop}>surely {reach.sure.toFixed(0)} m</text>
				{#if metres(reach.most) - metres(reach.sure) > 150}
					<text class="tick" x={metres(reach.most)} y={reachTop}>at best {reach.most.toFixed(0)} m</text>
				{/if}
			{/if}
		</svg>
	{/if}
</figure>

<style>
	figure {
		overflow-x: auto;
	}
	svg {
		width: 100%;
		/* Else its words are too small to read on a phone. */
		min-width: 520px;
		max-height: 260px;
	}
	text {
		fill: var(--ink);
		font-size: var(--size-small);
	}
	.tick {
		text-anchor: middle;
		fill: var(--ink-soft);
	}
	.sum {
		font-weight: 700;
	}
	.grid {
		stroke: var(--rule);
	}
	rect {
		fill: var(--rule-strong);
		stroke: var(--sheet);
	}
	rect.own,
	rect.sure {
		fill: var(--trace);
	}
	rect.maybe {
		fill: var(--sheet);
		stroke: var(--trace);
		stroke-dasharray: 3 3;
	}
	.line {
		stroke: var(--rule-strong);
	}
	.mark {
		stroke: var(--ink);
		stroke-width: 2;
	}
	.bad .mark {
		stroke: var(--signal);
	}
	.bad text {
		fill: var(--signal);
		font-weight: 700;
	}
	.key {
		display: inline-block;
		width: 12px;
		height: 10px;
		margin: 0 2px 0 8px;
		background: var(--rule-strong);
	}
	.key.own {
		background: var(--trace);
	}
</style>
