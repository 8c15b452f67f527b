<script lang="ts">
	import { formatBytes } from '$core/basics/format';
	import { fingerprint, type HostDisk, type HostSystem } from '$core/disks/disk';
	import { LISTING_COMMANDS, readDisks } from '$core/disks/read';
	import { judgeDisks, pulledOut } from '$core/disks/verdict';
	import { sentence } from '$core/basics/result';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import Mark from '$lib/shell/Mark.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	interface Props {
		chosen: HostDisk | null;
	}
	let { chosen = $bindable() }: Props = $props();
	const view = useEndpoint();
	const SYSTEMS: Readonly<Record<HostSystem, string>> = {
		linux: 'Linux',
		macos: 'macOS',
		windows: 'Windows, in PowerShell'
	};
	let first = $state('');
	let second = $state('');
	const wanted = $derived({
		imageBytes: view.plan.card.image?.rawBytes ?? null,
		cardGb: view.context.part('card', view.plan.parts.card)?.capacityGb ?? null
	});
	const before = $derived(first.trim() === '' ? null : readDisks(first));
	const after = $derived(second.trim() === '' ? null : readDisks(second));
	const verdicts = $derived(before?.ok ? judgeDisks(before.value.disks, wanted) : []);
	const gone = $derived(before?.ok && after?.ok ? pulledOut(before.value.disks, after.value.disks) : null);
	const WORDS = { card: 'this is the card', maybe: 'maybe', never: 'never' } as const;
	const LEVELS = { card: null, maybe: 'caution', never: 'stop' } as const;

	/** Another listing: what was chosen from the old one is chosen no longer. */
	$effect(() => {
		if (
			chosen &&
			!verdicts.some(({ disk, verdict }) => verdict !== 'never' && fingerprint(disk) === fingerprint(chosen!))
		)
			chosen = null;
	});
	const mayChoose = (disk: HostDisk, verdict: keyof typeof WORDS): boolean =>
		verdict === 'card' || (verdict === 'maybe' && gone !== null && fingerprint(gone) === fingerprint(disk));
</script>

<section class="sheet" aria-label="The right disk">
	<h2>2. The right disk</h2>
	<p class="soft small">Put the card in. Run the line for your computer, and paste all that it prints.</p>
	<ul class="commands">
		{#each Object.entries(LISTING_COMMANDS) as [system, command] (system)}
			<li>
				<span class="small">{SYSTEMS[system as HostSystem]}</span>
				<div class="line"><code>{command}</code><CopyButton text={command} /></div>
			</li>
		{/each}
	</ul>
	<label class="small soft"
		>What it printed, with the card in<textarea rows="4" class="mono" spellcheck="false" bind:value={first}
		></textarea></label
	>
	{#if before && !before.ok}<p class="bad small" role="alert">{sentence(before.faults)}</p>{/if}
	{#if verdicts.length}
		<ul class="disks">
			{#each verdicts as { disk, verdict, reasons }, n (n)}
				{@const isGone = gone !== null && fingerprint(gone) === fingerprint(disk)}
				<li class={verdict} data-disk={disk.id}>
					<Mark level={LEVELS[verdict]} />
					<div>
						<b>{disk.id}</b>
						<span class="mono small">{disk.sizeBytes === null ? '?' : formatBytes(disk.sizeBytes)}</span>
						{disk.model}
						<p class="small soft">
							<b>{isGone && verdict === 'maybe' ? 'it was pulled out: this is the card' : WORDS[verdict]}</b> — {reasons.join(
								'; '
							)}
						</p>
					</div>
					{#if mayChoose(disk, verdict)}
						<button
							type="button"
							class="plain"
							aria-pressed={chosen !== null && fingerprint(chosen) === fingerprint(disk)}
							onclick={() => (chosen = disk)}
							>{chosen !== null && fingerprint(chosen) === fingerprint(disk) ? 'Chosen' : 'Choose'}</button
						>
					{/if}
				</li>
			{/each}
		</ul>
		{#if verdicts.some(({ verdict }) => verdict === 'maybe')}
			<label class="small soft"
				>Not sure? Pull the card out, run the same line again, and paste that here: what is missing is the card<textarea
					rows="3"
					class="mono"
					spellcheck="false"
					bind:value={second}></textarea></label
			>
			{#if after && !after.ok}<p class="bad small" role="alert">{sentence(after.faults)}</p>
			{:else if after && !gone}<p class="bad small" role="alert">
					Between the two, not exactly one disk went. Put the card back, begin with the first listing again.
				</p>
			{:else if gone}<p class="small" role="status">{gone.id} went: put the card back in before you go on.</p>{/if}
		{/if}
	{/if}
</section>

<style>
	section {
		display: grid;
		gap: 8px;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
		gap: 5px;
	}
	label {
		display: grid;
		gap: 3px;
	}
	textarea {
		font-size: var(--size-small);
	}
	.disks li {
		display: grid;
		grid-template-columns: 20px minmax(0, 1fr) auto;
		gap: 8px;
		align-items: start;
		padding: 7px 10px;
		border-radius: var(--radius);
		border: 1px solid var(--rule);
	}
	.disks .card {
		background: var(--bottle-wash);
	}
	.disks .maybe {
		background: var(--amber-wash);
	}
	.disks .never {
		background: var(--brick-wash);
	}
	.plain[aria-pressed='true'] {
		background: var(--bottle);
		color: var(--on-bottle);
	}
</style>
