<script lang="ts">
	/** What a file is called, how it is read, and where its rows go: as a sentence. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { GivenSource } from './given-source.svelte.ts'
	import SourceInto from './SourceInto.svelte'

	type Props = { source: GivenSource }

	let { source }: Props = $props()

	const inspection = $derived(source.inspection)
	const headings = $derived(`${inspection.headingRow ?? -1}${inspection.overTwo ? '+' : ''}`)

	/** `4+` is row 5 with the row above it. */
	function underHeadings(chosen: string) {
		const row = Number.parseInt(chosen, 10)
		return { headingRow: row < 0 ? null : row, overTwo: chosen.endsWith('+') }
	}
</script>

<header>
	<h1>{inspection.file}</h1>
	<p class="quiet">{countOf(source.rowCount, 'row')} · {countOf(inspection.columns.length, 'column')}</p>
	<p class="sentence">
		Headings are in
		<select
			value={headings}
			aria-label="Row of the headings"
			onchange={(event) => void source.look(underHeadings(event.currentTarget.value))}
		>
			<option value="-1">no row</option>
			{#each inspection.head.slice(0, 30) as _row, i (i)}
				<option value={String(i)}>row {i + 1}</option>
				{#if i > 0 && i < 12}<option value="{i}+">rows {i} and {i + 1}</option>{/if}
			{/each}
		</select>, rows start at
		<select
			value={inspection.firstRow}
			aria-label="First row"
			onchange={(event) =>
				void source.look({ ...underHeadings(headings), firstRow: Number(event.currentTarget.value) })}
		>
			{#each inspection.head.slice(0, 40) as _row, i (i)}{#if inspection.headingRow === null || i > inspection.headingRow}<option
						value={i}>row {i + 1}</option
					>{/if}{/each}
		</select>{#if inspection.sheets.length > 1}, sheet
			<select
				value={inspection.sheet}
				aria-label="Sheet"
				onchange={(event) => void source.look({ sheet: event.currentTarget.value })}
			>
				{#each inspection.sheets as sheet (sheet)}<option>{sheet}</option>{/each}
			</select>{/if}.
		{#if !source.into}
			Each row is known by its
			<select
				value={source.plan.label}
				aria-label="Column by which a row is known"
				onchange={(event) => (source.plan.label = Number(event.currentTarget.value))}
			>
				{#each source.included as column (column.from)}<option value={column.from}>{column.name}</option>{/each}
			</select>.{/if}
		<SourceInto
			plan={source.plan}
			tables={source.tables}
			keys={inspection.keys}
			onchange={(plan) => source.change(plan)}
		/>
	</p>
</header>

<style>
	header {
		padding: 0.9rem 1.3rem;
		border-bottom: 1px solid var(--pitch);
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.3rem 1rem;
	}
	.sentence {
		flex-basis: 100%;
		line-height: 2;
	}
	.sentence :global(select),
	.sentence :global(input) {
		border: 0;
		border-bottom: 2px solid var(--marigold);
		background: none;
		color: var(--pitch);
		font: inherit;
		font-weight: 700;
		padding: 0 1.5rem 0 0.1rem;
		max-width: 16rem;
	}
</style>
