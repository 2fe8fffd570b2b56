<script lang="ts">
	/** What somebody is asked for: the words, what is to be filled in, and the row as they see it. */
	import { goto } from '$app/navigation'
	import type { CellChange } from '$lib/core/query/change.ts'
	import { cellKey } from '$lib/core/query/wire.ts'
	import type { AskSheet } from '$lib/core/requests/asks.ts'
	import { showMoment } from '../dates.ts'
	import RecordCells from '../lines/record/RecordCells.svelte'
	import { RecordEdit } from '../lines/record/record-edit.svelte.ts'
	import RecordForm from '../lines/record/RecordForm.svelte'
	import { ask as read, send } from '../send.ts'

	type Props = { sheet: AskSheet }

	let { sheet }: Props = $props()

	// svelte-ignore state_referenced_locally
	const ask = sheet.id
	// svelte-ignore state_referenced_locally
	const edit = new RecordEdit(sheet.row, sheet.asked, { base: '', put: answer })
	const filled = $derived(sheet.columns.filter(({ id }) => (sheet.row.cells[cellKey(id)] ?? null) !== null))
	let said = $state('')

	function answer(cells: readonly CellChange[]) {
		return send('POST', '/waiting/answer', { ask, cells })
	}

	async function save() {
		said = ''
		const outcome = await edit.save()
		if (outcome.is === 'refused')
			return void (said = outcome.message ? `${outcome.message} What you typed is kept.` : '')
		if (outcome.is === 'clashed') {
			// Read by itself: with the page this form would go, and what was typed with it, where the ask is over meanwhile.
			const again = await read(`/rows/${sheet.table}?row=${encodeURIComponent(sheet.row.id)}`)
			const row = again.ok ? again.value.rows[0] : undefined
			if (row) edit.seen = row
			return void (said =
				'Somebody else has changed this meanwhile. Both values are shown; send again to put yours in.')
		}
		// What stood there already may be the answer.
		const isSent = outcome.changed || (await settled())
		if (isSent) await goto('/waiting', { invalidateAll: true })
	}

	async function settled(): Promise<boolean> {
		const answered = await answer([])
		if (!answered.ok) said = answered.refusal.message
		return answered.ok
	}
</script>

<p class="quiet">
	Asked of you {showMoment(sheet.askedAt)}{sheet.endsAt === null ? '' : `, by ${showMoment(sheet.endsAt)}`}
</p>
<h2 class="label">{sheet.subject}</h2>
{#if sheet.body}<p class="words">{sheet.body}</p>{/if}
<RecordForm {edit} base="" onsave={save} sends="Send it" />
{#if said}<p class="says-wrong" role="alert">{said}</p>{/if}
{#if filled.length > 0}
	<h3>{sheet.label}</h3>
	<RecordCells columns={filled} row={sheet.row} base="" isWide={false} changed={undefined} />
{/if}

<style>
	.label {
		font-size: 1.45rem;
	}
	.words {
		white-space: pre-line;
		max-width: 40rem;
	}
	h3 {
		margin: 1rem 0 0;
		font: 700 1.05rem var(--head);
	}
</style>
