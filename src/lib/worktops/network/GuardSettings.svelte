<script lang="ts">
	import { Checkbox } from 'carbon-components-svelte';
	import { pageUrl } from '$core/links/network/addresses';
	import { networkSettings } from '$core/links/network/settings';
	import { SwitchField } from '$lib/fields';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const guard = $derived(view.plan.network.guard);
	const pages = $derived(view.plan.network.pages);
	const updates = $derived(view.plan.network.updates);
	const putUpdates = (change: Partial<typeof updates>): string | null =>
		view.set('network.updates', { ...updates, ...change });
	let timeError = $state('');
	let rangesError = $state('');
	let pageError = $state('');
	let what = $state('');
	let port = $state('80');

	const put = (change: Partial<typeof guard>): string | null => view.set('network.guard', { ...guard, ...change });
	function typedRanges(text: string): void {
		rangesError = put({ ranges: text.split(/[\s,]+/).filter(Boolean) }) ?? '';
	}
	function addPage(event: SubmitEvent): void {
		event.preventDefault();
		const next = [...pages, { what, port: Number(port), tls: false, password: true }];
		const parsed = networkSettings.shape.pages.safeParse(next);
		pageError = parsed.success ? '' : parsed.error.issues[0]!.message;
		if (!parsed.success) return;
		view.set('network.pages', next);
		what = '';
	}
	const changePage = (n: number, change: Partial<(typeof pages)[number]> | null): string | null =>
		view.set(
			'network.pages',
			pages.flatMap((page, k) => (k !== n ? [page] : change ? [{ ...page, ...change }] : []))
		);
</script>

<section class="group" id="setting-network.guard">
	<h3>Firewall: allowed addresses</h3>
	<Checkbox
		labelText="Let in only these addresses"
		checked={guard.limited}
		on:check={(event) => event.detail !== guard.limited && put({ limited: event.detail })}
	/>
	{#if guard.limited}
		<label class="small soft"
			>Ranges, parted by spaces; none: the venue’s own<input
				class="mono"
				value={guard.ranges.join(' ')}
				aria-invalid={rangesError !== ''}
				onchange={(event) => typedRanges(event.currentTarget.value)}
			/></label
		>
		{#if rangesError}<p class="bad small" role="alert">{rangesError}</p>{/if}
	{/if}
	<Checkbox
		labelText="The router lets the internet in to it"
		checked={guard.exposed}
		on:check={(event) => event.detail !== guard.exposed && put({ exposed: event.detail })}
	/>
	<SwitchField
		path="network.fetchesNear"
		value={view.plan.network.fetchesNear}
		hint="Feeds and new content from a server of your own. Left off, a feed from outside cannot send the endpoint to your router or file server."
	/>
</section>
<section class="group" id="setting-network.updates">
	<h3>Updates</h3>
	<Checkbox
		labelText="Security updates by themselves, every night"
		checked={updates.nightly}
		on:check={(event) => event.detail !== updates.nightly && putUpdates({ nightly: event.detail })}
	/>
	{#if updates.nightly}
		<label class="small soft"
			>At, by the venue’s clock<input
				class="mono"
				value={updates.at}
				aria-invalid={timeError !== ''}
				onchange={(event) => (timeError = putUpdates({ at: event.currentTarget.value.trim() }) ?? '')}
			/></label
		>
		{#if timeError}<p class="bad small" role="alert">{timeError}</p>{/if}
		<p class="small soft">Known holes are closed soon. Once in a while an update breaks something unseen.</p>
	{:else}
		<p class="small soft">
			Nothing changes behind your back. Holes stay open until you come by; the run sheet reminds you.
		</p>
	{/if}
</section>
<section class="group" id="setting-network.pages">
	<h3>Its own pages</h3>
	<ul>
		{#each pages as page, n (n)}
			<li>
				<b>{page.what}</b> <span class="mono small">{pageUrl(view.plan.network, page)}</span>
				<span class="row small">
					<label
						><input type="checkbox" checked={page.tls} onchange={() => changePage(n, { tls: !page.tls })} /> https</label
					>
					<label
						><input
							type="checkbox"
							checked={page.password}
							onchange={() => changePage(n, { password: !page.password })}
						/> password</label
					>
					<button type="button" class="plain" aria-label={`Remove ${page.what}`} onclick={() => changePage(n, null)}
						>×</button
					>
				</span>
			</li>
		{:else}
			<li class="soft small">None. Ready-made players have one, mostly at port 80.</li>
		{/each}
	</ul>
	<form onsubmit={addPage}>
		<input placeholder="What it is for" aria-label="What the page is for" bind:value={what} />
		<input class="mono" aria-label="Port" inputmode="numeric" bind:value={port} />
		<button type="submit" class="plain">Add</button>
	</form>
	{#if pageError}<p class="bad small" role="alert">{pageError}</p>{/if}
</section>

<style>
	label {
		display: grid;
		gap: 3px;
	}
	input:not([type='checkbox']) {
		height: 32px;
		min-width: 0;
	}
	li {
		display: grid;
		gap: 2px;
		border-bottom: 1px solid var(--rule);
		padding: 4px 0;
	}
	.row {
		display: flex;
		gap: 14px;
		align-items: center;
	}
	.row label {
		display: flex;
		gap: 5px;
		align-items: center;
	}
	form {
		display: grid;
		grid-template-columns: 1fr 64px auto;
		gap: 6px;
	}
</style>
