<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { isWeb } from '$core/links/delivery/settings';
	import { makeKeys } from '$core/links/delivery/sign';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { TextField } from '$lib/fields';
	import { download } from '$lib/shell/download';
	import { store } from '$lib/store/workshop.svelte';

	const view = useEndpoint();
	const delivery = $derived(view.plan.delivery);
	const { facts } = $derived(view.context);
	const places = $derived(
		(facts.stores ?? []).map(({ at, words }) => [`${at}/${facts.hostName}`, `a folder of ${words}`] as const)
	);
	let failed = $state('');

	async function makeKey(): Promise<void> {
		failed = '';
		try {
			const { publicKey, privatePem } = await makeKeys(crypto.subtle);
			failed = view.set('delivery.publicKey', publicKey) ?? '';
			if (failed) return;
			download('yphos-signing-key.pem', privatePem, 'application/x-pem-file');
			store.said = 'Signing key made: keep the file that was downloaded';
		} catch (error) {
			failed = `No key could be made: ${(error as Error).message}.`;
		}
	}
</script>

<TextField
	path="delivery.from"
	value={delivery.from}
	placeholder={`https://files.example/${facts.hostName}`}
	mono
	choices={places}
	hint={isWeb(delivery)
		? 'A folder of a web server. Anything that hands out files does: no program is asked for there.'
		: 'A folder of a web server, or one on a share or stick of Sources.'}
/>
<TextField
	path="delivery.times"
	value={delivery.times.join(', ')}
	placeholder="04:30, 12:00"
	hint="Times of the day, with commas between; also two minutes after each start."
	put={(text) =>
		view.set(
			'delivery.times',
			text
				.split(/[,;\s]+/)
				.filter((time) => time !== '')
				.map((time) => (/^\d:/.test(time) ? `0${time}` : time))
		)}
/>
<section class="group" id="setting-delivery.publicKey">
	<h3>Signing key</h3>
	{#if delivery.publicKey}
		<p class="small">
			Only sets that are signed with your key are taken. It ends with
			<code class="mono">…{delivery.publicKey.slice(-14, -2)}</code>
		</p>
		<div class="row">
			<Button size="small" kind="tertiary" on:click={makeKey}>Make another key</Button>
			<Button size="small" kind="ghost" on:click={() => (failed = view.set('delivery.publicKey', '') ?? '')}
				>Ask for no signature</Button
			>
		</div>
		<p class="soft small">A new key counts when the card set has been written or sent once more.</p>
	{:else}
		<p class="small">
			Whoever can write into that folder decides what is shown. With a key of your own the endpoint takes your sets
			alone.
		</p>
		<Button size="small" kind="tertiary" on:click={makeKey}>Make a signing key</Button>
		<p class="soft small">The private half is downloaded as a file and kept nowhere else.</p>
	{/if}
	{#if failed}<p class="bad small" role="alert">{failed}</p>{/if}
</section>

<section class="group" id="setting-delivery.era">
	<h3>Order of sets</h3>
	<p class="small">
		A set counts as newer by the time at which it was packed. One that was packed under a clock years ahead would block
		all that come after it: begin counting anew, pack once more, and those of before are passed over for good{delivery.era
			? ` (begun anew ${delivery.era === 1 ? 'once' : `${delivery.era} times`} so far)`
			: ''}.
	</p>
	<Button size="small" kind="ghost" on:click={() => (failed = view.set('delivery.era', delivery.era + 1) ?? '')}
		>Begin counting anew</Button
	>
</section>

<style>
	section {
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	.bad {
		color: var(--signal);
	}
</style>
