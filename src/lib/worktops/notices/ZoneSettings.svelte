<script lang="ts">
	import { Button, Select, SelectItem } from 'carbon-components-svelte';
	import { stretched, withNewZone, withoutZone, withPage, withZone } from '$core/links/notices/pages/edits';
	import { readFeed } from '$core/links/notices/feeds/feed';
	import { legibleToM, noticeScreen, smallestTextPx } from '$core/links/notices/pages/screen';
	import { FEED_OF, SHOWS, type Page, type Shows, type Zone } from '$core/links/notices/settings';
	import { SHOWS_WORDS } from '$core/links/notices/pages/zoneWords';
	import { freeId } from '$core/basics/text';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { NumberField, TextField } from '$lib/fields';
	import { chosen, editPages } from './chosen.svelte';

	const { page }: { page: Page } = $props();
	const view = useEndpoint();
	const notices = $derived(view.plan.notices);
	const zone = $derived(chosen.zone(view));
	const screen = $derived(noticeScreen(view.context));
	const theme = $derived(view.context.venue.noticeTheme);
	const fromM = $derived(zone && screen ? legibleToM(screen, theme, zone.textPx) : null);
	const least = $derived(screen ? smallestTextPx(screen, theme) : null);
	const path = $derived(`notices.pages.${notices.pages.indexOf(page)}` as const);
	let added = $state<Shows>('text');
	let copyTo = $state('');

	const kind = $derived(zone ? FEED_OF[zone.shows] : undefined);
	const feeds = $derived(kind ? notices.feeds.filter((feed) => feed.kind === kind) : []);
	const table = $derived.by(() => {
		const feed = notices.feeds.find(({ id }) => id === zone?.feed);
		if (feed?.kind !== 'table') return null;
		const read = readFeed('table', feed.text, view.context.venue.timeZone);
		return 'value' in read ? read.value : null;
	});
	const showsEntries = $derived(zone?.shows === 'picture' || zone?.shows === 'photographs' || zone?.shows === 'film');
	const entries = $derived(
		(view.context.facts.entries ?? []).filter(({ location }) => {
			const picture = view.context.media(location)?.picture;
			return picture && (zone?.shows === 'film') === (picture.framesPerSec !== null);
		})
	);

	const put = (more: Partial<Zone>): string | null =>
		editPages(view, 'change a zone', (pages) => withZone(pages, page.id, zone!.id, more));
	function addZone(): void {
		const made = withNewZone(page, added, notices.grid, {
			textPx: Math.min(least ?? 48, 400),
			feed: notices.feeds.find((feed) => feed.kind === FEED_OF[added])?.id ?? '',
			...(added === 'text' ? { text: 'Text' } : {})
		});
		editPages(view, 'add a zone', (pages) => withPage(pages, page.id, () => made.page));
		chosen.chooseZone(made.id);
	}
	const remove = (): unknown => editPages(view, 'take a zone out', (pages) => withoutZone(pages, page.id, zone!.id));
	const copy = (): unknown =>
		editPages(view, 'copy a zone', (pages) =>
			withPage(pages, copyTo, (one) => ({
				...one,
				zones: [...one.zones, { ...zone!, id: freeId(zone!.id, new Set(one.zones.map(({ id }) => id))) }]
			}))
		);
	/** Over the others, or under them. */
	function layer(top: boolean): void {
		editPages(view, top ? 'bring a zone forward' : 'send a zone back', (pages) =>
			withPage(pages, page.id, (one) => {
				const others = one.zones.filter(({ id }) => id !== zone!.id);
				return { ...one, zones: top ? [...others, zone!] : [zone!, ...others] };
			})
		);
	}
</script>

<section class="zone" aria-label="Zone">
	<div class="add">
		<Select size="sm" labelText="Add a zone" bind:selected={added}>
			{#each SHOWS as one (one)}<SelectItem value={one} text={SHOWS_WORDS[one]} />{/each}
		</Select>
		<Button kind="tertiary" size="small" disabled={page.zones.length >= 24} on:click={addZone}>Add</Button>
	</div>
	{#if zone}
		{#key zone.id}
			<h3>Zone: {zone.title || SHOWS_WORDS[zone.shows].toLowerCase()}</h3>
			<div class="two">
				<Select
					size="sm"
					labelText="Shows"
					selected={zone.shows}
					on:update={({ detail }) => detail !== zone.shows && put({ shows: detail as Shows })}
				>
					{#each SHOWS as one (one)}<SelectItem value={one} text={SHOWS_WORDS[one]} />{/each}
				</Select>
				<NumberField
					{path}
					label="Text"
					unit="px"
					step={2}
					value={zone.textPx}
					put={(textPx) => put({ textPx })}
					hint={fromM === null
						? ''
						: `Read from ${fromM.toFixed(1)} m${least !== null && zone.textPx < least ? `; ${screen!.distanceM} m need ${least} px` : ''}.`}
				/>
			</div>
			<TextField {path} label="Heading" value={zone.title} put={(title) => put({ title })} />
			{#if kind}
				<Select
					size="sm"
					labelText="From the feed"
					selected={zone.feed}
					on:update={({ detail }) => detail !== zone.feed && put({ feed: String(detail) })}
				>
					<SelectItem value="" text={feeds.length ? 'none yet' : 'no feed of this kind: add one below'} />
					{#each feeds as feed (feed.id)}<SelectItem value={feed.id} text={feed.title || feed.id} />{/each}
				</Select>
			{/if}
			{#if zone.shows === 'text'}
				<!-- Its editor is large, and most zones do without. -->
				{#await import('./TextEditor.svelte') then { default: TextEditor }}
					<TextEditor label="Text" value={zone.text} put={(text) => put({ text })} />
				{/await}
			{/if}
			{#if zone.shows === 'code'}
				<TextField
					{path}
					label="A phone that scans it opens"
					value={zone.code}
					placeholder="https://…"
					put={(code) => put({ code })}
				/>
			{/if}
			{#if showsEntries}
				<fieldset>
					<legend class="small">Of the sources</legend>
					{#each entries.slice(0, 200) as entry (entry.id)}
						<label class="small"
							><input
								type={zone.shows === 'photographs' ? 'checkbox' : 'radio'}
								name={`entries-${zone.id}`}
								checked={zone.entries.includes(entry.id)}
								onchange={({ currentTarget }) =>
									put({
										entries:
											zone.shows !== 'photographs'
												? [entry.id]
												: currentTarget.checked
													? [...zone.entries, entry.id]
													: zone.entries.filter((id) => id !== entry.id)
									})}
							/>
							{entry.title || entry.location}</label
						>
					{:else}<p class="soft small">
							None fits. Drop {zone.shows === 'film' ? 'films' : 'pictures'} on
							<a href={`/endpoint/${view.id()}/plan/sources`}>Sources</a>.
						</p>{/each}
				</fieldset>
				<Select
					size="sm"
					labelText="In its zone"
					selected={zone.fit}
					on:update={({ detail }) => detail !== zone.fit && put({ fit: detail as Zone['fit'] })}
				>
					<SelectItem value="fill" text="Fills it; edges may be cut" />
					<SelectItem value="whole" text="All of it is seen" />
				</Select>
			{/if}
			{#if table && (zone.shows === 'table' || zone.shows === 'curve')}
				<fieldset>
					<legend class="small">{zone.shows === 'curve' ? 'Columns: when, and how high' : 'Columns'}</legend>
					{#each table.columns as column (column)}
						<label class="small"
							><input
								type="checkbox"
								checked={zone.columns.length === 0 || zone.columns.includes(column)}
								onchange={() => {
									const all = zone.columns.length ? zone.columns : [...table.columns];
									const next = all.includes(column)
										? all.filter((one) => one !== column)
										: table.columns.filter((one) => one === column || all.includes(one));
									if (next.length) put({ columns: next.length === table.columns.length ? [] : next });
								}}
							/>
							{column}</label
						>
					{/each}
				</fieldset>
			{/if}
			<div class="two">
				{#if ['table', 'calendar', 'weather', 'news', 'hours'].includes(zone.shows)}
					<NumberField
						{path}
						label="At most"
						unit={zone.shows === 'hours' ? 'days' : zone.shows === 'news' ? 'headlines' : 'rows'}
						value={zone.rows}
						put={(rows) => put({ rows })}
					/>
				{/if}
				{#if zone.shows === 'photographs' || zone.shows === 'news'}
					<NumberField
						{path}
						label="Next one after"
						unit="s"
						value={zone.changeSec}
						put={(changeSec) => put({ changeSec })}
					/>
				{/if}
				{#if ['clock', 'hours', 'table', 'curve', 'calendar'].includes(zone.shows)}
					<Select
						size="sm"
						labelText="Clock"
						selected={zone.clock}
						on:update={({ detail }) => detail !== zone.clock && put({ clock: detail as Zone['clock'] })}
					>
						<SelectItem value="24" text="16:40" />
						<SelectItem value="12" text="4:40 pm" />
					</Select>
				{/if}
				<Select
					size="sm"
					labelText="Stands"
					selected={zone.align}
					on:update={({ detail }) => detail !== zone.align && put({ align: detail as Zone['align'] })}
				>
					<SelectItem value="start" text="At the left" />
					<SelectItem value="centre" text="In the middle" />
				</Select>
			</div>
			{#if kind}
				<div class="two">
					<NumberField
						{path}
						label="Old after"
						unit="h"
						value={zone.oldAfterH}
						put={(oldAfterH) => put({ oldAfterH })}
					/>
					<Select
						size="sm"
						labelText="then"
						selected={zone.whenOld}
						on:update={({ detail }) => detail !== zone.whenOld && put({ whenOld: detail as Zone['whenOld'] })}
					>
						<SelectItem value="beside" text="Show its date beside it" />
						<SelectItem value="words" text="Show these words" />
						<SelectItem value="hide" text="Show nothing" />
					</Select>
				</div>
				{#if zone.whenOld === 'words'}
					<TextField
						{path}
						label="Words, also when it is empty or wrong"
						value={zone.words}
						put={(words) => put({ words })}
					/>
				{/if}
			{/if}
			<div class="row">
				<Button kind="ghost" size="small" on:click={() => put({ x: 0, w: notices.grid.columns })}
					>As wide as the page</Button
				>
				<Button
					kind="ghost"
					size="small"
					on:click={() => {
						const { y, h } = stretched(
							zone,
							page.zones.filter(({ id }) => id !== zone.id),
							notices.grid
						);
						put({ y, h });
					}}>As tall as it can be</Button
				>
				<Button kind="ghost" size="small" on:click={() => layer(true)}>Forward</Button>
				<Button kind="ghost" size="small" on:click={() => layer(false)}>Back</Button>
				<Button kind="ghost" size="small" on:click={remove}>Take out</Button>
			</div>
			{#if notices.pages.length > 1}
				<div class="add">
					<Select size="sm" labelText="Copy to the page" bind:selected={copyTo}>
						<SelectItem value="" text="choose" />
						{#each notices.pages.filter(({ id }) => id !== page.id) as other (other.id)}<SelectItem
								value={other.id}
								text={other.title || other.id}
							/>{/each}
					</Select>
					<Button kind="tertiary" size="small" disabled={copyTo === ''} on:click={copy}>Copy</Button>
				</div>
			{/if}
		{/key}
	{:else}
		<p class="soft">Choose a zone on the page to change what it shows.</p>
	{/if}
</section>

<style>
	.zone {
		display: grid;
		gap: 10px;
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 10px;
	}
	.add {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 8px;
		align-items: end;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
	}
	fieldset {
		border: 1px solid var(--rule);
		padding: 6px 10px;
		display: grid;
		gap: 4px;
		max-height: 160px;
		overflow-y: auto;
	}
</style>
