<script lang="ts">
	let { line }: { line: { text: string } } = $props()
</script>

<h1>{line.text}</h1>

<style>
	h1 {
		padding: 1.1rem 1.2rem 0.5rem;
	}
</style>
