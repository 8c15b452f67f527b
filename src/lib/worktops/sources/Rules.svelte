<script lang="ts">
	import { Button, Checkbox, TextInput } from 'carbon-components-svelte';
	import { formatSeconds } from '$core/basics/format';
	import { chosenBy, knownFolders, ruleList, type Rule } from '$core/links/sources/lists/rules';
	import { mountPoint } from '$core/links/sources/stores/stores';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, NumberField, TextField } from '$lib/fields';

	const view = useEndpoint();
	const sources = $derived(view.plan.sources);
	const rules = $derived(sources.rules);

	/** Folders of what is known to lie on shares and sticks, with how many files lie in them and below. */
	const folders = $derived(knownFolders(sources.stores.map(mountPoint), view.context));
	let wanted = $state('');
	const SHOWN = 60;
	const offered = $derived(folders.filter(({ path }) => path.toLowerCase().includes(wanted.trim().toLowerCase())));

	function add(): void {
		const id = `rule-${crypto.randomUUID().slice(0, 8)}`;
		const folder = folders[0]?.path ?? (sources.stores[0] ? mountPoint(sources.stores[0]) : '/srv/music');
		const rule: Rule = { id, title: 'Chosen music', folders: [folder], order: 'newest', most: 200, longestMin: null };
		view.edit('add a rule', (plan) => ({
			...plan,
			sources: {
				...plan.sources,
				rules: [...plan.sources.rules, rule],
				items: [
					{ id: `entry-${id}`, location: ruleList(rule), title: rule.title, durationSec: null, extra: [], part: null },
					...plan.sources.items
				]
			}
		}));
	}
	const change = (rule: Rule, part: Partial<Rule>): string | null =>
		view.set(
			'sources.rules',
			rules.map((one) => (one.id === rule.id ? { ...one, ...part } : one))
		);
	function remove(rule: Rule): void {
		view.edit('take a rule out', (plan) => ({
			...plan,
			sources: {
				...plan.sources,
				rules: plan.sources.rules.filter(({ id }) => id !== rule.id),
				items: plan.sources.items.filter(({ location }) => location !== ruleList(rule))
			}
		}));
	}
	const toggle = (rule: Rule, folder: string, on: boolean): string | null =>
		change(rule, {
			folders: on ? [...rule.folders, folder] : rule.folders.filter((other) => other !== folder)
		});
	let times = $state<string | null>(null);
	let timesError = $state('');
	function setTimes(text: string): void {
		times = text;
		timesError = view.set('sources.chooseAt', text.split(/[\s,;]+/).filter(Boolean)) ?? '';
		if (!timesError) times = null;
	}
	const lengthOf = (rule: Rule): string => {
		const chosen = chosenBy(rule, view.context);
		if (chosen.length === 0)
			return 'None of the files known here would be chosen; add a listing of the share or stick above.';
		const ms = chosen.reduce((sum, { durationMs }) => sum + (durationMs ?? 0), 0);
		return `Of the files known here it chooses ${chosen.length}${ms > 0 ? `, ${formatSeconds(ms)} together` : ''}.`;
	};
</script>

{#each rules as rule, n (rule.id)}
	<section class="rule" id={`setting-sources.rules.${n}`} aria-label={rule.title || 'A rule'}>
		<TextField
			path={`sources.rules.${n}.title`}
			label="Called"
			value={rule.title}
			put={(title) => change(rule, { title })}
		/>
		<TextField
			path={`sources.rules.${n}.folders`}
			label="Folders, a semicolon between them"
			value={rule.folders.join('; ')}
			mono
			put={(text) =>
				change(rule, {
					folders: text
						.split(';')
						.map((folder) => folder.trim())
						.filter(Boolean)
				})}
		/>
		{#if folders.length}
			<details>
				<summary>Choose among {folders.length} known folders</summary>
				{#if folders.length > 12}<TextInput
						size="sm"
						hideLabel
						labelText="Find a folder"
						placeholder="Find a folder"
						bind:value={wanted}
					/>{/if}
				<div class="folders">
					{#each offered.slice(0, SHOWN) as { path, count } (path)}
						<Checkbox
							labelText={`${path} (${count})`}
							checked={rule.folders.includes(path)}
							on:check={(event) => event.detail !== rule.folders.includes(path) && toggle(rule, path, event.detail)}
						/>
					{/each}
				</div>
				{#if offered.length > SHOWN}<p class="small soft">
						and {offered.length - SHOWN} more: type part of their name
					</p>{/if}
			</details>
		{/if}
		<ChoiceField
			path={`sources.rules.${n}.order`}
			label="In which order"
			value={rule.order}
			options={[
				{ value: 'newest', text: 'Newest first' },
				{ value: 'name', text: 'By folder and name' },
				{ value: 'any', text: 'Shuffled anew each time' }
			]}
			onpick={(order) => change(rule, { order: order as Rule['order'] })}
		/>
		<div class="two">
			<NumberField
				path={`sources.rules.${n}.most`}
				label="At most"
				unit="files"
				value={rule.most}
				mayBeEmpty
				put={(most) => change(rule, { most })}
				clear={() => change(rule, { most: null })}
			/>
			<NumberField
				path={`sources.rules.${n}.longestMin`}
				label="At longest"
				unit="min"
				value={rule.longestMin}
				mayBeEmpty
				put={(longestMin) => change(rule, { longestMin })}
				clear={() => change(rule, { longestMin: null })}
			/>
		</div>
		<p class="small soft">{lengthOf(rule)}</p>
		<Button kind="ghost" size="small" on:click={() => remove(rule)}>Take out</Button>
	</section>
{:else}
	<p class="soft small">
		None: what is listed plays. A rule lets the endpoint choose from folders by itself, and choose again when something
		new lies in them.
	</p>
{/each}
{#if rules.length}
	<div id="setting-sources.chooseAt">
		<TextInput
			labelText="Chosen anew at, besides each start"
			helperText="Hours and minutes, a space between several; the player begins the list again when it has changed."
			value={times ?? sources.chooseAt.join(' ')}
			invalid={timesError !== ''}
			invalidText={timesError}
			on:input={(event) => setTimes(String(event.detail ?? ''))}
		/>
	</div>
{/if}
<div id="setting-sources.rules">
	<Button kind="tertiary" size="small" disabled={rules.length >= 8} on:click={add}>Add a rule</Button>
</div>

<style>
	.rule {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 10px;
		background: var(--sheet);
		display: grid;
		gap: 10px;
	}
	.folders {
		max-height: 180px;
		overflow: auto;
		overflow-wrap: anywhere;
	}
	summary {
		cursor: pointer;
		font-size: var(--size-small);
	}
	p {
		margin: 0;
	}
</style>
