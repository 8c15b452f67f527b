<script lang="ts">
	import { whenInWords } from '$core/links/delivery/claims';
	import { isWeb } from '$core/links/delivery/settings';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const delivery = $derived(view.plan.delivery);
	const { facts } = $derived(view.context);
	const many = (count: number | undefined, one: string, more = `${one}s`): string[] =>
		count ? [`${count} ${count === 1 ? one : more}`] : [];
	const packed = $derived([
		...many(facts.pages?.length, 'page'),
		...many(facts.programme?.rules.length, 'rule'),
		...many(facts.entries?.length, 'entry', 'entries')
	]);
	const stations = $derived([
		{
			title: 'Packed here',
			says: packed.join(', ') || 'nothing yet',
			guard: delivery.publicKey ? 'signed with your key' : 'not signed',
			bad: false
		},
		{
			title: isWeb(delivery) ? 'Waits on the web' : delivery.from ? 'Waits in a folder' : 'Waits nowhere yet',
			says: delivery.from || 'say where',
			guard: 'files under their own digests',
			bad: delivery.from === ''
		},
		{
			title: 'Fetched',
			says: whenInWords(delivery.times),
			guard: delivery.publicKey ? 'signature, then each digest' : 'each digest',
			bad: false
		},
		{
			title: 'Shown',
			says: 'by one link that changes at once',
			guard: 'taken back if it does not come to life',
			bad: false
		}
	]);
</script>

<figure class="sheet">
	<figcaption><b>The way of new content</b></figcaption>
	<ol>
		{#each stations as { title, says, guard, bad } (title)}
			<li class:bad>
				<b>{title}</b>
				<span class="says">{says}</span>
				<span class="guard small">{guard}</span>
			</li>
		{/each}
	</ol>
	<div class="kept" aria-label="What stays on the endpoint">
		<span class="soft small">On the endpoint stay</span>
		<span class="set now">the set that is shown</span>
		<span class="set">the one before</span>
		<span class="set">what the card brought</span>
	</div>
</figure>

<style>
	ol {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
		gap: 10px 26px;
		margin: 10px 0 14px;
		padding: 0;
		list-style: none;
	}
	li {
		position: relative;
		display: grid;
		gap: 4px;
		align-content: start;
		padding: 10px 12px;
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		background: var(--paper);
	}
	li:not(:last-child)::after {
		content: '';
		position: absolute;
		right: -19px;
		top: 24px;
		width: 9px;
		height: 9px;
		border: solid var(--trace);
		border-width: 2px 2px 0 0;
		transform: rotate(45deg);
	}
	li.bad {
		border-color: var(--signal);
	}
	li.bad .says {
		color: var(--signal);
	}
	.says {
		overflow-wrap: anywhere;
	}
	.guard {
		color: var(--ink-soft);
		border-top: 1px solid var(--rule);
		padding-top: 4px;
	}
	.kept {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
	.set {
		padding: 2px 10px;
		border: 1px solid var(--rule-strong);
		border-radius: 999px;
		font-size: var(--size-small);
	}
	.set.now {
		border-color: var(--trace);
		border-width: 2px;
		font-weight: 700;
	}
	/* On a phone the stations stand below one another. */
	@media (max-width: 700px) {
		ol {
			grid-template-columns: 1fr;
			gap: 22px;
		}
		li:not(:last-child)::after {
			right: auto;
			left: 24px;
			top: auto;
			bottom: -17px;
			transform: rotate(135deg);
		}
	}
</style>
