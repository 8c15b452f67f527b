<script lang="ts">
	import { Modal, PasswordInput, ProgressBar } from 'carbon-components-svelte';
	import { checkPassword, LONGEST_PASSWORD, passwordBits, passwordWords } from '$core/formats/crypt/password';
	import { saltFrom, sha512crypt } from '$core/formats/crypt/sha512crypt';
	import { derivePsk } from '$core/formats/keyfile/psk';
	import { checkPhonePassword, LONGEST_PHONE_PASSWORD } from '$core/files/phonePassword';
	import { asksPhonePassword } from '$core/links/picture/phonePage';
	import { asksPassword, storeWords } from '$core/links/sources/stores';
	import { needsPassword } from '$core/links/network/login';
	import { sentence } from '$core/basics/result';
	import Mark from '$lib/shell/Mark.svelte';
	import { download, safeName } from '$lib/shell/download';
	import { Packer } from '$lib/pack/packer.svelte';
	import { store } from '$lib/store/workshop.svelte';
	import { useEndpoint } from './view.svelte';
	import VaultFields from './VaultFields.svelte';

	let { onclose }: { onclose: () => void } = $props();
	const view = useEndpoint();
	const stops = $derived(view.assessment.findings.filter((finding) => finding.level === 'stop'));
	const radio = $derived(view.plan.network.way === 'radio');
	const keeper = $derived(needsPassword(view.plan.network));
	const shares = $derived(view.plan.sources.used ? view.plan.sources.stores.filter(asksPassword) : []);
	/** Passwords of shares, by the name of their folder. */
	let sharePasswords = $state<Record<string, string>>({});
	const asksPhone = $derived(asksPhonePassword(view.plan.picture, view.context.facts));
	let phone = $state('');
	let phoneProblem = $state('');
	let passphrase = $state('');
	let password = $state('');
	/** Typed a second time: one slip of the finger would lock its keeper out. */
	let again = $state('');
	let passwordProblem = $state('');
	const bits = $derived(passwordBits(password));
	/** The vault's pass phrase, when the secrets are to be kept there. */
	let keepWith = $state<string | null>(null);
	let vaultProblem = $state('');
	let problem = $state('');
	let failed = $state('');
	const packer = new Packer();
	let busy = $state(false);

	/** What was said of the last one holds no longer. */
	$effect(() => {
		void [password, again];
		passwordProblem = '';
	});

	const typed = (): Record<string, string> =>
		Object.fromEntries(shares.map(({ name }) => [name, sharePasswords[name] ?? '']));

	async function writeSet(): Promise<void> {
		problem = passwordProblem = phoneProblem = failed = '';
		busy = true;
		try {
			const key = radio ? derivePsk(view.plan.network.ssid, passphrase) : null;
			if (key && !key.ok) {
				problem = sentence(key.faults);
				return;
			}
			const good = keeper ? checkPassword(password, view.plan.network.user) : null;
			if (good && !good.ok) {
				passwordProblem = sentence(good.faults);
				return;
			}
			if (keeper && password !== again) {
				passwordProblem = 'The two are not the same. Type both once more.';
				return;
			}
			const said = asksPhone ? checkPhonePassword(phone) : null;
			if (said && !said.ok) {
				phoneProblem = sentence(said.faults);
				return;
			}
			if (keepWith !== null) {
				const { keepInVault } = await import('$lib/vault/keeping');
				const kept = await keepInVault(
					view.endpoint!.id,
					{
						...(keeper ? { password } : {}),
						...(radio ? { passphrase } : {}),
						...(shares.length ? { shares: typed() } : {}),
						...(asksPhone ? { phone } : {})
					},
					keepWith
				);
				vaultProblem = kept.ok ? '' : sentence(kept.faults);
				if (!kept.ok) return;
			}
			const crypt = keeper ? sha512crypt(password, saltFrom(crypto.getRandomValues(new Uint8Array(16)))) : null;
			const secrets = {
				...(key ? { radioPskHex: key.value } : {}),
				...(crypt?.ok ? { userPasswordCrypt: crypt.value } : {}),
				...(shares.length ? { sharePasswords: typed() } : {}),
				...(asksPhone ? { phonePassword: phone } : {})
			};
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
			passphrase = password = again = phone = '';
			sharePasswords = {};
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
	primaryButtonDisabled={busy ||
		stops.length > 0 ||
		(radio && passphrase === '') ||
		(keeper && (password === '' || again === '')) ||
		shares.some(({ name }) => !sharePasswords[name]) ||
		(asksPhone && phone === '')}
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
		{#if keeper}
			<div class="pass">
				<PasswordInput
					labelText={`Password for ${view.plan.network.user}, who looks after it`}
					helperText={password === ''
						? 'Three or four words in a row are easy to type. Yphos keeps it nowhere.'
						: `${passwordWords(bits)}: at most ${bits.toFixed(0)} bits for a guesser`}
					bind:value={password}
					autocomplete="new-password"
					maxlength={LONGEST_PASSWORD}
					invalid={passwordProblem !== ''}
					invalidText={passwordProblem}
				/>
				<PasswordInput
					labelText="The same password once more"
					bind:value={again}
					autocomplete="new-password"
					maxlength={LONGEST_PASSWORD}
				/>
			</div>
		{/if}
		{#if radio}
			<div class="pass">
				<PasswordInput
					labelText={`Wi-Fi password of "${view.plan.network.ssid}"`}
					helperText="Only the key made from it goes on the card. Yphos keeps neither."
					bind:value={passphrase}
					autocomplete="off"
					maxlength={63}
					invalid={problem !== ''}
					invalidText={problem}
				/>
			</div>
		{/if}
		{#each shares as store (store.name)}
			<div class="pass">
				<PasswordInput
					labelText={`Password of ${store.kind === 'smb' ? store.user : ''} for ${storeWords(store)}`}
					helperText="It stands on the card as you type it, and whoever has the card can read it: use an account that may only read."
					bind:value={sharePasswords[store.name]}
					autocomplete="off"
					maxlength={127}
				/>
			</div>
		{/each}
		{#if asksPhone}
			<div class="pass">
				<PasswordInput
					labelText="Password of the page for a phone"
					helperText="For those in charge on the spot. A digest of it goes on the card; it travels unencrypted, so take one that opens nothing else."
					bind:value={phone}
					autocomplete="off"
					maxlength={LONGEST_PHONE_PASSWORD}
					invalid={phoneProblem !== ''}
					invalidText={phoneProblem}
				/>
			</div>
		{/if}
		{#if keeper || radio || shares.length || asksPhone}
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
					password = again = entry.password ?? password;
					passphrase = entry.passphrase ?? passphrase;
					phone = entry.phone ?? phone;
					sharePasswords = { ...sharePasswords, ...entry.shares };
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
