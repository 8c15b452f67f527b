<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { chain } from '$core/chain';
	import { drawerOf } from '$core/engines/context';
	import { costOfUse, shoppingCsv, shoppingList } from '$core/engines/shopping';
	import { KINDS } from '$core/parts/schema';
	import { shippingSchema } from '$core/plan/workshop';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { download, safeName } from '$lib/shell/download';
	import { store } from '$lib/store/workshop.svelte';

	const workshop = $derived(store.workshop!);
	/** Endpoints left out; so that a new one is in by itself. */
	let leftOut = $state.raw<ReadonlySet<string>>(new Set());
	const ids = $derived(workshop.endpoints.filter(({ id }) => !leftOut.has(id)).map(({ id }) => id));
	const list = $derived(shoppingList(chain, workshop, ids));
	const use = $derived(costOfUse(chain, workshop, ids));
	const csv = $derived(shoppingCsv(list, workshop));
	const nameOf = (id: string): string => drawerOf(workshop.parts).byId.get(id)?.name ?? id;
	const currency = $derived(workshop.venue.currency);
	const money = (value: number): string => value.toFixed(2);
	const yearly = $derived(use.reduce((sum, { costPerYear }) => sum + costPerYear, 0));
	let label = $state('');
	let price = $state('');
	let error = $state('');

	function toggle(id: string): void {
		const next = new Set(leftOut);
		if (!next.delete(id)) next.add(id);
		leftOut = next;
	}
	function addShipping(event: SubmitEvent): void {
		event.preventDefault();
		const parsed = shippingSchema.safeParse({
			label,
			price: price.trim() === '' ? undefined : Number(price.replace(',', '.'))
		});
		error = parsed.success ? '' : 'Say for what, and how much, as a number.';
		if (!parsed.success) return;
		store.change('add shipping', (current) => ({ ...current, shipping: [...current.shipping, parsed.data] }));
		label = price = '';
	}
	const dropShipping = (n: number): void =>
		void store.change('remove shipping', (current) => ({
			...current,
			shipping: current.shipping.filter((_, k) => k !== n)
		}));
</script>

<svelte:head><title>Shopping list · Yphos</title></svelte:head>
<div class="page">
	<header>
		<div>
			<h1>Shopping list</h1>
			<p class="soft">
				For {ids.length === workshop.endpoints.length
					? 'all endpoints'
					: `${ids.length} of ${workshop.endpoints.length} endpoints`}; kinds merged, what is there already taken off.
			</p>
		</div>
		<div class="row unprinted">
			<Button on:click={() => download(`${safeName(workshop.venue.name)}-shopping.csv`, csv, 'text/csv')}
				>Download CSV</Button
			>
			<CopyButton text={csv} />
			<Button kind="tertiary" on:click={() => print()}>Print</Button>
		</div>
	</header>
	<fieldset class="unprinted">
		<legend class="soft small">For whom</legend>
		{#each workshop.endpoints as { id, plan } (id)}
			<label><input type="checkbox" checked={!leftOut.has(id)} onchange={() => toggle(id)} /> {plan.brief.name}</label>
		{/each}
	</fieldset>
	<div class="columns">
		<section class="sheet">
			<table class="rows">
				<thead>
					<tr>
						<th scope="col">Part</th><th scope="col" class="n spare">needed</th><th scope="col" class="n">there</th><th
							scope="col"
							class="n">buy</th
						><th scope="col" class="n spare">each</th><th scope="col" class="n">{currency}</th>
					</tr>
				</thead>
				<tbody>
					{#each list.lines as line (line.part.id)}
						<tr class:done={line.toBuy === 0}>
							<td>{line.part.name}<small class="soft">{KINDS[line.part.kind]} · {line.forWhom.join(', ')}</small></td>
							<td class="n mono spare">{line.needed}</td>
							<td class="n">
								<button
									type="button"
									class="plain unprinted"
									disabled={line.there === 0}
									aria-label={`One less there: ${line.part.name}`}
									onclick={() => store.own(line.part.id, -1, line.part.name)}>−</button
								>
								<span class="mono">{line.there}</span>
								<button
									type="button"
									class="plain unprinted"
									aria-label={`I have this already: ${line.part.name}`}
									onclick={() => store.own(line.part.id, 1, line.part.name)}>+</button
								>
							</td>
							<td class="n mono"><b>{line.toBuy}</b></td>
							<td class="n mono spare">{line.part.price === null ? '?' : money(line.part.price)}</td>
							<td class="n mono">{line.cost === null ? '?' : money(line.cost)}</td>
						</tr>
					{:else}
						<tr><td colspan="6" class="soft">No parts are chosen yet. Begin with the Parts of an endpoint.</td></tr>
					{/each}
				</tbody>
				<tbody>
					{#each workshop.shipping as line, n (n)}
						<tr>
							<td colspan="5"
								>{line.label}
								<button
									type="button"
									class="plain unprinted"
									aria-label={`Remove ${line.label}`}
									onclick={() => dropShipping(n)}>×</button
								></td
							>
							<td class="n mono">{money(list.shippingCost > 0 ? line.price : 0)}</td>
						</tr>
					{/each}
				</tbody>
				<tfoot>
					<tr>
						<th scope="row" colspan="5">Together{list.unpriced ? `, ${list.unpriced} without a price left out` : ''}</th
						>
						<td class="n mono"><b>{money(list.total)}</b></td>
					</tr>
				</tfoot>
			</table>
			<form class="unprinted" onsubmit={addShipping}>
				<input placeholder="Shipping, from whom" aria-label="Shipping, from whom" bind:value={label} />
				<input class="mono" placeholder={currency} aria-label="Shipping price" inputmode="decimal" bind:value={price} />
				<button type="submit" class="plain">Add shipping</button>
				{#if error}<span class="bad small" role="alert">{error}</span>{/if}
			</form>
		</section>
		<div class="side">
			<section class="sheet">
				<h2>Kit or apart?</h2>
				{#each list.kits as { kit, apart, saving, unneeded } (kit.id)}
					<p>
						<b>{kit.name}</b> once, the rest as bare parts: <span class="mono">{money(list.total - saving)}</span>
						{currency}.
						{saving > 0 ? `It saves ${money(saving)}.` : `It costs ${money(-saving)} more.`}
						<small class="soft"
							>{money(kit.price!)} for what costs {money(apart)} apart{unneeded.length
								? `; not needed of it: ${unneeded.map(nameOf).join(', ')}`
								: ''}.</small
						>
					</p>
				{:else}
					<p class="soft">No kit in the drawer has a board that is still to be bought.</p>
				{/each}
			</section>
			<section class="sheet">
				<h2>A year of use</h2>
				<table class="rows">
					<tbody>
						{#each use as { id, name, kwhPerYear, costPerYear } (id)}
							<tr
								><td>{name}</td><td class="n mono">{kwhPerYear.toFixed(0)} kWh</td><td class="n mono"
									>{money(costPerYear)}</td
								></tr
							>
						{:else}
							<tr><td class="soft">Choose supplies, and the yearly cost stands here.</td></tr>
						{/each}
					</tbody>
					<tfoot>
						<tr
							><th scope="row" colspan="2">All, {currency} a year</th><td class="n mono"><b>{money(yearly)}</b></td></tr
						>
					</tfoot>
				</table>
				<p class="soft small">
					At {workshop.venue.pricePerKwh}
					{currency} a kWh, with the hours set under Power. Screens and amplifiers with their own plug are in it.
					<a href="/venue">Change the tariff</a>.
				</p>
			</section>
		</div>
	</div>
</div>

<style>
	fieldset {
		border: 0;
		margin: 0;
		padding: 0;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
	}
	legend {
		float: left;
		margin-right: 14px;
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1.7fr) minmax(260px, 1fr);
		gap: 14px;
		align-items: start;
	}
	.side {
		display: grid;
		gap: 14px;
	}
	.side p {
		margin-top: 8px;
	}
	.side p small {
		display: block;
	}
	tfoot :is(th, td) {
		border-bottom: 0;
		border-top: 1px solid var(--rule-strong);
		padding-top: 7px;
		font-size: var(--size-text);
		font-weight: 700;
	}
	td small {
		display: block;
	}
	tr.done td {
		color: var(--ink-faint);
	}
	.plain {
		padding: 1px 7px;
	}
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		margin-top: 10px;
		align-items: center;
	}
	form input {
		height: 32px;
		width: 190px;
	}
	form input.mono {
		width: 80px;
	}
	form .plain {
		height: 32px;
	}
	@media (max-width: 980px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 760px) {
		.spare {
			display: none;
		}
	}
	@media print {
		.unprinted {
			display: none;
		}
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
		:global(.aside),
		:global(.narrow) {
			display: none !important;
		}
		:global(.frame) {
			display: block !important;
		}
	}
</style>
