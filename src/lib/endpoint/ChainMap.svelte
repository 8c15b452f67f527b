<script lang="ts">
	import { page } from '$app/state';
	import type { LinkId } from '$core/plan/plan';
	import Mark from '$lib/shell/Mark.svelte';
	import { useEndpoint } from './view.svelte';

	const view = useEndpoint();
	/** Where each link stands in the drawing: mains and network on the left, the ear on the right. */
	const PLACES: Record<LinkId, { x: number; y: number; w: number }> = {
		power: { x: 0, y: 6, w: 186 },
		card: { x: 0, y: 58, w: 186 },
		network: { x: 0, y: 110, w: 186 },
		sources: { x: 222, y: 134, w: 180 },
		brief: { x: 432, y: 0, w: 186 },
		parts: { x: 432, y: 67, w: 186 },
		programme: { x: 432, y: 134, w: 186 },
		heat: { x: 664, y: 0, w: 200 },
		sound: { x: 664, y: 67, w: 200 },
		header: { x: 664, y: 134, w: 200 }
	};
	const heard = $derived(
		view.assessment.links.find((link) => link.id === 'sound')?.figures.find((figure) => figure.id === 'average')
			?.text ?? null
	);
</script>

<nav class="chain" aria-label="The chain">
	<svg viewBox="0 0 1040 186" width="1040" height="186" aria-hidden="true">
		<path class="power" d="M186 29 H390 Q402 29 402 41 V72 Q402 84 414 84 H432" />
		<path class="idle" d="M186 81 H376 Q388 81 388 90 Q388 96 400 96 H432" />
		<path class="data" d="M186 133 H204 Q213 133 213 142 V148 Q213 157 222 157" />
		<path class="data" d="M402 157 H407 Q417 157 417 147 V118 Q417 108 427 108 H432" />
		<path class="idle dashed" d="M525 46 V67 M525 113 V134" />
		<path class="idle" d="M618 80 H628 Q640 80 640 68 V35 Q640 23 652 23 H664" />
		<path class="data" d="M618 100 H628 Q640 100 640 112 V145 Q640 157 652 157 H664" />
		<path class="signal" d="M618 90 H664 M864 90 H896" />
		<path class="speaker" d="M896 78 h12 l16 -14 v52 l-16 -14 h-12 z" />
		<path class="waves" d="M932 78 q9 12 0 24 M940 70 q15 20 0 40" />
	</svg>
	{#each view.assessment.links as link (link.id)}
		{@const place = PLACES[link.id]}
		{@const here = page.params.link === link.id}
		<a
			href={`/endpoint/${view.endpoint!.id}/plan/${link.id}`}
			class:here
			class:board={link.id === 'parts'}
			aria-current={here ? 'true' : undefined}
			style:left={`${place.x}px`}
			style:top={`${place.y}px`}
			style:width={`${place.w}px`}
		>
			<span class="title">{link.title}<Mark level={link.worst} size={15} /></span>
			<span class="telling mono">{link.telling}</span>
		</a>
	{/each}
	<p class="ear">
		<span class="mono">{heard ?? '—'}</span><small class="soft"
			>{heard ? 'music at the listener' : 'choose amplifier and speakers'}</small
		>
	</p>
</nav>

<style>
	.chain {
		position: relative;
		height: 186px;
		margin: 10px 20px 8px;
		min-width: 1032px;
	}
	svg {
		position: absolute;
		inset: 0;
		fill: none;
		stroke-width: 2;
	}
	.power {
		stroke: var(--trace-power);
	}
	.data {
		stroke: var(--trace-data);
	}
	.signal,
	.speaker,
	.waves {
		stroke: var(--trace);
		stroke-width: 3;
	}
	.speaker {
		fill: var(--sheet);
		stroke-width: 2;
	}
	.waves {
		stroke-width: 2;
	}
	.idle {
		stroke: var(--trace-idle);
	}
	.dashed {
		stroke-dasharray: 4 4;
	}
	a {
		position: absolute;
		box-sizing: border-box;
		height: 46px;
		padding: 3px 9px;
		background: var(--sheet);
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		color: var(--ink);
		text-decoration: none;
		line-height: 1.3;
	}
	a:hover {
		border-color: var(--bottle);
	}
	a.board {
		background: var(--well);
		border-color: var(--ink);
	}
	a.here {
		background: var(--bottle);
		border-color: var(--bottle);
		color: var(--on-bottle);
	}
	a.here :global(svg) {
		stroke: var(--on-bottle);
	}
	.title {
		display: flex;
		justify-content: space-between;
		align-items: center;
		font-weight: 700;
	}
	.title :global(svg) {
		position: static;
	}
	.telling {
		display: block;
		font-size: 12.5px;
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.ear {
		position: absolute;
		left: 958px;
		top: 66px;
		width: 90px;
	}
	.ear .mono {
		font-size: 19px;
		font-weight: 700;
	}
	.ear small {
		display: block;
		line-height: 1.25;
	}
	@media (max-width: 760px) {
		.chain {
			display: grid;
			grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
			gap: 6px;
			height: auto;
			min-width: 0;
			margin: 12px;
		}
		svg:not(:global(.title svg)) {
			display: none;
		}
		.title :global(svg) {
			display: block;
		}
		a {
			position: static;
			width: auto !important;
		}
		.ear {
			position: static;
			width: auto;
		}
	}
</style>
