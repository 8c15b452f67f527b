<script lang="ts">
	import { page } from '$app/state';
</script>

<section>
	<h1>{page.status === 404 ? 'There is nothing here' : 'Something went wrong'}</h1>
	<p>
		{page.status === 404
			? 'The address may be mistyped. Your workshop is unchanged.'
			: `${page.error?.message ?? ''} Your workshop is saved; load the page again.`}
	</p>
	<a href="/">To the shelf</a>
</section>

<style>
	section {
		padding: 32px;
		display: grid;
		gap: 8px;
	}
</style>
