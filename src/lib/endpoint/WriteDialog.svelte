<script lang="ts">
	import { Modal, PasswordInput, ProgressBar } from 'carbon-components-svelte';
	import { askedFor, takeSecrets } from '$core/engines/secrets';
	import { sentence } from '$core/basics/result';
	import { writers } from '$core/writers';
	import Mark from '$lib/shell/Mark.svelte';
	import { download, safeName } from '$lib/shell/download';
	import { Packer } from '$lib/pack/packer.svelte';
	import { store } from '$lib/store/workshop.svelte';
	import { useEndpoint } from './view.svelte';
	import VaultFields from './VaultFields.svelte';

	let { onclose }: { onclose: () => void } = $props();
	const view = useEndpoint();
	const stops = $derived(view.assessment.findings.filter((finding) => finding.level === 'stop'));
	const asked = $derived(askedFor(writers, view.plan, view.surroundings));
	/** By the id of what is asked for. */
	let typed = $state<Record<string, string>>({});
	/** What is new is typed a second time. */
	let again = $state<Record<string, string>>({});
	let problems = $state<Record<string, string>>({});
	/** The vault's pass phrase, when the secrets are to be kept there. */
	let keepWith = $state<string | null>(null);
	let vaultProblem = $state('');
	let failed = $state('');
	const packer = new Packer();
	let busy = $state(false);

	/** What was said of the last ones holds no longer. */
	$effect(() => {
		void [JSON.stringify(typed), JSON.stringify(again)];
		problems = {};
	});

	async function writeSet(): Promise<void> {
		failed = '';
		problems = {};
		busy = true;
		try {
			const slip = asked.find(({ id, isNew }) => isNew && typed[id] !== again[id]);
			const taken = takeSecrets(asked, typed, () => crypto.getRandomValues(new Uint8Array(16)));
			if (!taken.ok) {
				problems = Object.fromEntries(taken.faults.map(({ where, message }) => [where, message]));
				return;
			}
			if (slip) {
				problems = { [slip.id]: 'The two are not the same. Type both once more.' };
				return;
			}
			if (keepWith !== null) {
				const { keepInVault } = await import('$lib/vault/keeping');
				const entry = Object.fromEntries(asked.map(({ id }) => [id, typed[id]!]));
				const kept = await keepInVault(view.endpoint!.id, entry, keepWith);
				vaultProblem = kept.ok ? '' : sentence(kept.faults);
				if (!kept.ok) return;
			}
			const secrets = taken.value;
			const workshop = store.workshop!;
			const made = await packer.run(async (remote, onPart, signal) =>
				remote.cardSet(workshop, view.endpoint!.id, { ...secrets, ...(await packer.drawn(view, signal)) }, onPart)
			);
			if (!made) return;
			download(`${safeName(view.plan.brief.name)}-card-set.zip`, made.zip);
			store.changeEndpoint(view.endpoint!.id, 'write the card set', (endpoint) => ({
				...endpoint,
				written: made.written
			}));
			store.said = 'Card set written; the run sheet says what to do with it';
			typed = {};
			again = {};
			onclose();
		} catch (error) {
			failed = `The set could not be made: ${(error as Error).message}. Nothing was downloaded; try again.`;
		} finally {
			busy = false;
		}
	}
</script>

<Modal
	open
	modalHeading={`Download the card set of ${view.plan.brief.name}`}
	primaryButtonText={busy ? 'Making the set …' : 'Download the set'}
	secondaryButtonText={busy ? 'Stop' : 'Not now'}
	primaryButtonDisabled={busy || stops.length > 0 || asked.some(({ id, isNew }) => !typed[id] || (isNew && !again[id]))}
	on:click:button--secondary={() => (busy ? packer.cancel() : onclose())}
	on:close={() => {
		packer.cancel();
		onclose();
	}}
	on:submit={writeSet}
>
	{#if stops.length}
		<p>A plan with a stop is never written: the endpoint would not do what you want. Mend these first.</p>
		<ul>
			{#each stops as stop, n (n)}
				<li>
					<Mark level="stop" />
					<a href={`/endpoint/${view.endpoint!.id}/plan/${stop.link}`} onclick={onclose}>{stop.title}</a>
				</li>
			{/each}
		</ul>
	{:else}
		<p>
			{view.files.length} files in one archive. Unpack it, and copy what is inside <code>boot</code> onto the card's first
			partition. Nothing leaves this computer.
		</p>
		{#if packer.busy}<ProgressBar
				value={packer.part * 100}
				labelText={packer.draws ? 'Drawing the pages' : 'Making the set'}
				helperText={`${Math.round(packer.part * 100)} %`}
			/>{/if}
		{#if failed}<p class="bad" role="alert">{failed}</p>{/if}
		{#each asked as one (one.id)}
			<div class="pass">
				<PasswordInput
					labelText={one.label}
					helperText={one.hint(typed[one.id] ?? '')}
					bind:value={typed[one.id]}
					autocomplete={one.isNew ? 'new-password' : 'off'}
					maxlength={one.longest}
					invalid={!!problems[one.id]}
					invalidText={problems[one.id] ?? ''}
				/>
				{#if one.isNew}
					<PasswordInput
						labelText="The same password once more"
						bind:value={again[one.id]}
						autocomplete="new-password"
						maxlength={one.longest}
					/>
				{/if}
			</div>
		{/each}
		{#if asked.length}
			<p class="soft small">
				Until the endpoint has put them in place, whoever opens the archive or the card can read what stands in them.
				After that the administrator alone can{view.plan.card.secretsLeave
					? ', and nothing of it is left on the first partition'
					: ', on the first partition too: choose under Card whether they leave it'}.
			</p>
			<VaultFields
				endpointId={view.endpoint!.id}
				bind:keepWith
				onentry={(entry) => {
					typed = { ...typed, ...entry };
					again = { ...again, ...entry };
				}}
			/>
			{#if vaultProblem}<p class="bad" role="alert">{vaultProblem}</p>{/if}
		{/if}
	{/if}
</Modal>

<style>
	ul {
		list-style: none;
		padding: 0;
	}
	li {
		display: flex;
		gap: 8px;
		align-items: center;
		padding: 4px 0;
	}
	.pass {
		display: grid;
		gap: 10px;
		margin-top: 16px;
	}
</style>
