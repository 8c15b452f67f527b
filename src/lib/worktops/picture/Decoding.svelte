<script lang="ts">
	import { DECODING } from '$core/links/picture/modes/decodingTable';
</script>

<figure class="sheet">
	<details>
		<summary>Which systems use the circuit that decodes films</summary>
		{#each DECODING as { system, driver, player, page, sure, source } (driver)}
			<h4>{system}</h4>
			<dl>
				<dt>Driver</dt>
				<dd>{driver}</dd>
				<dt>Player</dt>
				<dd>{player}</dd>
				<dt>Pages</dt>
				<dd>{page}</dd>
				<dt>How sure</dt>
				<dd>{sure} <span class="soft small">{source}.</span></dd>
			</dl>
		{/each}
	</details>
</figure>

<style>
	h4 {
		margin: 14px 0 4px;
		font-size: var(--size-text);
	}
	dl {
		display: grid;
		grid-template-columns: max-content minmax(0, 1fr);
		gap: 2px 14px;
	}
	dt {
		color: var(--ink-soft);
		font-size: var(--size-small);
	}
</style>
