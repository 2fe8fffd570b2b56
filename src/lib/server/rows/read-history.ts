/**
 * What happened to one row, for whoever may see it: an entry's cell is shown only if the reader sees row and column
 * now, and saw them as the row was then.
 */
import type { HistoryEntry } from '$lib/core/requests/rows.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { fromStoredFile, holdsFile, showSize } from '$lib/core/capture/attachment.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { evaluate, isTrue } from '$lib/core/formula/evaluate/evaluate.ts'
import { allOf, param, sql } from '$lib/core/sql/sql.ts'
import { showValue } from '$lib/core/table/show-value.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import { describePerson } from '../rights/accounts.ts'
import { standingOf, type Actor, type Standing } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { rowFromStored, storeEnv } from '../store/stored-row.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

const ENTRIES = `
	SELECT at, person, through, kind, body FROM history
	WHERE table_id = ? AND row_n = ? ORDER BY seq DESC LIMIT 100`

export type Snapshot = Readonly<Record<string, StoredValue>>

/** What happened to a row, the latest first: only cells that this person sees now. */
export function readHistory(
	store: Store,
	{ table: id, row, actor, now }: { table: number; row: string; actor: Actor; now: number }
): HistoryEntry[] {
	const table = store.workspace().catalogue.tables.get(id)
	const n = table && store.ids.fromId(id, row)
	if (!table || n === undefined) return []
	const standing = standingOf(store, actor, now)
	const seen = compileCondition(standing.rights.rows(table), newContext('r', standing.moment))
	const [found] = store.select(sql`SELECT 1 FROM t${id} AS r WHERE ${allOf([sql`r.n = ${param(n)}`, seen])}`)
	if (!found) return []
	const columns = table.columns.filter((column) => isSeenNow(store, table, { column, n, rights: standing.rights }))
	const entries = store
		.prepare<{
			at: number
			person: number | null
			through: string
			kind: string
			body: string
		}>(ENTRIES)
		.all(id, n)
	return entries.map(({ at, person, through, kind, body }) => {
		const cells = shownCells({ store, table, standing, n }, columns, body)
		return { at, who: person === null ? 'Tin Shed' : (describePerson(store, person)?.name ?? ''), through, kind, cells }
	})
}

/** What an entry of the history did to a row's cells, of these columns, as far as its reader saw the row as it was then. */
export function shownCells(then: Then, columns: readonly Column[], body: string): HistoryEntry['cells'] {
	const { before, after: changed } = readBody(body)
	// A change is written with what it changed alone.
	const after = changed && { ...before, ...changed }
	return columns.flatMap((column) => {
		const from = showThen(then, column, before)
		const to = showThen(then, column, after)
		return from === to ? [] : [{ name: column.name, from, to }]
	})
}

/** The cells of a row before and after what an entry tells of; of a change, after it only those that it changed. */
export function readBody(body: string): { readonly before?: Snapshot; readonly after?: Snapshot } {
	return ownJson(body)
}

/** Whether somebody sees a plain cell of a row as it now is. */
export function isSeenNow(
	store: Store,
	table: Table,
	{ column, n, rights }: { column: Column; n: number; rights: Rights }
): boolean {
	const cell = rights.cell(table, column)
	if (isNever(cell) || column.computed) return false
	const [row] = store.select(
		sql`SELECT 1 FROM t${table.id} AS r WHERE ${allOf([sql`r.n = ${param(n)}`, compileCondition(cell, newContext('r', rights.moment))])}`
	)
	return row !== undefined
}

export interface Then {
	readonly store: Store
	readonly table: Table
	readonly standing: Standing
	readonly n: number
}

/** A cell as it was then, if this person may see the row as it was then. */
function showThen({ store, table, standing, n }: Then, column: Column, snapshot: Snapshot | undefined): string {
	const stored = snapshot?.[`c${column.id}`] ?? null
	if (!snapshot || stored === null) return ''
	const cells = new Map(table.columns.map((each) => [each.id, snapshot[`c${each.id}`] ?? null]))
	const row = rowFromStored(n, 0, cells)
	const granted = { ...storeEnv(store), isGranted: () => false }
	const env = { rows: [row], ...standing.moment, ...granted }
	const rights = [standing.rights.rows(table), standing.rights.cell(table, column)]
	if (!rights.every((right) => isTrue(evaluate(right, env)))) return ''
	if (column.type === 'reference') return 'another row'
	if (holdsFile(column)) {
		const { name, size } = fromStoredFile(String(stored))
		return `${name}, ${showSize(size)}`
	}
	const value = row.value(column)
	return value === null || typeof value === 'object' ? '' : showValue(value, column)
}
