<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { fillingsOf, fillLan } from '$core/probe/fill';
	import { store } from '$lib/store/workshop.svelte';
	import { nameCard } from '$core/probe/nameCard';

	const view = useEndpoint();
	const probe = $derived(view.context.probe);
	const fillings = $derived(probe ? fillingsOf(view.plan, probe, view.context.drawer) : []);
	const lan = $derived(probe ? fillLan(view.context.venue, probe) : null);
	/** All at once, as one step. */
	function fill(): void {
		const refused = store.change('fill in what the board said', (workshop) => ({
			...workshop,
			venue: lan ? { ...workshop.venue, lan } : workshop.venue,
			endpoints: workshop.endpoints.map((endpoint) =>
				endpoint.id === view.id()
					? { ...endpoint, plan: fillings.reduce((plan, filling) => filling.apply(plan), endpoint.plan) }
					: endpoint
			)
		}));
		if (refused === null) store.offerUndo('Filled in.');
	}
</script>

<div class="sheet">
	{#if probe}
		<h3>The board says of itself</h3>
		{#if fillings.length || lan}
			<div class="fill">
				<p>The plan can have from it:</p>
				<ul>
					{#each fillings as { what }, n (n)}<li>{what}</li>{/each}
					{#if lan}<li>The venue’s network: {lan.cidr}, its router taken to be {lan.gateway}</li>{/if}
				</ul>
				<button type="button" onclick={fill}>Fill it in</button>
			</div>
		{/if}
		<dl class="facts">
			<dt>Board</dt>
			<dd>{probe.model ?? 'not said'}{probe.memoryMb ? `, ${probe.memoryMb} MB` : ''}</dd>
			<dt>System</dt>
			<dd>{probe.system ?? 'not said'}</dd>
			{#each probe.soundDevices as device (`${device.cardId},${device.deviceNumber}`)}
				<dt>Sound</dt>
				<dd>
					<code>{device.cardId}</code>
					{device.cardName}
					{#if device.cardId === view.plan.sound.cardId}<span class="soft">· in use</span>{:else}<button
							type="button"
							onclick={() => view.edit(`Use ${device.cardId}`, nameCard(device))}>Use this</button
						>{/if}
				</dd>
			{/each}
			{#each probe.connectors as connector, n (n)}
				<dt>Screen socket</dt>
				<dd>{connector.name}: {connector.connected ? `a screen with ${connector.modes.length} modes` : 'empty'}</dd>
			{/each}
			{#each probe.disks as disk, n (n)}
				<dt>Disk</dt>
				<dd>
					{disk.name}: {(disk.sizeBytes / 1e9).toFixed(1)} GB{disk.mountPoints.length
						? ` at ${disk.mountPoints.join(', ')}`
						: ''}
				</dd>
			{/each}
			{#each probe.temperaturesC as zone, n (n)}
				<dt>Temperature</dt>
				<dd>{zone.celsius.toFixed(1)} °C ({zone.name})</dd>
			{/each}
		</dl>
	{:else}
		<h3>What is really on the bench?</h3>
		<p class="soft">
			Until the board has been asked, rates and names are those that are typical of each class. Put the converter in,
			run the small script on the board, and paste what it prints: names and abilities become certain.
		</p>
	{/if}
</div>

<style>
	button {
		border: 1px solid var(--bottle);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--bottle);
		font-size: var(--size-small);
		padding: 1px 8px;
		cursor: pointer;
	}
	.fill {
		background: var(--bottle-wash);
		border-radius: var(--radius);
		padding: 8px 12px;
		margin: 6px 0 10px;
		display: grid;
		gap: 6px;
		justify-items: start;
	}
	.fill ul {
		margin: 0;
		padding-left: 18px;
	}
	p {
		margin-top: 6px;
		max-width: 68ch;
	}
</style>
