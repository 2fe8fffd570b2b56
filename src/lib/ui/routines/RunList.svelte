<script lang="ts">
	/** The newest runs of a routine: what each began on, whose doing it was, and what it came to. */
	import type { RoutineState, RunSummary } from '$lib/core/requests/runs.ts'
	import { showFigure } from '../count.ts'
	import { showMoment } from '../dates.ts'
	import { sayState } from './say-state.ts'

	type Props = { runs: readonly RunSummary[]; app: number; routine: string; state: RoutineState | undefined }

	let { runs, app, routine, state }: Props = $props()

	const counts = $derived(
		state?.counts
			? [
					`${showFigure(state.counts.waiting)} under way or waiting`,
					...(state.counts.givenUp > 0 ? [`${showFigure(state.counts.givenUp)} given up`] : []),
					`${showFigure(state.counts.done)} done`
				].join(', ')
			: ''
	)
	const last = $derived(runs.at(-1)?.id)
</script>

<section aria-labelledby="runs">
	<h2 id="runs">Runs <span class="quiet">{counts}</span></h2>
	{#if state?.counts === null}
		<p class="quiet">
			It reads rows or columns of which you do not see every one, so its runs are not yours to read. Whoever keeps those
			tables reads them.
		</p>
	{:else if runs.length === 0}
		<p class="quiet">None yet. Each time it starts there is a line here, with what each step came to.</p>
	{:else}
		<table class="ruled">
			<thead><tr><th>Row</th><th>Began</th><th>By</th><th>Came to</th></tr></thead>
			<tbody>
				{#each runs as run (run.id)}
					{@const says = sayState(run)}
					<tr>
						<td><a href="/bench/{app}/routines/{run.id}">{run.row || 'by the clock'}</a></td>
						<td class="when">{showMoment(run.beganAt)}</td>
						<td>{run.by || 'the clock'}</td>
						<td><span class="stamp {says.tone}">{says.text}</span> <span class="quiet">{says.more}</span></td>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if runs.length >= 50 && last !== undefined}
			<p><a class="btn" href="?routine={routine}&before={last}">Earlier runs</a></p>
		{/if}
		<p class="quiet">Ended runs are cleared after 90 days. What they changed stays in the Logbook.</p>
	{/if}
</section>

<style>
	section {
		padding: 1rem;
	}
	h2 {
		margin: 0 0 0.5rem;
		font: 700 1.1rem var(--head);
	}
	h2 .quiet {
		font: 400 0.95rem var(--text);
		margin-left: 0.5rem;
	}
	table {
		width: 100%;
		margin-bottom: 0.6rem;
	}
	td,
	th {
		padding: 0.4rem 0.7rem;
		text-align: left;
		vertical-align: baseline;
	}
	.when {
		white-space: nowrap;
	}
	p {
		margin: 0.4rem 0;
	}
</style>
