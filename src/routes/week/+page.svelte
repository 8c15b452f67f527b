<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { dateOf } from '$core/basics/calendar';
	import { chain } from '$core/chain';
	import { store } from '$lib/store/workshop.svelte';
	import { wallClockMs } from '$core/formats/systemd/zone';
	import { nextClockChange } from '$core/onAir/slices';
	import { download, safeName } from '$lib/shell/download';
	import AirtimeInSight from '$lib/week/AirtimeInSight.svelte';
	import ChosenRule from '$lib/week/ChosenRule.svelte';
	import NeverOn from '$lib/week/NeverOn.svelte';
	import OnThen from '$lib/week/OnThen.svelte';
	import { dayWords, WeekView, wordsOf, ZOOMS, type Zoom } from '$lib/week/week.svelte';
	import WeekAxis from '$lib/week/WeekAxis.svelte';

	const week = new WeekView();
	$effect(() => {
		const timer = setInterval(() => (week.nowMs = Date.now()), 30_000);
		return () => clearInterval(timer);
	});
	const heading = $derived(
		week.days === 1 ? dayWords(week.first) : `${dayWords(week.first)} to ${dayWords(week.first + week.days - 1)}`
	);
	const change = $derived(nextClockChange(week.venue.timeZone, week.nowMs));
	const dayOfChange = (utcMs: number): string =>
		dayWords(Math.floor(wallClockMs(week.venue.timeZone, utcMs) / 86_400_000));

	async function exportCalendar(): Promise<void> {
		const { calendarOf } = await import('$core/links/programme/rules/calendar');
		const shown = week.rows.map(({ endpoint, book }) => ({
			id: endpoint.id,
			name: endpoint.plan.brief.name,
			book,
			words: (show: string) => wordsOf(endpoint, show)
		}));
		download(
			`${safeName(week.venue.name)}-${dateOf(week.first)}.ics`,
			calendarOf(shown, week.spanUtc[0], week.spanUtc[1], week.nowMs),
			'text/calendar'
		);
	}

	/** For open players: a document for each endpoint, or a folder of playlists with timers. */
	async function exportOpen(as: 'smil' | 'playlists'): Promise<void> {
		const [{ dayPartsFor, smilFor }, { zipFiles }, { contextFor }] = await Promise.all([
			import('$core/links/programme/rules/openFormats'),
			import('$core/formats/zip/zip'),
			import('$core/engines/context')
		]);
		const workshop = store.workshop!;
		const files = week.rows.flatMap(({ endpoint: { id, plan } }) => {
			const around = contextFor(chain, workshop, id);
			const name = safeName(plan.brief.name);
			const made =
				as === 'smil'
					? [{ path: `${name}.smil`, text: smilFor(chain, plan, around, week.spanUtc) }]
					: dayPartsFor(chain, plan, around, week.spanUtc).map(({ path, text }) => ({ path: `${name}/${path}`, text }));
			return made.map(({ path, text }) => ({ path, mode: '0644', bytes: new TextEncoder().encode(text) }));
		});
		const zip = await new Response(zipFiles(files) as BodyInit).blob();
		download(`${safeName(week.venue.name)}-${dateOf(week.first)}-${as}.zip`, zip, 'application/zip');
	}
</script>

<svelte:head><title>Week · Yphos</title></svelte:head>
<div class="page">
	<header>
		<h1>Week</h1>
		<span class="soft small"
			>{heading}{change
				? ` · the clock goes ${change.byMin > 0 ? 'forward' : 'back'} on ${dayOfChange(change.utcMs)}`
				: ''}</span
		>
	</header>
	{#if week.rows.length === 0}
		<p class="soft">No endpoint plays anything by itself yet. Add a programme to one, and its week stands here.</p>
	{:else}
		<div class="bar">
			<div class="row">
				<Button kind="tertiary" size="small" on:click={() => week.turn(-1)}>Earlier</Button>
				<Button kind="tertiary" size="small" on:click={() => (week.chosenDay = null)}>Today</Button>
				<Button kind="tertiary" size="small" on:click={() => week.turn(1)}>Later</Button>
				<Button kind="ghost" size="small" on:click={exportCalendar}>Export as iCalendar</Button>
				<Button kind="ghost" size="small" on:click={() => exportOpen('smil')}>Export as SMIL</Button>
				<Button kind="ghost" size="small" on:click={() => exportOpen('playlists')}>Export as playlists</Button>
			</div>
			<div class="zoom" role="group" aria-label="How much is in sight">
				{#each Object.keys(ZOOMS) as Zoom[] as name (name)}
					<button
						type="button"
						aria-pressed={week.zoom === name}
						class:on={week.zoom === name}
						onclick={() => (week.zoom = name)}>{name[0]!.toUpperCase()}{name.slice(1)}</button
					>
				{/each}
			</div>
		</div>
		<WeekAxis {week} />
		<ChosenRule {week} />
		<div class="three">
			<OnThen {week} />
			<AirtimeInSight {week} />
			<NeverOn {week} />
		</div>
	{/if}
</div>

<style>
	header {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
		align-items: baseline;
	}
	.bar,
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
	.bar {
		justify-content: space-between;
		margin: 8px 0;
	}
	.zoom button {
		border: 1px solid var(--rule-strong);
		background: var(--sheet);
		color: var(--ink);
		min-height: 32px;
		padding: 0 12px;
		cursor: pointer;
	}
	.zoom button + button {
		border-left: 0;
	}
	.zoom button.on {
		background: var(--ink);
		color: var(--paper);
		font-weight: 700;
	}
	.three {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
		gap: 12px;
		margin-top: 12px;
		align-items: start;
	}
</style>
