<script lang="ts">
	/** Who may see and change one table: its lines, and what they come to for each person, before they are saved. */
	import { untrack } from 'svelte'
	import { invalidateAll } from '$app/navigation'
	import type { AccessSheet, ProposedAccess } from '$lib/core/requests/access.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { ACCESS_LINE } from '$lib/core/sentence/access-line.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
	import { isTyping } from '../typing.ts'
	import { newId } from '../bench/draft.svelte.ts'
	import AddLine from '../sentences/AddLine.svelte'
	import SentenceLine from '../sentences/SentenceLine.svelte'
	import { AccessDraft } from './access-draft.svelte.ts'
	import AccessExamples from './AccessExamples.svelte'
	import AccessNav from './AccessNav.svelte'
	import AccessOutcome from './AccessOutcome.svelte'
	import ProposedLines from './ProposedLines.svelte'
	import { sayTurns } from './say-turns.ts'
	import WhySeen from './WhySeen.svelte'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		sheet: AccessSheet
		/** What a table without lines could begin with. */
		proposed: readonly ProposedAccess[]
		vocabulary: Vocabulary
		app: number
	}

	let { table, tables, sheet, proposed, vocabulary, app }: Props = $props()

	const draft = untrack(() => new AccessDraft(table.id, () => sheet))
	const lines = $derived(draft.lines)

	function onkeydown(event: KeyboardEvent) {
		const isUndo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z'
		if (isTyping(event) || !isUndo || draft.past.length === 0) return
		event.preventDefault()
		event.stopPropagation()
		draft.undo()
	}
</script>

<svelte:window onkeydowncapture={onkeydown} />

<div class="bay">
	<AccessNav {tables} {app} at={table.id} />
	<div class="work">
		<header>
			<h1>Who may see and change {table.name}</h1>
			<p class="quiet">
				Nobody can, unless a line below lets them. The lines hold in every app, export, search and link.
			</p>
		</header>
		{#if lines.length === 0 && proposed.length > 0}
			<ProposedLines
				{proposed}
				{vocabulary}
				table={table.id}
				ontake={(line) => draft.change([{ ...line, id: newId() }])}
			/>
		{/if}
		{#each lines as line, i (line['id'])}
			<SentenceLine
				kind={ACCESS_LINE.kind}
				{line}
				{vocabulary}
				table={table.id}
				number={i + 1}
				issues={draft.issuesOf(line)}
				marked={draft.isMarked(line)}
				onchange={(next) => draft.change(lines.with(i, next))}
				onremove={() => draft.change(lines.toSpliced(i, 1))}
				onmove={(to) => draft.move(i, to === 'up' ? -1 : 1)}
			>
				{#snippet beside()}{draft.comesTo(line)}{/snippet}
			</SentenceLine>
		{/each}
		<AddLine
			kinds={[ACCESS_LINE]}
			{vocabulary}
			table={table.id}
			onadd={(line) => {
				const role = line['role'] ?? vocabulary.roles[0]?.id
				draft.change([...lines, { ...line, id: newId(), table: table.id, role }])
			}}
		/>
		{#if draft.wrong}<p class="wrong says-wrong" role="alert">{draft.wrong}</p>{/if}
		<div class="save">
			<p role="status">
				{#if draft.isDirty}<strong>Unsaved.</strong> {sayTurns(draft.preview.people)}
				{:else}{draft.said || 'What stands here is in force.'}{/if}
			</p>
			<button class="btn" onclick={() => draft.undo()} disabled={draft.past.length === 0}>Undo</button>
			<button class="btn main" onclick={() => draft.save()} disabled={!draft.isDirty || draft.preview.issues.length > 0}
				>Save lines</button
			>
		</div>
		<AccessOutcome sheet={draft.preview} />
		<AccessExamples {table} examples={draft.preview.examples} onchange={() => void invalidateAll()} />
		<WhySeen {table} people={draft.preview.people} onpinned={() => void invalidateAll()} />
	</div>
</div>

<style>
	.bay {
		display: grid;
		grid-template-columns: 195px minmax(0, 1fr);
		flex: 1;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.2rem 1rem;
		padding: 0.9rem 1.3rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	.save {
		display: flex;
		align-items: center;
		gap: 0.7rem;
		padding: 0.7rem 1.3rem;
		border-bottom: 1px solid var(--zinc-5);
	}
	.save p {
		flex: 1;
	}
	.wrong {
		padding: 0.5rem 1.3rem;
	}
</style>
