<script lang="ts">
	/** A file before it is brought in: its rows as they stand, what was read into them, and what is to be settled. */
	import { TYPED_TYPES } from '$lib/core/table/types.ts'
	import { goto, invalidate } from '$app/navigation'
	import Progressbar from 'flowbite-svelte/Progressbar.svelte'
	import { onDestroy, untrack } from 'svelte'
	import { makeScreens } from '$lib/core/app/make-screens.ts'
	import type { ImportPlan } from '$lib/core/exchange/plan.ts'
	import type { BenchTable } from '$lib/server/workspace/bench.ts'
	import type { Inspection } from '$lib/server/sources/inspect.ts'
	import type { ImportState } from '$lib/server/sources/imports.ts'
	import { ask, send } from '../send.ts'
	import { newId, useDraft } from './draft.svelte.ts'
	import { goInto, goIntoColumn, openDoubts, proposePlan, sayDoubt, settlePlan } from './import-plan.ts'
	import MergeReview from './MergeReview.svelte'
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
	let opened = $state<number | undefined>()
	let misfits = $state.raw<readonly { label: string; message: string }[]>([])
	let timer: ReturnType<typeof setTimeout> | undefined

	const into = $derived(tables.find((table) => table.id === plan.into?.table))

	function propose(found: Inspection & { file: string }, table: number | undefined): ImportPlan {
		const target = tables.find((each) => each.id === table && each.kept)
		const proposed = proposePlan(found, found.file)
		return target ? goInto(proposed, target) : proposed
	}

	const doubts = $derived(openDoubts(inspection, plan))
	const included = $derived(plan.columns.filter((column) => column.include))
	const blanks = $derived(inspection.columns.filter((column) => column.blank))
	const marked = $derived(
		new Set(doubts.flatMap(({ column, doubt }) => ('rows' in doubt ? doubt.rows.map((row) => `${row} ${column}`) : [])))
	)

	/** The column of the table that one of the file goes into; 0 leaves it out. */
	function sendInto(from: number, to: number) {
		const target = into?.columns.find((each) => each.id === to)
		plan.columns = plan.columns.map((column) => {
			if (column.from !== from) return column.to === to ? { ...column, include: false } : column
			return target ? goIntoColumn(column, target) : { ...column, include: false }
		})
	}

	async function look(settings: { sheet?: string; headingRow?: number | null; firstRow?: number }) {
		const answer = await send<Inspection & { file: string }>(`/bench/imports/${importId}`, {
			kind: 'inspect',
			sheet: plan.sheet,
			...settings
		})
		if (!answer.ok) return void (wrong = answer.refusal.message)
		wrong = ''
		const name = plan.tableName
		inspection = answer.value
		plan = { ...propose(answer.value, plan.into?.table), tableName: name }
		settled = {}
	}

	async function start() {
		wrong = ''
		const answer = await send(`/bench/imports/${importId}`, {
			kind: 'start',
			plan: settlePlan($state.snapshot(plan), doubts, settled)
		})
		if (!answer.ok) return void (wrong = answer.refusal.message)
		status = { state: 'running', done: 0, of: inspection.rowCount }
		void follow()
	}

	async function follow() {
		const answer = await ask<ImportState>(`/bench/imports/${importId}`)
		if (!answer.ok) return void (wrong = answer.refusal.message)
		status = answer.value
		if (status.state === 'running') timer = setTimeout(follow, 250)
		else if (status.state === 'done' || status.state === 'merged') await invalidate('app:bench')
		else if (status.state === 'failed') {
			wrong = status.message
			status = { state: 'given' }
		}
	}

	async function apply(partly: boolean) {
		wrong = ''
		const answer = await send(`/bench/imports/${importId}`, { kind: 'apply', partly })
		if (!answer.ok) {
			misfits = (answer.refusal.details['misfits'] as typeof misfits | undefined) ?? []
			return void (wrong = answer.refusal.message)
		}
		misfits = []
		void follow()
	}

	const stop = () => send(`/bench/imports/${importId}`, { kind: 'stop' })

	onDestroy(() => clearTimeout(timer))

	/** Screens for the new table, in the draft of this app. */
	async function makeTheScreens() {
		const id = status.state === 'done' ? status.table : 0
		const table = tables.find((each) => each.id === id)
		if (!table) return
		draft.change({ ...draft.document, screens: [...draft.document.screens, ...makeScreens(table, newId)] })
		await goto(`/bench/${app}/screens`)
	}

	function badge(column: ImportPlan['columns'][number]): string {
		if (!column.include) return 'left out'
		if (into) return `into ${into.columns.find((each) => each.id === column.to)?.name ?? ''}`
		if (column.type === 'choice') return `choice of ${column.choices?.length ?? 0}`
		return column.unit ? `${column.type} ${column.unit}` : column.type
	}

	/** What was compared no longer says what would happen. */
	function change(next: ImportPlan) {
		plan = next
		if (status.state === 'compared') back()
	}

	function back() {
		wrong = ''
		misfits = []
		status = { state: 'given' }
	}

	const nothingToDo = $derived(
		status.state === 'compared' &&
			status.comparison.added + status.comparison.changed === 0 &&
			(plan.into?.how !== 'replace' || status.comparison.missing === 0)
	)

	const unsure = (from: number) => doubts.some((each) => each.column === from)
</script>

<div class="sheet">
	<header>
		<h1>{inspection.file}</h1>
		<p class="quiet">{inspection.rowCount.toLocaleString('en-GB')} rows · {inspection.columns.length} columns</p>
		<p class="sentence">
			Headings are in
			<select
				value={inspection.headingRow ?? -1}
				aria-label="Row of the headings"
				onchange={(event) => {
					const row = Number(event.currentTarget.value)
					void look({ headingRow: row < 0 ? null : row })
				}}
			>
				<option value={-1}>no row</option>
				{#each inspection.head.slice(0, 30) as _row, i (i)}<option value={i}>row {i + 1}</option>{/each}
			</select>, rows start at
			<select
				value={inspection.firstRow}
				aria-label="First row"
				onchange={(event) =>
					void look({ headingRow: inspection.headingRow, firstRow: Number(event.currentTarget.value) })}
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
				</select>{/if}.{#if !into}
				Each row is known by its
				<select
					value={plan.label}
					aria-label="Column by which a row is known"
					onchange={(event) => (plan.label = Number(event.currentTarget.value))}
				>
					{#each included as column (column.from)}<option value={column.from}>{column.name}</option>{/each}
				</select>.{/if}
			<SourceInto {plan} {tables} onchange={change} />
		</p>
	</header>
	{#if status.state === 'compared' && plan.into}
		<div class="scroll">
			<MergeReview
				comparison={status.comparison}
				table={plan.tableName}
				how={plan.into.how}
				unread={status.unread}
				unreadCount={status.unreadCount}
			/>
		</div>
	{:else}
		<div class="work">
			<div class="scroll">
				<table>
					<thead>
						<tr>
							<td class="no"></td>
							{#each plan.columns as column (column.from)}
								<th class:out={!column.include} class:wide={opened === column.from}>
									<span class="name">{column.name}</span>
									<button
										class="badge"
										class:unsure={unsure(column.from)}
										aria-expanded={opened === column.from}
										onclick={() => (opened = opened === column.from ? undefined : column.from)}
										>{badge(column)}{unsure(column.from) ? ' ?' : ''}</button
									>
									{#if opened === column.from}
										<div class="card">
											{#if into}
												<label>
													Goes into
													<select
														class="field"
														value={column.include ? (column.to ?? 0) : 0}
														onchange={(event) => sendInto(column.from, Number(event.currentTarget.value))}
													>
														<option value={0}>left out</option>
														{#each into.columns.filter((each) => each.type !== 'computed') as each (each.id)}
															<option value={each.id}>{each.name}</option>
														{/each}
													</select>
												</label>
												<button class="btn" onclick={() => (opened = undefined)}>Done</button>
											{:else}
												<label>Name <input class="field" bind:value={column.name} /></label>
												<label>
													Type
													<select class="field" bind:value={column.type}>
														{#each TYPED_TYPES as type (type)}<option>{type}</option>{/each}
													</select>
												</label>
												{#if column.type === 'choice'}
													<label
														>Choices <textarea
															class="field"
															rows="3"
															value={(column.choices ?? []).join('\n')}
															onchange={(event) =>
																(column.choices = event.currentTarget.value
																	.split('\n')
																	.map((each) => each.trim())
																	.filter((each) => each !== ''))}></textarea></label
													>
												{/if}
												<label class="tick"><input type="checkbox" bind:checked={column.include} /> bring it in</label>
												<button class="btn" onclick={() => (opened = undefined)}>Done</button>
											{/if}
										</div>
									{/if}
								</th>
							{/each}
						</tr>
					</thead>
					<tbody>
						{#each inspection.head as row, i (i)}
							<tr
								class:above={i < inspection.firstRow && i !== inspection.headingRow}
								class:heads={i === inspection.headingRow}
							>
								<th class="no">{i + 1}</th>
								{#each plan.columns as column (column.from)}
									<td
										class:out={!column.include}
										class:marked={marked.has(`${i + 1} ${column.from}`)}
										class:num={i >= inspection.firstRow &&
											['whole number', 'decimal', 'money', 'percent'].includes(column.type)}
										>{row[column.from] ?? ''}</td
									>
								{/each}
							</tr>
						{/each}
					</tbody>
				</table>
				{#if inspection.rowCount > inspection.head.length}<p class="more quiet">
						and {(inspection.rowCount - inspection.head.length).toLocaleString('en-GB')} more rows, all of which were looked
						at
					</p>{/if}
			</div>
			<aside>
				<h2>
					{doubts.length === 0
						? 'Nothing to settle'
						: `${doubts.length} ${doubts.length === 1 ? 'thing' : 'things'} to settle`}
				</h2>
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
				{#if blanks.length > 0}<p class="note">
						{blanks.map((column) => column.name).join(', ')}
						{blanks.length === 1 ? 'is' : 'are'} wholly blank and left out.
					</p>{/if}
			</aside>
		</div>
	{/if}
	<footer>
		{#if status.state === 'running'}
			<div class="bar">
				<Progressbar progress={Math.round((100 * status.done) / (inspection.rowCount || 1))} size="h-2.5" />
			</div>
			<p class="grow" role="status">
				{status.done.toLocaleString('en-GB')} of {inspection.rowCount.toLocaleString('en-GB')} rows
			</p>
			<button class="btn" onclick={stop}>Stop</button>
		{:else if status.state === 'done'}
			<p class="grow" role="status">
				<strong>{status.rows.toLocaleString('en-GB')} rows are in {plan.tableName}.</strong>
				{#if status.unreadCount > 0}{status.unreadCount} cells could not be read and are blank: {status.unread
						.slice(0, 5)
						.map((cell) => `row ${cell.row} ${cell.column} "${cell.text}"`)
						.join(', ')}.{:else}Every cell was read.{/if}
			</p>
			<a class="btn" href="/bench/{app}/tables?table={status.table}">Open the table</a>
			<button class="btn main" onclick={makeTheScreens}>Make screens from it</button>
		{:else if status.state === 'merged'}
			<p class="grow" role="status">
				<strong
					>{plan.tableName}: {status.added.toLocaleString('en-GB')} rows added, {status.changed.toLocaleString('en-GB')} changed,
					{status.removed.toLocaleString('en-GB')} taken out.</strong
				>
				{#if status.misfits.length > 0}{status.misfits.length} did not fit.{/if}
			</p>
			<a class="btn main" href="/bench/{app}/tables?table={status.table}">Open the table</a>
		{:else if status.state === 'compared'}
			<div class="grow" role="status">
				{#if wrong}
					<p class="says-wrong">{wrong}</p>
					{#each misfits.slice(0, 4) as misfit, i (i)}<p><strong>{misfit.label}</strong>: {misfit.message}</p>{/each}
					{#if misfits.length > 4}<p class="quiet">and {misfits.length - 4} more</p>{/if}
				{:else}<p>Nothing is in yet.</p>{/if}
			</div>
			<button class="btn" onclick={back}>Back to the file</button>
			{#if misfits.length > 0}
				<button class="btn main" onclick={() => apply(true)}>Bring in those that fit</button>
			{:else}
				<button class="btn main" disabled={nothingToDo} onclick={() => apply(false)}
					>{nothingToDo ? 'Nothing to bring in' : `Bring it into ${plan.tableName}`}</button
				>
			{/if}
		{:else}
			<p class="grow" class:says-wrong={wrong !== ''} role="status">
				{wrong || 'Nothing is brought in yet. The file is not changed.'}
			</p>
			<a class="btn" href="/bench/{app}/sources">Back</a>
			<button class="btn main" onclick={start}
				>{into ? `Compare with ${into.name}` : `Bring in ${inspection.rowCount.toLocaleString('en-GB')} rows`}</button
			>
		{/if}
	</footer>
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
	.sentence select {
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
		overflow: auto;
	}
	table {
		border-collapse: separate;
		border-spacing: 0;
		min-width: 100%;
	}
	th,
	td {
		border-right: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--zinc-2);
		padding: 0.3rem 0.6rem;
		text-align: left;
		white-space: nowrap;
		max-width: 11rem;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	thead th {
		position: sticky;
		top: 0;
		z-index: 2;
		background: var(--paper);
		vertical-align: top;
		overflow: visible;
	}
	td.num {
		text-align: right;
		font-variant-numeric: tabular-nums;
	}
	.no {
		position: sticky;
		left: 0;
		background: var(--limewash);
		color: var(--zinc-5);
		font: 400 0.72rem var(--mono);
		text-align: center;
		z-index: 1;
	}
	.name {
		display: block;
		font: 650 0.85rem var(--head);
	}
	.badge {
		border: 0;
		border-radius: 2px;
		background: var(--limewash);
		color: var(--zinc-7);
		font: 500 0.7rem var(--mono);
		padding: 0.2rem 0.4rem;
	}
	.badge.unsure,
	td.marked {
		background: var(--rope-wash);
		color: var(--rope);
	}
	.above td {
		color: var(--zinc-5);
		text-decoration: line-through;
	}
	.heads td,
	.heads .no {
		background: var(--marigold-wash);
		font-weight: 700;
	}
	th.out .name,
	td.out {
		color: var(--zinc-5);
		background: var(--limewash);
	}
	.card {
		position: absolute;
		z-index: 6;
		margin-top: 0.3rem;
		width: 16rem;
		display: grid;
		gap: 0.5rem;
		padding: 0.8rem;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
		white-space: normal;
		font-weight: 400;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		align-items: baseline;
		padding: 0.15rem 0;
	}
	.more {
		padding: 0.6rem 1rem;
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
	.doubt {
		margin: 0;
		background: var(--paper);
		border: 1px solid var(--zinc-3);
		border-left: 4px solid var(--marigold);
		border-radius: 3px;
		padding: 0.6rem 0.8rem;
		overflow-wrap: anywhere;
	}
	.note {
		color: var(--zinc-7);
	}
	footer {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		padding: 0.7rem 1.3rem;
		border-top: 1px solid var(--zinc-3);
	}
	.grow {
		flex: 1;
	}
	.bar {
		width: 14rem;
	}
	@media (max-width: 900px) {
		.work {
			grid-template-columns: 1fr;
			overflow: auto;
		}
	}
</style>
