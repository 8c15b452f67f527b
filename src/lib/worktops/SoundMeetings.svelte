<script lang="ts">
	import { formatHz } from '$core/format';
	import { computeMeetings } from '$core/links/sound/meetings';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const meetings = $derived(computeMeetings(view.plan, view.context, view.claims));
	const rate = (hz: number, bits: number): string => `${formatHz(hz).replace(/\u2009kHz$/, '')}/${bits}`;
	const SHOWN = 8;
</script>

<section class="sheet">
	<h3>What each source meets <span class="soft small">kHz / bit</span></h3>
	<table>
		<thead
			><tr
				><th scope="col">Source</th><th scope="col" class="n">made</th><th scope="col" class="n">heard</th><th
					scope="col"><span class="visually-hidden">What happens</span></th
				></tr
			></thead
		>
		<tbody>
			{#each meetings.slice(0, SHOWN) as { what, shape, treatment }, n (n)}
				<tr>
					<td class="what" title={what}>{what}</td>
					<td class="mono n"
						>{shape
							? shape.lossless
								? rate(shape.sampleRateHz, shape.bitDepth)
								: `${shape.sampleRateHz / 1000}/${shape.codec}`
							: '?'}</td
					>
					<td class="mono n">{treatment.sampleRateHz ? rate(treatment.sampleRateHz, treatment.bitDepth) : '—'}</td>
					<td class="verdict" class:bad={treatment.verdict === 'refused'}>{treatment.words}</td>
				</tr>
			{:else}
				<tr><td colspan="4" class="soft">No sources yet. Add them in the Sources link.</td></tr>
			{/each}
		</tbody>
	</table>
	{#if meetings.length > SHOWN}<p class="soft small">and {meetings.length - SHOWN} more</p>{/if}
</section>

<style>
	table {
		width: 100%;
		border-collapse: collapse;
		margin-top: 6px;
		table-layout: fixed;
	}
	th {
		text-align: left;
		font-size: 12.5px;
		font-weight: 600;
		border-bottom: 1px solid var(--rule-strong);
		padding: 3px 6px 3px 0;
		width: 34%;
	}
	th.n {
		width: 66px;
	}
	td {
		border-bottom: 1px solid var(--rule);
		padding: 4px 6px 4px 0;
		font-size: 13px;
	}
	.n {
		text-align: right;
		padding-right: 10px;
		white-space: nowrap;
	}
	.what {
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
</style>
