<script lang="ts">
	import { Button, Select, SelectItem } from 'carbon-components-svelte';
	import { movedBy, stretchedBy } from '$core/links/programme/rules/ruleEdits';
	import { store } from '$lib/store/workshop.svelte';
	import { changeRule, changeRules, nameOf, placeOf, STEP_MIN, type WeekView } from './week.svelte';

	const { week }: { week: WeekView } = $props();
	const endpoint = $derived(week.rows.find((row) => row.endpoint.id === week.chosen?.endpoint)?.endpoint);
	const rule = $derived(endpoint?.plan.programme.rules.find(({ id }) => id === week.chosen?.rule));
	const others = $derived(week.rows.map((row) => row.endpoint).filter(({ id }) => id !== endpoint?.id));
	let copyTo = $state('');

	const STEPS = [
		[`${STEP_MIN} min earlier`, 'move a rule', movedBy, -STEP_MIN],
		[`${STEP_MIN} min later`, 'move a rule', movedBy, STEP_MIN],
		[`${STEP_MIN} min longer`, 'stretch a rule', stretchedBy, STEP_MIN],
		[`${STEP_MIN} min shorter`, 'stretch a rule', stretchedBy, -STEP_MIN]
	] as const;
	/** The rule goes along; a playlist is known only where it was made, so the other shows everything. */
	function copyRule(): void {
		const target = others.find(({ id }) => id === copyTo) ?? others[0];
		if (!target || !rule) return;
		const copy = {
			...rule,
			id: `rule-${crypto.randomUUID().slice(0, 8)}`,
			show: rule.show === 'rest' ? rule.show : 'all'
		};
		if (changeRules(target.id, 'copy a rule', (rules) => [copy, ...rules]) === null)
			store.offerUndo(`Copied to ${target.plan.brief.name}.`);
	}
</script>

{#if rule && endpoint}
	<section class="sheet" aria-label="The chosen rule">
		<b>{nameOf(rule)}</b>
		<span class="soft small">{endpoint.plan.brief.name}; a change holds for all its days</span>
		<div class="row">
			{#each STEPS as [words, label, edit, byMin] (words)}
				<Button
					kind="tertiary"
					size="small"
					on:click={() => changeRule(endpoint.id, rule.id, label, (one) => edit(one, byMin))}>{words}</Button
				>
			{/each}
			{#if others.length}
				<Select
					size="sm"
					hideLabel
					labelText="To which endpoint"
					selected={copyTo || others[0]!.id}
					on:update={(event) => (copyTo = String(event.detail))}
				>
					{#each others as { id, plan } (id)}<SelectItem value={id} text={plan.brief.name} />{/each}
				</Select>
				<Button kind="tertiary" size="small" on:click={copyRule}>Copy the rule there</Button>
			{/if}
			<a href={placeOf(endpoint, rule.id)}>Open the rule</a>
		</div>
	</section>
{:else}
	<p class="soft small">
		Press a rule’s bar to change it{week.zoom === 'season' ? '' : '; drag it, or its end'}; by keyboard with the arrows,
		its end with Shift.
	</p>
{/if}

<style>
	section {
		margin-top: 8px;
		display: grid;
		gap: 6px;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
</style>
