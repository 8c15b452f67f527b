<script lang="ts">
	import { chain } from '$core/chain';
	import { say } from '$core/engines/say';
	import { speaking } from '$core/speaking';
	import type { Moment } from './moment';

	interface Props {
		past: Moment['past'];
		/** An instant as the first column has it, and what that is. */
		seconds: (ms: number) => string;
		unit: string;
		onseek: (ms: number) => void;
	}
	const { past, seconds, unit, onseek }: Props = $props();
	/** A list of more than this is read by nobody. */
	const MOST_SHOWN = 400;
	const shown = $derived(past.slice(-MOST_SHOWN));
	const titles = new Map<string, string>(chain.map(({ id, title }) => [id, title]));

	let list: HTMLElement | undefined = $state();
	$effect(() => {
		void past.length;
		if (list) list.scrollTop = list.scrollHeight;
	});
</script>

<section class="sheet">
	<div class="head">
		<h2>What happened</h2>
		<span class="soft small"
			>from the card files alone{past.length > MOST_SHOWN ? `, the last ${MOST_SHOWN} of ${past.length}` : ''}</span
		>
	</div>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="scroll" bind:this={list} tabindex="0" role="region" aria-label="Events">
		<table>
			<thead
				><tr
					><th scope="col" class="n">{unit}</th><th scope="col">Event</th><th scope="col">Link</th><th
						scope="col"
						class="n">Reading</th
					></tr
				></thead
			>
			<tbody>
				{#each shown as event, n (n)}
					{@const [text, reading] = say(speaking, event)}
					<tr class={event.kind} onclick={() => onseek(event.atMs)}>
						<td class="mono n">{seconds(event.atMs)}</td>
						<td>{text}</td>
						<td class="soft small">{titles.get(event.from) ?? 'System'}</td>
						<td class="mono n">{reading}</td>
					</tr>
				{:else}
					<tr><td colspan="4" class="soft">Press Play, or pull the mark along the strip.</td></tr>
				{/each}
			</tbody>
		</table>
	</div>
</section>

<style>
	h2 {
		font-size: var(--size-text);
	}
	.head {
		display: flex;
		justify-content: space-between;
	}
	.scroll {
		max-height: 56vh;
		overflow-y: auto;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-size: var(--size-small);
		border-bottom: 1px solid var(--rule-strong);
		padding: 4px 8px;
		position: sticky;
		top: 0;
		background: var(--sheet);
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 3px 8px;
	}
	tbody tr {
		cursor: pointer;
	}
	.n {
		text-align: right;
		white-space: nowrap;
	}
	tr.fault td,
	tr.bad td {
		background: var(--brick-wash);
	}
	@media (max-width: 760px) {
		th:nth-child(3),
		td:nth-child(3) {
			display: none;
		}
		td:last-child {
			white-space: normal;
			font-size: var(--size-small);
		}
		th,
		td {
			padding: 3px 5px;
		}
	}
</style>
