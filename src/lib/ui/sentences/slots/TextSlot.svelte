<script lang="ts">
	import type { SlotProps } from './slot-props.ts'

	let { value, labelledby, onchange, onchoose }: SlotProps<string> = $props()

	const focus = (node: HTMLElement) => node.focus()
</script>

<input
	class="field"
	use:focus
	aria-labelledby={labelledby}
	value={value ?? ''}
	onchange={(event) => onchange(event.currentTarget.value)}
	onkeydown={(event) => event.key === 'Enter' && onchoose(event.currentTarget.value)}
/>
