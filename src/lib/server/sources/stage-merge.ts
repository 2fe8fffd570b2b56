/**
 * Bringing a file into a table that is there: its rows wait in a table of their own, unregistered like any import's,
 * until they have been compared and the builder says go on.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { ImportPlan, MergeInto } from '$lib/core/exchange/plan.ts'
import { raw, type Sql } from '$lib/core/sql/sql.ts'
import { comparedPlace } from '$lib/core/table/storage.ts'
import { getColumn, getTable, type Column, type Table } from '$lib/core/model/table.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { takeNumbers } from '../store/numbers.ts'
import { createTable } from '../store/schema.ts'
import type { Begun } from './bring-in.ts'

export interface Staging {
	readonly begun: Begun
	readonly plan: ImportPlan
	readonly actor: Actor
	readonly now: number
}

/** A column of the table that is filled, with the one that its values wait in. */
export interface Pair {
	readonly to: Column
	readonly staged: Column
}

/** Makes the table in which the rows of a file wait. References wait as the text that names their row. */
export function beginMerge(store: Store, { plan, actor }: Pick<Staging, 'plan' | 'actor'>): Begun {
	refuseUnlessBuilder(store, actor)
	const into = intoOf(plan)
	const table = getTableAsKeeper(store, into.table, actor)
	const targets = plan.columns.filter(isFilled).map((column) => getColumn(table, column.to))
	refuseUnfit(table, targets, into)
	const id = takeNumbers(store, 'table', 1)
	const first = takeNumbers(store, 'column', targets.length + 1)
	const columns = targets.map((target, i): ColumnEntry => {
		const { computed: _computed, otherwise: _otherwise, timeZone: _zone, choices, to: _to, ...plain } = target
		const type = target.type === 'reference' ? 'text' : target.type
		return { ...plain, id: first + i, type, ...(choices ? { choices: [...choices] } : {}) }
	})
	const skipped = first + targets.length
	const entries: ColumnEntry[] = [...columns, { id: skipped, name: 'skipped', type: 'long text' }]
	const { timeZone } = store.workspace()
	const plain = { keepers: [], label: first, checks: [], backReferences: [] }
	createTable(store.db, {
		id,
		name: table.name,
		...plain,
		columns: entries.map((entry) => toColumn(entry, { timeZone }))
	} satisfies Table)
	store.db.exec(`ALTER TABLE t${id} ADD COLUMN verdict TEXT; ALTER TABLE t${id} ADD COLUMN target INTEGER`)
	for (const target of targets.filter((each) => each.type === 'reference'))
		store.db.exec(`ALTER TABLE t${id} ADD COLUMN r${target.id} INTEGER`)
	const begun = { table: id, columns, skipped, timeZone }
	const key = into.how === 'add' ? [] : keyParts(pairsOf(store, { begun, plan }), into)
	// Before the rows are there: made over a million of them it would keep everybody waiting.
	if (key.length > 0) {
		store.db.exec(`CREATE INDEX merge_t${id} ON t${id} (${key.map(({ own }) => own).join(', ')})`)
		store.db.exec(`CREATE INDEX written_t${id} ON t${id} (${key.map(({ written }) => written).join(', ')})`)
	}
	return begun
}

/** One of the columns that rows are known by. */
export interface KeyPart {
	/** Where the table has it. */
	readonly theirs: string
	/** Where a staged row has what is compared with that. */
	readonly own: string
	/** Where a staged row has what the file says, by which its rows are told apart. */
	readonly written: string
}

export function keyParts(pairs: readonly Pair[], { keys }: MergeInto): KeyPart[] {
	return pairs
		.filter(({ to }) => keys.includes(to.id))
		.map(({ to, staged }) => {
			const written = comparedPlace(staged)
			return to.type === 'reference'
				? { theirs: `c${to.id}`, own: `r${to.id}`, written }
				: { theirs: comparedPlace(to), own: written, written }
		})
}

/** The columns by which a person tells the rows of a merge apart: those of a key of several, else what rows are known by. */
export function shownPairs(pairs: readonly Pair[], table: Table, { keys }: MergeInto): readonly Pair[] {
	if (keys.length > 1) return pairs.filter(({ to }) => keys.includes(to.id))
	return [pairs.find(({ to }) => to.id === table.label) ?? pairs[0]].filter((pair) => pair !== undefined)
}

/** Between what a row is known by together. */
export const TOGETHER = ' · '

/** The table a plan brings rows into. Throws `invalid` where it names none. */
export function intoOf({ into }: ImportPlan): MergeInto {
	if (!into) throw new AppError('invalid', 'Say which table the rows go into.')
	return into
}

function isFilled(column: ImportPlan['columns'][number]): column is ImportPlan['columns'][number] & { to: number } {
	return column.include && column.to !== undefined
}

function refuseUnfit(table: Table, targets: readonly Column[], { how, keys }: MergeInto): void {
	if (targets.length === 0)
		throw new AppError('invalid', `No column of the file goes into a column of ${table.name} yet. Choose at least one.`)
	const twice = targets.find((column, i) => targets.indexOf(column) !== i)
	if (twice) throw new AppError('invalid', `Two columns of the file go into "${twice.name}". Leave one of them out.`)
	const computed = targets.find((column) => column.computed)
	if (computed)
		throw new AppError('invalid', `"${computed.name}" is worked out from other columns. Leave that column out.`)
	if (how === 'add') return
	if (keys.some((key) => !targets.some((column) => column.id === key)))
		throw new AppError(
			'invalid',
			'The columns by which rows are known must come with the file. Choose others, or add all as new rows.'
		)
	if (keys.length === 0 && how === 'update')
		throw new AppError('invalid', 'Choose by which column rows are known again, or add all as new rows.')
}

/** The pairs of a merge, the key's among them. */
export function pairsOf(store: Store, { begun, plan }: Pick<Staging, 'begun' | 'plan'>): Pair[] {
	const table = getTable(store.workspace().catalogue, intoOf(plan).table)
	return plan.columns.filter(isFilled).map((column, i) => {
		const entry = begun.columns[i]
		if (!entry) throw new Error(`Expected a staged column for "${column.name}"`)
		return { to: getColumn(table, column.to), staged: toColumn(entry, store.workspace()) }
	})
}

/** Whether a cell of the staged row `s` says something else than the row `t` of the table. */
export function differsIn({ to, staged }: Pair): string {
	if (to.type !== 'reference') return `s.c${staged.id} IS NOT t.c${to.id}`
	return `s.r${to.id} IS NOT t.c${to.id} AND (s.r${to.id} IS NOT NULL OR s.c${staged.id} IS NULL)`
}

/** Rows of the table, called `t`, that the file does not have. */
export function missingFrom(begun: Begun, into: MergeInto, pairs: readonly Pair[]): Sql {
	const key = keyParts(pairs, into)
	if (key.length === 0) return raw('1')
	const same = key.map(({ own, theirs }) => `s.${own} = t.${theirs}`)
	return raw(`NOT EXISTS (SELECT 1 FROM t${begun.table} AS s WHERE ${same.join(' AND ')})`)
}
