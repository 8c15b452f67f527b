<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { SwitchField } from '$lib/fields';

	const view = useEndpoint();
</script>

<SwitchField
	path="picture.phonePassword"
	value={view.plan.picture.phonePassword}
	hint="You type it when the card set is written. Without one, whoever is in this network can press."
/>
