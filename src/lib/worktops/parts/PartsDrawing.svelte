<script lang="ts">
	import { computeJoints } from '$core/links/parts/joints';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import Mark from '$lib/shell/Mark.svelte';

	const view = useEndpoint();
	const joints = $derived(computeJoints(view.plan.parts, view.context));
	const WORDS = { power: 'power', picture: 'picture', sound: 'sound', touch: 'touch', data: 'data', aerial: 'aerial' };
</script>

<section class="sheet">
	<h3>What meets what</h3>
	<ul>
		{#each joints as { from, to, cargo, by, missing, ends }, n (n)}
			{@const level = by ? null : missing ? 'caution' : 'stop'}
			<li class={cargo} class:gap={!by}>
				<span class="end" title={from.name}>{from.name}</span>
				<span class="line">
					<span class="lead" title={ends}>
						{#if by?.length}{by.map(({ name }) => name).join(' + ')}
						{:else if by}directly
						{:else if missing}missing: {missing.map(({ name }) => name).join(' + ')}
						{:else}no way: {ends}{/if}
					</span>
					<i></i>
					<small class="soft">{WORDS[cargo]}</small>
				</span>
				<span class="end to" title={to.name}>{to.name}</span>
				<Mark {level} size={15} />
			</li>
		{:else}
			<li class="soft">Choose a board and a supply; then the leads between them stand here.</li>
		{/each}
	</ul>
</section>

<style>
	ul {
		list-style: none;
		margin: 8px 0 0;
		padding: 0;
		display: grid;
		gap: 8px;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1.1fr) minmax(0, 1.3fr) minmax(0, 1.1fr) 16px;
		gap: 8px;
		align-items: center;
	}
	li.soft {
		display: block;
	}
	.end {
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		padding: 4px 8px;
		font-size: var(--size-small);
		line-height: 1.3;
		background: var(--well);
	}
	.line {
		display: grid;
		text-align: center;
		font-size: var(--size-small);
		line-height: 1.25;
		min-width: 0;
	}
	.line i {
		border-top: 2.5px solid var(--trace);
		margin: 2px 0;
	}
	.power .line i {
		border-color: var(--trace-power);
	}
	:is(.data, .touch, .aerial) .line i {
		border-color: var(--trace-data);
	}
	.gap .line i {
		border-top-style: dashed;
		border-color: var(--amber);
	}
	.gap .lead {
		color: var(--amber);
		font-weight: 600;
	}
	@media (max-width: 760px) {
		li {
			grid-template-columns: minmax(0, 1fr) 16px;
		}
		li > span {
			grid-column: 1;
		}
		li > :global(svg) {
			grid-row: 1;
			grid-column: 2;
		}
	}
</style>
