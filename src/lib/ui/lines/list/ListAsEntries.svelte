<script lang="ts">
	import type { ComponentProps } from 'svelte'
	import ListEntries from './ListEntries.svelte'
	import ListLine from './ListLine.svelte'

	let props: Omit<ComponentProps<typeof ListLine>, 'Rows'> = $props()
</script>

<ListLine {...props} Rows={ListEntries} />
