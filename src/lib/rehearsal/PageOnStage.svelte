<script lang="ts">
	import { drawingAt, picturesOf } from '$core/links/notices/drawn/pictures';
	import { showOf } from '$core/links/notices/pages/show';
	import type { Page } from '$core/links/notices/settings';
	import { worldOf } from '$core/links/notices/pages/world';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { noticeStage } from '$lib/media/noticeStage';
	import { PageView } from '../../player/draw';
	import '../../player/player.css';

	/** The page that is on, drawn as the endpoint's own browser draws it at that instant, or the picture of it that is shown then. */
	let { page, utcMs }: { page: Page; utcMs: number } = $props();
	const view = useEndpoint();
	$effect(() => void view.loadMedia());
	const show = $derived(showOf(view.plan.notices, view.context));
	const stage = $derived(noticeStage(show, view.plan.sources.items, view.mediaBytes));
	const pictures = $derived(
		view.plan.notices.shownBy === 'pictures' ? picturesOf(view.plan.notices, view.context) : null
	);
	/** Faster than a person sees, it is not drawn again. */
	const second = $derived(Math.floor(utcMs / 1000));
	const drawing = new PageView();
	$effect(() => {
		const picture = pictures && drawingAt(pictures, page.id, second * 1000);
		if (picture) drawing.show(picture.page, stage, worldOf(show, picture.utcMs, new Map(), true));
		else drawing.show(page, stage, worldOf(show, second * 1000, new Map()));
	});
</script>

<div {@attach (node) => node.append(drawing.root)} class="page"></div>

<style>
	.page {
		position: relative;
		width: 100%;
		height: 100%;
	}
</style>
