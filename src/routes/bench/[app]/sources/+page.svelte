<script lang="ts">
	import { invalidateAll } from '$app/navigation'
	import type { Undone } from '$lib/core/requests/imports.ts'
	import { showCount } from '$lib/ui/count.ts'
	import { showMoment } from '$lib/ui/dates.ts'
	import { send } from '$lib/ui/send.ts'
	import { ACCEPTED_FILES, SourceGiving } from '$lib/ui/sources/give-source.svelte.ts'
	import SourceDrop from '$lib/ui/sources/SourceDrop.svelte'
	import UndoneRows from '$lib/ui/sources/UndoneRows.svelte'

	let { data } = $props()

	const sources = $derived(data.bench.tables.filter((table) => table.source))
	const giving = new SourceGiving(() => data.draft.id)
	/** What came of undoing, to be read above the list. */
	let undone = $state.raw<{ readonly table: string; readonly what: Undone } | undefined>()
	let undoing = $state(0)

	async function undo(table: { id: number; name: string }) {
		undoing = table.id
		const answer = await send('POST', '/bench/imports', { undo: table.id })
		undoing = 0
		if (!answer.ok) return void (giving.wrong = answer.refusal.message)
		undone = { table: table.name, what: answer.value }
		await invalidateAll()
	}
</script>

<div class="page">
	<h1>Sources</h1>
	<SourceDrop {giving} />
	<h2>Brought in</h2>
	{#if undone}<UndoneRows undone={undone.what} table={undone.table} />{/if}
	{#if sources.length === 0}
		<p class="quiet">Nothing yet. A table made from a file is listed here.</p>
	{:else}
		<table class="ruled">
			<thead><tr><th>File</th><th>Table</th><th class="num">Rows now</th><th>When</th><td></td></tr></thead>
			<tbody>
				{#each sources as table (table.id)}
					<tr>
						<td
							><strong>{table.source?.file}</strong>{#if table.source?.sheet}<span class="sheet quiet"
									>· {table.source.sheet}</span
								>{/if}</td
						>
						<td>{table.name}</td>
						<td class="num">{showCount(table.rows)}</td>
						<td class="quiet">{table.source ? showMoment(table.source.at) : ''}</td>
						<td class="ways">
							{#if table.undoable}
								<button class="btn" type="button" disabled={undoing !== 0} onclick={() => undo(table)}>
									{undoing === table.id ? 'Putting back…' : 'Put the rows back'}
								</button>
							{/if}
							<label class="btn">
								Bring in again
								<input
									class="visually-hidden"
									type="file"
									accept={ACCEPTED_FILES}
									disabled={giving.busy !== ''}
									onchange={(event) => giving.take(event.currentTarget.files?.[0], table.id)}
								/>
							</label>
							<a class="btn" href="/bench/{data.draft.id}/tables?table={table.id}">Open the table</a>
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
</div>

<style>
	.page {
		padding: 1.2rem 1.5rem;
		display: grid;
		gap: 1rem;
		align-content: start;
		max-width: 64rem;
	}
	.sheet {
		margin-left: 0.4rem;
	}
	.ways {
		white-space: nowrap;
		text-align: right;
	}
	.ways .btn:focus-within {
		outline: 3px solid var(--marigold);
	}
</style>
