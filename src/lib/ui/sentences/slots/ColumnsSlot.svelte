<script lang="ts">
	import ColumnsEditor from './ColumnsEditor.svelte'
	import type { SlotProps } from './slot-props.ts'

	let { value, vocabulary, table, onchange }: SlotProps<readonly number[]> = $props()
</script>

<ColumnsEditor {vocabulary} {table} value={value ?? []} {onchange} />
