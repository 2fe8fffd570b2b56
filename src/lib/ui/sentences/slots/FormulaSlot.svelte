<script lang="ts">
	import FormulaEditor from '../../formula/FormulaEditor.svelte'
	import type { SlotProps } from './slot-props.ts'

	let { slot, value, table, around, onchange }: SlotProps<string> = $props()
</script>

<FormulaEditor
	value={value ?? ''}
	{table}
	{around}
	condition={slot.type === 'condition'}
	me={slot.me ?? true}
	empty={slot.empty}
	{onchange}
/>
