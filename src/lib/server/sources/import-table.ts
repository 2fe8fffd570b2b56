/** The writer's part of bringing a sheet in: a hidden table, batches of rows, and the step that makes it known. */
import { AppError } from '$lib/core/app-error.ts'
import type { ImportPlan } from '$lib/core/exchange/plan.ts'
import type { ColumnEntry, TableEntry } from '$lib/core/workspace/document.ts'
import { offersChoices, type Table } from '$lib/core/model/table.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { writeHistory } from '../history/history.ts'
import { watchPeople } from '../rights/access-epoch.ts'
import type { Store } from '../store/store.ts'
import { takeNumbers } from '../store/numbers.ts'
import { repairLabels } from '../structure/known-by.ts'
import { saveWorkspace } from '../structure/save.ts'
import { createTable, dropTable } from '../store/schema.ts'
import { refuseTakenName } from '../structure/tables.ts'
import { dropOldTables } from '../structure/take-out-table.ts'
import { closeBroken } from './apply-merge.ts'
import type { Begun } from './bring-in.ts'
import type { Batch } from './batch-writer.ts'
import { makeSaidReferences } from './said-references.ts'
import type { SaidReference } from './sheet.ts'

const STORE_TABLES = `SELECT name FROM sqlite_schema WHERE type = 'table' AND name GLOB 't[0-9]*'`

export interface Beginning {
	readonly plan: ImportPlan
	readonly actor: Actor
}

/** Makes the table that rows are written into, out of everybody's sight until the import is registered. */
export function beginImport(store: Store, { plan, actor }: Beginning): Begun {
	refuseUnlessBuilder(store, actor)
	refuseTakenName(store, plan.tableName)
	const included = plan.columns.filter((column) => column.include)
	if (included.length === 0) throw new AppError('invalid', 'Every column is left out. Keep at least one.')
	refuseSameNames(included.map((column) => column.name))
	const table = takeNumbers(store, 'table', 1)
	const first = takeNumbers(store, 'column', included.length)
	const columns = included.map(({ name, type, unit, places, choices }, i): ColumnEntry => {
		const fixed = type === 'decimal' || type === 'percent' ? { places } : {}
		const entry = {
			id: first + i,
			name,
			type,
			unit: unit === '' ? undefined : unit,
			...fixed,
			choices: offersChoices({ type }) ? choices : undefined
		}
		// Only what is undefined was taken out.
		return Object.fromEntries(Object.entries(entry).filter(([, value]) => value !== undefined)) as ColumnEntry
	})
	const { timeZone } = store.workspace()
	createTable(store.db, {
		id: table,
		name: plan.tableName,
		keepers: [],
		label: first,
		columns: columns.map((column) => toColumn(column, { timeZone })),
		checks: [],
		backReferences: []
	} satisfies Table)
	return { table, columns, timeZone }
}

function refuseSameNames(names: readonly string[]): void {
	const seen = new Set<string>()
	for (const name of names) {
		if (seen.has(name.toLowerCase()))
			throw new AppError('invalid', `Two columns are called "${name}". Give one of them another name.`)
		seen.add(name.toLowerCase())
	}
}

/** `values`: of each row all of its columns, one after another. */
export function writeBatch(store: Store, { table, columns, values, now, person }: Batch): void {
	// Who and when are the same for all: as whole numbers in the statement they need not be bound a million times.
	const same = [person, now, person, now].map((each) => String(Math.trunc(each)))
	const places = placesOf(columns)
	const all = ['made_by', 'made_at', 'changed_by', 'changed_at', ...places.names]
	const given = Array.from({ length: places.width }, (_place, i) => `? AS v${i}`).join(', ')
	const insert = store.prepare(
		`INSERT INTO t${table} (${all.join(', ')}) SELECT ${[...same, ...places.from].join(', ')} FROM (SELECT ${given})`
	)
	for (let at = 0; at < values.length; at += places.width) insert.run(values.slice(at, at + places.width))
}

/** Where the values of a row go. `lower`: the key is made from the value by the store, which needs no second one. */
function placesOf(columns: Batch['columns']): { names: string[]; from: string[]; width: number } {
	const names: string[] = []
	const from: string[] = []
	let width = 0
	for (const { name, key } of columns) {
		names.push(name)
		from.push(`v${width++}`)
		if (key === 'none') continue
		names.push(`${name}k`)
		from.push(key === 'lower' ? `lower(v${width - 1})` : `v${width++}`)
	}
	return { names, from, width }
}

export interface Finishing {
	readonly begun: Begun
	readonly plan: ImportPlan
	readonly file: string
	readonly rows: number
	/** What the file says of its columns that name rows of other sheets. */
	readonly references?: readonly SaidReference[]
	readonly actor: Actor
	readonly now: number
}

/** Makes the table known: from here on everybody sees all of it or, without lines, only its keeper does. */
export function finishImport(
	store: Store,
	{ begun, plan, file, rows, references = [], actor, now }: Finishing
): { table: number } {
	const { document } = store.workspace()
	refuseTakenName(store, plan.tableName)
	const labelAt = plan.columns.filter((column) => column.include).findIndex((column) => column.from === plan.label)
	const label = begun.columns[Math.max(0, labelAt)]?.id ?? 0
	const included = plan.columns.filter((column) => column.include)
	const said = references.flatMap(({ from, ...reference }) => {
		const column = begun.columns[included.findIndex((each) => each.from === from)]
		return column ? [{ column: column.id, ...reference }] : []
	})
	const source = {
		file,
		...(plan.sheet === '' ? {} : { sheet: plan.sheet }),
		at: now,
		...(said.length > 0 ? { references: said } : {})
	}
	const entry: TableEntry = {
		id: begun.table,
		name: plan.tableName,
		keepers: [actor.person],
		label,
		columns: [...begun.columns],
		source
	}
	saveWorkspace(
		store,
		{ ...document, tables: [...document.tables, entry] },
		{ now, by: actor.person, filled: [begun.table] }
	)
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: 'Sources',
		kind: 'bring in',
		table: begun.table,
		row: null,
		body: { file, rows }
	})
	makeSaidReferences(store, { file, actor, now })
	return { table: begun.table }
}

/** Lets a table go whose import was left; one that was registered stays. */
export function dropImport(store: Store, { table }: { table: number }): void {
	if (!store.workspace().catalogue.tables.has(table)) dropTable(store.db, table)
}

/** At start: tables of imports that never finished, and those that were taken out too long ago. */
export function dropUnregistered(store: Store, { now }: { now: number }): void {
	dropOldTables(store, now)
	closeBroken(store, now)
	repairLabels(store, { now })
	const { catalogue, document } = store.workspace()
	watchPeople(store.db, catalogue.people.id)
	// Tables that were taken out can be put back for a while.
	const known = new Set([...catalogue.tables.keys(), ...(document.removed ?? []).map(({ table }) => table.id)])
	for (const name of store.prepare<string>(STORE_TABLES).pluck().all()) {
		const id = Number(name.slice(1))
		if (/^t\d+$/.test(name) && !known.has(id)) dropTable(store.db, id)
	}
}
