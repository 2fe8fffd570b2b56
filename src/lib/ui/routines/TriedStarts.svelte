<script lang="ts">
	/** What a routine would have started in the last days, change by change; or when it comes, by the clock. */
	import type { TriedRoutine } from '$lib/core/requests/runs.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { showDay, showMoment } from '../dates.ts'

	type Props = { tried: TriedRoutine; isClock: boolean }

	let { tried, isClock }: Props = $props()

	const day = (iso: string) => showDay(Date.parse(`${iso}T12:00:00`))
</script>

<section aria-labelledby="tried">
	<h2 id="tried">{isClock ? 'In the next seven days' : `Tried on ${day(tried.from)} to ${day(tried.to)}`}</h2>
	{#if tried.why}<p class="says-wrong" role="alert">{tried.why}</p>
	{:else}
		<p class="quiet" role="status">
			{#if isClock}
				{tried.starts === 0 ? 'It does not come' : `It comes ${countOf(tried.starts, 'time')}`}. What it would do is
				worked out on the rows as they are today. Nothing was sent.
			{:else}
				{countOf(tried.read, 'entry', 'entries')} of the Logbook read{tried.isCut ? ', the newest of them' : ''}. Starts
				are exact; what the steps come to is worked out on the rows as they are today. Nothing was written, and nothing
				sent.
			{/if}
		</p>
		{#if tried.shown.length > 0}
			<table class="ruled">
				<thead
					><tr
						><th>When</th>{#if !isClock}<th>Row</th><th>By</th>{/if}<th>It</th></tr
					></thead
				>
				<tbody>
					{#each tried.shown as start, i (i)}
						<tr class:quiet={!start.starts}>
							<td class="when">{showMoment(start.at)}</td>
							{#if !isClock}<td><strong>{start.row}</strong></td><td>{start.by || 'nobody by name'}</td>{/if}
							<td>{start.starts ? (isClock ? 'starts' : 'would have started') : 'was so already: starts nothing'}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
		<p>
			<strong
				>{tried.starts === 0
					? isClock
						? ''
						: 'Nothing would have started it.'
					: countOf(tried.starts, 'start')}</strong
			>
		</p>
	{/if}
</section>

<style>
	section {
		padding: 1rem 1rem 0;
	}
	h2 {
		margin: 0 0 0.3rem;
		font: 700 1.1rem var(--head);
	}
	table {
		width: 100%;
		margin: 0.5rem 0;
	}
	td,
	th {
		padding: 0.3rem 0.7rem;
		text-align: left;
	}
	.when {
		white-space: nowrap;
	}
	p {
		margin: 0.3rem 0;
	}
</style>
