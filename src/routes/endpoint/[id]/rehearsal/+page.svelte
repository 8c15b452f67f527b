<script lang="ts">
	import { Button, Select, SelectItem } from 'carbon-components-svelte';
	import { onDestroy, untrack } from 'svelte';
	import { chain } from '$core/chain';
	import { cardTree } from '$core/engines/machine';
	import { faultsOf, type PlannedFault } from '$core/engines/rehearse';
	import { say } from '$core/engines/say';
	import { speaking } from '$core/speaking';
	import { formatSeconds, withUnit } from '$core/basics/format';
	import { instantOf, wallClockMs } from '$core/formats/systemd/zone';
	import type { Link } from '$core/link';
	import { heardIn } from '$core/links/sound/track';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import Mark from '$lib/shell/Mark.svelte';
	import { RehearsalRunner } from '$lib/rehearsal/runner.svelte';
	import Stage from '$lib/rehearsal/Stage.svelte';
	import Strip from '$lib/rehearsal/Strip.svelte';
	import Verify from '$lib/rehearsal/Verify.svelte';
	import type { Seen } from '$core/links/picture/seen';

	const view = useEndpoint();
	const links: readonly Link[] = chain;
	const titles = new Map(links.map(({ id, title }) => [id, title]));
	const DAY_MS = 86_400_000;
	const LENGTHS = [
		{ text: '2 minutes', ms: 120_000 },
		{ text: '10 minutes', ms: 600_000 },
		{ text: 'a day', ms: DAY_MS },
		{ text: 'a week', ms: 7 * DAY_MS },
		{ text: 'a fortnight', ms: 14 * DAY_MS },
		{ text: 'a season', ms: 91 * DAY_MS }
	];
	const SPEEDS = [1, 10, 100, 1000, 10_000];
	/** What can befall the links that this endpoint has: at any moment, or from the first start on. */
	const FAULTS = $derived(
		faultsOf(links.filter(({ id, use }) => !use || use.is((view.plan as Record<string, unknown>)[id])))
	);
	const groups = $derived([
		{ title: 'Break something', names: Object.keys(FAULTS).filter((name) => !FAULTS[name]!.fromStart) },
		{ title: 'At the first start', names: Object.keys(FAULTS).filter((name) => FAULTS[name]!.fromStart) }
	]);
	const runner = new RehearsalRunner();
	let lengthMs = $state(120_000);
	let speed = $state(10);
	let startLocal = $state('2026-11-24T18:40');
	let faults = $state.raw<readonly PlannedFault[]>([]);
	let nowMs = $state(0);
	let timer: ReturnType<typeof setInterval> | undefined = $state();

	const zone = $derived(view.context.venue.timeZone);
	const startUtcMs = $derived(instantOf(zone, Date.parse(`${startLocal}:00Z`)) ?? Date.parse(`${startLocal}:00Z`));
	$effect(() => {
		const request = { card: cardTree(view.files), bench: view.bench, startUtcMs, forMs: lengthMs, faults };
		// What the runner itself notes down must not start it anew.
		untrack(() => runner.ask(request));
	});
	const run = $derived(runner.result);
	const heard = $derived(heardIn(run?.tracks ?? []));
	const past = $derived((run?.events ?? []).filter((event) => event.atMs <= nowMs));
	/** A list of more than this is read by nobody. */
	const MOST_SHOWN = 400;
	const shown = $derived(past.slice(-MOST_SHOWN));
	const ear = $derived(run?.tracks.find(({ id }) => id === 'ear'));
	const span = $derived(ear?.spans.find((known) => nowMs >= known.fromMs && nowMs < known.toMs) ?? ear?.spans.at(-1));
	const why = $derived(span ? say(speaking, span.why)[0] : '');
	const eye = $derived(run?.tracks.find(({ id }) => id === 'eye'));
	const eyeSpan = $derived(
		eye?.spans.find((known) => nowMs >= known.fromMs && nowMs < known.toMs) ?? eye?.spans.at(-1)
	);
	/** What the player shows now: the last of what it has shown since it last went dark. */
	const seen = $derived.by((): Seen | null => {
		if (!eyeSpan || !['picture', 'wrong'].includes(eyeSpan.state)) return null;
		const shows = past.findLast(({ from, code }) => from === 'picture' && code === 'shows');
		return eyeSpan.why.code === 'not-taken' ? null : ((shows?.data as { seen: Seen } | undefined)?.seen ?? null);
	});
	const still = $derived.by(() => {
		const item = view.plan.sources.items.find(({ title, location }) => (title || location) === seen?.title);
		return item ? (view.mediaBytes.get(item.location) ?? null) : null;
	});
	/** The page that stands, by its title. */
	const page = $derived(
		seen && view.plan.notices.used
			? (view.plan.notices.pages.find(({ id, title }) => (title || id) === seen.title) ?? null)
			: null
	);
	/** Whether anything is to be heard of it at all. */
	const hears = $derived(
		ear?.spans.some(({ state }) => state !== 'off' && state !== 'unused' && state !== 'silence') ?? true
	);
	const sounding = $derived(span?.state === 'sound');
	const begun = $derived(past.findLast(({ code }) => code === 'begins'));
	const playing = $derived((begun?.data as { title: string } | undefined)?.title ?? '');
	const opened = $derived(heard.findLast(({ atMs, heard: known }) => known.title === playing && atMs <= nowMs)?.heard);
	const heardDb = $derived((opened ?? heard[0]?.heard)?.loudestDb ?? null);
	const clock = $derived(new Date(wallClockMs(zone, startUtcMs + nowMs)).toISOString().slice(11, 19));
	const weekday = $derived(
		new Date(wallClockMs(zone, startUtcMs + nowMs)).toLocaleDateString('en-GB', { weekday: 'long', timeZone: 'UTC' })
	);

	$effect(() => {
		if (nowMs > lengthMs) nowMs = lengthMs;
	});

	let list: HTMLElement | undefined = $state();
	$effect(() => {
		void past.length;
		if (list) list.scrollTop = list.scrollHeight;
	});

	function play(): void {
		if (timer) return pause();
		if (nowMs >= lengthMs) nowMs = 0;
		let last = performance.now();
		timer = setInterval(() => {
			const now = performance.now();
			nowMs = Math.min(lengthMs, nowMs + (now - last) * speed);
			last = now;
			if (nowMs >= lengthMs) pause();
		}, 80);
	}
	function pause(): void {
		clearInterval(timer);
		timer = undefined;
	}
	onDestroy(() => {
		pause();
		runner.dispose();
	});

	/** Breaks something at the chosen moment; pressed again, mends it. */
	function toggle(name: string): void {
		if (faults.some((fault) => fault.name === name)) faults = faults.filter((fault) => fault.name !== name);
		else {
			// Late means from the very start; the rest come when there is something to lose.
			const isEarly = FAULTS[name]!.fromStart || (name.endsWith('-late') && nowMs === 0);
			const atMs = isEarly ? 0 : nowMs > 0 ? nowMs : Math.min(lengthMs / 3, (heard[0]?.atMs ?? 20_000) + 20_000);
			faults = [...faults, { name, atMs }];
		}
		if (!timer) nowMs = lengthMs;
	}
	const seconds = (ms: number): string =>
		lengthMs <= 600_000
			? (ms / 1000).toFixed(1)
			: new Date(wallClockMs(zone, startUtcMs + ms)).toISOString().slice(5, 19).replace('T', ' ');
</script>

{#snippet drawnPage()}
	{#await import('$lib/rehearsal/PageOnStage.svelte') then { default: PageOnStage }}
		{#if page}<PageOnStage {page} utcMs={startUtcMs + nowMs} />{/if}
	{/await}
{/snippet}

<svelte:head><title>Rehearsal · {view.plan.brief.name}</title></svelte:head>

<div class="bar">
	<Button on:click={play}>{timer ? 'Pause' : 'Play'}</Button>
	<span class="mono clock">{formatSeconds(nowMs)}</span>
	<span class="soft small">{weekday} {clock}</span>
	{#if runner.busy}<span class="soft small progress" role="status"
			><progress max="1" value={runner.part} aria-label="Rehearsing"></progress>
			{#if lengthMs > DAY_MS}<button type="button" class="plain" onclick={() => runner.cancel()}>Cancel</button
				>{/if}</span
		>{/if}
	<Strip tracks={run?.tracks ?? []} untilMs={run?.untilMs ?? lengthMs} {nowMs} onseek={(ms) => (nowMs = ms)} />
</div>
<div class="rehearsal">
	<div class="left">
		<section class="sheet verdict" data-verdict aria-busy={runner.busy}>
			{#if runner.failed}<p>{runner.failed}</p>{/if}
			{#each run?.tracks ?? [] as track (track.id)}
				{#if track.verdict}
					<p>
						<Mark level={track.verdict.good ? null : track.id === run!.tracks[0]!.id ? 'stop' : 'caution'} />
						<span><b class="small soft">{track.title}</b> <strong>{track.verdict.words}</strong></span>
					</p>
				{/if}
			{:else}
				<p class="soft">Rehearsing the first start …</p>
			{/each}
		</section>
		<section class="sheet">
			<div class="head">
				<h2>What happened</h2>
				<span class="soft small"
					>from the card files alone{past.length > MOST_SHOWN ? `, the last ${MOST_SHOWN} of ${past.length}` : ''}</span
				>
			</div>
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<div class="scroll" bind:this={list} tabindex="0" role="region" aria-label="Events">
				<table>
					<thead
						><tr
							><th scope="col" class="n">{lengthMs <= 600_000 ? 's' : 'when'}</th><th scope="col">Event</th><th
								scope="col">Link</th
							><th scope="col" class="n">Reading</th></tr
						></thead
					>
					<tbody>
						{#each shown as event, n (n)}
							{@const [text, reading] = say(speaking, event)}
							<tr class={event.kind} onclick={() => (nowMs = event.atMs)}>
								<td class="mono n">{seconds(event.atMs)}</td>
								<td>{text}</td>
								<td class="soft small">{titles.get(event.from) ?? 'System'}</td>
								<td class="mono n">{reading}</td>
							</tr>
						{:else}
							<tr><td colspan="4" class="soft">Press Play, or pull the mark along the strip.</td></tr>
						{/each}
					</tbody>
				</table>
			</div>
		</section>
		{#if run?.words.length}
			<section class="sheet">
				<h2>In words</h2>
				{#each run.words as word, n (n)}<p>{word}</p>{/each}
			</section>
		{/if}
		{#if run?.verified}<Verify lines={run.verified} />{/if}
	</div>
	<aside>
		<h2>The bench</h2>
		{#if view.bench.screen}
			<Stage
				screen={view.bench.screen}
				now={eyeSpan?.state ?? 'off'}
				why={eyeSpan ? (say(speaking, eyeSpan.why)[0] as string) : ''}
				{seen}
				{still}
				{nowMs}
				page={page ? drawnPage : null}
			/>
		{/if}
		{#if hears || !view.bench.screen}<div class="meter">
				{#each ['L', 'R'] as side (side)}
					<span class="column"><i class:on={sounding}></i><small>{side}</small></span>
				{/each}
				<div>
					<p class="mono big">
						{sounding ? (heardDb === null ? 'sound' : withUnit(heardDb - 14, 0, 'dB')) : (span?.state ?? 'off')}
					</p>
					<p class="soft small">
						{sounding ? (heardDb === null ? 'no amplifier on the bench' : `music at the seat, at most`) : why}
					</p>
					{#if sounding}<p class="mono small">{playing}</p>
						{#if opened}<p class="soft small">
								{say(speaking, { from: 'sound', code: 'opened', data: opened })
									.join(', ')
									.replace('Converter opened: ', '')}
							</p>{/if}{/if}
				</div>
			</div>{/if}
		{#each groups as { title, names } (title)}
			<h3>{title}</h3>
			<div class="faults">
				{#each names as name (name)}
					{@const on = faults.some((fault) => fault.name === name)}
					<button type="button" class:on aria-pressed={on} onclick={() => toggle(name)}>{FAULTS[name]!.label}</button>
				{/each}
			</div>
		{/each}
		<div class="choices">
			<label class="small soft">Mains on at ({zone})<input type="datetime-local" bind:value={startLocal} /></label>
			<Select labelText="For" selected={String(lengthMs)} on:update={(event) => (lengthMs = Number(event.detail))}>
				{#each LENGTHS as length (length.ms)}<SelectItem value={String(length.ms)} text={length.text} />{/each}
			</Select>
			<Select labelText="Speed" selected={String(speed)} on:update={(event) => (speed = Number(event.detail))}>
				{#each SPEEDS as value (value)}<SelectItem value={String(value)} text={`${value}×`} />{/each}
			</Select>
		</div>
	</aside>
</div>

<style>
	.bar {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 12px 16px;
		padding: 8px 20px;
		background: var(--sheet);
		border-bottom: 1px solid var(--rule);
	}
	.clock {
		font-size: var(--size-large);
		min-width: 5.5em;
	}
	.rehearsal {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 340px;
	}
	.left {
		padding: 14px 20px;
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		gap: 12px;
		align-content: start;
	}
	.verdict {
		display: grid;
		gap: 6px;
	}
	.verdict p {
		display: flex;
		gap: 10px;
		align-items: baseline;
	}
	.verdict p :global(svg) {
		flex: none;
		align-self: center;
	}
	.verdict strong {
		font-weight: 600;
	}
	.verdict p:first-of-type strong {
		font-weight: 700;
	}
	.progress {
		display: flex;
		gap: 8px;
		align-items: center;
	}
	progress {
		width: 90px;
		accent-color: var(--bottle);
	}
	.plain {
		border: 0;
		background: none;
		color: var(--bottle);
		text-decoration: underline;
		cursor: pointer;
	}
	section h2 {
		font-size: var(--size-text);
	}
	.head {
		display: flex;
		justify-content: space-between;
	}
	.scroll {
		max-height: 56vh;
		overflow-y: auto;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-size: var(--size-small);
		border-bottom: 1px solid var(--rule-strong);
		padding: 4px 8px;
		position: sticky;
		top: 0;
		background: var(--sheet);
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 3px 8px;
	}
	tbody tr {
		cursor: pointer;
	}
	.n {
		text-align: right;
		white-space: nowrap;
	}
	tr.fault td,
	tr.bad td {
		background: var(--brick-wash);
	}
	aside {
		border-left: 1px solid var(--rule);
		padding: 14px 18px;
		display: grid;
		gap: 10px;
		align-content: start;
	}
	.meter {
		display: flex;
		gap: 10px;
		align-items: end;
		min-height: 130px;
	}
	.column {
		display: grid;
		justify-items: center;
		gap: 4px;
	}
	.column i {
		width: 16px;
		height: 104px;
		background: linear-gradient(var(--well), var(--well));
		border: 1px solid var(--rule);
	}
	.column i.on {
		background: linear-gradient(to top, var(--bottle) 74%, var(--well) 74%);
	}
	.big {
		font-size: var(--size-huge);
	}
	.faults {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 8px;
	}
	.faults button {
		border: 1px solid var(--bottle);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--bottle);
		font-weight: 600;
		padding: 6px 4px;
		cursor: pointer;
		font-size: var(--size-text);
	}
	.faults button.on {
		border-color: var(--brick);
		background: var(--brick-wash);
		color: var(--brick);
	}
	.choices {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 10px;
		margin-top: 6px;
	}
	.choices label {
		grid-column: 1 / -1;
		display: grid;
		gap: 4px;
	}
	.choices input {
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--ink);
		font-family: var(--mono);
		padding: 6px 8px;
	}
	@media (max-width: 760px) {
		.bar,
		.left {
			padding: 10px 12px;
		}
		th:nth-child(3),
		td:nth-child(3) {
			display: none;
		}
		td:last-child {
			white-space: normal;
			font-size: var(--size-small);
		}
		th,
		td {
			padding: 3px 5px;
		}
	}
	@media (max-width: 980px) {
		.rehearsal {
			grid-template-columns: minmax(0, 1fr);
		}
		aside {
			border-left: 0;
			border-top: 1px solid var(--rule);
		}
	}
</style>
