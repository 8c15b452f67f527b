<script lang="ts">
	import { Button, Checkbox, NumberInput, Select, SelectItem, TextInput } from 'carbon-components-svelte';
	import { newRule, type ProgrammeRule } from '$core/onAir/when';
	import { ruleWords } from '$core/links/programme/rules/ruleWords';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, DaysField, TextField } from '$lib/fields';
	import MomentField from './MomentField.svelte';

	const view = useEndpoint();
	const programme = $derived(view.plan.programme);
	const rules = $derived(programme.rules);
	const listTitle = $derived(view.plan.sources.listTitle);
	/** Which one is open. */
	let open = $state<string | null>(null);

	const change = (rule: ProgrammeRule, part: Partial<ProgrammeRule>): string | null =>
		view.set(
			'programme.rules',
			rules.map((one) => (one.id === rule.id ? { ...one, ...part } : one))
		);
	function add(): void {
		const rule = newRule(`rule-${crypto.randomUUID().slice(0, 8)}`, programme.lists[0]?.id ?? 'all', 'New rule');
		view.edit('add a rule', (plan) => ({
			...plan,
			programme: {
				...plan.programme,
				rules: [rule, ...rules],
				// The first rule would change nothing where everything is on besides.
				...(rules.length === 0 && rule.show === 'all' ? { otherwise: 'rest' as const } : {})
			}
		}));
		open = rule.id;
	}
	function move(n: number, by: number): void {
		const next = [...rules];
		const [rule] = next.splice(n, 1);
		next.splice(n + by, 0, rule!);
		view.set('programme.rules', next);
	}
	function duplicate(rule: ProgrammeRule, n: number): void {
		const id = `rule-${crypto.randomUUID().slice(0, 8)}`;
		view.set('programme.rules', rules.toSpliced(n + 1, 0, { ...rule, id, title: `${rule.title} (copy)` }));
		open = id;
	}
	/** What is half typed stays in its field, with the reason. */
	let drafts = $state<Record<string, string>>({});
	let errors = $state<Record<string, string>>({});
	function typed(rule: ProgrammeRule, key: string, text: string, part: Partial<ProgrammeRule>): void {
		const place = `${rule.id} ${key}`;
		const error = change(rule, part);
		if (error === null) {
			delete drafts[place];
			delete errors[place];
		} else {
			drafts[place] = text;
			errors[place] = error;
		}
	}
	const datesIn = (text: string): string[] => text.split(/[\s,;]+/).filter(Boolean);
	const draft = (rule: ProgrammeRule, key: string, kept: string): string => drafts[`${rule.id} ${key}`] ?? kept;
	const error = (rule: ProgrammeRule, key: string): string => errors[`${rule.id} ${key}`] ?? '';
	const NTH = [
		[0, 'each week'],
		[1, 'the first in the month'],
		[2, 'the second'],
		[3, 'the third'],
		[4, 'the fourth'],
		[5, 'the fifth'],
		[-1, 'the last in the month']
	] as const;
</script>

<div id="setting-programme.rules" class="rules" tabindex="-1">
	{#each rules as rule, n (rule.id)}
		<section class="rule" id={`setting-programme.rules.${n}`} aria-label={`Rule ${n + 1}: ${rule.title}`} tabindex="-1">
			<div class="head">
				<button
					type="button"
					class="name"
					aria-expanded={open === rule.id}
					onclick={() => (open = open === rule.id ? null : rule.id)}
				>
					<b>{rule.title || 'Rule without a name'}</b>
					<span class="small soft">{ruleWords(rule, programme.lists, listTitle)}</span>
				</button>
				<span class="move">
					<button
						type="button"
						aria-label={`${rule.title}: earlier in rank`}
						disabled={n === 0}
						onclick={() => move(n, -1)}>↑</button
					>
					<button
						type="button"
						aria-label={`${rule.title}: later in rank`}
						disabled={n === rules.length - 1}
						onclick={() => move(n, 1)}>↓</button
					>
				</span>
			</div>
			{#if open === rule.id}
				<TextField
					path={`programme.rules.${n}.title`}
					label="Called"
					value={rule.title}
					put={(title) => change(rule, { title })}
				/>
				<ChoiceField
					path={`programme.rules.${n}.show`}
					label="Shows"
					value={rule.show}
					onpick={(show) => change(rule, { show })}
					options={[
						{ value: 'all', text: `Everything: ${listTitle || 'the whole list'}` },
						...programme.lists.map(({ id, title }) => ({ value: id, text: title || id })),
						{ value: 'rest', text: 'Nothing' },
						...(['all', 'rest', ...programme.lists.map(({ id }) => id)].includes(rule.show)
							? []
							: [{ value: rule.show, text: 'a playlist that is gone' }])
					]}
				/>
				<DaysField days={rule.weekdays} label="On these weekdays" onpick={(weekdays) => change(rule, { weekdays })} />
				<MomentField label="From" value={rule.from} put={(from) => change(rule, { from })} />
				<MomentField label="Until" value={rule.until} put={(until) => change(rule, { until })} />
				<p class="small soft">An end at or before the beginning is on the next morning.</p>
				<details>
					<summary>More conditions</summary>
					<Select
						size="sm"
						labelText="Of its weekdays"
						selected={String(rule.nth)}
						on:update={(event) => change(rule, { nth: Number(event.detail) as ProgrammeRule['nth'] })}
					>
						{#each NTH as [value, text] (value)}<SelectItem value={String(value)} {text} />{/each}
					</Select>
					<TextInput
						size="sm"
						labelText="Every other week: a date in a week in which it holds"
						placeholder="every week"
						value={draft(rule, 'everyOther', rule.everyOther)}
						invalid={error(rule, 'everyOther') !== ''}
						invalidText={error(rule, 'everyOther')}
						on:input={(event) =>
							typed(rule, 'everyOther', String(event.detail ?? ''), { everyOther: String(event.detail ?? '').trim() })}
					/>
					<Checkbox
						labelText="In one season of each year only"
						checked={rule.season !== null}
						on:check={(event) =>
							event.detail !== (rule.season !== null) &&
							change(rule, { season: event.detail ? { from: '04-01', until: '09-30' } : null })}
					/>
					{#if rule.season}
						<div class="two">
							{#each ['from', 'until'] as const as key (key)}
								<TextInput
									size="sm"
									labelText={key === 'from' ? 'First day (month-day)' : 'Last day'}
									value={draft(rule, `season ${key}`, rule.season[key])}
									invalid={error(rule, `season ${key}`) !== ''}
									invalidText={error(rule, `season ${key}`)}
									on:input={(event) =>
										typed(rule, `season ${key}`, String(event.detail ?? ''), {
											season: { ...rule.season!, [key]: String(event.detail ?? '').trim() }
										})}
								/>
							{/each}
						</div>
					{/if}
					<div class="two">
						{#each ['validFrom', 'validUntil'] as const as key (key)}
							<TextInput
								size="sm"
								labelText={key === 'validFrom' ? 'Not before' : 'Not after'}
								placeholder="2027-04-01"
								value={draft(rule, key, rule[key])}
								invalid={error(rule, key) !== ''}
								invalidText={error(rule, key)}
								on:input={(event) =>
									typed(rule, key, String(event.detail ?? ''), { [key]: String(event.detail ?? '').trim() })}
							/>
						{/each}
					</div>
					<TextInput
						size="sm"
						labelText="On these dates alone"
						placeholder="2027-06-23, 2027-12-31"
						value={draft(rule, 'dates', rule.dates.join(', '))}
						invalid={error(rule, 'dates') !== ''}
						invalidText={error(rule, 'dates')}
						on:change={(event) =>
							typed(rule, 'dates', String(event.detail ?? ''), { dates: datesIn(String(event.detail ?? '')) })}
					/>
					<Select
						size="sm"
						labelText="On the venue’s holidays"
						selected={rule.holidays}
						on:update={(event) => change(rule, { holidays: event.detail as ProgrammeRule['holidays'] })}
					>
						<SelectItem value="too" text="as on any day" />
						<SelectItem value="only" text="only then" />
						<SelectItem value="never" text="never" />
					</Select>
					<Checkbox
						labelText="Again and again, for a short while each time"
						checked={rule.each !== null}
						on:check={(event) =>
							event.detail !== (rule.each !== null) &&
							change(rule, { each: event.detail ? { everyMin: 60, forMin: 2 } : null })}
					/>
					{#if rule.each}
						<div class="two">
							<NumberInput
								size="sm"
								labelText="Every (min)"
								min={2}
								max={720}
								value={rule.each.everyMin}
								on:change={(event) =>
									event.detail !== null && change(rule, { each: { ...rule.each!, everyMin: event.detail } })}
							/>
							<NumberInput
								size="sm"
								labelText="For (min)"
								min={1}
								max={719}
								value={rule.each.forMin}
								on:change={(event) =>
									event.detail !== null && change(rule, { each: { ...rule.each!, forMin: event.detail } })}
							/>
						</div>
					{/if}
					<NumberInput
						size="sm"
						labelText="Softer than otherwise (dB)"
						min={0}
						max={60}
						step={3}
						value={rule.quieterDb}
						on:change={(event) => event.detail !== null && change(rule, { quieterDb: event.detail })}
					/>
				</details>
				<div class="row">
					<Button kind="ghost" size="small" on:click={() => duplicate(rule, n)}>Duplicate</Button>
					<Button
						kind="ghost"
						size="small"
						on:click={() =>
							view.set(
								'programme.rules',
								rules.filter(({ id }) => id !== rule.id)
							)}>Take out</Button
					>
				</div>
			{/if}
		</section>
	{:else}
		<p class="soft">None: the whole list is on at any hour.</p>
	{/each}
</div>
{#if rules.length > 1}<p class="small soft">Of rules that hold at once the upper one wins.</p>{/if}
<Button kind="tertiary" size="small" disabled={rules.length >= 300} on:click={add}>Add a rule</Button>
{#if rules.length}
	<ChoiceField
		path="programme.otherwise"
		value={programme.otherwise}
		options={[
			{ value: 'all', text: 'Everything is on' },
			{ value: 'rest', text: 'Nothing is on' }
		]}
	/>
{/if}

<style>
	.rules {
		display: grid;
		gap: 6px;
	}
	.rule {
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 6px 10px;
		background: var(--sheet);
		display: grid;
		gap: 8px;
	}
	.head {
		display: flex;
		gap: 8px;
		align-items: center;
	}
	.name {
		flex: 1;
		display: grid;
		gap: 1px;
		text-align: left;
		background: none;
		border: 0;
		padding: 4px 0;
		color: var(--ink);
		cursor: pointer;
		font: inherit;
	}
	.move {
		display: flex;
	}
	.move button {
		width: 32px;
		height: 32px;
		border: 1px solid var(--rule-strong);
		background: var(--sheet);
		color: var(--ink);
		cursor: pointer;
	}
	.move button + button {
		border-left: 0;
	}
	.move button:disabled {
		color: var(--ink-soft);
		opacity: 0.5;
		cursor: default;
	}
	details {
		display: grid;
		gap: 8px;
	}
	details[open] > :global(*) {
		margin-bottom: 8px;
	}
	summary {
		cursor: pointer;
		font-size: var(--size-small);
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 8px;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 4px;
	}
</style>
