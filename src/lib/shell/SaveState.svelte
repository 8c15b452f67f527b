<script lang="ts">
	import { timeOfDay } from './times';
	import { store } from '$lib/store/workshop.svelte';

	const time = $derived(store.savedUtc ? timeOfDay(new Date(store.savedUtc)) : null);
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
