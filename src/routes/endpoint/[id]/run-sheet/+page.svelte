<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { cardText } from '$core/files/cardBytes';
	import type { SheetStep } from '$core/engines/runSheet';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { download, safeName } from '$lib/shell/download';
	import Mark from '$lib/shell/Mark.svelte';
	import { store } from '$lib/store/workshop.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const done = $derived(view.endpoint!.done);
	const steps = $derived(view.sheet.flatMap(({ steps }) => steps));
	const next = $derived(steps.find((step) => !done[step.key])?.key ?? null);

	function tick(step: SheetStep): void {
		store.changeEndpoint(view.endpoint!.id, 'tick a step', (endpoint) => {
			const { [step.key]: was, ...others } = endpoint.done;
			return {
				...endpoint,
				done: was ? others : { ...others, [step.key]: { atUtc: new Date().toISOString(), reading: '' } }
			};
		});
	}
	function note(step: SheetStep, reading: string): void {
		store.changeEndpoint(view.endpoint!.id, 'note a reading', (endpoint) => ({
			...endpoint,
			done: {
				...endpoint.done,
				[step.key]: { atUtc: endpoint.done[step.key]?.atUtc ?? new Date().toISOString(), reading }
			}
		}));
	}
	function save(): void {
		const file = view.files.find((known) => known.path === 'docs/run-sheet.html');
		if (file && 'lines' in file)
			download(`${safeName(view.plan.brief.name)}-run-sheet.html`, cardText(file), 'text/html');
	}
</script>

<svelte:head><title>Run sheet · {view.plan.brief.name}</title></svelte:head>
<div class="sheetpage">
	<div class="head">
		<p class="soft">{steps.filter((step) => done[step.key]).length} of {steps.length} done</p>
		<Button size="small" kind="tertiary" on:click={save}>Save a page to print</Button>
	</div>
	{#each view.sheet as { phase, steps: list } (phase)}
		<h2>{phase[0]!.toUpperCase() + phase.slice(1)}</h2>
		<ol>
			{#each list as step, n (`${step.key} ${n}`)}
				<li class="sheet" class:next={step.key === next} class:done={done[step.key]}>
					<label>
						<input type="checkbox" checked={Boolean(done[step.key])} onchange={() => tick(step)} />
						<span>{step.do}</span>
					</label>
					{#if step.caution}<p class="caution">
							<Mark level="caution" /> <span><strong>Take care.</strong> {step.caution}</span>
						</p>{/if}
					{#if step.command}<div class="line"><code>{step.command}</code><CopyButton text={step.command} /></div>{/if}
					{#if step.expect}<p class="soft">Expect: {step.expect}</p>{/if}
					{#if step.reading}
						<label class="reading"
							>Note {step.reading}:
							<input
								value={done[step.key]?.reading ?? ''}
								oninput={(event) => note(step, event.currentTarget.value)}
							/></label
						>
					{/if}
				</li>
			{/each}
		</ol>
	{/each}
</div>

<style>
	.sheetpage {
		padding: 14px 20px 40px;
		max-width: 780px;
	}
	.head {
		display: flex;
		justify-content: space-between;
		align-items: center;
	}
	h2 {
		margin: 14px 0 8px;
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
		gap: 8px;
	}
	li {
		display: grid;
		gap: 6px;
	}
	li.next {
		border-left: 4px solid var(--bottle);
	}
	li.done > label span {
		color: var(--ink-soft);
		text-decoration: line-through;
	}
	li > label:first-child {
		display: flex;
		gap: 10px;
		font-size: var(--size-text);
		align-items: start;
	}
	input[type='checkbox'] {
		width: 22px;
		height: 22px;
		margin: 0;
		accent-color: var(--bottle);
		flex: none;
	}
	.caution {
		display: flex;
		gap: 8px;
		background: var(--amber-wash);
		padding: 8px 10px;
		border-radius: var(--radius);
	}
	.reading {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
	.reading input {
		border: 1px solid var(--rule-strong);
		border-radius: var(--radius);
		background: var(--sheet);
		color: var(--ink);
		padding: 6px 8px;
		font-size: var(--size-text);
		min-width: 0;
		width: 12em;
	}
	@media (max-width: 760px) {
		.sheetpage {
			padding: 12px;
		}
	}
</style>
