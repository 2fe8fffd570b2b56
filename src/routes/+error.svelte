<script lang="ts">
	import { page } from '$app/state'
</script>

<svelte:head><title>Tin Shed</title></svelte:head>

<main>
	<h1>{page.status === 404 ? 'Not here' : page.status === 403 ? 'Not for you' : 'That did not work'}</h1>
	<p>{page.error?.message}</p>
	<p><a class="btn" href="/">Go to the start</a></p>
</main>

<style>
	main {
		max-width: 36rem;
		margin: 12vh auto;
		padding: 0 1.5rem;
		display: grid;
		gap: 1rem;
	}
</style>
