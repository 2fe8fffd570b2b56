<script lang="ts">
	/** One run: what it began with, each line of its routine with what it came to, and what can be done with it now. */
	import { enhance } from '$app/forms'
	import { vocabularyOf, type Names } from '$lib/core/app/printed.ts'
	import type { AppDocument } from '$lib/core/app/document.ts'
	import { entryOfStart, entryOfStep, tableOfStart, type Routine } from '$lib/core/routine/routine.ts'
	import { placedSteps } from '$lib/core/routine/step-tree.ts'
	import { asLine } from '$lib/core/sentence/line-values.ts'
	import { printText } from '$lib/core/sentence/print.ts'
	import type { RunSheet, RunStep } from '$lib/core/requests/runs.ts'
	import { showFigure } from '../count.ts'
	import { showMoment } from '../dates.ts'
	import { sayState } from './say-state.ts'

	type Props = {
		run: RunSheet
		/** As it was when the run began; undefined where its release no longer has it. */
		routine: Routine | undefined
		document: AppDocument
		names: Names
		wrong: string
	}

	let { run, routine, document, names, wrong }: Props = $props()

	/** Beyond so many rows of one line the rest is only counted. */
	const MOST_SHOWN = 5

	const vocabulary = $derived(vocabularyOf(document, names))
	const says = $derived(sayState(run))
	const begins = $derived(
		routine
			? printText(entryOfStart(routine.start).sentence.kind, asLine(routine), vocabulary, tableOfStart(routine.start))
			: 'The routine is gone from its release.'
	)
	const lines = $derived(
		(routine ? placedSteps(routine) : []).map(({ step, level, number, table, holds }) => ({
			...{ id: step.id, level, number },
			text: printText(entryOfStep(step).sentence.kind, asLine(step), vocabulary, holds ?? table),
			did: run.steps.filter((each) => each.step === step.id)
		}))
	)
	const isOpen = $derived(run.state === 'ready' || run.state === 'waiting' || run.state === 'given up')
	const isStuckAt = (id: string) => run.state === 'given up' && run.standsAt === id

	/** What stands between what a step came to and whom it was about. */
	const JOINED: Readonly<Record<string, string>> = { sent: ' to', answered: ' by', 'not answered in time': ' by' }
	const sayStep = ({ cameTo, person }: RunStep) =>
		person === '' ? cameTo : `${cameTo}${JOINED[cameTo] ?? ''} ${person}`
</script>

<article>
	<header>
		<h1>{routine?.name ?? 'A routine that is gone'}, {run.row || showMoment(run.beganAt)}</h1>
		<span class="stamp {says.tone}">{says.text}</span>
		<span class="grow"></span>
		{#if isOpen}
			<form method="POST" use:enhance>
				<button class="btn" name="move" value="cancel">Cancel the run</button>
			</form>
		{/if}
	</header>
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	<dl>
		<dt>Began</dt>
		<dd>
			{showMoment(run.beganAt)}, {run.by === '' ? 'by the clock' : `by what ${run.by} did`}, with release {run.release}
		</dd>
		{#if run.actsAs}<dt>Acting as</dt>
			<dd>{run.actsAs}</dd>{/if}
		{#if says.more && run.state !== 'given up'}<dt>Waits</dt>
			<dd>{says.more}</dd>{/if}
		{#if run.endedAt !== null}<dt>Ended</dt>
			<dd>{showMoment(run.endedAt)}</dd>{/if}
	</dl>
	{#if !run.isHeld}
		<p class="end">
			It reads rows or columns of which you do not see every one, so what its steps came to is not yours to read.
			Whoever keeps those tables reads it.
		</p>
	{/if}
	<table>
		<thead><tr><th></th><th>What each line did</th><th>When</th><th>Came to</th></tr></thead>
		<tbody>
			<tr><td class="number">▸</td><td>{begins}</td><td class="when">{showMoment(run.beganAt)}</td><td>began</td></tr>
			{#each lines as { id, level, number, text, did } (id)}
				<tr class:stuck={isStuckAt(id)} class:next={!isStuckAt(id) && run.standsAt === id}>
					<td class="number">{number}</td>
					<td>
						<div class="text" style:--level={level}>
							{text}
							{#if isStuckAt(id)}
								<p class="why">{run.error}</p>
								<form method="POST" use:enhance>
									<button class="btn primary" name="move" value="again">Try again from here</button>
								</form>
							{/if}
						</div>
					</td>
					<td class="when">{did[0] ? showMoment(did[0].at) : ''}</td>
					<td>
						{#each did.slice(0, MOST_SHOWN) as step, i (i)}
							<span class="did">{sayStep(step)}{did.length > 1 && step.row ? `, ${step.row}` : ''}</span>
						{/each}
						{#if did.length > MOST_SHOWN}<span class="did quiet">and {showFigure(did.length - MOST_SHOWN)} more</span
							>{/if}
						{#if isStuckAt(id)}<span class="stamp bad">given up</span>
						{:else if did.length === 0}<span class="quiet">{!run.isHeld ? '' : isOpen ? 'not yet' : 'not reached'}</span
							>{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if run.state === 'given up' && run.standsAt === ''}
		<p class="why end">{run.error}</p>
		<form class="end" method="POST" use:enhance><button class="btn" name="move" value="again">Try again</button></form>
	{/if}
</article>

<style>
	article {
		background: var(--paper);
		padding-bottom: 2rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.4rem 0.8rem;
		padding: 0.8rem 1rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	h1 {
		margin: 0;
		font: 700 1.35rem var(--head);
		font-stretch: 90%;
	}
	.grow {
		flex: 1;
	}
	dl {
		display: grid;
		grid-template-columns: 7rem 1fr;
		gap: 0.2rem 1rem;
		margin: 0;
		padding: 0.8rem 1rem;
	}
	dt {
		font-weight: 650;
	}
	dd {
		margin: 0;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		border-top: 1px solid var(--pitch);
	}
	th {
		padding: 0.3rem 0.7rem;
		text-align: left;
		font: 650 0.88rem var(--head);
		border-bottom: 1px solid var(--pitch);
	}
	td {
		padding: 0.5rem 0.7rem;
		vertical-align: top;
		border-bottom: 1px solid var(--zinc-2);
	}
	.number {
		width: 40px;
		text-align: center;
		background: var(--limewash);
		color: var(--zinc-7);
		font-variant-numeric: tabular-nums;
	}
	.text {
		padding-left: calc(var(--level) * 1.4rem);
	}
	.when {
		white-space: nowrap;
		color: var(--zinc-7);
	}
	.did {
		display: block;
	}
	.stuck td {
		background: var(--oxide-wash);
	}
	.stuck .number {
		background: var(--oxide);
		color: var(--on-ink);
	}
	.next td:not(.number) {
		background: var(--selected);
	}
	.next .number {
		background: var(--marigold);
		color: #16201b;
	}
	.why {
		margin: 0.4rem 0 0.5rem;
	}
	.end {
		padding: 0.8rem 1rem;
	}
	@media (max-width: 800px) {
		.when {
			white-space: normal;
		}
	}
</style>
