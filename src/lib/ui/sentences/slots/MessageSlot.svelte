<script lang="ts">
	import type { SlotProps } from './slot-props.ts'

	let { value, labelledby, onchange }: SlotProps<string> = $props()

	const focus = (node: HTMLElement) => node.focus()
</script>

<textarea
	class="field"
	rows="5"
	use:focus
	aria-labelledby={labelledby}
	value={value ?? ''}
	onchange={(event) => onchange(event.currentTarget.value)}></textarea>
<p class="quiet">Put formulas in braces, for instance {'{Code}'}. Each is shown as the reader may see it.</p>
