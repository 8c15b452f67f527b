<script lang="ts">
	import { formatBytes } from '$core/basics/format';
	import { computeRoom } from '$core/links/card/contents';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const room = $derived(computeRoom(view.plan.card, view.context, view.claims));
	const capacity = $derived((room?.card.capacityGb ?? 0) * 1e9);
	const parts = $derived(room?.pieces ?? []);
	const offsets = $derived(parts.map((_, n) => parts.slice(0, n).reduce((sum, part) => sum + part.bytes, 0)));
	/** Pieces of one kind get paler from left to right, so that each is told from the next. */
	const shade = $derived(
		parts.map(({ kind }, n) => 1 - 0.24 * parts.slice(0, n).filter((before) => before.kind === kind).length)
	);
	const x = (bytes: number): number => (capacity ? (bytes / capacity) * 600 : 0);
</script>

{#if capacity}
	<figure class="sheet">
		<figcaption><b>Room on the card</b> <span class="soft">{formatBytes(capacity)} in all</span></figcaption>
		<svg viewBox="0 0 600 40" preserveAspectRatio="none" role="img" aria-label="Room on the card">
			{#each parts as part, n (n)}<rect
					class={part.kind}
					x={x(offsets[n]!)}
					width={Math.max(0, x(part.bytes))}
					y="6"
					height="28"
					opacity={shade[n]}
				/>{/each}
		</svg>
		<ul>
			{#each parts as part, n (n)}<li>
					<i class={part.kind} style:opacity={shade[n]}></i>{part.name}
					<span class="mono">{formatBytes(part.bytes)}</span>
				</li>{/each}
		</ul>
	</figure>
{/if}

<style>
	svg {
		width: 100%;
		height: 40px;
	}
	rect {
		stroke: var(--sheet);
	}
	.system {
		fill: var(--slate);
		background: var(--slate);
	}
	.media {
		fill: var(--bottle);
		background: var(--bottle);
	}
	.free {
		fill: var(--bottle-wash);
		background: var(--bottle-wash);
	}
	.reserve {
		fill: var(--trace-idle);
		background: var(--trace-idle);
	}
	ul {
		list-style: none;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 20px;
		padding: 0;
		margin: 6px 0 0;
	}
	i {
		display: inline-block;
		width: 11px;
		height: 11px;
		margin-right: 6px;
		border: 1px solid var(--rule-strong);
	}
</style>
