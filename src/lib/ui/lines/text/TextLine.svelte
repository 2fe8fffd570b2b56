<script lang="ts">
	import Words from './Words.svelte'

	let { line }: { line: { html: string } } = $props()
</script>

<Words html={line.html} />
