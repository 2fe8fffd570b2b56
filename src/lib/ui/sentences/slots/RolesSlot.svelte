<script lang="ts">
	import type { SlotProps } from './slot-props.ts'

	let { value, vocabulary, onchange }: SlotProps<readonly number[]> = $props()

	const isOn = (role: number) => value?.includes(role) ?? false
	const change = (role: number) =>
		onchange(vocabulary.roles.map(({ id }) => id).filter((id) => (id === role ? !isOn(id) : isOn(id))))
</script>

{#each vocabulary.roles as role (role.id)}
	<label><input type="checkbox" checked={isOn(role.id)} onchange={() => change(role.id)} /> {role.name}</label>
{/each}
<p class="quiet">It is hidden from others; what they may see of the rows is said in the lines of access.</p>

<style>
	label {
		display: flex;
		gap: 0.5rem;
		padding: 0.2rem 0;
		align-items: center;
	}
</style>
