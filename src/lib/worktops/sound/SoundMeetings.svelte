<script lang="ts">
	import { formatHz } from '$core/basics/format';
	import { computeMeetings } from '$core/links/sound/meetings';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const meetings = $derived(computeMeetings(view.plan.sound, view.context, view.claims));
	const rate = (hz: number, bits: number): string => `${formatHz(hz).replace(/\u2009kHz$/, '')}/${bits}`;
	const SHOWN = 8;
</script>

<section class="sheet">
	<h3>What each source meets <span class="soft small">kHz / bit</span></h3>
	<table class="rows">
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
		margin-top: 6px;
		table-layout: fixed;
	}
	th {
		width: 34%;
	}
	th.n {
		width: 66px;
	}
	.what {
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
</style>
