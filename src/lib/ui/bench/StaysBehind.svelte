<script lang="ts">
	/** What does not go along in a bundle, each with why. */
	let { says }: { says: readonly string[] } = $props()
</script>

<ul>
	{#each says as each, i (i)}<li>{each}</li>{/each}
</ul>

<style>
	ul {
		margin: 0;
		padding-left: 1.2rem;
	}
</style>
