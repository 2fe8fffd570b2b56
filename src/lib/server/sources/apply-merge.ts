/** The last step of bringing a file into a table that is there: its changes go through the door, all in one transaction. */
import { AppError } from '$lib/core/app-error.ts'
import type { Comparison, Merged, Misfit } from '$lib/core/exchange/comparison.ts'
import type { CellChange, CellInput, Change } from '$lib/core/query/change.ts'
import { sql } from '$lib/core/query/sql.ts'
import { isFault } from '$lib/core/formula/types.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import { getTable } from '$lib/core/table/types.ts'
import { changeRows, type ChangeContext } from '../rows/change.ts'
import { writeHistory } from '../rows/history.ts'
import { toValue } from '../rows/stored-row.ts'
import { labelText } from '../rows/read.ts'
import { rowLabel } from '../signoffs/row-label.ts'
import type { Store } from '../store.ts'
import { saveWorkspace } from '../workspace/save.ts'
import { dropTable } from '../workspace/schema.ts'
import { compareMerge, differsIn, intoOf, missingFrom, pairsOf, type Pair, type Staging } from './stage-merge.ts'

/** What is applied at once; the writer does nothing else meanwhile. */
const MOST = 100_000
const MOST_TOLD = 50
const NEXT_ENTRY = `SELECT coalesce(max(seq), 0) + 1 FROM history`

export interface Applying extends Staging {
	readonly file: string
	/** What the builder saw. */
	readonly expected: Pick<Comparison, 'added' | 'changed' | 'missing'>
	/** Whether rows that fit go in although others do not. */
	readonly partly: boolean
}

/** Puts all of it in, or, where a row does not fit and `partly` is not set, none; then the misfits are in the refusal. */
export function applyMerge(store: Store, applying: Applying): Merged {
	const { begun, plan, actor, now, file, partly } = applying
	refuseIfTurned(compareMerge(store, applying), applying)
	const context: ChangeContext = { actor, now, through: `file ${file}` }
	const counts = { added: 0, changed: 0, removed: 0 }
	const misfits: Misfit[] = []
	const first = Number(store.prepare(NEXT_ENTRY).pluck().get())
	for (const { label, change } of changesOf(store, applying)) {
		try {
			store.db.transaction(() => changeRows(store, [change], context))()
			counts[change.kind === 'add' ? 'added' : change.kind === 'remove' ? 'removed' : 'changed']++
		} catch (error) {
			if (!(error instanceof AppError)) throw error
			misfits.push({ label: label(), message: error.message })
		}
	}
	if (misfits.length > 0 && !partly) {
		const what = misfits.length === 1 ? 'One row does not fit.' : `${misfits.length} rows do not fit.`
		throw new AppError('invalid', `${what} Nothing was brought in.`, { misfits: misfits.slice(0, MOST_TOLD) })
	}
	dropTable(store.db, begun.table)
	nameSource(store, applying)
	// All entries from the first to this one are its own, by which it can be undone.
	const body = { file, ...counts, first }
	const at = { at: now, person: actor.person, through: 'Sources', table: intoOf(plan).table, row: null }
	writeHistory(store, { ...at, kind: 'bring in again', body })
	return { ...counts, misfits: misfits.slice(0, MOST_TOLD) }
}

function refuseIfTurned(now: Comparison, { expected, plan }: Applying): void {
	const turned = now.added !== expected.added || now.changed !== expected.changed || now.missing !== expected.missing
	if (turned)
		throw new AppError('conflict', 'The table was changed meanwhile. Compare again to see what it comes to now.')
	const removed = intoOf(plan).how === 'replace' ? now.missing : 0
	const all = now.added + now.changed + removed
	if (all > MOST) {
		const most = MOST.toLocaleString('en-GB')
		throw new AppError('invalid', `More than ${most} rows would change at once. Bring the file in as a new table.`)
	}
}

interface Labelled {
	/** What a person knows the row by; asked only where it does not fit. */
	readonly label: () => string
	readonly change: Change
}

function changesOf(store: Store, applying: Applying): Labelled[] {
	const { begun, plan } = applying
	const into = intoOf(plan)
	const table = getTable(store.workspace().catalogue, into.table)
	const pairs = pairsOf(store, applying)
	const places = pairs.flatMap((pair) => [
		`s.c${pair.staged.id}`,
		pair.to.type === 'reference' ? `s.r${pair.to.id}` : 'NULL',
		// The key is what the row is known by: it may be written otherwise, but says the same.
		pair.to.id === into.key ? '0' : differsIn(pair)
	])
	const rows = store.db
		.prepare(
			`SELECT s.verdict, s.target, s.c${begun.skipped}, ${places.join(', ')} FROM t${begun.table} AS s LEFT JOIN t${table.id} AS t ON t.n = s.target WHERE s.verdict IN ('add', 'change') ORDER BY s.n`
		)
		.raw()
		.all() as StoredValue[][]
	const filled = rows.map(([verdict, target, skipped, ...values]): Labelled => {
		const given = pairs.map((pair, i) => {
			const [value = null, row = null, differs] = values.slice(i * 3, i * 3 + 3)
			return { pair, value, row, differs: differs === 1 }
		})
		const sent = verdict === 'add' ? given : given.filter((each) => each.differs)
		const cells = sent.flatMap((each) => toCell(store, each, String(skipped ?? '')))
		const known = given.find(({ pair }) => pair.to.id === table.label) ?? given[0]
		const label = () => (known ? labelText(known.pair.staged, known.value) : '')
		const change: Change =
			verdict === 'add'
				? { kind: 'add', table: table.id, cells }
				: { kind: 'change', table: table.id, row: store.ids.toId(table.id, Number(target)), cells }
		return { label, change }
	})
	if (into.how !== 'replace') return filled
	const gone = store.select(sql`SELECT t.n FROM t${table.id} AS t WHERE ${missingFrom(begun, into, pairs)}`)
	const by = { person: applying.actor.person, now: applying.now }
	const removed = gone.map(([n]): Labelled => ({
		label: () => rowLabel(store, table, { n: Number(n), ...by }),
		change: { kind: 'remove', table: table.id, row: store.ids.toId(table.id, Number(n)) }
	}))
	return [...filled, ...removed]
}

interface Given {
	readonly pair: Pair
	readonly value: StoredValue
	/** The number of the row that a reference names. */
	readonly row: StoredValue
}

/** One cell as the door takes it; none where it could not be read. */
function toCell(store: Store, { pair: { to, staged }, value, row }: Given, skipped: string): CellChange[] {
	if (skipped.includes(`,${staged.id},`)) return []
	if (to.type !== 'reference') return [{ column: to.id, value: plain(staged, value) }]
	if (value !== null && row === null) return []
	return [{ column: to.id, value: row === null ? null : { id: store.ids.toId(to.to ?? 0, Number(row)) } }]
}

function plain(column: Pair['staged'], stored: StoredValue): CellInput {
	const value = toValue(column, stored)
	return isFault(value) ? null : value
}

/** The list of sources says which file the table was last filled from. */
function nameSource(store: Store, { plan, file, actor, now }: Applying): void {
	const { document } = store.workspace()
	const source = { file, ...(plan.sheet === '' ? {} : { sheet: plan.sheet }), at: now }
	const tables = document.tables.map((table) => (table.id === intoOf(plan).table ? { ...table, source } : table))
	saveWorkspace(store, { ...document, tables }, { now, by: actor.person })
}
