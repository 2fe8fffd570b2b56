<script lang="ts">
	/** Adds a row. What is typed is kept on this device until it has been sent; after sending the form is empty again. */
	import type { ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { browser } from '$app/environment'
	import { invalidateAll } from '$app/navigation'
	import { page } from '$app/state'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import CellField from '../../cells/CellField.svelte'
	import { BLANK_DRAFT, readDraft, sendFiles, type CellDraft } from '../../cells/cell-draft.ts'
	import { draftKey, keepDrafts, readDrafts, type Drafts } from './drafts.ts'
	import { optionsAt } from '../../cells/options.ts'
	import { doOnScreen } from '../do-on-screen.ts'

	type Props = {
		line: Extract<ShownLine, { kind: 'form' }>
		path: ScreenPath
		base: string
		row: string | null
	}

	let { line, path, base, row }: Props = $props()

	const keptUnder = $derived(
		draftKey(String(page.data['draftsOf']), path, line.isOfRow ? `${line.id} ${row}` : line.id)
	)

	let drafts = $state<Drafts>({})
	let wrong = $state<Record<number, string>>({})
	let said = $state<{ text: string; wrong: boolean } | undefined>()
	let busy = $state(false)
	let kept = $state(false)

	// Takes up what was typed before a reload; the device's own store lies outside Svelte.
	$effect(() => {
		const stored = browser ? readDrafts(keptUnder) : undefined
		if (!stored) return
		drafts = stored
		kept = true
	})

	function change(column: ShownColumn, draft: CellDraft) {
		drafts = { ...drafts, [column.id]: draft }
		const { [column.id]: _settled, ...rest } = wrong
		wrong = rest
		said = undefined
		keepDrafts(keptUnder, drafts)
	}

	function clear() {
		drafts = {}
		wrong = {}
		kept = false
		localStorage.removeItem(keptUnder)
	}

	async function submit(event: SubmitEvent) {
		event.preventDefault()
		busy = true
		const files = await sendFiles(drafts)
		busy = false
		drafts = files.drafts
		const readings = line.columns.map((column) => ({
			column,
			reading: readDraft(column, drafts[column.id] ?? BLANK_DRAFT)
		}))
		wrong = Object.fromEntries(
			readings.flatMap(({ column, reading }) => (reading.ok ? [] : [[column.id, reading.message]]))
		)
		wrong = { ...wrong, ...files.wrong }
		if (Object.keys(wrong).length > 0) {
			said = { text: 'Not sent yet: see what is marked above.', wrong: true }
			return
		}
		busy = true
		const cells = readings.flatMap(({ column, reading }) =>
			reading.ok && reading.value !== null ? [{ column: column.id, value: reading.value }] : []
		)
		const answer = await doOnScreen(path, {
			...{ kind: 'form', line: line.id, cells },
			...(line.isOfRow && row !== null ? { row } : {})
		})
		busy = false
		if (!answer.ok) {
			const column = Number(answer.refusal.details['column'])
			if (line.columns.some((each) => each.id === column)) wrong = { [column]: answer.refusal.message }
			said = { text: `${answer.refusal.message} What you typed is kept.`, wrong: true }
			return
		}
		clear()
		said = { text: line.thanks, wrong: false }
		await invalidateAll()
		if (line.then === 'goes back' && history.length > 1) history.back()
	}
</script>

<form onsubmit={submit} novalidate aria-label="Add to {line.title}">
	{#if kept}<p class="kept">
			Kept from before on this device. <button type="button" class="linky" onclick={clear}>Start empty</button>
		</p>{/if}
	{#each line.columns as column (column.id)}
		<CellField
			{column}
			draft={drafts[column.id] ?? BLANK_DRAFT}
			message={wrong[column.id]}
			options={optionsAt(base)}
			onchange={(draft) => change(column, draft)}
		/>
	{/each}
	<div class="end">
		<button class="btn main" disabled={busy}>{busy ? 'Sending…' : 'Send'}</button>
		{#if said}<p class:says-wrong={said.wrong} class:thanks={!said.wrong} role="status">{said.text}</p>{/if}
	</div>
</form>

<style>
	form {
		display: grid;
		gap: 1rem;
		padding: 0.8rem 1.2rem 1.5rem;
		max-width: 40rem;
	}
	.kept {
		background: var(--sea-wash);
		color: var(--sea);
		padding: 0.5rem 0.8rem;
	}
	.linky {
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		text-decoration: underline;
	}
	.end {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 1rem;
	}
	.end .btn {
		min-height: 52px;
		padding: 0.5rem 2rem;
		font-size: 1.05rem;
	}
	.thanks {
		background: var(--bottle-wash);
		color: var(--bottle);
		padding: 0.5rem 0.8rem;
		font-weight: 600;
	}
	@media (max-width: 640px) {
		.end .btn {
			width: 100%;
		}
	}
</style>
