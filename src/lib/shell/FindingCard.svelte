<script lang="ts">
	import type { Finding, Fix } from '$core/link/finding';
	import { goToField } from '$lib/endpoint/field';
	import Mark from './Mark.svelte';

	interface Props {
		finding: Finding;
		/** Where the setting behind it is changed. */
		href?: string;
		/** Those of its fixes that cure it and break nothing; found by trying, so not while somebody types. */
		cures: (finding: Finding) => readonly Fix[];
		onfix: (fix: Fix) => void;
	}
	let { finding, href, cures, onfix }: Props = $props();
	const REST_MS = 60;
	let found: readonly Fix[] | null = $state.raw(null);
	const fixes = $derived(found ?? finding.fixes);
	$effect(() => {
		const of = finding;
		const timer = setTimeout(() => (found = cures(of)), REST_MS);
		return () => clearTimeout(timer);
	});
	/** What is shown may be a moment old: only a fix that still cures is done. */
	function press(label: string): void {
		found = cures(finding);
		const fix = found.find((known) => known.label === label);
		if (fix) onfix(fix);
	}
	const again = (): void => {
		const setting = href?.split('#setting-')[1];
		if (setting) goToField(setting);
	};
</script>

<article class={finding.level} data-finding={finding.id}>
	<Mark level={finding.level} />
	<div>
		<h3>
			{#if href}<a {href} onclick={again}>{finding.title}</a>{:else}{finding.title}{/if}
		</h3>
		<p>{finding.why}</p>
		{#if fixes.length}
			<div class="fixes">
				{#each fixes as fix (fix.label)}
					<button type="button" onclick={() => press(fix.label)}>{fix.label}</button>
				{/each}
			</div>
		{:else if finding.fixes.length}
			<p class="soft small">
				What usually ends it would break something else here, so no button is offered: change the setting by hand.
			</p>
		{/if}
	</div>
</article>

<style>
	article {
		display: flex;
		gap: 10px;
		padding: 10px 12px;
		border-radius: var(--radius);
	}
	article :global(svg) {
		margin-top: 2px;
	}
	h3 {
		font-size: var(--size-text);
		line-height: 1.35;
		font-weight: 700;
	}
	h3 a {
		color: inherit;
		text-decoration: none;
	}
	h3 a:hover,
	h3 a:focus-visible {
		text-decoration: underline;
	}
	.stop {
		background: var(--brick-wash);
	}
	.caution {
		background: var(--amber-wash);
	}
	.note {
		background: var(--slate-wash);
	}
	div {
		min-width: 0;
		flex: 1;
	}
	p {
		color: var(--ink-soft);
		font-size: var(--size-text);
	}
	.fixes {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		margin-top: 8px;
	}
	button {
		border: 1px solid var(--bottle);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--bottle);
		font-weight: 600;
		font-size: var(--size-text);
		padding: 5px 12px;
		cursor: pointer;
		text-align: left;
	}
	button:hover {
		background: var(--bottle-wash);
	}
</style>
