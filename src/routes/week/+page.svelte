<script lang="ts">
	import { wrap } from 'comlink';
	import { Button, Select, SelectItem, TextInput } from 'carbon-components-svelte';
	import { dateOf, dayOf } from '$core/basics/calendar';
	import { formatSeconds } from '$core/basics/format';
	import { wallClockMs } from '$core/formats/systemd/zone';
	import { calendarOf } from '$core/links/programme/calendar';
	import { nextClockChange, slices, startOfDayMs, type Slice } from '$core/links/programme/slices';
	import { becauseWords, programmeBook, showWords, whatsOn } from '$core/links/programme/whatsOn';
	import { airtime, type Airtime } from '$core/links/programme/year';
	import type { ProgrammeRule } from '$core/links/programme/when';
	import type { Endpoint } from '$core/plan/workshop';
	import { download, safeName } from '$lib/shell/download';
	import { store } from '$lib/store/workshop.svelte';
	import { mondayOf, shadeOf } from '$lib/week/axis';
	import { movedBy, stretchedBy } from '$core/links/programme/ruleEdits';
	import type { YearWorker } from '$lib/week/yearWorker';

	const workshop = $derived(store.workshop!);
	const venue = $derived(workshop.venue);
	let nowMs = $state(Date.now());
	$effect(() => {
		const timer = setInterval(() => (nowMs = Date.now()), 30_000);
		return () => clearInterval(timer);
	});
	const rows = $derived(
		workshop.endpoints
			.filter(({ plan }) => plan.programme.used)
			.map((endpoint) => ({ endpoint, book: programmeBook(endpoint.plan.programme, venue) }))
	);
	const wordsOf = ({ plan }: Endpoint, show: string): string => showWords(show, plan.programme, plan.sources.listTitle);

	const ZOOMS = { day: 1, week: 7, season: 91 } as const;
	type Zoom = keyof typeof ZOOMS;
	let zoom = $state<Zoom>('week');
	/** The first day in sight; null: the one that holds now. */
	let chosenDay = $state<number | null>(null);
	const days = $derived(ZOOMS[zoom]);
	const today = $derived(Math.floor(wallClockMs(venue.timeZone, nowMs) / 86_400_000));
	const startFor = (day: number): number => (zoom === 'day' ? day : mondayOf(day * 86_400_000));
	const first = $derived(startFor(chosenDay ?? today));
	const turn = (by: number): void => void (chosenDay = first + by * (zoom === 'season' ? 28 : days));
	const spanUtc = $derived([startOfDayMs(venue.timeZone, first), startOfDayMs(venue.timeZone, first + days)] as const);

	const dayFormat = $derived(
		new Intl.DateTimeFormat(navigator.language || 'en-GB', {
			timeZone: 'UTC',
			weekday: days > 7 ? undefined : 'short',
			day: 'numeric',
			month: days > 7 ? 'short' : undefined
		})
	);
	const longDay = new Intl.DateTimeFormat(navigator.language || 'en-GB', {
		timeZone: 'UTC',
		day: 'numeric',
		month: 'long',
		year: 'numeric'
	});
	const dayWords = (day: number): string => longDay.format(new Date(day * 86_400_000));
	const heading = $derived(days === 1 ? dayWords(first) : `${dayWords(first)} to ${dayWords(first + days - 1)}`);
	const change = $derived(nextClockChange(venue.timeZone, nowMs));

	const drawn = $derived(rows.map(({ endpoint, book }) => ({ endpoint, book, bars: slices(book, first, days) })));
	const percent = (slice: Slice): { left: number; width: number } => {
		const all = days * 1440;
		return {
			left: (100 * (slice.day * 1440 + slice.fromMin)) / all,
			width: (100 * (slice.untilMin - slice.fromMin)) / all
		};
	};
	/** A bar that is too narrow for a word bears none; its title and its description have it all. */
	const WORD_PERCENT = 4;
	const clock = (minute: number): string =>
		`${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(Math.floor(minute % 60)).padStart(2, '0')}`;
	const nowPercent = $derived((100 * (wallClockMs(venue.timeZone, nowMs) / 60_000 - first * 1440)) / (days * 1440));
	const ticks = $derived(
		days === 1
			? [0, 3, 6, 9, 12, 15, 18, 21].map((hour) => ({
					at: (100 * hour) / 24,
					words: `${String(hour).padStart(2, '0')}:00`
				}))
			: Array.from({ length: days === 7 ? 7 : 13 }, (_, n) => {
					const day = n * (days === 7 ? 1 : 7);
					return { at: (100 * day) / days, words: dayFormat.format(new Date((first + day) * 86_400_000)) };
				})
	);

	/** What was pressed last: its rule can be changed from here. */
	let chosen = $state<{ endpoint: string; rule: string } | null>(null);
	const chosenEndpoint = $derived(workshop.endpoints.find(({ id }) => id === chosen?.endpoint));
	const chosenIndex = $derived(chosenEndpoint?.plan.programme.rules.findIndex(({ id }) => id === chosen?.rule) ?? -1);
	const chosenRule = $derived(chosenIndex < 0 ? null : chosenEndpoint!.plan.programme.rules[chosenIndex]!);
	const STEP_MIN = 15;

	function changeRule(
		endpoint: string,
		rule: string,
		label: string,
		edit: (rule: ProgrammeRule) => ProgrammeRule
	): void {
		store.changePlan(endpoint, label, (plan) => ({
			...plan,
			programme: {
				...plan.programme,
				rules: plan.programme.rules.map((one) => (one.id === rule ? edit(one) : one))
			}
		}));
	}
	/** A bar is moved and stretched by the keyboard too: arrows, with Shift its end. */
	function barKey(event: KeyboardEvent, endpoint: string, slice: Slice): void {
		if (event.key === 'Escape') chosen = null;
		const by = event.key === 'ArrowLeft' ? -STEP_MIN : event.key === 'ArrowRight' ? STEP_MIN : 0;
		const rule = slice.on.line?.rule;
		if (by === 0 || !rule || slice.on.show === 'quiet') return;
		event.preventDefault();
		changeRule(endpoint, rule, event.shiftKey ? 'stretch a rule' : 'move a rule', (one) =>
			event.shiftKey ? stretchedBy(one, by) : movedBy(one, by)
		);
	}
	let drag = $state<{
		endpoint: string;
		rule: string;
		key: string;
		startX: number;
		perMin: number;
		end: boolean;
		byMin: number;
	} | null>(null);
	function barDown(event: PointerEvent, endpoint: string, slice: Slice, key: string): void {
		const rule = slice.on.line?.rule;
		if (event.button !== 0 || zoom === 'season' || !rule || slice.on.show === 'quiet') return;
		const bar = event.currentTarget as HTMLElement;
		const lane = bar.parentElement!.getBoundingClientRect();
		const box = bar.getBoundingClientRect();
		bar.setPointerCapture(event.pointerId);
		drag = {
			endpoint,
			rule,
			key,
			startX: event.clientX,
			perMin: lane.width / (days * 1440),
			// The last few pixels are its end.
			end: box.right - event.clientX < Math.min(10, box.width / 3),
			byMin: 0
		};
	}
	function barMove(event: PointerEvent): void {
		if (drag) drag.byMin = Math.round((event.clientX - drag.startX) / drag.perMin / STEP_MIN) * STEP_MIN;
	}
	function barUp(): void {
		if (!drag) return;
		const { endpoint, rule, byMin, end } = drag;
		drag = null;
		if (byMin !== 0)
			changeRule(endpoint, rule, end ? 'stretch a rule' : 'move a rule', (one) =>
				end ? stretchedBy(one, byMin) : movedBy(one, byMin)
			);
	}
	let copyTo = $state('');
	const others = $derived(workshop.endpoints.filter(({ id, plan }) => id !== chosen?.endpoint && plan.programme.used));
	/** The rule goes along; a playlist is known only where it was made, so the other shows everything. */
	function copyRule(): void {
		const target = others.find(({ id }) => id === copyTo) ?? others[0];
		if (!target || !chosenRule) return;
		const rule = {
			...chosenRule,
			id: `rule-${crypto.randomUUID().slice(0, 8)}`,
			show: chosenRule.show === 'rest' ? chosenRule.show : 'all'
		};
		store.changePlan(target.id, 'copy a rule', (plan) => ({
			...plan,
			programme: { ...plan.programme, rules: [rule, ...plan.programme.rules] }
		}));
		store.offerUndo(`Copied to ${target.plan.brief.name}.`);
	}

	/** The instant that is asked about, as the venue's clock shows it. */
	const nowText = $derived(
		new Date(Math.floor(wallClockMs(venue.timeZone, nowMs) / 60_000) * 60_000).toISOString().slice(0, 16)
	);
	let askedText = $state<string | null>(null);
	const askedUtcMs = $derived.by(() => {
		const text = askedText ?? nowText;
		const wall = Date.parse(`${text}:00Z`);
		if (Number.isNaN(wall)) return null;
		const day = dayOf(text.slice(0, 10));
		const from = startOfDayMs(venue.timeZone, day);
		// By minutes from the day's first instant, so that a skipped hour is the one after it.
		const guess = wall - (wallClockMs(venue.timeZone, from) - from);
		return guess - (wallClockMs(venue.timeZone, guess) - wall);
	});

	let airOf = $state('');
	const airRow = $derived(
		rows.find(({ endpoint }) => endpoint.id === airOf) ?? rows.find(({ book }) => book.lines.length > 0) ?? rows[0]
	);
	const air = $derived(
		airRow ? airtime(airRow.book, airRow.endpoint.plan.programme.rules, spanUtc[0], spanUtc[1]) : null
	);

	/** What a year comes to, by endpoint; worked out away from the page. */
	let year = $state.raw<{ endpoint: Endpoint; air: Airtime }[]>([]);
	let yearProblem = $state('');
	$effect(() => {
		const asked = rows.map(({ endpoint }) => endpoint);
		const programmes = $state.snapshot(asked.map(({ plan }) => plan.programme)) as never;
		const place = $state.snapshot(venue) as never;
		const from = startOfDayMs(venue.timeZone, today);
		const until = startOfDayMs(venue.timeZone, today + 365);
		const worker = new Worker(new URL('../../lib/week/yearWorker.ts', import.meta.url), { type: 'module' });
		let isCurrent = true;
		worker.onerror = (event) => (yearProblem = `The year could not be worked out: ${event.message}`);
		void wrap<YearWorker>(worker)
			.year(programmes, place, from, until)
			.then((found) => {
				if (!isCurrent) return;
				yearProblem = '';
				year = found.map((one, n) => ({ endpoint: asked[n]!, air: one }));
			})
			.catch((error: Error) => (yearProblem = `The year could not be worked out: ${error.message}`))
			.finally(() => worker.terminate());
		return () => {
			isCurrent = false;
			worker.terminate();
		};
	});
	const neverShown = $derived(
		year.flatMap(({ endpoint, air: found }) =>
			found.never.flatMap(({ rule, behind }) => {
				const known = endpoint.plan.programme.rules.find(({ id }) => id === rule);
				const before = endpoint.plan.programme.rules.find(({ id }) => id === behind);
				return known
					? [
							{
								endpoint,
								rule: known,
								behind: behind?.startsWith('quiet-') ? 'Quiet hours' : (before?.title ?? behind)
							}
						]
					: [];
			})
		)
	);
	const nameOf = (rule: ProgrammeRule): string => rule.title || rule.id;
	const placeOf = (endpoint: Endpoint, rule: string): string =>
		`/endpoint/${endpoint.id}/plan/programme#setting-programme.rules.${endpoint.plan.programme.rules.findIndex(({ id }) => id === rule)}`;
	function putFirst(endpoint: string, rule: string): void {
		store.changePlan(endpoint, 'put a rule first', (plan) => ({
			...plan,
			programme: {
				...plan.programme,
				rules: [
					...plan.programme.rules.filter(({ id }) => id === rule),
					...plan.programme.rules.filter(({ id }) => id !== rule)
				]
			}
		}));
	}
	const exportCalendar = (): void =>
		download(
			`${safeName(venue.name)}-${dateOf(first)}.ics`,
			calendarOf(
				rows.map(({ endpoint, book }) => ({
					id: endpoint.id,
					name: endpoint.plan.brief.name,
					book,
					words: (show) => wordsOf(endpoint, show)
				})),
				spanUtc[0],
				spanUtc[1],
				nowMs
			),
			'text/calendar'
		);
</script>

<svelte:head><title>Week · Yphos</title></svelte:head>
<div class="page">
	<header>
		<h1>Week</h1>
		<span class="soft small"
			>{heading}{change
				? ` · the clock goes ${change.byMin > 0 ? 'forward' : 'back'} on ${dayWords(Math.floor(wallClockMs(venue.timeZone, change.utcMs) / 86_400_000))}`
				: ''}</span
		>
	</header>
	<div class="bar">
		<div class="row">
			<Button kind="tertiary" size="small" on:click={() => turn(-1)}>Earlier</Button>
			<Button kind="tertiary" size="small" on:click={() => (chosenDay = null)}>Today</Button>
			<Button kind="tertiary" size="small" on:click={() => turn(1)}>Later</Button>
			<Button kind="ghost" size="small" on:click={exportCalendar}>Export as iCalendar</Button>
		</div>
		<div class="zoom" role="group" aria-label="How much is in sight">
			{#each Object.keys(ZOOMS) as Zoom[] as name (name)}
				<button type="button" aria-pressed={zoom === name} class:on={zoom === name} onclick={() => (zoom = name)}
					>{name[0]!.toUpperCase()}{name.slice(1)}</button
				>
			{/each}
		</div>
	</div>
	{#if rows.length === 0}
		<p class="soft">No endpoint plays anything by itself yet. Add a programme to one, and its week stands here.</p>
	{:else}
		<div class="scroll">
			<div class="axis sheet" class:season={zoom === 'season'}>
				<div class="lane head">
					<span></span>
					<div class="time">
						{#each ticks as { at, words } (at)}<span class="tick small" style:left={`${at}%`}>{words}</span>{/each}
					</div>
				</div>
				{#each drawn as { endpoint, book, bars } (endpoint.id)}
					<div class="lane">
						<a href={`/endpoint/${endpoint.id}/plan/programme`}>{endpoint.plan.brief.name}</a>
						<div class="time" role="group" aria-label={endpoint.plan.brief.name}>
							{#each ticks as { at } (at)}<i class="grid" style:left={`${at}%`}></i>{/each}
							{#each bars as slice (`${slice.day} ${slice.fromMin}`)}
								{@const key = `${endpoint.id} ${slice.day} ${slice.fromMin}`}
								{@const { left, width } = percent(slice)}
								{@const words = wordsOf(endpoint, slice.on.show)}
								{@const rule = slice.on.line?.show === 'quiet' ? null : (slice.on.line?.rule ?? null)}
								{@const said = `${dayWords(first + slice.day)}, ${clock(slice.fromMin)} to ${clock(slice.untilMin)}: ${words} (${becauseWords(slice.on, book)})`}
								{@const dragged = drag?.key === key ? drag : null}
								{#if rule}
									<button
										type="button"
										class={`slice ${shadeOf(slice.on.show, endpoint.plan.programme.lists)}`}
										class:chosen={chosen?.endpoint === endpoint.id && chosen.rule === rule}
										style:left={`${left + (dragged && !dragged.end ? (100 * dragged.byMin) / (days * 1440) : 0)}%`}
										style:width={`${Math.max(0.15, width + (dragged?.end ? (100 * dragged.byMin) / (days * 1440) : 0))}%`}
										title={said}
										aria-label={said}
										onclick={() => (chosen = { endpoint: endpoint.id, rule })}
										onkeydown={(event) => barKey(event, endpoint.id, slice)}
										onpointerdown={(event) => barDown(event, endpoint.id, slice, key)}
										onpointermove={barMove}
										onpointerup={barUp}
										onpointercancel={() => (drag = null)}>{width < WORD_PERCENT ? '' : words}</button
									>
								{:else}
									<span
										class={`slice ${shadeOf(slice.on.show, endpoint.plan.programme.lists)}`}
										style:left={`${left}%`}
										style:width={`${width}%`}
										title={said}>{width < WORD_PERCENT ? '' : words}</span
									>
								{/if}
							{/each}
							{#if nowPercent >= 0 && nowPercent <= 100}<i class="now" style:left={`${nowPercent}%`}></i>{/if}
						</div>
					</div>
				{/each}
			</div>
		</div>
		{#if chosenRule && chosenEndpoint}
			<section class="sheet chosen-rule" aria-label="The chosen rule">
				<b>{nameOf(chosenRule)}</b>
				<span class="soft small">{chosenEndpoint.plan.brief.name}; a change holds for all its days</span>
				<div class="row">
					<Button
						kind="tertiary"
						size="small"
						on:click={() =>
							changeRule(chosenEndpoint.id, chosenRule.id, 'move a rule', (one) => movedBy(one, -STEP_MIN))}
						>15 min earlier</Button
					>
					<Button
						kind="tertiary"
						size="small"
						on:click={() =>
							changeRule(chosenEndpoint.id, chosenRule.id, 'move a rule', (one) => movedBy(one, STEP_MIN))}
						>15 min later</Button
					>
					<Button
						kind="tertiary"
						size="small"
						on:click={() =>
							changeRule(chosenEndpoint.id, chosenRule.id, 'stretch a rule', (one) => stretchedBy(one, STEP_MIN))}
						>15 min longer</Button
					>
					<Button
						kind="tertiary"
						size="small"
						on:click={() =>
							changeRule(chosenEndpoint.id, chosenRule.id, 'stretch a rule', (one) => stretchedBy(one, -STEP_MIN))}
						>15 min shorter</Button
					>
					{#if others.length}
						<Select size="sm" hideLabel labelText="To which endpoint" bind:selected={copyTo}>
							{#each others as { id, plan } (id)}<SelectItem value={id} text={plan.brief.name} />{/each}
						</Select>
						<Button kind="tertiary" size="small" on:click={copyRule}>Copy the rule there</Button>
					{/if}
					<a href={placeOf(chosenEndpoint, chosenRule.id)}>Open the rule</a>
				</div>
			</section>
		{:else}
			<p class="soft small">
				Press a rule’s bar to change it; drag it, or its end; by keyboard with the arrows, its end with Shift.
			</p>
		{/if}
		<div class="three">
			<section class="sheet">
				<h2>What is on then?</h2>
				<TextInput
					size="sm"
					type="datetime-local"
					labelText={`Day and time in ${venue.timeZone}`}
					value={askedText ?? nowText}
					on:input={(event) => (askedText = String(event.detail ?? '') || null)}
				/>
				{#if askedUtcMs !== null}
					<table>
						<thead><tr><th>Endpoint</th><th>Shows</th><th>Because</th></tr></thead>
						<tbody>
							{#each rows as { endpoint, book } (endpoint.id)}
								{@const on = whatsOn(book, askedUtcMs)}
								<tr>
									<td>{endpoint.plan.brief.name}</td>
									<td>{wordsOf(endpoint, on.show)}</td>
									<td>{becauseWords(on, book)}</td>
								</tr>
							{/each}
						</tbody>
					</table>
				{/if}
			</section>
			<section class="sheet">
				<h2>Airtime in sight</h2>
				{#if airRow && air}
					<Select
						size="sm"
						labelText="Endpoint"
						selected={airRow.endpoint.id}
						on:update={(event) => (airOf = String(event.detail))}
					>
						{#each rows as { endpoint } (endpoint.id)}<SelectItem
								value={endpoint.id}
								text={endpoint.plan.brief.name}
							/>{/each}
					</Select>
					<ul class="air">
						{#each air.byShow as { show, ms } (show)}
							<li>
								<span>{wordsOf(airRow.endpoint, show)}</span>
								<i
									class={`meter ${shadeOf(show, airRow.endpoint.plan.programme.lists)}`}
									style:width={`${(100 * ms) / (spanUtc[1] - spanUtc[0])}%`}
								></i>
								<span class="mono small">{formatSeconds(ms)}</span>
							</li>
						{/each}
					</ul>
					<p class="small soft">{air.changes} change{air.changes === 1 ? '' : 's'} of what is on.</p>
				{/if}
			</section>
			<section class="found" aria-label="What never comes in a year" aria-live="polite">
				{#each neverShown as { endpoint, rule, behind } (`${endpoint.id} ${rule.id}`)}
					<div class="never">
						<b>“{nameOf(rule)}” is never on</b>
						<p>
							{endpoint.plan.brief.name}, in the year from today: {behind === null
								? 'no day has all that it asks for.'
								: `where it would hold, “${behind}” goes before it.`}
						</p>
						<div class="row">
							{#if behind !== null && behind !== 'Quiet hours'}<Button
									kind="tertiary"
									size="small"
									on:click={() => putFirst(endpoint.id, rule.id)}>Put it first</Button
								>{/if}
							<a href={placeOf(endpoint, rule.id)}>Open the rule</a>
						</div>
					</div>
				{:else}
					<p class="soft small">
						{yearProblem || (year.length ? 'In the year from today every rule has its turn.' : '')}
					</p>
				{/each}
			</section>
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
	h2 {
		font-size: var(--size-text);
		margin: 0 0 8px;
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
	.scroll {
		overflow-x: auto;
	}
	.axis {
		padding: 0;
		min-width: 760px;
	}
	.lane {
		display: grid;
		grid-template-columns: 150px minmax(0, 1fr);
		border-top: 1px solid var(--rule);
		align-items: stretch;
	}
	.lane.head {
		border-top: 0;
	}
	.lane > a,
	.lane > span {
		position: sticky;
		left: 0;
		z-index: 3;
		background: var(--sheet);
		padding: 10px;
		color: var(--ink);
		font-weight: 600;
		text-decoration: none;
	}
	.lane > a:hover {
		text-decoration: underline;
	}
	.time {
		position: relative;
		min-height: 44px;
		overflow: hidden;
		border-left: 1px solid var(--rule);
	}
	.head .time {
		min-height: 28px;
	}
	.tick {
		position: absolute;
		top: 6px;
		padding-left: 6px;
		white-space: nowrap;
		color: var(--ink-soft);
	}
	.grid,
	.now {
		position: absolute;
		top: 0;
		bottom: 0;
		width: 1px;
		background: var(--rule);
	}
	.now {
		width: 2px;
		background: var(--brick);
		pointer-events: none;
	}
	.slice {
		position: absolute;
		top: 8px;
		height: 28px;
		box-sizing: border-box;
		overflow: hidden;
		white-space: nowrap;
		text-overflow: ellipsis;
		font: inherit;
		font-size: 11.5px;
		line-height: 26px;
		padding: 0 4px;
		border: 1px solid transparent;
		border-radius: 2px;
		text-align: left;
		touch-action: none;
	}
	button.slice {
		cursor: grab;
		z-index: 1;
	}
	button.slice:focus-visible,
	button.slice.chosen {
		outline: 2px solid var(--amber);
		outline-offset: 1px;
		z-index: 2;
	}
	.all {
		background: var(--bottle-wash);
		border-color: var(--bottle);
		color: var(--ink);
	}
	.list {
		background: var(--bottle);
		color: var(--on-bottle);
	}
	.other {
		background: var(--slate);
		color: var(--sheet);
	}
	.list,
	.other {
		border-color: transparent;
	}
	.none {
		background: transparent;
		border: 1px dashed var(--trace-idle);
		color: var(--ink-soft);
	}
	.season .slice {
		padding: 0;
		border-width: 0;
	}
	.season .none {
		background: var(--well);
	}
	.chosen-rule {
		margin-top: 8px;
		display: grid;
		gap: 6px;
	}
	@media (max-width: 480px) {
		.lane {
			grid-template-columns: 104px minmax(0, 1fr);
		}
	}
	.three {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
		gap: 12px;
		margin-top: 12px;
		align-items: start;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		margin-top: 8px;
		font-size: var(--size-small);
	}
	th {
		text-align: left;
		border-bottom: 1px solid var(--ink);
		padding: 4px 6px 4px 0;
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 6px 6px 6px 0;
		vertical-align: top;
	}
	.air {
		list-style: none;
		margin: 10px 0 0;
		padding: 0;
		display: grid;
		gap: 6px;
	}
	.air li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 2px 8px;
	}
	.air .meter {
		grid-column: 1 / -1;
		grid-row: 2;
		height: 10px;
		min-width: 2px;
		border-style: solid;
		border-width: 1px;
		box-sizing: border-box;
	}
	.found {
		display: grid;
		gap: 8px;
	}
	.never {
		background: var(--amber-wash);
		border-radius: var(--radius);
		padding: 10px 14px;
	}
	.never p {
		margin: 4px 0 8px;
	}
</style>
