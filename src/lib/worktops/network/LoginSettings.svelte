<script lang="ts">
	import { readPublicKey } from '$core/formats/ssh/publicKey';
	import { sentence } from '$core/basics/result';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, TextField } from '$lib/fields';

	const view = useEndpoint();
	const network = $derived(view.plan.network);
	const keys = $derived(network.sshKeys.map(readPublicKey));
	let error = $state('');

	function add(input: HTMLTextAreaElement): void {
		const lines = input.value.split('\n').filter((line) => line.trim() !== '');
		const read = lines.map(readPublicKey);
		const bad = read.find((key) => !key.ok);
		error = bad && !bad.ok ? sentence(bad.faults) : '';
		if (error || lines.length === 0) return;
		error = view.set('network.sshKeys', [...network.sshKeys, ...lines.map((line) => line.trim())]) ?? '';
		if (!error) input.value = '';
	}
	const remove = (n: number): string | null =>
		view.set(
			'network.sshKeys',
			network.sshKeys.filter((_, k) => k !== n)
		);
</script>

<h3>First start and login</h3>
<ChoiceField
	path="network.school"
	value={network.school}
	options={[
		{ value: 'files', text: 'Files on the card, no screen needed' },
		{ value: 'hotspot', text: 'A Wi-Fi network of its own, from a phone' },
		{ value: 'screen', text: 'A borrowed screen and keyboard' }
	]}
	hint={network.school === 'files'
		? 'Nothing to borrow, the same every time. What is wrong in the files shows only by silence.'
		: network.school === 'hotspot'
			? 'Easy for guests; only some images have it, and it stands open until you are done.'
			: 'You see what happens. It costs a screen, a keyboard and the right cable.'}
/>
<TextField path="network.user" value={network.user} mono hint="Not root or admin. Empty: nobody is made." />
{#if network.user}
	<ChoiceField
		path="network.login"
		value={network.login}
		options={[
			{ value: 'key', text: 'Key only' },
			{ value: 'password', text: 'Password' },
			{ value: 'both', text: 'Key or password' },
			{ value: 'none', text: 'Not at all' }
		]}
		hint={network.login === 'key'
			? 'Nothing to guess. Whoever has your computer’s key file gets in.'
			: network.login === 'password' || network.login === 'both'
				? 'It is asked for when the set is written, and kept nowhere.'
				: ''}
	/>
	{#if network.login === 'key' || network.login === 'both'}
		<div id="setting-network.sshKeys" class="keys">
			<ul>
				{#each keys as key, n (n)}
					<li>
						<span class="mono small">{key.ok ? `${key.value.type} · ${key.value.bits} bit` : 'not whole'}</span>
						<span class="small soft">{key.ok ? key.value.comment : ''}</span>
						<button type="button" class="plain" aria-label="Remove this key" onclick={() => remove(n)}>×</button>
					</li>
				{/each}
			</ul>
			<label class="small soft"
				>Paste a public key<textarea
					rows="2"
					class="mono"
					spellcheck="false"
					placeholder="ssh-ed25519 AAAA… you@your-computer"
					onchange={(event) => add(event.currentTarget)}></textarea></label
			>
			{#if error}<p class="bad small" role="alert">{error}</p>{/if}
		</div>
	{/if}
{/if}

<style>
	h3 {
		border-top: 1px solid var(--rule);
		padding-top: 10px;
	}
	.keys {
		display: grid;
		gap: 6px;
	}
	li {
		display: grid;
		grid-template-columns: auto 1fr auto;
		gap: 8px;
		align-items: center;
		border-bottom: 1px solid var(--rule);
		padding: 3px 0;
	}
	label {
		display: grid;
		gap: 4px;
	}
	textarea {
		font-size: var(--size-small);
	}
</style>
