<script lang="ts">
	import type { SlotProps } from './slot-props.ts'

	let { value, labelledby, onchange }: SlotProps<number> = $props()
</script>

<input
	class="field"
	type="number"
	min="1"
	max="1000"
	aria-labelledby={labelledby}
	value={value ?? ''}
	onchange={(event) =>
		onchange(event.currentTarget.valueAsNumber >= 1 ? Math.trunc(event.currentTarget.valueAsNumber) : null)}
/>
