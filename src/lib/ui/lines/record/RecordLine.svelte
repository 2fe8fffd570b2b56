<script lang="ts">
	/** One row, shown whole. What this person may change opens for editing. */
	import { goto, invalidateAll } from '$app/navigation'
	import type { CellChange } from '$lib/core/query/change.ts'
	import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
	import type { CaseOfRow } from '$lib/core/requests/cases.ts'
	import type { ScreenPath, ShownTally } from '$lib/core/requests/screens.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { doOnScreen } from '../do-on-screen.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { useShownNow } from '../shown-now.svelte.ts'
	import TallyLine from '../tally/TallyLine.svelte'
	import NoRow from './NoRow.svelte'
	import { RecordEdit } from './record-edit.svelte.ts'
	import RecordCells from './RecordCells.svelte'
	import RecordDecision from './RecordDecision.svelte'
	import type RecordForm from './RecordForm.svelte'
	import RowHistory from './RowHistory.svelte'

	type Props = {
		line: {
			id: string
			table: number
			title: string
			label: number
			columns: readonly ShownColumn[]
			parts: readonly { id: string; title: string; columns: readonly ShownColumn[] }[]
			tallies: readonly ShownTally[]
			isWide: boolean
			waits: boolean
			row: WireRow | null
			signoff: CaseOfRow | null
		}
		path: ScreenPath
		base: string
	}

	let { line, path, base }: Props = $props()

	let edit = $state.raw<RecordEdit | undefined>()
	let Form = $state.raw<typeof RecordForm | undefined>()
	let said = $state<{ text: string; wrong: boolean } | undefined>()

	const now = useShownNow()
	const changed = $derived(now.changed[line.id])
	const row = $derived(line.row)
	const title = $derived(line.columns.find((column) => column.id === line.label))
	const rest = $derived(line.columns.filter((column) => column.id !== line.label))
	const all = $derived([...line.columns, ...line.parts.flatMap(({ columns }) => columns)])
	const editable = $derived(
		all.filter(({ id }, at) => row?.may?.change.includes(id) && all.findIndex((each) => each.id === id) === at)
	)

	async function begin() {
		// Its script comes with the first use: most sheets are only read.
		Form ??= (await import('./RecordForm.svelte').catch(() => undefined))?.default
		if (!Form) return void (said = { text: 'This could not be loaded: no signal. Press again later.', wrong: true })
		if (row) edit = new RecordEdit(row, editable, { base, put: put(row.id) })
		said = undefined
	}

	function put(of: string) {
		return (cells: readonly CellChange[]) => doOnScreen(path, { kind: 'change', line: line.id, row: of, cells })
	}

	async function save() {
		if (!edit) return
		const mine = edit
		const outcome = await now.changing(mine.seen.id, () => mine.save())
		if (outcome.is === 'refused') {
			if (outcome.message) said = { text: `${outcome.message} What you typed is kept.`, wrong: true }
			return
		}
		if (outcome.is === 'clashed' || outcome.changed) await invalidateAll()
		if (outcome.is === 'saved') {
			edit = undefined
			if (outcome.changed) said = { text: 'Saved.', wrong: false }
			return
		}
		if (line.row) edit.seen = line.row
		said = {
			text: 'Somebody else has changed this meanwhile. Both values are shown; save again to put yours in.',
			wrong: true
		}
	}

	async function remove() {
		if (!row) return
		const answer = await doOnScreen(path, { kind: 'remove', line: line.id, row: row.id })
		if (!answer.ok) return void (said = { text: answer.refusal.message, wrong: true })
		await goto(base)
	}
</script>

{#if line.waits}
	<p class="none quiet">Choose one of {line.title.toLowerCase()} to see it here.</p>
{:else if !row}
	<NoRow {base} screen={path.slice(base.length + 1)} />
{:else}
	<article>
		<h1>{title ? showCell(title, row.cells[cellKey(title.id)]) || '(blank)' : line.title}</h1>
		{#if changed && changed.length > 0}<p role="status">
				<button class="btn plain" onclick={() => now.looked(line.id)}
					>{countOf(changed.length, 'value')} changed by others · seen</button
				>
			</p>{/if}
		{#if line.signoff}<RecordDecision signoff={line.signoff} />{/if}
		{#if edit && Form}
			<Form {edit} {base} onsave={save} onleave={() => (edit = undefined)} />
		{:else}
			<RecordCells columns={rest} {row} {base} isWide={line.isWide} {changed} />
			{#each line.parts as part (part.id)}
				<h2>{part.title}</h2>
				<RecordCells columns={part.columns} {row} {base} isWide={line.isWide} {changed} />
			{/each}
			{#if line.tallies.length > 0}
				<div class="tallies">
					{#each line.tallies as tally (tally.id)}<TallyLine line={tally} {path} />{/each}
				</div>
			{/if}
			{#if !line.signoff}
				<div class="end">
					{#if editable.length > 0}<button class="btn" onclick={begin}>Change</button>{/if}
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
	h2 {
		font-size: 1.1rem;
		margin-top: 0.4rem;
	}
	.tallies {
		max-width: 34rem;
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
