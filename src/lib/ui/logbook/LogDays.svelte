<script lang="ts">
	/** The days between which the Logbook is searched. */
	import { untrack } from 'svelte'
	import DateField from '../cells/DateField.svelte'

	let { asked }: { asked: { readonly from: string; readonly to: string } } = $props()

	/** As they are chosen; those of the address, until somebody chooses. */
	let days = $state(untrack(() => ({ from: asked.from, to: asked.to })))
</script>

{#each ['from', 'to'] as const as name (name)}
	<span class="day">
		<label for="log-{name}" id="log-{name}-label">{name === 'from' ? 'From' : 'to'}</label>
		<DateField
			id="log-{name}"
			labelledby="log-{name}-label"
			text={days[name]}
			invalid={false}
			hasSteps={false}
			onchange={(text) => (days[name] = text)}
		/>
		<input type="hidden" {name} value={days[name]} />
	</span>
{/each}

<style>
	.day {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem;
	}
</style>
