<script lang="ts">
	/** Runs of routines that were given up, and wait until somebody tries them again or cancels them. */
	import type { GivenUpRun } from '$lib/core/requests/runs.ts'
	import { showMoment } from '../dates.ts'
	import WaitGroup from './WaitGroup.svelte'
	import WaitItem from './WaitItem.svelte'

	let { runs }: { runs: readonly GivenUpRun[] } = $props()
</script>

{#if runs.length > 0}
	<WaitGroup title="Routines that could not go on">
		{#each runs as run (run.id)}
			<WaitItem
				href="/bench/{run.app}/routines/{run.id}"
				name={run.row ? `${run.name}, ${run.row}` : run.name}
				about="{run.error} Begun {showMoment(run.beganAt)}."
				stamp="given up"
				tone="bad"
			/>
		{/each}
	</WaitGroup>
{/if}
