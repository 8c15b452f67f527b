<script lang="ts">
	import type { Verified } from '$core/engines/machine';
	import CopyButton from '$lib/shell/CopyButton.svelte';

	let { lines }: { lines: readonly Verified[] } = $props();
	const SAID = { ok: 'agrees', wrong: 'does not agree', rests: 'rests now', unknown: 'not simulated' } as const;
	const of = (is: Verified['is']): readonly Verified[] => lines.filter((line) => line.is === is);
	const summary = $derived(
		[
			`${of('ok').length} of ${lines.length} agree`,
			...(['wrong', 'rests', 'unknown'] as const)
				.filter((is) => of(is).length > 0)
				.map((is) => `${of(is).length} ${is === 'wrong' ? (of(is).length === 1 ? 'does not' : 'do not') : SAID[is]}`)
		].join(', ')
	);
	/** What is wrong is read first. */
	const sorted = $derived((['wrong', 'unknown', 'rests', 'ok'] as const).flatMap(of));
</script>

<section class="sheet">
	<h2>verify.sh, at the end of it</h2>
	<p class:bad={of('wrong').length > 0}>{summary}.</p>
	<details open={of('wrong').length > 0}>
		<summary>Each line</summary>
		<table>
			<tbody>
				{#each sorted as { label, is }, n (n)}
					<tr><td class:bad={is === 'wrong'} class:soft={is !== 'wrong'}>{SAID[is]}</td><td>{label}</td></tr>
				{/each}
			</tbody>
		</table>
	</details>
	<p class="small soft">
		The script of the card set itself, on the rehearsed endpoint. The run sheet has you run the same one on yours.
	</p>
	<CopyButton text={sorted.map(({ label, is }) => `${SAID[is]}\t${label}`).join('\n')} label="Copy the lines" />
</section>

<style>
	h2 {
		font-size: var(--size-text);
		margin: 0;
	}
	table {
		border-collapse: collapse;
	}
	td {
		padding: 2px 14px 2px 0;
		vertical-align: top;
	}
	td:first-child {
		white-space: nowrap;
	}
</style>
