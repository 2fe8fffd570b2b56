<script lang="ts">
	/** A file before it is brought in: its rows as they stand, what was read into them, and what is to be settled. */
	import { countOf } from '$lib/core/text/count.ts'
	import { goto, invalidate } from '$app/navigation'
	import { onDestroy, untrack } from 'svelte'
	import { makeScreens } from '$lib/core/app/make-screens.ts'
	import type { ImportPlan } from '$lib/core/exchange/plan.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { ImportState, Inspection } from '$lib/core/requests/imports.ts'
	import { changeStructure } from '../structure/structure.ts'
	import { ask, send } from '../send.ts'
	import { newId, useDraft } from '../bench/draft.svelte.ts'
	import {
		goInto,
		openDoubts,
		proposePlan,
		sayDoubt,
		settlePlan,
		NO_ROW_WORDS,
		rowsOf,
		turnRow
	} from './import-plan.ts'
	import MergeReview from './MergeReview.svelte'
	import { bringSheetsIn, type SheetBroughtIn } from './bring-sheets.ts'
	import PictureOffers from './PictureOffers.svelte'
	import RelationOffers from '../structure/RelationOffers.svelte'
	import SourceFoot from './SourceFoot.svelte'
	import SourceGrid from './SourceGrid.svelte'
	import SourceInto from './SourceInto.svelte'

	type Props = {
		importId: string
		first: Inspection & { file: string }
		app: number
		tables: readonly BenchTable[]
		/** The table that the file is brought into again. */
		again?: number | undefined
	}

	let { importId, first, app, tables, again }: Props = $props()
	const draft = useDraft()

	let inspection = $state.raw(untrack(() => first))
	let plan = $state<ImportPlan>(untrack(() => propose(first, again)))
	let settled = $state<Record<string, string>>({})
	let status = $state<ImportState>({ state: 'given' })
	let wrong = $state('')
	/** What was compared stays in sight while it goes in. */
	let reviewed = $state.raw<Extract<ImportState, { state: 'compared' }> | undefined>()
	const into = $derived(tables.find((table) => table.id === plan.into?.table))
	/** Other sheets that come in as well, as proposed, and what became of them. */
	let ticked = $state<string[]>([])
	const more = $derived(into ? [] : ticked.filter((sheet) => sheet !== inspection.sheet))
	let moreDone = $state.raw<readonly SheetBroughtIn[]>([])
	const others = $derived(inspection.sheets.filter((sheet) => sheet !== inspection.sheet))
	const broughtIn = $derived([
		...(status.state === 'done' ? [status.table] : []),
		...moreDone.flatMap(({ outcome }) => ('table' in outcome ? [outcome.table] : []))
	])
	/** The table that the rows are in, once they are. */
	const tableIn = $derived.by(() => {
		const id = status.state === 'done' || status.state === 'merged' ? status.table : undefined
		return tables.find((table) => table.id === id)
	})
	let timer: ReturnType<typeof setTimeout> | undefined

	function propose(found: Inspection & { file: string }, table: number | undefined): ImportPlan {
		const target = tables.find((each) => each.id === table && each.kept)
		const proposed = proposePlan(found, found.file)
		return target ? goInto(proposed, target, found.keys) : proposed
	}

	const doubts = $derived(openDoubts(inspection, plan))
	const included = $derived(plan.columns.filter((column) => column.include))
	/** The table that no column of the file goes into yet: there is nothing to compare. */
	const goesNowhere = $derived(included.length === 0 ? into : undefined)
	const blanks = $derived(inspection.columns.filter((column) => column.blank))
	const headings = $derived(`${inspection.headingRow ?? -1}${inspection.overTwo ? '+' : ''}`)

	/** `4+` is row 5 with the row above it. */
	function underHeadings(chosen: string) {
		const row = Number.parseInt(chosen, 10)
		return { headingRow: row < 0 ? null : row, overTwo: chosen.endsWith('+') }
	}

	const lookUnder = (chosen: string) => look(underHeadings(chosen))

	async function look(settings: { sheet?: string; headingRow?: number | null; overTwo?: boolean; firstRow?: number }) {
		const answer = await send('POST', `/bench/imports/${importId}`, {
			kind: 'inspect',
			sheet: plan.sheet,
			...settings
		})
		if (!answer.ok) return void (wrong = answer.refusal.message)
		wrong = ''
		const proposed = propose(answer.value, plan.into?.table)
		// Another sheet brings a name of its own; other headings keep the one that was written.
		const name = settings.sheet === undefined ? plan.tableName : proposed.tableName
		inspection = answer.value
		settled = {}
		change({ ...proposed, tableName: name })
	}

	async function start() {
		wrong = ''
		const answer = await send('POST', `/bench/imports/${importId}`, {
			kind: 'start',
			plan: settlePlan($state.snapshot(plan), doubts, settled),
			more: more.length > 0
		})
		if (!answer.ok) return void (wrong = answer.refusal.message)
		status = { state: 'running', doing: 'reading', done: 0, of: rowsOf(inspection, plan) }
		void follow()
	}

	async function follow() {
		const answer = await ask(`/bench/imports/${importId}`)
		if (!answer.ok) return void (wrong = answer.refusal.message)
		const isIn = answer.value.state === 'done' || answer.value.state === 'merged'
		// The way to the table is shown once the Bench knows it.
		if (isIn) await invalidate('app:bench')
		status = answer.value
		if (status.state === 'running') timer = setTimeout(follow, 250)
		else if (status.state === 'done' || status.state === 'merged') {
			const names = new Set([...tables.map((table) => table.name.toLowerCase()), plan.tableName.toLowerCase()])
			await bringSheetsIn(importId, more, names, (done) => (moreDone = [...moreDone, done]))
			if (more.length > 0) await invalidate('app:bench')
		} else if (status.state === 'compared') {
			reviewed = status
			wrong = status.refused?.message ?? ''
		} else if (status.state === 'failed') {
			back()
			wrong = answer.value.state === 'failed' ? answer.value.message : ''
		}
	}

	async function apply(partly: boolean) {
		wrong = ''
		const answer = await send('POST', `/bench/imports/${importId}`, { kind: 'apply', partly })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		void follow()
	}

	const stop = () => send('POST', `/bench/imports/${importId}`, { kind: 'stop' })

	onDestroy(() => clearTimeout(timer))

	/** Screens for the new table, in the draft of this app. */
	async function makeTheScreens() {
		const id = status.state === 'done' ? status.table : 0
		const table = tables.find((each) => each.id === id)
		if (!table) return
		draft.change({ ...draft.document, screens: [...draft.document.screens, ...makeScreens(table, newId)] })
		await goto(`/bench/${app}/screens`)
	}

	/** Undoes the bringing in. The table waits among those that were taken out, should it be wanted after all. */
	async function takeOut() {
		const id = status.state === 'done' ? status.table : 0
		const answer = await changeStructure({ kind: 'remove table', table: id })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		await invalidate('app:bench')
		await goto(`/bench/${app}/sources`)
	}

	/** What was compared no longer says what would happen. */
	function change(next: ImportPlan) {
		plan = next
		if (status.state === 'compared') back()
	}

	function fillDown(from: number, on: boolean) {
		change({
			...plan,
			columns: plan.columns.map((column) => (column.from === from ? { ...column, fillDown: on } : column))
		})
	}

	function back() {
		wrong = ''
		reviewed = undefined
		status = { state: 'given' }
	}
</script>

<div class="sheet">
	<header>
		<h1>{inspection.file}</h1>
		<p class="quiet">{countOf(rowsOf(inspection, plan), 'row')} · {countOf(inspection.columns.length, 'column')}</p>
		<p class="sentence">
			Headings are in
			<select
				value={headings}
				aria-label="Row of the headings"
				onchange={(event) => lookUnder(event.currentTarget.value)}
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
				onchange={(event) => void look({ ...underHeadings(headings), firstRow: Number(event.currentTarget.value) })}
			>
				{#each inspection.head.slice(0, 40) as _row, i (i)}{#if inspection.headingRow === null || i > inspection.headingRow}<option
							value={i}>row {i + 1}</option
						>{/if}{/each}
			</select>{#if inspection.sheets.length > 1}, sheet
				<select
					value={inspection.sheet}
					aria-label="Sheet"
					onchange={(event) => void look({ sheet: event.currentTarget.value })}
				>
					{#each inspection.sheets as sheet (sheet)}<option>{sheet}</option>{/each}
				</select>{/if}.
			{#if !into}
				Each row is known by its
				<select
					value={plan.label}
					aria-label="Column by which a row is known"
					onchange={(event) => (plan.label = Number(event.currentTarget.value))}
				>
					{#each included as column (column.from)}<option value={column.from}>{column.name}</option>{/each}
				</select>.{/if}
			<SourceInto {plan} {tables} keys={inspection.keys} onchange={change} />
		</p>
	</header>
	{#if reviewed && plan.into}
		<div class="scroll">
			<MergeReview
				comparison={reviewed.comparison}
				table={plan.tableName}
				how={plan.into.how}
				unread={reviewed.unread}
				unreadCount={reviewed.unreadCount}
			/>
		</div>
	{:else}
		<div class="work">
			<SourceGrid {inspection} bind:plan {doubts} {into} />
			<aside>
				<h2>
					{doubts.length === 0
						? inspection.damaged.length > 0
							? 'Damaged'
							: goesNowhere
								? 'Nothing goes in yet'
								: 'Nothing to settle'
						: `${doubts.length} ${doubts.length === 1 ? 'thing' : 'things'} to settle`}
				</h2>
				{#if inspection.damaged.length > 0}
					<p class="doubt damaged" role="alert">
						<strong>{inspection.damaged.length === 1 ? 'Row' : 'Rows'} {inspection.damaged.join(', ')}</strong>: a quote
						stands in the wrong place, so cells and rows after it may have run together. Mend the file there and give it
						in again.
					</p>
				{/if}
				{#if goesNowhere}
					<p class="doubt" role="status">
						No column of this file goes into <strong>{goesNowhere.name}</strong> yet. Choose over a column where it goes,
						or bring the file in as a new table.
					</p>
				{/if}
				{#each doubts.slice(0, 40) as each (each.key)}
					<fieldset class="doubt">
						<legend class="visually-hidden">{inspection.columns[each.column]?.name}</legend>
						<p><strong>{inspection.columns[each.column]?.name}</strong> {sayDoubt(each.doubt)}</p>
						{#each each.options as option (option.value)}
							<label class="tick">
								<input
									type="radio"
									name={each.key}
									checked={(settled[each.key] ?? each.proposed) === option.value}
									onchange={() => (settled = { ...settled, [each.key]: option.value })}
								/>
								{option.words}
							</label>
						{/each}
					</fieldset>
				{/each}
				{#if doubts.length > 40}<p class="quiet">and {doubts.length - 40} more, which are read as proposed.</p>{/if}
				{#each inspection.notes as note (note)}<p class="told">{note}</p>{/each}
				{#if inspection.noRows.length > 0}
					<fieldset class="told">
						<legend class="visually-hidden">Rows that are left out</legend>
						<p><strong>Left out</strong>, since they are no rows of the table. Tick to bring one in all the same.</p>
						{#each inspection.noRows.slice(0, 20) as { row, what, text } (row)}
							<label class="tick">
								<input
									type="checkbox"
									checked={!(plan.leftOut ?? []).includes(row)}
									onchange={() => change(turnRow(plan, row))}
								/>
								Row {row}
								{NO_ROW_WORDS[what]}: {text}
							</label>
						{/each}
						{#if inspection.noRows.length > 20}<p class="quiet">and {inspection.noRows.length - 20} more.</p>{/if}
					</fieldset>
				{/if}
				{#each inspection.groups as from (from)}
					<fieldset class="told">
						<legend class="visually-hidden">{inspection.columns[from]?.name}</legend>
						<p>
							<strong>{inspection.columns[from]?.name}</strong> stands in the first row of each group only.
						</p>
						<label class="tick">
							<input
								type="checkbox"
								checked={plan.columns[from]?.fillDown ?? false}
								onchange={(event) => fillDown(from, event.currentTarget.checked)}
							/>
							Fill it down: blank cells say what stands above them
						</label>
					</fieldset>
				{/each}
				{#if !into && others.length > 0 && status.state === 'given'}
					<fieldset class="told">
						<legend class="visually-hidden">Other sheets</legend>
						<p><strong>Other sheets</strong> come in as well, as proposed, each as a table of its own:</p>
						{#each others as sheet (sheet)}
							<label class="tick"><input type="checkbox" value={sheet} bind:group={ticked} /> {sheet}</label>
						{/each}
					</fieldset>
				{/if}
				{#each moreDone as { sheet, outcome } (sheet)}
					<p class="note">
						<strong>{sheet}</strong>: {'message' in outcome
							? outcome.message
							: `${countOf(outcome.rows, 'row')} ${outcome.rows === 1 ? 'is' : 'are'} in.`}
					</p>
				{/each}
				{#if status.state === 'done' && moreDone.length < more.length}
					<p class="note" role="status"><strong>{more[moreDone.length]}</strong> is coming in…</p>
				{/if}
				{#if status.state === 'done' && moreDone.length === more.length}
					<RelationOffers tables={broughtIn} onmade={() => void invalidate('app:bench')} />
				{/if}
				<PictureOffers {inspection} {plan} {app} table={tableIn} />
				{#if blanks.length > 0}<p class="note">
						{blanks.map((column) => column.name).join(', ')}
						{blanks.length === 1 ? 'is' : 'are'} wholly blank and left out.
					</p>{/if}
			</aside>
		</div>
	{/if}
	<SourceFoot
		{status}
		{app}
		rowCount={rowsOf(inspection, plan)}
		tableName={plan.tableName}
		how={plan.into?.how}
		into={into?.name}
		canStart={included.length > 0}
		{wrong}
		onstart={start}
		onstop={stop}
		onback={back}
		onapply={apply}
		ontakeout={takeOut}
		onscreens={makeTheScreens}
	/>
</div>

<style>
	.sheet {
		display: flex;
		flex-direction: column;
		height: calc(100dvh - 92px);
	}
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
	.work {
		flex: 1;
		display: grid;
		grid-template-columns: minmax(0, 1fr) 330px;
		min-height: 0;
	}
	.scroll {
		flex: 1;
		overflow: auto;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		align-items: baseline;
		padding: 0.15rem 0;
	}
	aside {
		background: var(--limewash);
		border-left: 1px solid var(--zinc-3);
		padding: 0.9rem 1.1rem;
		overflow: auto;
		display: grid;
		gap: 0.6rem;
		align-content: start;
	}
	.doubt,
	.told {
		margin: 0;
		background: var(--paper);
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		padding: 0.6rem 0.8rem;
		overflow-wrap: anywhere;
	}
	/* Only what waits for an answer is marked. */
	.doubt {
		border-left: 4px solid var(--marigold);
	}
	.damaged {
		background: var(--rope-wash);
		border-left-color: var(--rope);
	}
	.note {
		color: var(--zinc-7);
	}
	@media (max-width: 900px) {
		.work {
			grid-template-columns: 1fr;
			overflow: auto;
		}
	}
</style>
