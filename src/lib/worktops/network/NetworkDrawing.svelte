<script lang="ts">
	import QRCode from 'qrcode';
	import { formatBps } from '$core/basics/format';
	import { pageUrl } from '$core/links/network/addresses';
	import { pathOverDay } from '$core/links/network/need';
	import { isQuiet, quietLine } from '$core/links/programme/quiet';
	import LineChart from '$lib/charts/LineChart.svelte';
	import CopyButton from '$lib/shell/CopyButton.svelte';
	import { useEndpoint } from '$lib/endpoint/view.svelte';

	const view = useEndpoint();
	const quiet = $derived(view.plan.programme.quiet.map(quietLine).join('\n'));
	const day = $derived(
		pathOverDay(view.plan.network, view.context, view.claims, (hour) => isQuiet(quiet, 1, hour * 100))
	);
	const curve = (of: 'givesBps' | 'needsBps'): [number, number][] =>
		[...(day ?? []), ...(day ?? []).slice(-1).map((last) => ({ ...last, hour: 24 }))].map((hour) => [
			hour.hour,
			hour[of] / 1e6
		]);
	const used = ({ needsBps, givesBps }: { needsBps: number; givesBps: number }): number =>
		needsBps / Math.max(1, givesBps);
	/** The hour with the least to spare. */
	const tightest = $derived(
		day?.reduce((worst, hour) => (used(hour) > used(worst) ? hour : worst)) ?? { hour: 0, needsBps: 0, givesBps: 0 }
	);
	const usedPercent = $derived(used(tightest) * 100);
	/** What one types or scans: its first page, else how one logs in. */
	const address = $derived.by(() => {
		const [page] = view.plan.network.pages;
		return page
			? pageUrl(view.plan.network, page)
			: `ssh://${view.plan.network.user || 'user'}@${view.plan.network.hostName}.local`;
	});
	const modules = $derived.by(() => {
		const { data, size } = QRCode.create(address, { errorCorrectionLevel: 'M' }).modules;
		const squares: string[] = [];
		data.forEach((dark, n) => {
			if (dark) squares.push(`M${n % size} ${Math.floor(n / size)}h1v1h-1z`);
		});
		return { size, path: squares.join('') };
	});
</script>

{#if day}
	<div class="pair">
		<figure class="sheet">
			<figcaption>
				<b>What the way gives, and what is needed</b> <span class="soft small">through the day</span>
			</figcaption>
			<LineChart
				label={`The way gives at least ${Math.min(...day.map(({ givesBps }) => givesBps / 1e6)).toFixed(1)} Mbit/s; ${Math.max(...day.map(({ needsBps }) => needsBps / 1e6)).toFixed(1)} are needed at the busiest`}
				curves={[
					{ name: 'given', colour: 'data', stepped: true, points: curve('givesBps') },
					{ name: 'needed', colour: 'signal', stepped: true, points: curve('needsBps') }
				]}
				x={{ name: 'Hour', unit: 'h', high: 24 }}
				y={{ name: 'Rate', unit: 'Mbit/s', low: 0, log: usedPercent > 0 && usedPercent < 5 }}
				height={190}
			/>
			<p class="small">
				{tightest.needsBps === 0
					? 'Nothing is needed of it.'
					: `Tightest from ${tightest.hour} o’clock: ${formatBps(tightest.needsBps)} of ${formatBps(tightest.givesBps)}, which is ${usedPercent < 1 ? 'less than 1' : Math.min(999, usedPercent).toFixed(0)}\u2009%.`}
				{usedPercent < 5 && tightest.needsBps > 0 ? 'Each line of the grid is ten times the one below.' : ''}
			</p>
		</figure>
		<figure class="sheet sticker">
			<figcaption><b>For the back of the screen</b></figcaption>
			<svg viewBox={`-2 -2 ${modules.size + 4} ${modules.size + 4}`} role="img" aria-label={`QR code of ${address}`}>
				<rect x="-2" y="-2" width={modules.size + 4} height={modules.size + 4} />
				<path d={modules.path} />
			</svg>
			<p class="mono small">{address}</p>
			<p><CopyButton text={address} /></p>
		</figure>
	</div>
{/if}

<style>
	.pair {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 210px;
		gap: 14px;
	}
	figure {
		min-width: 0;
	}
	svg {
		display: block;
		width: 132px;
		margin: 8px auto;
		shape-rendering: crispEdges;
	}
	/* Black on white by any light: cameras want it so. */
	rect {
		fill: #fff;
	}
	path {
		fill: #000;
	}
	.sticker p.mono {
		font-size: var(--size-small);
	}
	.sticker p {
		overflow-wrap: anywhere;
		text-align: center;
	}
	@media (max-width: 760px) {
		.pair {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
