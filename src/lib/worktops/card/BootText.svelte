<script lang="ts">
	import { FIRST_PARTITION_AT } from '$core/files/cardFile';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField } from '$lib/fields';

	const view = useEndpoint();
	const card = $derived(view.plan.card);
</script>

<ChoiceField
	path="card.bootStyle"
	value={card.bootStyle}
	options={[
		{ value: 'none', text: 'As the image has it' },
		{ value: 'cmdline', text: 'cmdline.txt on the first partition' },
		{ value: 'extlinux', text: 'extlinux/extlinux.conf' }
	]}
/>
<ChoiceField
	path="card.firstPartition"
	value={card.firstPartition}
	options={FIRST_PARTITION_AT.map((at) => ({ value: at, text: at }))}
	hint="The first start finds it by itself; the run sheet’s commands name this place. findmnt -t vfat tells it."
/>
{#if card.bootStyle !== 'none'}
	<label id="setting-card.bootText" class="small soft">
		What stands there in the image
		<textarea
			rows="4"
			class="mono"
			spellcheck="false"
			value={card.bootText}
			onchange={(event) => view.set('card.bootText', event.currentTarget.value)}></textarea>
		The card set brings it back with what the plan adds.
	</label>
{/if}

<style>
	label {
		display: grid;
		gap: 4px;
	}
	textarea {
		font-size: var(--size-small);
	}
</style>
