<script lang="ts">
	import { TextInput } from 'carbon-components-svelte';
	import { venueSchema } from '$core/plan/venue';
	import { store } from '$lib/store/workshop.svelte';

	const EMPTY = { cidr: '', poolFrom: '', poolTo: '', gateway: '' };
	type Lan = typeof EMPTY;
	const kept = $derived(store.workshop!.venue.lan);
	let draft = $state<Lan | null>(null);
	let error = $state('');
	const shown = $derived(draft ?? kept ?? EMPTY);
	const FIELDS: { key: keyof Lan; label: string; hint: string }[] = [
		{ key: 'cidr', label: 'Range', hint: 'As the router shows it, such as 192.168.4.0/24.' },
		{ key: 'gateway', label: 'The router itself', hint: 'Such as 192.168.4.1.' },
		{ key: 'poolFrom', label: 'It gives away from', hint: 'Its DHCP pool; empty when you do not know.' },
		{ key: 'poolTo', label: 'to', hint: '' }
	];

	/** Nothing is kept before range and router are both there and right. */
	function typed(key: keyof Lan, value: string): void {
		const next = { ...shown, [key]: value.trim() };
		const empty = Object.values(next).every((text) => text === '');
		const parsed = venueSchema.shape.lan.safeParse(empty ? null : next);
		draft = parsed.success ? null : next;
		error = parsed.success || next.cidr === '' || next.gateway === '' ? '' : parsed.error.issues[0]!.message;
		if (parsed.success)
			store.change('venue: network', (current) => ({ ...current, venue: { ...current.venue, lan: parsed.data } }));
	}
</script>

<h3>Its network</h3>
<p class="soft small">
	So that fixed addresses are checked, and the firewall lets in only what is near. Nothing of it is sent anywhere.
</p>
<div class="two">
	{#each FIELDS as { key, label, hint } (key)}
		<TextInput
			labelText={label}
			helperText={hint}
			value={shown[key]}
			autocomplete="off"
			on:input={(event) => typed(key, String(event.detail ?? ''))}
		/>
	{/each}
</div>
{#if error}<p class="bad small" role="alert">{error}</p>{/if}
