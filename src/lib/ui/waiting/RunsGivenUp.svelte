<script lang="ts">
	/** Runs of routines that were given up, and wait until somebody tries them again or cancels them. */
	import type { GivenUpRun } from '$lib/core/requests/runs.ts'
	import { showMoment } from '../dates.ts'

	type Props = { runs: readonly GivenUpRun[] }

	let { runs }: Props = $props()
</script>

{#if runs.length > 0}
	<section aria-labelledby="given-up">
		<h2 id="given-up">Routines that could not go on</h2>
		{#each runs as run (run.id)}
			<a class="item" href="/bench/{run.app}/routines/{run.id}">
				<span>
					<strong>{run.name}{run.row ? `, ${run.row}` : ''}</strong>
					<span class="quiet">{run.error} Begun {showMoment(run.beganAt)}.</span>
				</span>
				<span class="stamp bad">given up</span>
			</a>
		{/each}
	</section>
{/if}

<style>
	section {
		border-bottom: 1px solid var(--zinc-3);
	}
	h2 {
		margin: 0;
		padding: 0.7rem 1rem 0.3rem;
		font: 700 0.95rem var(--head);
	}
	.item {
		display: flex;
		justify-content: space-between;
		align-items: start;
		gap: 0.8rem;
		padding: 0.6rem 1rem;
		border-top: 1px solid var(--zinc-2);
		background: var(--paper);
		color: inherit;
		text-decoration: none;
	}
	.quiet {
		display: block;
	}
	.stamp {
		flex: none;
	}
</style>
