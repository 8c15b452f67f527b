<script lang="ts">
	import { refreshHzOf } from '$core/standards/videoTiming';
	import { contentRate, choiceOf, pictureWay } from '$core/links/picture/way';
	import { rateOf, type Candidate } from '$core/links/picture/modes/modes';
	import { repeatsOf } from '$core/links/picture/modes/cadence';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const way = $derived(pictureWay(view.plan.picture, view.context));
	const content = $derived(contentRate(view.context));
	/** So many are read at a glance; the rest are asked for. */
	const FEW = 6;
	let all = $state(false);
	const goes = $derived(way.candidates.filter(({ refused }) => refused.length === 0));
	const not = $derived(way.candidates.filter(({ refused }) => refused.length > 0));
	/** The chosen one first, then the best. */
	const shown = $derived.by(() => {
		const rest = goes.filter((candidate) => candidate !== way.chosen);
		const list = [...(way.chosen ? [way.chosen] : []), ...rest];
		return all
			? [...list, ...not.filter((candidate) => candidate !== way.chosen)]
			: [...list.slice(0, FEW), ...not.filter((c) => c !== way.chosen).slice(0, 2)];
	});
	const nameOf = ({ timing }: Candidate): string =>
		`${timing.widthPx} × ${timing.heightPx}${timing.interlaced ? 'i' : ''}`;
	const hz = (timing: Candidate['timing']): string => Number(refreshHzOf(timing).toFixed(2)).toString();
	const FRAMES = 6;
	/** A third of a second or so of frames on refreshes. */
	const bars = (candidate: Candidate): { x: number; width: number; odd: boolean; bad: boolean }[] => {
		if (!content) return [];
		const repeats = repeatsOf(content, rateOf(candidate.timing), FRAMES);
		const total = repeats.reduce((sum, n) => sum + n, 0) || 1;
		const usual = Math.round(total / FRAMES);
		let at = 0;
		return repeats.map((n, k) => {
			const bar = { x: (at / total) * 150, width: (n / total) * 150, odd: k % 2 === 1, bad: n !== usual };
			at += n;
			return bar;
		});
	};
	const note = (candidate: Candidate): string => candidate.refused[0] ?? candidate.reasons.join(', ');
	const pick = (candidate: Candidate): void => void view.set('picture.mode', choiceOf(candidate));
</script>

<figure class="sheet">
	<figcaption>
		<b>Modes that all of them take</b>
		<span class="soft small"
			>screen, cable, board{content
				? `, and ${view.context.facts.film!.framesPerSec} frames a second on them`
				: ''}</span
		>
	</figcaption>
	<div class="scroll">
		<table>
			<thead>
				<tr>
					<th scope="col">Mode</th>
					<th scope="col" class="n">Hz</th>
					<th scope="col" class="n">MHz</th>
					<th scope="col">{content ? 'Frames on refreshes, and why' : 'Why'}</th>
				</tr>
			</thead>
			<tbody>
				{#each shown as candidate (`${nameOf(candidate)} ${hz(candidate.timing)}`)}
					{@const chosen = candidate === way.chosen}
					<tr class:chosen class:not={candidate.refused.length > 0}>
						<td>
							{#if candidate.refused.length > 0 || chosen}{nameOf(candidate)}{:else}<button
									type="button"
									onclick={() => pick(candidate)}
									title="Choose this mode">{nameOf(candidate)}</button
								>{/if}
						</td>
						<td class="mono n">{hz(candidate.timing)}</td>
						<td class="mono n">{(candidate.timing.pixelClockKhz / 1000).toFixed(2)}</td>
						<td>
							{#if content}
								<svg
									viewBox="0 0 150 12"
									role="img"
									aria-label={candidate.cadence?.repeatPattern?.slice(0, FRAMES).join(', ') ?? 'uneven'}
								>
									{#each bars(candidate) as bar, k (k)}
										<rect
											x={bar.x}
											y="1"
											width={Math.max(0, bar.width - 1)}
											height="10"
											class:odd={bar.odd}
											class:bad={bar.bad}
										/>
									{/each}
								</svg>
							{/if}
							<span class="soft small">{chosen ? 'chosen: ' : ''}{note(candidate)}</span>
						</td>
					</tr>
				{:else}
					<tr><td colspan="5" class="soft">The screen announces no mode.</td></tr>
				{/each}
			</tbody>
		</table>
	</div>
	{#if way.candidates.length > shown.length || all}
		<button type="button" class="more" onclick={() => (all = !all)}
			>{all ? 'Only the best' : `All ${way.candidates.length}, ${not.length} of which do not go`}</button
		>
	{/if}
</figure>

<style>
	.scroll {
		overflow: auto;
		max-height: 560px;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-size: var(--size-small);
		border-bottom: 1px solid var(--rule-strong);
		padding: 4px 8px 4px 0;
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 4px 8px 4px 0;
		vertical-align: top;
	}
	.n {
		text-align: right;
	}
	td:first-child {
		white-space: nowrap;
	}
	tr.chosen td:first-child {
		font-weight: 700;
	}
	tr.not td {
		color: var(--ink-soft);
	}
	svg {
		width: 150px;
		height: 12px;
		display: block;
	}
	rect {
		fill: var(--bottle);
	}
	rect.odd {
		fill: var(--trace);
		opacity: 0.45;
	}
	rect.bad {
		fill: var(--amber);
		opacity: 1;
	}
	rect.bad.odd {
		opacity: 0.5;
	}
	button {
		border: 0;
		background: none;
		padding: 0;
		color: var(--bottle);
		text-decoration: underline;
		cursor: pointer;
	}
	.more {
		margin-top: 6px;
	}
</style>
