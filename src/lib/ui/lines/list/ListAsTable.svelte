<script lang="ts">
	import type { ComponentProps } from 'svelte'
	import ListLine from './ListLine.svelte'
	import ListTable from './ListTable.svelte'

	let props: Omit<ComponentProps<typeof ListLine>, 'Rows'> = $props()
</script>

<ListLine {...props} Rows={ListTable} />
