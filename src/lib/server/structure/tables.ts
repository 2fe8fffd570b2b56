/** What a builder does to tables: makes them by hand, adds columns, turns a text column into a reference. */
import type { MatchPreview } from '$lib/core/requests/structure.ts'
import { AppError } from '$lib/core/app-error.ts'
import { hasKey } from '$lib/core/table/storage.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { allOf, param, sql, type Sql } from '$lib/core/sql/sql.ts'
import { getColumn, getTable, TYPED_TYPES, type Column, type Table } from '$lib/core/model/table.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import type { ColumnEntry, LineEntry, TableEntry, WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import { refuseUnheld } from '../rights/held-formulas.ts'
import { standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { refuseTooDear } from '../derived/formula-cost.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { takeNumbers } from '../store/numbers.ts'
import { restructure } from './restructure.ts'
import { labelBesides, numberRows } from './known-by.ts'
import { saveWorkspace } from './save.ts'
import { addColumn as addPhysical } from '../store/schema.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

export function refuseTakenName(store: Store, name: string): void {
	const taken = store
		.workspace()
		.document.tables.some((table) => table.name.toLowerCase() === name.trim().toLowerCase())
	if (taken) throw new AppError('invalid', `There is a table called "${name.trim()}" already. Choose another name.`)
}

/** Defaults and numbering come after, as rules of a column that is there: they are checked against what their writer holds. */
export type NewColumn = Omit<ColumnEntry, 'id' | 'otherwise' | 'numbering'>

/** Gives the number of the new table, which its maker owns. */
export function addTable(
	store: Store,
	{ name, columns, actor, now }: ByActor & { name: string; columns: readonly NewColumn[] }
): number {
	refuseUnlessBuilder(store, actor)
	refuseTakenName(store, name)
	if (columns.length === 0) throw new AppError('invalid', 'A table needs at least one column.')
	const { document } = store.workspace()
	const id = takeNumbers(store, 'table', 1)
	const first = takeNumbers(store, 'column', columns.length)
	const entries = columns.map((column, i) => ({ ...column, id: first + i }))
	const table: TableEntry = { id, name: name.trim(), keepers: [actor.person], label: first, columns: entries }
	saveWorkspace(store, { ...document, tables: [...document.tables, table] }, { now, by: actor.person })
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: 'Tables',
		kind: 'make table',
		table: id,
		row: null,
		body: { name }
	})
	return id
}

/** Gives the number of the new column. */
export function addColumn(
	store: Store,
	{ table, column, actor, now }: ByActor & { table: number; column: NewColumn }
): number {
	const owned = getTableAsKeeper(store, table, actor)
	refuseTakenColumn(owned, column.name)
	const id = takeNumbers(store, 'column', 1)
	restructure(store, { table, actor, now, what: `column ${column.name} added` }, (entry) => ({
		...entry,
		columns: [...entry.columns, { ...column, id }]
	}))
	refuseDearColumn(store, table, id)
	return id
}

/** Writes another formula for a computed column. */
export function setFormula(
	store: Store,
	{ table, column, formula, actor, now }: ByActor & { table: number; column: number; formula: string }
): void {
	getTableAsKeeper(store, table, actor)
	restructure(store, { table, actor, now, what: 'formula' }, (entry) => ({
		...entry,
		columns: entry.columns.map((each) => (each.id === column && each.type === 'computed' ? { ...each, formula } : each))
	}))
	refuseDearColumn(store, table, column)
}

/** Asked of the column as it now is; a refusal undoes the whole. */
function refuseDearColumn(store: Store, table: number, column: number): void {
	const { name, computed } = getColumn(getTable(store.workspace().catalogue, table), column)
	if (computed) refuseTooDear(store, computed.expr, { what: name })
}

/** Says by which column rows are known; it must be one that is typed in. */
export function setLabel(
	store: Store,
	{ table, column, actor, now }: ByActor & { table: number; column: number }
): void {
	const owned = getTableAsKeeper(store, table, actor)
	const { type } = getColumn(owned, column)
	if (!TYPED_TYPES.includes(type))
		throw new AppError('invalid', 'A row is known by a column of its own that is typed in, such as its code or name.')
	restructure(store, { table, actor, now, what: 'what rows are known by' }, (entry) => ({ ...entry, label: column }))
}

function refuseTakenColumn(table: Table, name: string): void {
	const taken = table.columns.some((column) => column.name.toLowerCase() === name.trim().toLowerCase())
	if (taken) throw new AppError('invalid', `${table.name} has a column called "${name.trim()}" already.`)
}

export interface Matching extends ByActor {
	readonly table: number
	readonly column: number
	readonly to: number
}

/** What turning a text column into a reference would come to: which values find a row, and which do not. */
export function previewReference(store: Store, { table, column, to, actor, now }: Matching): MatchPreview {
	const { source, found, text } = matching(store, { table, column, to, actor, now })
	const [counts] = store.select(
		sql`SELECT count(*) FILTER (WHERE ${found} IS NOT NULL), count(*) FILTER (WHERE ${text} IS NULL) FROM t${source.id} AS r`
	)
	const rows = store.select(
		sql`SELECT ${text}, count(*) FROM t${source.id} AS r WHERE ${text} IS NOT NULL AND ${found} IS NULL GROUP BY 1 ORDER BY 2 DESC LIMIT 50`
	)
	return {
		matched: Number(counts?.[0] ?? 0),
		blank: Number(counts?.[1] ?? 0),
		unmatched: rows.map((row) => ({ text: String(row[0]), rows: Number(row[1]) })),
		...(source.label === column ? { knownBy: knownBesides(store, table, column) } : {})
	}
}

function knownBesides(store: Store, table: number, column: number): string {
	return labelBesides(entryOf(store, table).columns, column)?.name ?? 'a number of their own'
}

function entryOf(store: Store, table: number): TableEntry {
	const entry = store.workspace().document.tables.find((each) => each.id === table)
	if (!entry) throw new AppError('not_found', 'That table is not there.')
	return entry
}

/** Turns a text column into a reference by matching values. The old values stay in the store under their own number. */
export function toReference(
	store: Store,
	{ fixes, ...asked }: Matching & { fixes: readonly (readonly [string, string])[] }
): number {
	const { table, column, to, actor, now } = asked
	const owned = getTableAsKeeper(store, table, actor)
	const id = takeNumbers(store, 'column', 1)
	const old = getColumn(owned, column)
	const entry = asReference(entryOf(store, table).columns, { column, id, to })
	const { found, text } = matching(store, asked)
	// Filled first: kept columns that read it are worked out when the table's entry is saved.
	addPhysical(store.db, owned, toColumn(entry, store.workspace()))
	store.db.prepare(`UPDATE t${table} AS r SET c${id} = ${found.text}`).run(...found.params)
	for (const [from, meant] of fixes) {
		const row = targetOf(store, asked, param(meant))
		const fix = sql`UPDATE t${table} AS r SET c${id} = ${row} WHERE ${text} = ${param(from)} AND c${id} IS NULL`
		store.db.prepare(fix.text).run(...fix.params)
	}
	const what = `column ${old.name} to a reference`
	restructure(store, { table, actor, now, what, replaced: new Map([[column, id]]) }, (was) => {
		const columns = was.columns.map((one) => (one.id === column ? entry : one))
		if (was.label !== column) return { ...was, columns }
		const other = labelBesides(columns, id)
		if (other) return { ...was, columns, label: other.id }
		const number = numberRows(store, was)
		return { ...was, columns: [number, ...columns], label: number.id }
	})
	return id
}

/** What is asked of a column's values is asked of the references, too. */
function asReference(
	columns: readonly ColumnEntry[],
	{ column, id, to }: { column: number; id: number; to: number }
): ColumnEntry {
	const { name = '', required, unique, uniqueWithin, about } = columns.find((each) => each.id === column) ?? {}
	const rest = Object.entries({ required, unique, uniqueWithin, about }).filter(([, value]) => value !== undefined)
	return { id, name, type: 'reference', to, ...Object.fromEntries(rest) }
}

/** Whether what stands in a column can find rows of another table. */
export function canBeReference(column: Column): boolean {
	return !column.computed && (hasKey(column) || column.type === 'choice' || column.type === 'whole number')
}

function matching(store: Store, asked: Matching) {
	const source = getTableAsKeeper(store, asked.table, asked.actor)
	const from = getColumn(source, asked.column)
	if (!canBeReference(from))
		throw new AppError('invalid', 'Only a column of texts or whole numbers can become a reference.')
	const text = textOf(from)
	return { source, text, found: targetOf(store, asked, text) }
}

/** The number of the row that a text means, among those that this builder may see. */
function targetOf(store: Store, { to, actor, now }: Matching, text: Sql): Sql {
	const target = store.workspace().catalogue.tables.get(to)
	if (!target) throw new AppError('not_found', 'That table is not there.')
	const label = getColumn(target, target.label)
	const { rights } = standingOf(store, actor, now)
	const seen = [rights.rows(target), rights.cell(target, label)].map((each) =>
		compileCondition(each, newContext('x', rights.moment))
	)
	const key = hasKey(label) ? sql`x.c${label.id}k = text_key(${text})` : sql`x.c${label.id} = ${text}`
	return sql`(SELECT x.n FROM t${target.id} AS x WHERE ${allOf([key, ...seen])} LIMIT 1)`
}

function textOf(column: ReturnType<typeof getColumn>): Sql {
	if (column.type !== 'choice') return sql`r.c${column.id}`
	const labels = JSON.stringify(column.choices ?? [])
	return { text: `json_extract(?, '$[' || (r.c${column.id} - 1) || ']')`, params: [labels] }
}

export interface SavingLines extends ByActor {
	readonly table: number
	readonly lines: readonly LineEntry[]
	/** The workspace's version that was changed. */
	readonly version: number
}

/** Saves all access lines of one table. They are in force at once, in open pages too. */
export function saveLines(store: Store, { table, lines, version, actor, now }: SavingLines): void {
	getTableAsKeeper(store, table, actor)
	refuseUnheldLines(store, lines, { table, actor, now })
	const workspace = store.workspace()
	if (workspace.version !== version) {
		const same =
			JSON.stringify(linesOf(store, table, version)) ===
			JSON.stringify(workspace.document.lines.filter((line) => line.table === table))
		if (!same)
			throw new AppError(
				'conflict',
				'Somebody else has changed these lines meanwhile. Load the page again to see them; yours were not saved.'
			)
	}
	const others = workspace.document.lines.filter((line) => line.table !== table)
	const own = lines.map((line) => ({ ...line, table }))
	saveWorkspace(store, { ...workspace.document, lines: [...others, ...own] }, { now, by: actor.person })
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: 'Access',
		kind: 'change access',
		table,
		row: null,
		body: { lines: own }
	})
}

/** A line is judged on the data as it is, so it may read of other tables only what its writer sees of them. */
export function refuseUnheldLines(
	store: Store,
	lines: readonly LineEntry[],
	{ table, actor, now }: ByActor & { table: number }
): void {
	const { catalogue, document } = store.workspace()
	const rows = [getTable(catalogue, table)]
	// What is in force was written by who might; whoever keeps the table later need not hold it to leave it as it is.
	const inForce = new Set(document.lines.filter((line) => line.table === table).flatMap(conditionsOf))
	for (const line of lines) {
		for (const text of conditionsOf(line)) {
			if (inForce.has(text)) continue
			const { expr } = checkCondition(text || 'TRUE', { catalogue, rows, me: true })
			if (!expr) continue
			refuseUnheld(store, expr, { actor, now, what: 'This line' })
			refuseTooDear(store, expr, { what: 'This line' })
		}
	}
}

function conditionsOf({ where, after = '' }: LineEntry): string[] {
	return [where, after]
}

const BODY = `SELECT body FROM document WHERE kind = 'workspace' AND version = ?`

function linesOf(store: Store, table: number, version: number): LineEntry[] {
	const body = store.prepare<string>(BODY).pluck().get(version)
	const document = body === undefined ? undefined : ownJson<WorkspaceDocument>(body)
	return document?.lines.filter((line) => line.table === table) ?? []
}
