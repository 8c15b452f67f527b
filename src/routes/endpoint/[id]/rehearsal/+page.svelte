<script lang="ts">
	import { Button, Select, SelectItem } from 'carbon-components-svelte';
	import { onDestroy } from 'svelte';
	import { chain } from '$core/chain';
	import { cardTree, FAULTS, type FaultName } from '$core/engines/machine';
	import { rehearse, type PlannedFault } from '$core/engines/rehearse';
	import { formatSeconds, withUnit } from '$core/format';
	import { instantOf, wallClockMs } from '$core/formats/systemd/zone';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import Mark from '$lib/shell/Mark.svelte';
	import Strip from '$lib/rehearsal/Strip.svelte';

	const view = useEndpoint();
	const LENGTHS = [
		{ text: '2 minutes', ms: 120_000 },
		{ text: '10 minutes', ms: 600_000 },
		{ text: 'a day', ms: 86_400_000 },
		{ text: 'a week', ms: 604_800_000 }
	];
	const SPEEDS = [1, 10, 100, 1000, 10_000];
	let lengthMs = $state(120_000);
	let speed = $state(10);
	let startLocal = $state('2026-11-24T18:40');
	let faults = $state.raw<readonly PlannedFault[]>([]);
	let nowMs = $state(0);
	let timer: ReturnType<typeof setInterval> | undefined = $state();

	const zone = $derived(view.context.venue.timeZone);
	const startUtcMs = $derived(instantOf(zone, Date.parse(`${startLocal}:00Z`)) ?? Date.parse(`${startLocal}:00Z`));
	const run = $derived(
		rehearse({ links: chain, card: cardTree(view.files), bench: view.bench, startUtcMs, forMs: lengthMs, faults })
	);
	const past = $derived(run.events.filter((event) => event.atMs <= nowMs));
	const span = $derived(run.spans.find((known) => nowMs >= known.fromMs && nowMs < known.toMs) ?? run.spans.at(-1));
	const sounding = $derived(span?.state === 'sound');
	const title = $derived(
		past
			.filter((event) => event.text.startsWith('Begins: '))
			.at(-1)
			?.text.slice(8) ?? ''
	);
	const opened = $derived(past.filter((event) => event.text.startsWith('Converter opened')).at(-1));
	const heardDb = $derived(run.first?.heard.loudestDb ?? null);
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
	onDestroy(pause);

	/** Breaks something at the chosen moment; pressed again, mends it. */
	function toggle(name: FaultName): void {
		if (faults.some((fault) => fault.name === name)) faults = faults.filter((fault) => fault.name !== name);
		else {
			// Late means from the very start; the rest come when there is something to lose.
			const atMs =
				name === 'network-late' && nowMs === 0
					? 0
					: nowMs > 0
						? nowMs
						: Math.min(lengthMs / 3, (run.first?.atMs ?? 20_000) + 20_000);
			faults = [...faults, { name, atMs }];
		}
		if (!timer) nowMs = lengthMs;
	}
	const seconds = (ms: number): string =>
		lengthMs <= 600_000
			? (ms / 1000).toFixed(1)
			: new Date(wallClockMs(zone, startUtcMs + ms)).toISOString().slice(5, 19).replace('T', ' ');
</script>

<div class="bar">
	<Button on:click={play}>{timer ? 'Pause' : 'Play'}</Button>
	<span class="mono clock">{formatSeconds(nowMs)}</span>
	<span class="soft small">{weekday} {clock}</span>
	<Strip spans={run.spans} untilMs={lengthMs} {nowMs} onseek={(ms) => (nowMs = ms)} />
</div>
<div class="rehearsal">
	<div class="left">
		<section class="sheet verdict" data-verdict>
			<Mark level={run.first ? null : 'stop'} />
			<p><strong>{run.verdict}</strong></p>
		</section>
		<section class="sheet">
			<div class="head">
				<h2>What happened</h2>
				<span class="soft small">from the card files alone</span>
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
						{#each past as event, n (n)}
							<tr class={event.kind} onclick={() => (nowMs = event.atMs)}>
								<td class="mono n">{seconds(event.atMs)}</td>
								<td>{event.text}</td>
								<td class="soft small">{event.link}</td>
								<td class="mono n">{event.reading}</td>
							</tr>
						{:else}
							<tr><td colspan="4" class="soft">Press Play, or pull the mark along the strip.</td></tr>
						{/each}
					</tbody>
				</table>
			</div>
		</section>
		{#if run.words.length}
			<section class="sheet">
				<h2>In words</h2>
				{#each run.words as word, n (n)}<p>{word}</p>{/each}
			</section>
		{/if}
	</div>
	<aside>
		<h2>The bench</h2>
		<div class="meter">
			{#each ['L', 'R'] as side (side)}
				<span class="column"><i class:on={sounding}></i><small>{side}</small></span>
			{/each}
			<div>
				<p class="mono big">
					{sounding ? (heardDb === null ? 'sound' : withUnit(heardDb - 14, 0, 'dB')) : (span?.state ?? 'off')}
				</p>
				<p class="soft small">
					{sounding
						? heardDb === null
							? 'no amplifier on the bench'
							: `music at the seat, ${view.bench.distanceM} m`
						: (span?.why ?? '')}
				</p>
				{#if sounding}<p class="mono small">{title}</p>
					<p class="soft small">{opened?.text.replace('Converter opened: ', '')}, {opened?.reading}</p>{/if}
			</div>
		</div>
		<h3>Break something</h3>
		<div class="faults">
			{#each Object.entries(FAULTS) as [name, { label }] (name)}
				{@const on = faults.some((fault) => fault.name === name)}
				<button type="button" class:on aria-pressed={on} onclick={() => toggle(name as FaultName)}>{label}</button>
			{/each}
		</div>
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
		font-size: 18px;
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
		display: flex;
		gap: 10px;
		align-items: center;
	}
	section h2 {
		font-size: 14px;
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
		font-size: 12.5px;
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
		font-size: 24px;
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
		font-size: 13.5px;
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
	@media (max-width: 480px) {
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
			font-size: 13px;
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
