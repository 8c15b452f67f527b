<script lang="ts">
	import { wrap, type Remote } from 'comlink';
	import { onDestroy } from 'svelte';
	import { Button } from 'carbon-components-svelte';
	import { chain } from '$core/chain';
	import { judges } from '$core/judges';
	import { assess } from '$core/engines/assess';
	import { contextFor } from '$core/engines/context';
	import { curesOf } from '$core/engines/cure';
	import type { Fix } from '$core/link/finding';
	import { startOfDayMs } from '$core/onAir/slices';
	import type { Airtime } from '$core/links/programme/rules/year';
	import type { Endpoint } from '$core/plan/workshop';
	import { store } from '$lib/store/workshop.svelte';
	import { nameOf, placeOf, type Row, type WeekView } from './week.svelte';
	import type { YearWorker } from './yearWorker';

	const { week }: { week: WeekView } = $props();
	/** What a year comes to, by endpoint; worked out away from the page, one endpoint after the other. */
	let year = $state.raw<readonly { readonly endpoint: Endpoint; readonly air: Airtime }[]>([]);
	let problem = $state('');
	const failed = (why: string): void => void (problem = `The year could not be worked out: ${why}`);
	let worker: Worker | null = null;
	let remote: Remote<YearWorker> | null = null;
	onDestroy(() => worker?.terminate());
	function ready(): Remote<YearWorker> {
		if (!remote) {
			worker = new Worker(new URL('./yearWorker.ts', import.meta.url), { type: 'module' });
			worker.onerror = (event) => {
				failed(event.message);
				// Tried anew with the next change.
				remote = null;
			};
			remote = wrap<YearWorker>(worker);
		}
		return remote;
	}
	/** As long as neither its rules nor the venue nor the day change. */
	const known = new WeakMap<Row, { readonly from: number; readonly air: Airtime }>();
	$effect(() => {
		const { rows, venue } = week;
		const [from, until] = [0, 365].map((days) => startOfDayMs(venue.timeZone, week.today + days)) as [number, number];
		let isCurrent = true;
		void (async () => {
			const found: { endpoint: Endpoint; air: Airtime }[] = [];
			try {
				for (const row of rows) {
					const { endpoint } = row;
					let air = known.get(row)?.from === from ? known.get(row)!.air : null;
					air ??= await ready().year(endpoint.plan.programme, venue, from, until);
					known.set(row, { from, air });
					if (!isCurrent) return;
					found.push({ endpoint, air });
				}
				problem = '';
				year = found;
			} catch (error) {
				failed((error as Error).message);
			}
		})();
		return () => (isCurrent = false);
	});

	/** What the plan's own finding offers. */
	function fixesFor({ id, plan }: Endpoint, wanted: string): readonly Fix[] {
		const surroundings = contextFor(chain, store.workshop!, id, store.absent);
		const finding = assess(judges, plan, surroundings).findings.find((known) => known.id === `programme.${wanted}`);
		return finding ? curesOf(judges, plan, surroundings, finding) : [];
	}
	/** Where nothing starts by itself no rule comes to anything, and it is not the rules' fault. */
	const idle = $derived(
		week.rows
			.map(({ endpoint }) => endpoint)
			.filter(({ plan: { programme } }) => programme.used && programme.rules.length > 0 && !programme.startAtBoot)
	);
	const never = $derived(
		year
			.filter(({ endpoint }) => !idle.some(({ id }) => id === endpoint.id))
			.flatMap(({ endpoint, air }) =>
				air.never.flatMap(({ rule, behind }) => {
					const { rules } = endpoint.plan.programme;
					const known = rules.find(({ id }) => id === rule);
					if (!known) return [];
					const before = rules.find(({ id }) => id === behind);
					const fixes: readonly Fix[] = before
						? [
								{
									label: 'Put it first',
									apply: (plan) => ({
										...plan,
										programme: {
											...plan.programme,
											rules: [known, ...plan.programme.rules.filter(({ id }) => id !== rule)]
										}
									})
								}
							]
						: behind === null
							? fixesFor(endpoint, `rule-never-${rule}`)
							: [];
					return [{ endpoint, rule: known, behind: before ? nameOf(before) : behind && 'Quiet hours', fixes }];
				})
			)
	);
	function press(endpoint: Endpoint, fix: Fix): void {
		if (store.changePlan(endpoint.id, fix.label, (plan) => fix.apply(plan, Date.now())) === null)
			store.offerUndo(`Done: ${fix.label}.`);
	}
</script>

<section aria-label="What never comes in a year" aria-live="polite">
	{#each idle as endpoint (endpoint.id)}
		<div class="never">
			<b>No rule of {endpoint.plan.brief.name} is ever on</b>
			<p>Nothing starts by itself there.</p>
			<div class="row">
				{#each fixesFor(endpoint, 'rules-idle') as fix (fix.label)}<Button
						kind="tertiary"
						size="small"
						on:click={() => press(endpoint, fix)}>{fix.label}</Button
					>{/each}
			</div>
		</div>
	{/each}
	{#each never as { endpoint, rule, behind, fixes } (`${endpoint.id} ${rule.id}`)}
		<div class="never">
			<b>“{nameOf(rule)}” is never on</b>
			<p>
				{endpoint.plan.brief.name}, in the year from today: {behind === null
					? 'no day has all that it asks for.'
					: `where it would hold, “${behind}” goes before it.`}
			</p>
			<div class="row">
				{#each fixes as fix (fix.label)}<Button kind="tertiary" size="small" on:click={() => press(endpoint, fix)}
						>{fix.label}</Button
					>{/each}
				<a href={placeOf(endpoint, rule.id)}>Open the rule</a>
			</div>
		</div>
	{:else}
		<p class="soft small" hidden={idle.length > 0 && !problem && year.length > 0}>
			{problem ||
				(year.length ? 'In the year from today every rule has its turn.' : 'Working out the year from today \u2026')}
		</p>
	{/each}
</section>

<style>
	section {
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
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
</style>
