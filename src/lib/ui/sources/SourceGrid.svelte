<script lang="ts">
	/** The first rows of a file as they stand, under their columns, each with a card that says what becomes of it. */
	import { offersChoices } from '$lib/core/model/table.ts'
	import type { ImportPlan } from '$lib/core/exchange/plan.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { Inspection } from '$lib/core/requests/imports.ts'
	import { CONTROLS } from '../cells/controls.ts'
	import { goIntoColumn, turnRow, type OpenDoubt } from './import-plan.ts'
	import SourceColumnCard from './SourceColumnCard.svelte'
	import { showFigure } from '../count.ts'

	type Props = {
		inspection: Inspection
		plan: ImportPlan
		doubts: readonly OpenDoubt[]
		/** The table that is there already, if the rows go into one. */
		into: BenchTable | undefined
	}

	let { inspection, plan = $bindable(), doubts, into }: Props = $props()

	let opened = $state<number | undefined>()

	const marked = $derived(
		new Set(doubts.flatMap(({ column, doubt }) => ('rows' in doubt ? doubt.rows.map((row) => `${row} ${column}`) : [])))
	)

	/** The column of the table that one of the file goes into; 0 leaves it out. */
	function sendInto(from: number, to: number) {
		const target = into?.columns.find((each) => each.id === to)
		plan.columns = plan.columns.map((column) => {
			if (column.from !== from) return column.to === to ? { ...column, include: false } : column
			return target ? goIntoColumn(column, target) : { ...column, include: false }
		})
	}

	function badge(column: ImportPlan['columns'][number]): string {
		if (!column.include) return 'left out'
		if (into) return `into ${into.columns.find((each) => each.id === column.to)?.name ?? ''}`
		if (offersChoices(column)) return `${column.type} of ${column.choices?.length ?? 0}`
		return column.unit ? `${column.type} ${column.unit}` : column.type
	}

	const isOut = (row: number) => (plan.leftOut ?? []).includes(row)
	const unsure = (from: number) => doubts.some((each) => each.column === from)
</script>

<div class="scroll">
	<table>
		<thead>
			<tr>
				<td class="no"></td>
				{#each plan.columns as column, at (column.from)}
					<th class:out={!column.include} class:wide={opened === column.from}>
						<span class="name">{column.name}</span>
						<button
							class="badge"
							class:unsure={unsure(column.from)}
							aria-expanded={opened === column.from}
							onclick={() => (opened = opened === column.from ? undefined : column.from)}
							>{badge(column)}{unsure(column.from) ? ' ?' : ''}</button
						>
						{#if opened === column.from}
							<SourceColumnCard
								bind:column={plan.columns[at]!}
								{into}
								onsend={(to) => sendInto(column.from, to)}
								onclose={() => (opened = undefined)}
							/>
						{/if}
					</th>
				{/each}
			</tr>
		</thead>
		<tbody>
			{#each inspection.head as row, i (i)}
				<tr
					class:above={i < inspection.firstRow && i !== inspection.headingRow}
					class:heads={i === inspection.headingRow}
					class:left-out={isOut(i + 1)}
				>
					<th class="no">
						{#if i >= inspection.firstRow}
							<button
								class="row-no"
								aria-pressed={isOut(i + 1)}
								title={isOut(i + 1) ? 'Bring this row in' : 'Leave this row out'}
								onclick={() => (plan = turnRow(plan, i + 1))}>{i + 1}</button
							>
						{:else}{i + 1}{/if}
					</th>
					{#each plan.columns as column (column.from)}
						<td
							class:out={!column.include}
							class:marked={marked.has(`${i + 1} ${column.from}`)}
							class:num={i >= inspection.firstRow && CONTROLS[column.type].inFigures}>{row[column.from] ?? ''}</td
						>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
	{#if inspection.rowCount > inspection.head.length}<p class="more quiet">
			and {showFigure(inspection.rowCount - inspection.head.length)} more rows, all of which were looked at
		</p>{/if}
</div>

<style>
	.row-no {
		width: 100%;
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		padding: 0.1rem 0;
	}
	.row-no:hover {
		text-decoration: underline;
	}
	tr.left-out td {
		color: var(--zinc-5);
		text-decoration: line-through;
	}
	.scroll {
		overflow: auto;
	}
	table {
		border-collapse: separate;
		border-spacing: 0;
		min-width: 100%;
	}
	th,
	td {
		border-right: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--zinc-2);
		padding: 0.3rem 0.6rem;
		text-align: left;
		white-space: nowrap;
		max-width: 11rem;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	thead th {
		position: sticky;
		top: 0;
		z-index: 2;
		background: var(--paper);
		vertical-align: top;
		overflow: visible;
	}
	td.num {
		text-align: right;
		font-variant-numeric: tabular-nums;
	}
	.no {
		position: sticky;
		left: 0;
		background: var(--limewash);
		color: var(--zinc-5);
		font: 400 0.72rem var(--mono);
		text-align: center;
		z-index: 1;
	}
	.name {
		display: block;
		font: 650 0.85rem var(--head);
	}
	.badge {
		border: 0;
		border-radius: 2px;
		background: var(--limewash);
		color: var(--zinc-7);
		font: 500 0.7rem var(--mono);
		padding: 0.2rem 0.4rem;
	}
	.badge.unsure,
	td.marked {
		background: var(--rope-wash);
		color: var(--rope);
	}
	.above td {
		color: var(--zinc-5);
		text-decoration: line-through;
	}
	.heads td,
	.heads .no {
		background: var(--marigold-wash);
		font-weight: 700;
	}
	th.out .name,
	td.out {
		color: var(--zinc-5);
		background: var(--limewash);
	}

	.more {
		padding: 0.6rem 1rem;
	}
</style>
