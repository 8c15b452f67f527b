<script lang="ts">
	interface Props {
		text: string;
		label?: string;
	}
	let { text, label = 'Copy' }: Props = $props();
	let said = $state('');

	async function copy(): Promise<void> {
		try {
			await navigator.clipboard.writeText(text);
			said = 'Copied';
		} catch {
			said = 'Not allowed; select it by hand';
		}
		setTimeout(() => (said = ''), 2000);
	}
</script>

<button type="button" class="plain" onclick={copy} aria-live="polite">{said || label}</button>
