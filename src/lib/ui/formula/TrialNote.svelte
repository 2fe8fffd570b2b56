<script lang="ts">
	/** What a formula comes to, as it stands: how many rows, for whom, when it is worked out, and what it costs. */
	import type { WireCell } from '$lib/core/query/wire.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import type { Trial } from './trial.ts'
	import { showFigure } from '../count.ts'

	type Props = { trial: Trial }

	let { trial }: Props = $props()

	const shown = (cells: readonly WireCell[] | undefined) =>
		(cells ?? []).map((cell) => (trial.samples && showCell(trial.samples.label, cell)) || '(blank)')
	const inside = $derived(shown(trial.samples?.inside))
	const outside = $derived(shown(trial.samples?.outside))
	const warning = $derived(
		trial.rows === 0 && (trial.of ?? 0) > 0
			? 'It holds for no row that you see.'
			: (trial.people ?? []).length > 0 && trial.people?.every(({ rows }) => rows === 0)
				? 'Nobody of these sees any row of it.'
				: ''
	)

	function sayWhen({ stored, rollups = 0 }: Trial): string {
		if (stored) return 'when the row changes, and kept'
		if (rollups === 0) return 'in the database, whenever it is read'
		return rollups === 1 ? 'when read; its total is kept' : 'when read; its totals are kept'
	}
</script>

<dl>
	{#if (trial.chosen ?? []).length > 0}
		<dt>Goes by</dt>
		<dd>what is chosen or typed on the screen: {trial.chosen?.join(', ')}</dd>
	{/if}
	{#if trial.rows !== undefined}
		<dt>Rows that match now</dt>
		<dd>{trial.rows} of {trial.of}</dd>
	{/if}
	{#if inside.length > 0}
		<dt>Such as</dt>
		<dd>{inside.join(', ')}</dd>
	{/if}
	{#if outside.length > 0}
		<dt>But not</dt>
		<dd>{outside.join(', ')}</dd>
	{/if}
	{#if warning}
		<dt class="look">Look</dt>
		<dd>{warning}</dd>
	{/if}
	{#each trial.people ?? [] as person (person.name)}
		<dt>{person.name} would see</dt>
		<dd>{person.rows}</dd>
	{/each}
	{#if trial.looksAt !== undefined}
		<dt>Takes long</dt>
		<dd>
			for each row it may look at {showFigure(trial.looksAt)} others, for a page of fifty at
			{showFigure(50 * trial.looksAt)}
		</dd>
	{/if}
	{#if trial.unheld !== undefined}
		<dt>What others would see</dt>
		<dd>not counted: you do not see {trial.unheld}, of everybody</dd>
	{/if}
	{#if trial.result !== undefined}
		<dt>For {trial.sample}</dt>
		<dd>{trial.result}</dd>
		<dt>Worked out</dt>
		<dd>{sayWhen(trial)}</dd>
		{#if trial.dependsOn && trial.dependsOn.length > 0}
			<dt>Reads</dt>
			<dd>{trial.dependsOn.join(', ')}</dd>
		{/if}
		{#if trial.registered && trial.registered.length > 0}
			<dt>Runs as code, not SQL</dt>
			<dd class="mono">{trial.registered.join(' ')}</dd>
		{/if}
	{/if}
</dl>

<style>
	.look {
		color: var(--rope);
		font-weight: 650;
	}
	dl {
		display: grid;
		grid-template-columns: fit-content(55%) 1fr;
		gap: 0.15rem 1rem;
		margin: 0.5rem 0 0;
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		margin: 0;
		font-weight: 700;
		text-align: right;
	}
</style>
