<script lang="ts">
	/** One row, shown whole. What this person may change opens for editing; both values are shown where somebody else was faster. */
	import type { ScreenPath } from '$lib/core/requests/screens.ts'
	import { goto, invalidateAll } from '$app/navigation'
	import type { Conflict } from '$lib/core/query/change.ts'
	import { cellKey, isErrorCell, isFileCell, isHiddenCell, type WireRow } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { isPicture } from '$lib/core/capture/attachment.ts'
	import CellField from '../../cells/CellField.svelte'
	import CellValue from '../../cells/CellValue.svelte'
	import { fileAddress } from '../../cells/file-address.ts'
	import { BLANK_DRAFT, draftOf, readDraft, sameDraft, sendFiles, type CellDraft } from '../../cells/cell-draft.ts'
	import { optionsAt } from '../../cells/options.ts'
	import { showCell } from '../../cells/show-cell.ts'
	import { showMoment } from '../../dates.ts'
	import { doOnScreen } from '../do-on-screen.ts'
	import RowHistory from './RowHistory.svelte'

	type Props = {
		line: {
			id: string
			table: number
			title: string
			label: number
			columns: readonly ShownColumn[]
			row: WireRow | null
			signoff: {
				state: string
				name: string
				decider: string
				decidedAt: number | null
				comment: string
				link: string | null
			} | null
		}
		path: ScreenPath
		base: string
	}

	let { line, path, base }: Props = $props()

	let editing = $state(false)
	let drafts = $state<Record<number, CellDraft>>({})
	let seen = $state<WireRow | null>(null)
	let wrong = $state<Record<number, string>>({})
	let conflicts = $state<readonly Conflict[]>([])
	let said = $state<{ text: string; wrong: boolean } | undefined>()

	const row = $derived(line.row)
	const title = $derived(line.columns.find((column) => column.id === line.label))
	const rest = $derived(line.columns.filter((column) => column.id !== line.label))
	const mayChange = $derived(row?.may?.change ?? [])
	const editable = $derived(line.columns.filter((column) => mayChange.includes(column.id)))

	function edit() {
		if (!row) return
		seen = row
		drafts = Object.fromEntries(editable.map((column) => [column.id, draftOf(column, row.cells[cellKey(column.id)])]))
		editing = true
		said = undefined
		conflicts = []
	}

	/** Where the picture is fetched that lies in a cell now, while nothing else was put in its place. */
	function pictureOf(column: ShownColumn): string | undefined {
		const cell = seen?.cells[cellKey(column.id)]
		if (!seen || !isFileCell(cell) || drafts[column.id]?.file !== cell.file.sha) return undefined
		return isPicture(cell.file.type)
			? fileAddress(base, { column: column.id, row: seen.id, file: cell.file })
			: undefined
	}

	async function save(event: SubmitEvent) {
		event.preventDefault()
		if (!seen) return
		const was = seen
		const files = await sendFiles(drafts)
		drafts = files.drafts
		const touched = editable.filter(
			(column) => !sameDraft(drafts[column.id] ?? BLANK_DRAFT, draftOf(column, was.cells[cellKey(column.id)]))
		)
		const readings = touched.map((column) => ({
			column,
			reading: readDraft(column, drafts[column.id] ?? BLANK_DRAFT)
		}))
		const unread = readings.flatMap(({ column, reading }) => (reading.ok ? [] : [[column.id, reading.message]]))
		wrong = { ...Object.fromEntries(unread), ...files.wrong }
		if (Object.keys(wrong).length > 0) return
		if (touched.length === 0) return void (editing = false)
		const cells = readings.flatMap(({ column, reading }) =>
			reading.ok ? [{ column: column.id, value: reading.value, was: was.cells[cellKey(column.id)] ?? null }] : []
		)
		const answer = await doOnScreen(path, { kind: 'change', line: line.id, row: was.id, cells })
		if (!answer.ok) {
			const column = Number(answer.refusal.details['column'])
			if (editable.some((each) => each.id === column)) wrong = { [column]: answer.refusal.message }
			return void (said = { text: `${answer.refusal.message} What you typed is kept.`, wrong: true })
		}
		conflicts = answer.value.conflicts
		await invalidateAll()
		if (conflicts.length > 0) {
			seen = line.row
			return void (said = {
				text: 'Somebody else has changed this meanwhile. Both values are shown; save again to put yours in.',
				wrong: true
			})
		}
		editing = false
		said = { text: 'Saved.', wrong: false }
	}

	async function remove() {
		if (!row) return
		const answer = await doOnScreen(path, { kind: 'remove', line: line.id, row: row.id })
		if (!answer.ok) return void (said = { text: answer.refusal.message, wrong: true })
		await goto(base)
	}

	const tone = $derived(
		line.signoff?.state === 'approved' ? 'good' : line.signoff?.state === 'declined' ? 'bad' : 'look'
	)
</script>

{#if !row}
	<p class="none">This row is not there, or not for you to see.</p>
{:else}
	<article>
		<h1>{title ? showCell(title, row.cells[cellKey(title.id)]) || '(blank)' : line.title}</h1>
		{#if line.signoff}
			<p class="decision">
				<span class="stamp {tone}"
					>{line.signoff.state === 'waiting' ? `waits on ${line.signoff.decider}` : line.signoff.state}</span
				>
				{#if line.signoff.decidedAt}<span class="quiet"
						>by {line.signoff.decider}, {showMoment(line.signoff.decidedAt)}</span
					>{/if}
				{#if line.signoff.comment}<q>{line.signoff.comment}</q>{/if}
				<span class="quiet">Closed to changes.</span>
				{#if line.signoff.link}<a href={line.signoff.link}>See the request</a>{/if}
			</p>
		{/if}
		{#if editing}
			<form onsubmit={save} novalidate>
				{#each editable as column (column.id)}
					{@const conflict = conflicts.find((each) => each.column === column.id)}
					<CellField
						{column}
						draft={drafts[column.id] ?? BLANK_DRAFT}
						message={wrong[column.id]}
						there={pictureOf(column)}
						options={optionsAt(base)}
						onchange={(draft) => (drafts = { ...drafts, [column.id]: draft })}
					/>
					{#if conflict}
						<p class="conflict">
							Now there: <strong>{showCell(column, conflict.theirs) || 'blank'}</strong>
							<button
								type="button"
								class="btn"
								onclick={() => (drafts = { ...drafts, [column.id]: draftOf(column, conflict.theirs) })}
								>Take theirs</button
							>
						</p>
					{/if}
				{/each}
				<div class="end">
					<button class="btn main">Save</button>
					<button type="button" class="btn" onclick={() => (editing = false)}>Leave it as it was</button>
				</div>
			</form>
		{:else}
			<dl>
				{#each rest as column (column.id)}
					{@const cell = row.cells[cellKey(column.id)]}
					{#if cell !== undefined}
						<dt>{column.name}</dt>
						<dd class:quiet={cell === null || isHiddenCell(cell)} class:says-wrong={isErrorCell(cell)}>
							<CellValue {column} {cell} row={row.id} {base} />
						</dd>
					{/if}
				{/each}
			</dl>
			{#if !line.signoff}
				<div class="end">
					{#if editable.length > 0}<button class="btn" onclick={edit}>Change</button>{/if}
					{#if row.may?.remove}<button class="btn danger" onclick={remove}>Remove</button>{/if}
				</div>
			{/if}
		{/if}
		{#if said}<p class:says-wrong={said.wrong} role="status">{said.text}</p>{/if}
		{#if !base.startsWith('/as/')}<RowHistory table={line.table} row={row.id} />{/if}
	</article>
{/if}

<style>
	article {
		display: grid;
		gap: 0.9rem;
		padding: 1.1rem 1.2rem;
	}
	.none {
		padding: 1.5rem 1.2rem;
	}
	.decision {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.5rem 0.8rem;
	}
	dl {
		display: grid;
		grid-template-columns: minmax(7rem, 11rem) 1fr;
		margin: 0;
	}
	dt,
	dd {
		margin: 0;
		padding: 0.5rem 0;
		border-bottom: 1px solid var(--zinc-2);
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		font-weight: 600;
		white-space: pre-line;
		overflow-wrap: anywhere;
	}
	dd.quiet {
		font-weight: 400;
	}
	form {
		display: grid;
		gap: 1rem;
		max-width: 36rem;
	}
	.conflict {
		background: var(--rope-wash);
		color: var(--rope);
		padding: 0.5rem 0.8rem;
		display: flex;
		align-items: center;
		gap: 0.8rem;
	}
	.end {
		display: flex;
		gap: 0.6rem;
	}
	.end .btn {
		min-height: 48px;
		padding: 0.4rem 1.2rem;
	}
</style>
