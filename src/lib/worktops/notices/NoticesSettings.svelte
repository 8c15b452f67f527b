<script lang="ts">
	import { Button, Checkbox, Select, SelectItem } from 'carbon-components-svelte';
	import { PICTURE_BYTES } from '$core/links/notices/drawn/pictureClaims';
	import { endsOn, picturesOf } from '$core/links/notices/drawn/pictures';
	import { noticeScreen, smallestTextPx } from '$core/links/notices/pages/screen';
	import { TEMPLATES, withTemplate } from '$core/links/notices/pages/templates';
	import { dateOf } from '$core/basics/calendar';
	import { formatBytes } from '$core/basics/format';
	import { packageBytes } from '$core/files/packageRoom';
	import { wallClockMs } from '$core/formats/systemd/zone';
	import { freeId } from '$core/basics/text';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, SwitchField, TextField } from '$lib/fields';
	import PhonePassword from '../picture/PhonePassword.svelte';
	import { chosen, editPages } from './chosen.svelte';

	const view = useEndpoint();
	const notices = $derived(view.plan.notices);
	const page = $derived(chosen.page(view));
	const n = $derived(notices.pages.findIndex(({ id }) => id === page?.id));
	const screen = $derived(noticeScreen(view.context));
	const theme = $derived(view.context.venue.noticeTheme);
	const SCRIPTS = [
		['fonts-noto-core', 'Indian and Thai scripts, Ethiopic, and more'],
		['fonts-noto-cjk', 'Chinese, Japanese, Korean'],
		['fonts-noto-color-emoji', 'Emoji']
	] as const;
	let template = $state('tides');
	const pictures = $derived(notices.shownBy === 'pictures' ? picturesOf(notices, view.context) : null);
	/** By the venue's clock. */
	const today = (): string => dateOf(Math.floor(wallClockMs(view.context.venue.timeZone, Date.now()) / 86_400_000));

	/** Text that is read from where people stand, as long as six lines of it fit. */
	const textPx = $derived.by(() => {
		const height = screen?.heightPx ?? 1080;
		const wanted = (screen && smallestTextPx(screen, theme)) ?? Math.round(height * 0.04);
		return Math.max(12, Math.min(wanted, Math.round(height / 12)));
	});
	function add(): void {
		const from = TEMPLATES.find(({ id }) => id === template);
		const id = from ? `page-${template}` : freeId('page-1', new Set(notices.pages.map((one) => one.id)));
		let made = id;
		view.edit('add a page', (plan) => {
			if (!from)
				return {
					...plan,
					notices: {
						...plan.notices,
						pages: [
							...plan.notices.pages,
							{ id, title: `Page ${plan.notices.pages.length + 1}`, forSec: 15, zones: [] }
						]
					}
				};
			const { settings, id: its } = withTemplate(plan.notices, from, textPx);
			made = its;
			return { ...plan, notices: settings };
		});
		chosen.choosePage(made);
	}
	function move(by: number): void {
		editPages(view, 'move a page', (pages) => {
			const next = [...pages];
			const [one] = next.splice(n, 1);
			next.splice(n + by, 0, one!);
			return next;
		});
	}
	function copy(): void {
		const id = freeId(page!.id, new Set(notices.pages.map((one) => one.id)));
		editPages(view, 'copy a page', (pages) =>
			pages.toSpliced(n + 1, 0, { ...page!, id, title: `${page!.title} (copy)` })
		);
		chosen.choosePage(id);
	}
	function remove(): void {
		editPages(view, 'take a page out', (pages) => pages.toSpliced(n, 1));
		chosen.choosePage(notices.pages[n + 1]?.id ?? notices.pages[n - 1]?.id ?? '');
	}
	const put = (part: { title?: string; forSec?: number }): string | null =>
		view.set(
			'notices.pages',
			notices.pages.map((one) => (one.id === page!.id ? { ...one, ...part } : one))
		);
</script>

<div id="setting-notices.pages" tabindex="-1">
	<ul>
		{#each notices.pages as one, k (one.id)}
			<li id={`setting-notices.pages.${k}`} tabindex="-1">
				<button
					type="button"
					class:here={one.id === page?.id}
					aria-pressed={one.id === page?.id}
					onclick={() => chosen.choosePage(one.id)}
				>
					<svg viewBox={`0 0 ${notices.grid.columns} ${notices.grid.rows}`} aria-hidden="true">
						<rect width={notices.grid.columns} height={notices.grid.rows} fill={theme.ground} />
						{#each one.zones as zone (zone.id)}
							<rect
								x={zone.x + 0.2}
								y={zone.y + 0.2}
								width={Math.max(0.2, zone.w - 0.4)}
								height={Math.max(0.2, zone.h - 0.4)}
								fill={zone.shows === 'curve' || zone.shows === 'photographs' || zone.shows === 'picture'
									? theme.accent
									: theme.panel}
							/>
						{/each}
					</svg>
					<span>{one.title || one.id}<small class="soft">{one.forSec} s</small></span>
				</button>
			</li>
		{/each}
	</ul>
</div>
<div class="add">
	<Select labelText="Add a page" bind:selected={template}>
		{#each TEMPLATES as one (one.id)}<SelectItem value={one.id} text={one.title} />{/each}
		<SelectItem value="" text="An empty page" />
	</Select>
	<Button kind="tertiary" size="field" disabled={notices.pages.length >= 40} on:click={add}>Add</Button>
</div>
<p class="soft small">
	{TEMPLATES.find(({ id }) => id === template)?.for ?? 'Zones are added beside the page.'} All of it can be changed.
</p>
{#if page}
	<h3>This page</h3>
	<TextField path={`notices.pages.${n}.title`} label="Title" value={page.title} put={(title) => put({ title })} />
	<NumberField
		path={`notices.pages.${n}.forSec`}
		label="Stands for"
		unit="s"
		step={5}
		value={page.forSec}
		put={(forSec) => put({ forSec })}
		hint="Before the next entry of its playlist."
	/>
	<div class="row">
		<Button kind="ghost" size="small" disabled={n === 0} on:click={() => move(-1)}>Earlier</Button>
		<Button kind="ghost" size="small" disabled={n === notices.pages.length - 1} on:click={() => move(1)}>Later</Button>
		<Button kind="ghost" size="small" on:click={copy}>Copy</Button>
		<Button kind="ghost" size="small" on:click={remove}>Take out</Button>
	</div>
{/if}
<h3>All pages</h3>
<NumberField
	path="notices.fadeMs"
	unit="ms"
	step={100}
	value={notices.fadeMs}
	hint={notices.fadeMs ? 'Faded; small boards do so in steps.' : 'At once, without fading.'}
/>
<ChoiceField
	path="notices.shownBy"
	value={notices.shownBy}
	options={[
		{ value: 'browser', text: 'A browser, live' },
		{ value: 'pictures', text: 'Pictures of them, by the plain player' }
	]}
	onpick={(shownBy) =>
		void view.edit('show pages by ' + shownBy, (plan) => ({
			...plan,
			notices: {
				...plan.notices,
				shownBy: shownBy as 'browser' | 'pictures',
				picturesFrom: plan.notices.picturesFrom || today()
			}
		}))}
	hint="Pictures run on any board and change by the minute. They show no clock, and fetch nothing."
/>
{#if notices.shownBy === 'pictures'}
	<div class="dates">
		<TextField
			path="notices.picturesFrom"
			value={notices.picturesFrom}
			mono
			placeholder="2026-11-27"
			hint="The first day that they are for."
		/>
		<Button kind="tertiary" size="field" on:click={() => view.set('notices.picturesFrom', today())}>Today</Button>
	</div>
	<NumberField
		path="notices.picturesDays"
		unit="days"
		step={10}
		value={notices.picturesDays}
		hint={pictures
			? `${pictures.drawings.length} pictures, some ${Math.max(1, Math.round((pictures.drawings.length * PICTURE_BYTES) / 1e6))} MB; until ${endsOn(notices)} they say what is of the day, then only what holds on any day.`
			: 'Say first from which day on.'}
	/>
{/if}
<ChoiceField
	path="notices.units"
	value={notices.units}
	options={[
		{ value: 'metric', text: '°C, m/s, mm' },
		{ value: 'imperial', text: '°F, mph, inches' }
	]}
/>
<TextField
	path="notices.language"
	value={notices.language}
	mono
	choices={[
		['en-GB', 'English'],
		['nb-NO', 'Norwegian'],
		['da-DK', 'Danish'],
		['sv-SE', 'Swedish'],
		['de-DE', 'German'],
		['fr-FR', 'French'],
		['is-IS', 'Icelandic'],
		['fo-FO', 'Faroese'],
		['pl-PL', 'Polish'],
		['uk-UA', 'Ukrainian'],
		['ar', 'Arabic'],
		['he-IL', 'Hebrew'],
		['ja-JP', 'Japanese']
	]}
/>
{#if notices.shownBy === 'browser'}
	<fieldset id="setting-notices.fonts" class="fonts">
		<legend class="bx--label">Typefaces for other scripts</legend>
		{#each SCRIPTS as [name, words] (name)}
			<Checkbox
				labelText={`${words} (${formatBytes(packageBytes(name))})`}
				checked={notices.fonts.includes(name)}
				on:check={({ detail }) =>
					detail !== notices.fonts.includes(name) &&
					view.set(
						'notices.fonts',
						detail ? [...notices.fonts, name] : notices.fonts.filter((known) => known !== name)
					)}
			/>
		{/each}
		<p class="soft small">
			Latin, Greek, Cyrillic, Armenian, Georgian, Hebrew and Arabic are always there. What a feed holds later may need
			more.
		</p>
	</fieldset>
{/if}
<NumberField path="notices.fetchEveryMin" unit="min" step={5} value={notices.fetchEveryMin} />
<SwitchField
	path="notices.showByPhone"
	value={notices.showByPhone}
	hint={notices.showByPhone
		? `http://${view.context.facts.hostName}.local:8080 has a button for each page, for whoever is in the same network.`
		: 'A page with buttons, for whoever is in charge on the spot.'}
/>
{#if notices.showByPhone}
	<PhonePassword />
{/if}
<p class="soft small">
	Colours and typeface are the venue’s: <a href="/venue#notice-theme">Venue</a>. When a page is shown the
	<a href={`/endpoint/${view.id()}/plan/programme`}>programme</a> says.
</p>

<style>
	ul {
		display: grid;
		gap: 4px;
	}
	li button {
		width: 100%;
		display: grid;
		grid-template-columns: 44px 1fr;
		gap: 10px;
		align-items: center;
		text-align: left;
		border: 1px solid transparent;
		border-left: 3px solid transparent;
		background: none;
		padding: 6px 8px;
		font-weight: 600;
		cursor: pointer;
		color: var(--ink);
	}
	li button.here {
		background: var(--sheet);
		border-color: var(--rule);
		border-left-color: var(--bottle);
	}
	li svg {
		max-width: 44px;
		max-height: 44px;
	}
	small {
		display: block;
		font-weight: 400;
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
	.fonts {
		border: 0;
		padding: 0;
		margin: 0;
	}
	.dates {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 8px;
		align-items: center;
	}
</style>
