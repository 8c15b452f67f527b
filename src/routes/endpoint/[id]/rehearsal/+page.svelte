<script lang="ts">
	import { Button, Select, SelectItem } from 'carbon-components-svelte';
	import { onDestroy, untrack } from 'svelte';
	import { chain } from '$core/chain';
	import { cardTree } from '$core/engines/machine';
	import { faultsOf, type PlannedFault } from '$core/engines/rehearse';
	import { say } from '$core/engines/say';
	import { speaking } from '$core/speaking';
	import { formatSeconds } from '$core/basics/format';
	import { instantOf, wallClockMs } from '$core/formats/systemd/zone';
	import type { Link } from '$core/link';
	import { heardIn } from '$core/links/sound/track';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import Mark from '$lib/shell/Mark.svelte';
	import Events from '$lib/rehearsal/Events.svelte';
	import Meter from '$lib/rehearsal/Meter.svelte';
	import { itemShown, momentOf, pageShown } from '$lib/rehearsal/moment';
	import { RehearsalRunner } from '$lib/rehearsal/runner.svelte';
	import Stage from '$lib/rehearsal/Stage.svelte';
	import Strip from '$lib/rehearsal/Strip.svelte';
	import Verify from '$lib/rehearsal/Verify.svelte';

	const view = useEndpoint();
	const links: readonly Link[] = chain;
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
	const moment = $derived(momentOf(run, nowMs));
	const still = $derived(view.mediaBytes.get(itemShown(view.plan, moment.seen)?.location ?? '') ?? null);
	const page = $derived(pageShown(view.plan, moment.seen));
	/** Whether anything is to be heard of it at all. */
	const hears = $derived(
		run?.tracks
			.find(({ id }) => id === 'ear')
			?.spans.some(({ state }) => state !== 'off' && state !== 'unused' && state !== 'silence') ?? true
	);
	const clock = $derived(new Date(wallClockMs(zone, startUtcMs + nowMs)).toISOString().slice(11, 19));
	const weekday = $derived(
		new Date(wallClockMs(zone, startUtcMs + nowMs)).toLocaleDateString('en-GB', { weekday: 'long', timeZone: 'UTC' })
	);

	$effect(() => {
		if (nowMs > lengthMs) nowMs = lengthMs;
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
		<Events past={moment.past} {seconds} unit={lengthMs <= 600_000 ? 's' : 'when'} onseek={(ms) => (nowMs = ms)} />
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
				now={moment.eye?.state ?? 'off'}
				why={moment.eye ? say(speaking, moment.eye.why)[0] : ''}
				seen={moment.seen}
				{still}
				{nowMs}
				page={page ? drawnPage : null}
			/>
		{/if}
		{#if hears || !view.bench.screen}<Meter {moment} first={heard[0]?.heard ?? null} />{/if}
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
	aside {
		border-left: 1px solid var(--rule);
		padding: 14px 18px;
		display: grid;
		gap: 10px;
		align-content: start;
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
