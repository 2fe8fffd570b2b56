<script lang="ts">
	/** A table as it was at the end of a past day, to be read; what stands otherwise today is marked. */
	import { goto } from '$app/navigation'
	import { cellKey } from '$lib/core/query/wire.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { PastPage, PastRow } from '$lib/core/requests/rows.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { showFigure } from '../count.ts'
	import { ask } from '../send.ts'

	type Props = {
		table: BenchTable
		/** As an ISO date. */
		day: string
		/** The last day that is past. */
		latest: string
		/** The address of the table, and of it on another day. */
		href: (day?: string) => string
	}

	let { table, day, latest, href }: Props = $props()

	let rows = $state.raw<readonly PastRow[]>([])
	let page = $state.raw<PastPage | undefined>()
	let find = $state('')
	let wrong = $state('')
	let busy = $state(false)
	let asked = 0

	const columns = $derived(table.columns.filter(({ id }) => page?.columns.includes(id)))
	const lost = $derived(
		table.columns.filter(({ id, condition }) => page && page.count > 0 && !condition && !page.columns.includes(id))
	)

	async function read(from: number) {
		const mine = ++asked
		busy = true
		const filters = find.trim() === '' ? [] : [{ column: 0, is: 'contains', text: find }]
		const query = `day=${day}&skip=${from}&sort=${table.label}&filters=${encodeURIComponent(JSON.stringify(filters))}`
		const answer = await ask(`/rows/${table.id}/past?${query}`)
		if (mine !== asked) return
		busy = false
		wrong = answer.ok ? '' : answer.refusal.message
		if (!answer.ok) return
		page = answer.value
		rows = from === 0 ? page.rows : [...rows, ...page.rows]
	}

	$effect(() => {
		void [day, find]
		void read(0)
	})
</script>

<div class="past">
	<header>
		<h1>{table.name} as it was on</h1>
		<input
			class="field"
			type="date"
			aria-label="The day at whose end it was so"
			max={latest}
			value={day}
			onchange={({ currentTarget: { value } }) => value && goto(href(value), { keepFocus: true })}
		/>
		<input class="field" type="search" aria-label="Words that stand in a row" placeholder="Find" bind:value={find} />
		<span class="gap"></span>
		<a class="btn main" href={href()}>Back to today</a>
	</header>
	<p class="quiet" role="status">
		{#if page}
			{showFigure(page.count)}
			{page.count === 1 ? 'row' : 'rows'}, as they stood at the end of that day. Marked cells hold something else today.
			Rows that were removed since are not here.
			{#if page.isCut}Of a table so long only the first 20,000 rows were looked through.{/if}
			{#if lost.length > 0}{lost.map(({ name }) => name).join(', ')}
				{lost.length === 1 ? 'is' : 'are'} left out: what {lost.length === 1 ? 'it was' : 'they were'} is not kept.{/if}
		{:else if !wrong}Reading what was…{/if}
	</p>
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="scroll" tabindex="0" role="region" aria-label="{table.name} on that day">
		{#if rows.length > 0}
			<table class="ruled">
				<thead>
					<tr>
						{#each columns as { id, name } (id)}<th scope="col">{name}</th>{/each}
					</tr>
				</thead>
				<tbody>
					{#each rows as row (row.id)}
						<tr>
							{#each columns as column (column.id)}
								{@const isOther = row.since.includes(column.id)}
								<td class:other={isOther}
									>{showCell(column, row.cells[cellKey(column.id)])}{#if isOther}<span class="visually-hidden"
											>&nbsp;(otherwise today)</span
										>{/if}</td
								>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		{:else if page && !busy}<p class="quiet none">There was no row then that you see today.</p>{/if}
		{#if page && rows.length < page.count}
			<button class="btn" disabled={busy} onclick={() => read(rows.length)}>Show more</button>
		{/if}
	</div>
</div>

<style>
	.past {
		display: flex;
		flex-direction: column;
		min-height: 0;
		height: calc(100dvh - 92px);
		padding: 0 1.2rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem 0.8rem;
		padding: 0.7rem 0 0.3rem;
	}
	.field {
		width: auto;
	}
	.gap {
		flex: 1;
	}
	p {
		margin: 0 0 0.6rem;
	}
	.scroll {
		flex: 1;
		overflow: auto;
		padding-bottom: 1rem;
	}
	th {
		position: sticky;
		top: 0;
		background: var(--paper);
	}
	td {
		white-space: nowrap;
		max-width: 22rem;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.other {
		background: var(--selected);
		box-shadow: inset 3px 0 0 var(--marigold);
		font-weight: 600;
	}
	.none {
		padding: 1rem 0;
	}
</style>
