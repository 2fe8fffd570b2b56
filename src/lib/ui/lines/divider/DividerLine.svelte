<script lang="ts">
	let { line }: { line: { id: string } } = $props()
</script>

<hr id={line.id} />

<style>
	hr {
		border: 0;
		border-top: 1px solid var(--zinc-3);
		margin: 1rem 1.2rem;
	}
</style>
