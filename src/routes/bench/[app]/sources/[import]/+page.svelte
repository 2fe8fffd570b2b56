<script lang="ts">
	import SourceSheet from '$lib/ui/sources/SourceSheet.svelte'

	let { data } = $props()
</script>

{#key data.importId}
	<SourceSheet
		importId={data.importId}
		first={data.inspection}
		app={data.draft.id}
		tables={data.bench.tables}
		again={data.again}
	/>
{/key}
