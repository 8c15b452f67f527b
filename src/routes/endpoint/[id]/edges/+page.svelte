<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { writePng, writeSvg } from '$core/formats/drawing';
	import { TEST_CARDS, type TestCard } from '$core/links/picture/edges/cards';
	import { activeArea, anyEdge, NO_EDGES, questionEdges, SIDES, type Side } from '$core/links/picture/edges/overscan';
	import type { Edges } from '$core/standards/edges';
	import { modeInWords } from '$core/links/picture/modes/written';
	import { pictureWay } from '$core/links/picture/way';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import CardShow from '$lib/edges/CardShow.svelte';
	import Stepper from '$lib/edges/Stepper.svelte';
	import { download } from '$lib/shell/download';
	import Mark from '$lib/shell/Mark.svelte';

	const view = useEndpoint();
	const picture = $derived(view.plan.picture);
	const way = $derived(pictureWay(picture, view.context));
	const size = $derived(way.chosen?.timing ?? { widthPx: 1920, heightPx: 1080 });
	const area = $derived(activeArea(size, picture.edges));
	const questions = $derived(questionEdges(size, picture.edges));
	const WORDS: Record<Side, string> = { left: 'Left', right: 'Right', top: 'Top', bottom: 'Bottom' };
	const byId = (id: string): TestCard => TEST_CARDS.find((card) => card.id === id)!;
	/** undefined: none is shown; null: the moving bar. */
	let shown = $state.raw<TestCard | null | undefined>(undefined);

	const setEdges = (edges: Edges): string | null => view.set('picture.edges', edges);
	const put =
		(side: Side) =>
		(value: number): string | null =>
			setEdges({ ...picture.edges, [side]: value });
	const save = (card: TestCard, as: 'svg' | 'png'): void => {
		const drawing = card.draw({ widthPx: size.widthPx, heightPx: size.heightPx }, picture.edges);
		if (as === 'svg') download(`${card.id}.svg`, writeSvg(drawing), 'image/svg+xml');
		else download(`${card.id}.png`, writePng(drawing), 'image/png');
	};
</script>

<svelte:head><title>Edges and test cards · {view.plan.brief.name}</title></svelte:head>

<div class="page">
	<section class="reading">
		<p class="soft small"><a href={`/endpoint/${view.id()}/plan/picture`}>{view.plan.brief.name} · Picture</a></p>
		<h2>Read the four edges</h2>
		<p>
			Look at the set while it shows the card with numbers. On each side, going outwards: which is the last number that
			is whole?
		</p>
		<svg viewBox="0 0 324 232" role="img" aria-label={`Left to use: ${area.widthPx} by ${area.heightPx} pixels`}>
			<rect x="0.5" y="0.5" width="323" height="231" class="lost" />
			<rect x="22" y="18" width="280" height="196" class="seen" />
			<path d="M92 18V214M232 18V214M22 76H302M22 154H302" class="grid" />
			<text x="162" y="44" class="mono">{picture.edges.top}</text>
			<text x="162" y="204" class="mono">{picture.edges.bottom}</text>
			<text x="34" y="121" class="mono start">{picture.edges.left}</text>
			<text x="290" y="121" class="mono end">{picture.edges.right}</text>
			<text x="162" y="108" class="small">left to use</text>
			<text x="162" y="130" class="mono">{area.widthPx} × {area.heightPx}</text>
		</svg>
		{#each SIDES as side (side)}<Stepper label={WORDS[side]} value={picture.edges[side]} put={put(side)} />{/each}
		{#each questions as question, n (n)}
			<p class="told caution">
				<Mark level={question.code === 'impossible' ? 'stop' : question.code === 'shape' ? 'note' : 'caution'} />
				<span>{question.message}</span>
			</p>
		{:else}
			{#if anyEdge(picture.edges)}
				<p class="told">
					<Mark level="note" />
					<span
						><b>The shape stays true</b><br />{Math.abs(area.aspectErrorPercent).toFixed(1)} % {area.aspectErrorPercent >=
						0
							? 'wider'
							: 'taller'} than before; nobody sees it. {(100 - area.percent).toFixed(1)} % of the pixels are left free.</span
					>
				</p>
			{/if}
		{/each}
		<div class="wide"><Button on:click={() => (shown = byId('proof'))}>Show the second card</Button></div>
		{#if anyEdge(picture.edges)}
			<Button kind="ghost" size="small" on:click={() => setEdges(NO_EDGES)}>Begin anew</Button>
		{/if}
		<p class="soft small">
			Try first: a setting of the set itself that shows the whole picture. Then nothing needs trimming, and nothing is
			scaled.
		</p>
	</section>
	<section class="cards">
		<h2>Test cards</h2>
		<p class="soft">
			In exactly {way.chosen ? modeInWords(way.chosen.timing) : 'the mode'}: full screen from here, on this computer's
			own screen or on the set itself through an HDMI cable; or on the endpoint, by the command on the run sheet.
		</p>
		<ul>
			{#each TEST_CARDS as card (card.id)}
				<li>
					<span><b>{card.title}</b><br /><span class="soft small">{card.look}</span></span>
					<span class="row">
						<Button size="small" kind="tertiary" on:click={() => (shown = card)}>Show</Button>
						<Button size="small" kind="ghost" on:click={() => save(card, 'png')}>PNG</Button>
						<Button size="small" kind="ghost" on:click={() => save(card, 'svg')}>SVG</Button>
					</span>
				</li>
			{/each}
			<li>
				<span
					><b>Moving bar</b><br /><span class="soft small"
						>It glides: frames fall evenly. It jumps: they do not. Its edges break: the picture tears.</span
					></span
				>
				<span class="row"><Button size="small" kind="tertiary" on:click={() => (shown = null)}>Show</Button></span>
			</li>
		</ul>
	</section>
</div>
{#if shown !== undefined}
	<CardShow card={shown} {size} edges={picture.edges} onedges={setEdges} onclose={() => (shown = undefined)} />
{/if}

<style>
	.page {
		display: grid;
		grid-template-columns: minmax(300px, 380px) minmax(0, 1fr);
		gap: 28px;
		padding: 16px 20px 32px;
	}
	.reading {
		display: grid;
		gap: 10px;
		align-content: start;
	}
	svg {
		width: 100%;
	}
	.lost {
		fill: var(--well);
		stroke: var(--rule);
	}
	.seen {
		fill: var(--sheet);
		stroke: var(--ink);
		stroke-width: 3;
	}
	.grid {
		stroke: var(--rule);
		fill: none;
	}
	text {
		text-anchor: middle;
		fill: var(--ink);
	}
	text.mono {
		font-family: var(--mono);
		font-size: 17px;
	}
	text.small {
		font-size: 12px;
		fill: var(--ink-soft);
	}
	text.start {
		text-anchor: start;
	}
	text.end {
		text-anchor: end;
	}
	.told {
		display: flex;
		gap: 10px;
		padding: 10px 12px;
		background: var(--slate-wash);
		border-radius: var(--radius);
	}
	.told :global(svg) {
		flex: none;
		width: auto;
	}
	.wide :global(.bx--btn) {
		width: 100%;
		max-width: none;
		justify-content: center;
		font-weight: 700;
	}
	ul {
		list-style: none;
		padding: 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 16px;
		align-items: center;
		padding: 8px 0;
		border-bottom: 1px solid var(--rule);
	}
	.row {
		display: flex;
		flex: none;
	}
	@media (max-width: 760px) {
		.page {
			grid-template-columns: minmax(0, 1fr);
			padding: 12px 16px 28px;
		}
		li {
			flex-wrap: wrap;
		}
	}
</style>
