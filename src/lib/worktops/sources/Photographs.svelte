<script lang="ts">
	import { Button, ProgressBar, Select, SelectItem } from 'carbon-components-svelte';
	import { wrap } from 'comlink';
	import { onDestroy } from 'svelte';
	import { formatBytes } from '$core/basics/format';
	import { fittedName, photosToFit, type Fit } from '$core/links/sources/lists/photos';
	import { SILENT_MEDIA, type Media } from '$core/parts/media';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import type { FitWorker } from '$lib/media/fitWorker';
	import { readMedia, writeMedia } from '$lib/store/storage';
	import { store } from '$lib/store/workshop.svelte';

	const view = useEndpoint();
	const panel = $derived(view.context.part('screen', view.context.facts.parts.screen));
	/** As it hangs. */
	const screen = $derived(
		panel &&
			(view.plan.picture.turn % 180 === 0
				? { widthPx: panel.widthPx, heightPx: panel.heightPx }
				: { widthPx: panel.heightPx, heightPx: panel.widthPx })
	);
	const photos = $derived(
		screen && view.context.facts.picture ? photosToFit(view.plan.sources.items, screen, view.context) : []
	);
	const bytesOf = (all: readonly Media[]): number => all.reduce((sum, { sizeBytes }) => sum + (sizeBytes ?? 0), 0);
	let fit = $state<Fit>('whole');
	let quality = $state('0.85');
	let done = $state<number | null>(null);
	let said = $state('');
	let worker: Worker | null = null;
	let over = false;
	function stop(): void {
		over = true;
		worker?.terminate();
		worker = null;
		done = null;
	}
	onDestroy(stop);

	async function start(): Promise<void> {
		if (!screen) return;
		const [all, size] = [photos, screen];
		over = false;
		done = 0;
		said = '';
		worker = new Worker(new URL('../../media/fitWorker.ts', import.meta.url), { type: 'module' });
		const remote = wrap<FitWorker>(worker);
		const made = new Map<string, Media>();
		const failed: string[] = [];
		for (const photo of all) {
			const kept = await readMedia(photo.location);
			if (over) return;
			try {
				if (!kept) throw new Error('its bytes are not here');
				const fitted = await remote.fit(kept, size, fit, Number(quality));
				if (over) return;
				const location = fittedName(photo.location);
				await writeMedia(location, fitted.blob);
				made.set(photo.location, {
					...SILENT_MEDIA,
					location,
					codec: 'mjpeg',
					lossless: false,
					picture: {
						codec: 'mjpeg',
						widthPx: fitted.widthPx,
						heightPx: fitted.heightPx,
						framesPerSec: null,
						bitDepth: 8
					},
					bitRateBps: null,
					durationMs: null,
					sizeBytes: fitted.blob.size,
					sha256: fitted.sha256,
					kept: 'browser',
					from: 'file'
				});
			} catch (error) {
				failed.push(`${photo.location}: ${(error as Error).message}`);
			}
			done++;
		}
		worker.terminate();
		done = null;
		const saved = bytesOf(all.filter(({ location }) => made.has(location))) - bytesOf([...made.values()]);
		const fresh = new Set([...made.values()].map(({ location }) => location));
		const id = view.endpoint!.id;
		const why = store.change('fit photographs to the screen', (workshop) => ({
			...workshop,
			media: [...workshop.media.filter(({ location }) => !fresh.has(location)), ...made.values()],
			endpoints: workshop.endpoints.map((one) =>
				one.id === id
					? {
							...one,
							plan: {
								...one.plan,
								sources: {
									...one.plan.sources,
									items: one.plan.sources.items.map((item) => {
										const media = made.get(item.location);
										return media ? { ...item, location: media.location } : item;
									})
								}
							}
						}
					: one
			)
		}));
		await store.lookForMedia();
		await view.loadMedia();
		said =
			why ??
			[
				`${made.size} fitted; ${formatBytes(Math.abs(saved))} ${saved >= 0 ? 'saved' : 'more than before'}.`,
				...failed.map((one) => `Not fitted: ${one}.`)
			].join(' ');
	}
</script>

{#if photos.length || said}
	<section class="sheet" aria-labelledby="photos-head">
		<h3 id="photos-head">
			Photographs, at the screen's own pixels
			{#if screen}<span class="soft small">{screen.widthPx} × {screen.heightPx}</span>{/if}
		</h3>
		{#if photos.length}
			<p class="small">
				{photos.length === 1
					? 'One photograph has more pixels than the screen shows, or stands turned'
					: `${photos.length} photographs have more pixels than the screen shows, or stand turned`}: {formatBytes(
					bytesOf(photos)
				)}. Fitted to the screen, pictures open sooner and take less of the card; your own files stay as they are.
			</p>
			<div class="row">
				<Select size="sm" labelText="Shape" bind:selected={fit}>
					<SelectItem value="whole" text="Whole, bars beside it" />
					<SelectItem value="fill" text="Fills the screen, edges cut" />
				</Select>
				<Select size="sm" labelText="Quality" bind:selected={quality}>
					<SelectItem value="0.95" text="Finest" />
					<SelectItem value="0.85" text="Fine" />
					<SelectItem value="0.7" text="Small files" />
				</Select>
				{#if done === null}
					<Button size="small" kind="tertiary" on:click={start}>Fit {photos.length === 1 ? 'it' : 'them'}</Button>
				{:else}
					<ProgressBar size="sm" value={(100 * done) / photos.length} labelText={`${done} of ${photos.length}`} />
					<Button size="small" kind="ghost" on:click={stop}>Stop</Button>
				{/if}
			</div>
		{/if}
		{#if said}<p class="small soft" role="status">{said}</p>{/if}
	</section>
{/if}

<style>
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: end;
	}
	p {
		margin: 0 0 8px;
	}
</style>
