<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { chain } from '$core/chain';
	import { useLink } from '$core/engines/derive';
	import type { Link } from '$core/link';
	import Mark from '$lib/shell/Mark.svelte';
	import { layoutChain } from './chainLayout';
	import EndMark from './EndMark.svelte';
	import { useEndpoint } from './view.svelte';

	const view = useEndpoint();
	const links: readonly Link[] = chain;
	const { width, height, boxes, wires, ends } = layoutChain(links);
	const boxOf = (id: string) => boxes.find((box) => box.id === id)!;
	const states = $derived(new Map(view.assessment.links.map((link) => [link.id as string, link])));
	const isUsed = (id: string): boolean => states.get(id)?.used ?? false;
	const arrival = (of: string): string | null => {
		const figure = links.find(({ id }) => id === of)!.place.end!.figure;
		return states.get(of)?.figures.find(({ id }) => id === figure)?.text ?? null;
	};
	const caption = (of: string): string => {
		const { words, without } = links.find(({ id }) => id === of)!.place.end!;
		return !isUsed(of) ? 'not used' : arrival(of) === null ? without : words;
	};

	function add(id: string, title: string): void {
		view.edit(`add ${title}`, useLink(chain, id, true));
		void goto(`/endpoint/${view.endpoint!.id}/plan/${id}`);
	}
</script>

<nav class="chain" aria-label="The chain" style:height={`${height}px`} style:min-width={`${width}px`}>
	<svg viewBox={`0 0 ${width} ${height}`} {width} {height} aria-hidden="true">
		{#each wires as { from, to, carries, path } (`${from} ${to}`)}
			<path class={carries} class:idle={!isUsed(from) || !isUsed(to)} d={path} />
		{/each}
		{#each ends as { of, sense, x, y, path } (of)}
			<path class="signal" class:idle={!isUsed(of)} d={path} />
			<g transform={`translate(${x} ${y})`}><EndMark {sense} idle={!isUsed(of)} /></g>
		{/each}
	</svg>
	{#each links as { id, title } (id)}
		{@const box = boxOf(id)}
		{@const state = states.get(id)!}
		{@const here = page.params.link === id}
		{#if state.used}
			<a
				class="box"
				href={`/endpoint/${view.endpoint!.id}/plan/${id}`}
				class:here
				class:board={box.centre}
				aria-current={here ? 'true' : undefined}
				style:left={`${box.x}px`}
				style:top={`${box.y}px`}
				style:width={`${box.width}px`}
				style:height={`${box.height}px`}
				title={`${title}: ${state.telling}`}
			>
				<span class="title">{title}<Mark level={state.worst} size={15} /></span>
				<span class="telling mono">{box.width < 120 ? state.telling.split(/ · | of /)[0] : state.telling}</span>
			</a>
		{:else}
			<button
				type="button"
				class="box unused"
				onclick={() => add(id, title)}
				style:left={`${box.x}px`}
				style:top={`${box.y}px`}
				style:width={`${box.width}px`}
				style:height={`${box.height}px`}
			>
				<span class="title">{title}</span>
				<span class="telling">not used · add it</span>
			</button>
		{/if}
	{/each}
	{#each ends as { of, x, y } (of)}
		<p class="end" style:left={`${x + 54}px`} style:top={`${y - 22}px`}>
			<span class="mono">{arrival(of) ?? '—'}</span><small class="soft">{caption(of)}</small>
		</p>
	{/each}
</nav>

<style>
	.chain {
		position: relative;
		margin: 10px 20px 8px;
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
	.signal {
		stroke: var(--trace);
		stroke-width: 3;
	}
	.rule {
		stroke: var(--trace-idle);
		stroke-dasharray: 4 4;
	}
	path.idle {
		stroke: var(--trace-idle);
		stroke-width: 1.5;
		stroke-dasharray: 4 4;
	}
	.box {
		position: absolute;
		box-sizing: border-box;
		padding: 1px 9px 3px;
		background: var(--sheet);
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		color: var(--ink);
		text-align: left;
		text-decoration: none;
		font: inherit;
		line-height: 1.35;
	}
	.box:hover {
		border-color: var(--bottle);
	}
	.box.board {
		background: var(--well);
		border-color: var(--ink);
	}
	.box.here {
		background: var(--bottle);
		border-color: var(--bottle);
		color: var(--on-bottle);
	}
	.box.here :global(svg) {
		stroke: var(--on-bottle);
	}
	.unused {
		border-style: dashed;
		background: none;
		color: var(--ink-faint);
		cursor: pointer;
	}
	.title {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 4px;
		font-weight: 700;
		white-space: nowrap;
	}
	.title :global(svg) {
		position: static;
		flex: none;
	}
	.telling {
		display: block;
		font-size: var(--size-small);
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.end {
		position: absolute;
		width: 100px;
	}
	.end .mono {
		font-size: var(--size-text);
		white-space: nowrap;
		font-weight: 700;
	}
	.end small {
		display: block;
		line-height: 1.25;
	}
	@media (max-width: 760px) {
		.chain {
			display: grid;
			grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
			gap: 6px;
			height: auto !important;
			min-width: 0 !important;
			margin: 12px;
		}
		.chain > svg {
			display: none;
		}
		.title :global(svg) {
			display: block;
		}
		.box {
			position: static;
			width: auto !important;
			height: auto !important;
			min-height: 44px;
		}
		.end {
			position: static;
			width: auto;
		}
	}
</style>
