<script lang="ts">
	import { Select, SelectItem } from 'carbon-components-svelte';
	import { formatBytes } from '$core/basics/format';
	import { conversionsOf, convertCommand, type Conversion, type Shell } from '$core/links/sources/lists/convert';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import CopyButton from '$lib/shell/CopyButton.svelte';

	const view = useEndpoint();
	const hard = $derived(conversionsOf(view.plan.sources.items, view.context));
	let shell = $state<Shell>(navigator.userAgent.includes('Windows') ? 'powershell' : 'posix');
	/** More at once help nobody; the command for all has every one. */
	const SHOWN = 20;
	const all = $derived(hard.flatMap(({ made }) => (made ? [convertCommand(made, shell)] : [])).join('\n'));
	const sizeWords = ({ shape, sizeBytes, minutes }: Conversion): string =>
		[
			`${shape.codec}, ${shape.widthPx} × ${shape.heightPx}, ${Number(shape.framesPerSec.toFixed(2))} frames a second`,
			...(sizeBytes === null ? [] : [`some ${formatBytes(sizeBytes)}`]),
			...(minutes === null
				? []
				: [minutes < 1 ? 'less than a minute of work' : `some ${Math.ceil(minutes)} minutes of work`])
		].join('; ');
</script>

{#if hard.length}
	<section class="sheet" aria-labelledby="convert-head">
		<h3 id="convert-head">
			Made anew, they play as they should <span class="soft small"
				>{hard.length} film{hard.length === 1 ? '' : 's'}; sizes and times are typical</span
			>
		</h3>
		<div class="row">
			<Select labelText="Shell of your own computer" size="sm" bind:selected={shell}>
				<SelectItem value="posix" text="Linux, macOS" />
				<SelectItem value="powershell" text="Windows (PowerShell)" />
			</Select>
			{#if hard.length > 1 && all}<CopyButton text={all} />{/if}
		</div>
		{#each hard.slice(0, SHOWN) as { film, judged, made } (film.location)}
			<article>
				<p>
					<strong>{film.location.slice(film.location.lastIndexOf('/') + 1)}</strong>
					<span class="soft"
						>{judged.plays
							? judged.flaw === 'hdr'
								? 'made for HDR: pale on a plain screen'
								: 'interlaced: combs where it moves'
							: judged.why}</span
					>
				</p>
				{#if made}
					<p class="small soft">As {made.name}: {sizeWords(made)}. Add it then, and it takes the old one's place.</p>
					<div class="command">
						<code>{convertCommand(made, shell)}</code><CopyButton text={convertCommand(made, shell)} />
					</div>
				{:else}
					<p class="small soft">However small it is made, this board does not play it.</p>
				{/if}
			</article>
		{/each}
		{#if hard.length > SHOWN}<p class="soft small">and {hard.length - SHOWN} more; copying all takes them too</p>{/if}
	</section>
{/if}

<style>
	.row,
	.command {
		display: flex;
		gap: 8px;
		align-items: end;
		flex-wrap: wrap;
	}
	.command {
		flex-wrap: nowrap;
		align-items: center;
	}
	.command code {
		flex: 1;
		overflow-wrap: anywhere;
	}
	article {
		border-top: 1px solid var(--rule);
		margin-top: 10px;
		padding-top: 8px;
	}
	p {
		margin: 0 0 4px;
	}
</style>
