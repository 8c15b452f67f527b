<script module lang="ts">
	import { chain } from '$core/chain';
	import type { Link } from '$core/link';
	import { layoutChain, wiresOf } from '$lib/endpoint/chainLayout';

	const all: readonly Link[] = chain;
	const { boxes, height } = layoutChain(all);
	const WIDTH = 420;
	const TALL = 96;
	/** The columns stand closer than in the large drawing; halves share a row, one below the other. */
	const columns = [...new Set(all.map(({ place }) => place.column))];
	const order = ['world', 'content', 'board', 'out'] as const;
	const xOf = (id: string): number => {
		const { column } = all.find((link) => link.id === id)!.place;
		return order.filter((known) => columns.includes(known)).indexOf(column) * (WIDTH / columns.length) + 4;
	};
	const yOf = (id: string): number => {
		const { column, row, ...place } = all.find((link) => link.id === id)!.place;
		// A half without its other half stands in the middle.
		const isShared = all.some((other) => other.id !== id && other.place.column === column && other.place.row === row);
		const half = isShared ? place.half : undefined;
		const box = boxes.find((known) => known.id === id)!;
		const shift = half === 'left' ? -9 : half === 'right' ? 9 : 0;
		return 10 + (box.y / (height - box.height)) * (TALL - 28) + shift + (half ? -6 : 0);
	};
	/** Typical of the type at this size. */
	const LETTER = 6.5;
	const endOf = (id: string): number => xOf(id) + 24 + all.find((link) => link.id === id)!.title.length * LETTER;
	const wires = wiresOf(all)
		.filter(({ from, to }) => xOf(to) > xOf(from))
		.map(({ from, to, carries }) => ({
			id: `${from} ${to}`,
			carries,
			path: `M${endOf(from)} ${yOf(from)} ${past(from, to)}H${xOf(to) - 9} V${yOf(to)} H${xOf(to) - 3}`
		}));
	/** A wire that would strike through a name goes below it. */
	function past(from: string, to: string): string {
		const over = all.find(({ id }) => xOf(id) > xOf(from) && xOf(id) < xOf(to) && Math.abs(yOf(id) - yOf(from)) < 8);
		return over ? `H${xOf(over.id) - 9} V${yOf(from) + 13} ` : '';
	}
</script>

<script lang="ts">
	import type { Summary } from '$core/engines/summary';
	import Mark from './Mark.svelte';
	import { whenNear } from './whenNear';

	/** The endpoint's own chain, small: each link where it stands in the large drawing, in the shape of its state. */
	let { links }: { links: Summary['links'] } = $props();
	/** It is drawn once it is in sight, or nearly. */
	let near = $state(false);
	const words = (link: Summary['links'][number]): string =>
		`${link.title}: ${link.used ? (link.worst ?? (link.pending ? 'being looked at' : 'all well')) : 'not used'}`;
</script>

<svg
	viewBox={`0 0 ${WIDTH} ${TALL}`}
	role="img"
	{@attach whenNear(() => (near = true))}
	aria-label={links.map(words).join(', ')}
>
	{#if near}
		{#each wires as { id, carries, path } (id)}<path class={carries} d={path} />{/each}
		{#each links as link (link.id)}
			{@const x = xOf(link.id)}
			{@const y = yOf(link.id)}
			<g class:unused={!link.used}>
				{#if link.used}<Mark level={link.worst} pending={link.pending} size={15} {x} y={y - 8} />{:else}<circle
						cx={x + 7.5}
						cy={y}
						r="5.5"
					/>{/if}
				<text x={x + 20} y={y + 4}>{link.title}</text>
			</g>
		{/each}
	{/if}
</svg>

<style>
	svg {
		width: 100%;
		fill: none;
		stroke-width: 1.6;
		stroke-linejoin: round;
	}
	path {
		stroke-width: 1.4;
	}
	.power {
		stroke: var(--trace-power);
	}
	.data {
		stroke: var(--trace-data);
	}
	.signal {
		stroke: var(--trace);
	}
	circle {
		stroke: var(--trace-idle);
		stroke-dasharray: 2 2;
	}
	text {
		fill: var(--ink-soft);
		font-size: var(--size-small);
	}
	.unused text {
		fill: var(--ink-faint);
	}
</style>
