<script lang="ts">
	import { untrack, type Snippet } from 'svelte';
	import { page } from '$app/state';
	import CopyButton from './CopyButton.svelte';
	import Mark from './Mark.svelte';

	interface Props {
		/** What stands here, for the report. */
		what: string;
		children: Snippet;
	}
	let { what, children }: Props = $props();
	let failedAt = '';
	let again: (() => void) | null = null;

	/** On another page there is no reason to go on showing what failed on the last one. */
	$effect(() => {
		const here = page.url.pathname;
		untrack(() => {
			if (again && here !== failedAt) again();
			if (here !== failedAt) again = null;
		});
	});
	function caught(error: unknown, reset: () => void): void {
		console.warn(`${what} failed`, error);
		failedAt = page.url.pathname;
		again = reset;
	}

	/** No data of the person's: what went wrong, and where. */
	const report = (error: unknown): string =>
		[`Yphos: ${what}`, String(error), error instanceof Error ? (error.stack ?? '') : '', navigator.userAgent].join(
			'\n'
		);
</script>

<!-- An error within stays within: the rest of the page goes on. -->
<svelte:boundary onerror={caught}>
	{@render children()}
	{#snippet failed(error, reset)}
		<section class="sheet failed" role="alert" aria-label={`${what} failed`}>
			<h3><Mark level="stop" /> {what} could not be shown</h3>
			<p>This is a fault of Yphos, not of yours. Your workshop is unchanged; the rest of the page works.</p>
			<p class="mono small">{String(error).slice(0, 300)}</p>
			<p class="row">
				<button type="button" class="plain" onclick={reset}>Try again</button>
				<CopyButton text={report(error)} label="Copy the report" />
			</p>
		</section>
	{/snippet}
</svelte:boundary>

<style>
	.failed {
		display: grid;
		gap: 8px;
		border-left: 4px solid var(--brick);
	}
	h3 {
		display: flex;
		gap: 8px;
		align-items: center;
	}
	.row {
		display: flex;
		gap: 8px;
	}
</style>
