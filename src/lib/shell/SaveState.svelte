<script lang="ts">
	import { store } from '$lib/store/workshop.svelte';

	const time = $derived(
		store.savedUtc ? new Date(store.savedUtc).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' }) : null
	);
	const words = $derived(
		{
			saved: time ? `Saved ${time}` : 'Nothing changed yet',
			saving: 'Not saved yet …',
			failed: 'Not saved; trying again',
			conflict: 'Not saved: changed in another tab',
			unsaved: 'Nothing is kept'
		}[store.save]
	);
</script>

<p class="small soft" aria-live="polite">{store.lock ? 'Not open' : words}</p>
