<script lang="ts">
	/** What is known of one person, and changing it where one may. */
	import { invalidate } from '$app/navigation'
	import { cellKey } from '$lib/core/query/wire.ts'
	import type { PeopleSheet, ShownPerson } from '$lib/core/requests/people.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import CellField from '../cells/CellField.svelte'
	import CellValue from '../cells/CellValue.svelte'
	import { BLANK_DRAFT, draftOf, readDraft, sameDraft, type CellDraft } from '../cells/cell-draft.ts'
	import { optionsAt } from '../cells/options.ts'
	import { send } from '../send.ts'

	type Props = {
		person: ShownPerson
		sheet: PeopleSheet
		/** Told what was wrong with what was typed; empty once it is in. */
		onwrong: (message: string) => void
	}

	let { person, sheet, onwrong }: Props = $props()

	let drafts = $state.raw<Record<number, CellDraft> | undefined>()

	const cellOf = (column: ShownColumn) => person.row.cells[cellKey(column.id)]
	const decides = (column: ShownColumn) => sheet.marked.includes(column.id)
	const editable = $derived(
		sheet.columns.filter(
			(column) => person.row.may?.change.includes(column.id) && !(decides(column) && (person.isMe || !sheet.isSteward))
		)
	)

	function edit() {
		drafts = Object.fromEntries(editable.map((column) => [column.id, draftOf(column, cellOf(column))]))
	}

	async function save(event: SubmitEvent) {
		event.preventDefault()
		const cells = []
		for (const column of editable) {
			const was = cellOf(column)
			const draft = drafts?.[column.id] ?? BLANK_DRAFT
			if (sameDraft(draft, draftOf(column, was))) continue
			const reading = readDraft(column, draft)
			if (!reading.ok) return onwrong(`${column.name}: ${reading.message}`)
			cells.push({ column: column.id, value: reading.value, was: was ?? null })
		}
		if (cells.length > 0) {
			const answer = await send('POST', `/rows/${sheet.table}`, { kind: 'change', row: person.row.id, cells })
			if (!answer.ok) return onwrong(answer.refusal.message)
		}
		onwrong('')
		drafts = undefined
		await invalidate('app:people')
	}
</script>

<section aria-label="What is known">
	{#if drafts}
		<form onsubmit={save} novalidate>
			{#each editable as column (column.id)}
				<CellField
					{column}
					draft={drafts[column.id] ?? BLANK_DRAFT}
					options={optionsAt('')}
					onchange={(draft) => (drafts = { ...drafts, [column.id]: draft })}
				/>
			{/each}
			<p class="row">
				<button class="btn main">Save</button>
				<button type="button" class="btn" onclick={() => (drafts = undefined)}>Leave it as it was</button>
			</p>
		</form>
	{:else}
		<dl>
			{#each sheet.columns as column (column.id)}
				<dt>
					{column.name}{#if decides(column)}<span
							class="quiet mark"
							title="Decides what people may see: only stewards change it, and never their own">decides access</span
						>{/if}
				</dt>
				<dd><CellValue {column} cell={cellOf(column)} row={person.row.id} base="" /></dd>
			{/each}
		</dl>
		{#if editable.length > 0}<p><button class="btn" onclick={edit}>Change</button></p>{/if}
	{/if}
</section>

<style>
	dl {
		display: grid;
		grid-template-columns: minmax(9rem, 13rem) 1fr;
		margin: 0;
	}
	dt,
	dd {
		margin: 0;
		padding: 0.4rem 0;
		border-bottom: 1px solid var(--zinc-2);
		overflow-wrap: anywhere;
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		font-weight: 600;
	}
	.mark {
		display: block;
		font-size: 0.8rem;
	}
	form {
		display: grid;
		gap: 0.8rem;
		max-width: 30rem;
	}
</style>
