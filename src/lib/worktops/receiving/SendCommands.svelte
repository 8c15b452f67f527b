<script lang="ts">
	import { rtpCommand, tunnelCommand } from '$core/links/receiving/steps';
	import { announced } from '$core/links/receiving/ways';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import CopyButton from '$lib/shell/CopyButton.svelte';

	const view = useEndpoint();
	const receiving = $derived(view.plan.receiving);
	const host = $derived(`${view.plan.network.hostName}.local`);
	const commands = $derived([
		...(receiving.server
			? [
					{
						what: 'The endpoint as an output of a computer with Linux',
						text: tunnelCommand(host, announced(receiving, view.context)),
						note: 'With PulseAudio or PipeWire. Then choose it in the sound settings; gone after a restart.'
					}
				]
			: []),
		...(receiving.rtp
			? [
					{
						what: 'A file by RTP, from any system',
						text: rtpCommand('-re -i song.flac', host, receiving.rtpPort),
						note: 'Without -re it would be sent as fast as it is read.'
					},
					{
						what: 'What a computer with Linux plays, by RTP',
						text: rtpCommand('-f pulse -i @DEFAULT_MONITOR@', host, receiving.rtpPort),
						note: 'Windows and macOS give ffmpeg their own sound only by way of a virtual device.'
					}
				]
			: [])
	]);
</script>

{#if commands.length}
	<section class="sheet" aria-label="Sending to it">
		<h3>Sending to it</h3>
		<ul>
			{#each commands as { what, text, note } (what)}
				<li>
					<span class="head"><b>{what}</b><CopyButton {text} /></span>
					<code class="mono small">{text}</code>
					<span class="soft small">{note}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}

<style>
	ul {
		display: grid;
		gap: 12px;
		margin-top: 8px;
	}
	li {
		display: grid;
		gap: 4px;
	}
	.head {
		display: flex;
		justify-content: space-between;
		gap: 12px;
	}
	code {
		overflow-wrap: anywhere;
		background: var(--paper);
		border: 1px solid var(--rule);
		border-radius: var(--radius);
		padding: 6px 8px;
		user-select: all;
	}
</style>
