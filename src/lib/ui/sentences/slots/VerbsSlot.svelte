<script lang="ts">
	import { VERBS, type Verb } from '$lib/core/access/types.ts'
	import type { SlotProps } from './slot-props.ts'

	let { value, onchange }: SlotProps<readonly Verb[]> = $props()

	const isOn = (verb: Verb) => value?.includes(verb) ?? false
</script>

{#each VERBS as verb (verb)}
	<label>
		<input
			type="checkbox"
			checked={isOn(verb)}
			onchange={() => onchange(VERBS.filter((each) => (each === verb ? !isOn(each) : isOn(each))))}
		/>
		{verb}
	</label>
{/each}

<style>
	label {
		display: flex;
		gap: 0.5rem;
		padding: 0.2rem 0;
		align-items: center;
	}
</style>
