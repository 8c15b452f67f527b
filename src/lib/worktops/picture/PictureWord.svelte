<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { explainEdid, fromBase64 } from '$core/formats/edid';
	import { refreshHzOf } from '$core/standards/videoTiming';
	import { computeLevels, ladderOf } from '$core/links/picture/edges/ladder';
	import { pictureWay } from '$core/links/picture/way';
	import { ownEdid } from '$core/links/picture/modes/written';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { download } from '$lib/shell/download';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import Decoding from './Decoding.svelte';

	const view = useEndpoint();
	const way = $derived(pictureWay(view.plan.picture, view.context));
	const edid = $derived(way.edid);
	const bytes = $derived.by(() => {
		const read = fromBase64(view.plan.picture.edid);
		return read.ok ? read.value : new Uint8Array();
	});
	const own = $derived(ownEdid(view.plan.picture, view.context));
	const meanings = $derived(bytes.length ? explainEdid(bytes) : []);
	let at = $state(-1);
	const here = $derived(meanings.find(({ from, to }) => at >= from && at <= to));
	const hex = (byte: number): string => byte.toString(16).padStart(2, '0');
	const levels = $derived(way.adapter?.resistorsOhm.length ? computeLevels(ladderOf(way.adapter)) : null);
	const grey = (volts: number): string => {
		const part = Math.min(1, volts / 0.7);
		const level = Math.round(255 * part);
		return `rgb(${level} ${level} ${level})`;
	};
	const facts = $derived(
		edid
			? ([
					['Name, maker, product', `${edid.name ?? 'none'}, ${edid.manufacturer}, ${edid.productCode}`],
					['Serial number', edid.serialText ?? (edid.serialNumber === null ? 'none' : String(edid.serialNumber))],
					['Made', `${edid.week ? `week ${edid.week} of ` : ''}${edid.year}, EDID ${edid.version}`],
					['Size', edid.widthCm ? `${edid.widthCm} × ${edid.heightCm} cm` : 'not given'],
					[
						'Ranges',
						edid.ranges
							? `${edid.ranges.hMinKhz} to ${edid.ranges.hMaxKhz} kHz, ${edid.ranges.vMinHz} to ${edid.ranges.vMaxHz} Hz${edid.ranges.maxPixelClockMhz ? `, ${edid.ranges.maxPixelClockMhz} MHz` : ''}`
							: 'not given'
					],
					['Gamma', edid.gamma === null ? 'not given' : edid.gamma.toFixed(2)],
					[
						'Sound over HDMI',
						edid.cta?.sound.length
							? edid.cta.sound
									.map((s) => `${s.format}, ${s.maxChannels} ch, to ${Math.max(0, ...s.ratesHz) / 1000} kHz`)
									.join('; ')
							: edid.cta?.basicAudio
								? 'plain stereo'
								: 'none'
					],
					[
						'HDMI',
						edid.cta?.hdmi
							? `to ${edid.cta.hdmi.maxTmdsMhz ?? 165} MHz${edid.cta.hdmi.deepColour.length ? `, ${edid.cta.hdmi.deepColour.join(', ')} bits a colour` : ''}${edid.cta.hdmi.videoLatencyMs === null ? '' : `, picture ${edid.cta.hdmi.videoLatencyMs} ms late`}`
							: 'no: DVI, or analogue'
					],
					...(edid.cta?.hdr ? [['HDR', edid.cta.hdr.curves.join(', ')] as const] : [])
				] as readonly (readonly [string, string])[])
			: []
	);
</script>

{#if levels}
	<figure class="sheet">
		<figcaption>
			<b>What the ladder makes of a gradient</b>
			<span class="soft small">{levels.voltsByCode.length} steps, white {levels.fullScaleV.toFixed(3)} V of 0.7 V</span>
		</figcaption>
		<svg viewBox="0 0 640 84" role="img" aria-label="Steps of grey through the resistors">
			{#each levels.voltsByCode as volts, n (n)}
				<rect
					x={(n * 640) / levels.voltsByCode.length}
					y="0"
					width={640 / levels.voltsByCode.length + 0.5}
					height="42"
					fill={grey(volts)}
				/>
				{#if n > 0}
					{@const step = volts - levels.voltsByCode[n - 1]!}
					<rect
						x={(n * 640) / levels.voltsByCode.length}
						y={80 - Math.max(1, (Math.abs(step) / levels.largestStepV) * 30)}
						width={Math.max(1, 640 / levels.voltsByCode.length - 1)}
						height={Math.max(1, (Math.abs(step) / levels.largestStepV) * 30)}
						class="step"
						class:bad={step < 0}
					/>
				{/if}
			{/each}
		</svg>
		<p class="soft small">
			Below: the size of each step. Equal steps are a smooth gradient; tall ones are seen as bands.
		</p>
	</figure>
{/if}
{#if edid}
	<figure class="sheet">
		<figcaption><b>What the screen says</b> <span class="soft small">{bytes.length} bytes</span></figcaption>
		<dl>
			{#each facts as [label, text] (label)}<dt>{label}</dt>
				<dd>{text}</dd>{/each}
			<dt>Modes</dt>
			<dd>
				{edid.modes
					.slice(0, 12)
					.map(({ timing }) => `${timing.widthPx} × ${timing.heightPx} ${refreshHzOf(timing).toFixed(0)}`)
					.join(', ')}{edid.modes.length > 12 ? ` and ${edid.modes.length - 12} more` : ''}
			</dd>
		</dl>
		{#each edid.remarks as remark, n (n)}<p class="small bad">{remark.message}</p>{/each}
		<details>
			<summary>Its bytes, and what each means</summary>
			<p class="small meaning" role="status">
				{here
					? `${here.from === here.to ? `Byte ${here.from}` : `Bytes ${here.from} to ${here.to}`}: ${here.what}`
					: 'Point at a byte, or walk through them with Tab.'}
			</p>
			<div class="bytes">
				{#each meanings as meaning, n (meaning.from)}
					<button
						type="button"
						class:even={n % 2 === 0}
						class:on={here === meaning}
						title={meaning.what}
						onmouseenter={() => (at = meaning.from)}
						onfocus={() => (at = meaning.from)}
						aria-label={`Bytes ${meaning.from} to ${meaning.to}: ${meaning.what}`}
						>{Array.from(bytes.subarray(meaning.from, meaning.to + 1), hex).join(' ')}</button
					>
				{/each}
			</div>
			<CopyButton text={Array.from(bytes, hex).join(' ')} label="Copy the bytes" />
		</details>
	</figure>
{/if}
{#if own?.ok}
	<p class="row">
		<Button size="small" kind="tertiary" on:click={() => download('yphos.bin', own.value, 'application/octet-stream')}
			>Download our EDID</Button
		>
		<span class="soft small">{own.value.length} bytes; the card set brings it as /lib/firmware/edid/yphos.bin.</span>
	</p>
{/if}
{#if view.context.facts.film && way.board?.decoders.length}<Decoding />{/if}

<style>
	svg {
		width: 100%;
	}
	.step {
		fill: var(--bottle);
	}
	.step.bad {
		fill: var(--brick);
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
	.bytes {
		display: flex;
		flex-wrap: wrap;
		gap: 2px;
		margin: 6px 0;
	}
	.bytes button {
		border: 0;
		background: var(--well);
		color: var(--ink);
		font-family: var(--mono);
		font-size: var(--size-small);
		padding: 2px 4px;
		text-align: left;
		cursor: default;
	}
	.bytes button.even {
		background: var(--sheet);
	}
	.bytes button.on {
		background: var(--bottle);
		color: var(--on-bottle);
	}
	.meaning {
		min-height: 1.5em;
	}
	.row {
		display: flex;
		gap: 10px;
		align-items: center;
	}
</style>
