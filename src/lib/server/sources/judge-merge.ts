/**
 * Gives staged rows their verdicts, as the table stands now: `add`, `change`, `same`, or left out as `repeated` or
 * `keyless`. A row of the table that goes because the file does not have it gets a staged row of its own, `missing`. A
 * cell that could not be read, or whose reference finds no row, never counts: the table keeps what it holds there.
 *
 * Span by span, so that the changes of others go on between them: first over the staged rows, then over the table's.
 */
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { allOf, joinSql, param, raw, sql, type Sql } from '$lib/core/sql/sql.ts'
import { hasKey } from '$lib/core/table/storage.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import { standingOf } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import {
	differsIn,
	intoOf,
	keyParts,
	missingFrom,
	pairsOf,
	type KeyPart,
	type Pair,
	type Staging
} from './stage-merge.ts'

/** Rows by their numbers, both ends among them. */
export interface Span {
	readonly from: number
	readonly to: number
}

/** The last numbers of the staged rows and of the table's: how far there is to go. */
export interface Lengths {
	readonly staged: number
	readonly table: number
}

/** How many rows are to be gone through, for progress. */
export function measureMerge(store: Store, { begun, plan }: Staging): Lengths {
	const last = (table: number) => Number(store.pluck(`SELECT coalesce(max(n), 0) FROM t${table}`))
	const { how, table } = intoOf(plan)
	return { staged: last(begun.table), table: how === 'add' ? 0 : last(table) }
}

/** What can be said of staged rows without looking at the table: their references, and whether their key serves. */
export function judgeStaged(store: Store, { from, to, ...staging }: Staging & Span): void {
	const { begun, plan, actor } = staging
	const into = intoOf(plan)
	getTableAsKeeper(store, into.table, actor)
	const pairs = pairsOf(store, staging)
	const here = sql`n BETWEEN ${param(from)} AND ${param(to)}`
	const staged = raw(`t${begun.table}`)
	findReferences(store, staging, pairs, here)
	const key = keyParts(pairs, into)
	const blank = raw(key.map(({ own }) => `s.${own} IS NULL`).join(' OR '))
	const same = raw(key.map(({ written }) => `o.${written} = s.${written}`).join(' AND '))
	const verdict =
		into.how === 'add' || key.length === 0
			? raw(`'add'`)
			: sql`CASE WHEN ${blank} THEN 'keyless' WHEN EXISTS (SELECT 1 FROM ${staged} AS o WHERE ${same} AND o.n <> s.n) THEN 'repeated' ELSE 'add' END`
	run(store, sql`UPDATE ${staged} AS s SET target = NULL, verdict = ${verdict} WHERE ${here}`)
}

/** Meets rows of the table with those of the file that have their key; in a replacement the others are missing. */
export function judgeTable(store: Store, { from, to, ...staging }: Staging & Span): void {
	const { begun, plan, actor, now } = staging
	const into = intoOf(plan)
	const table = getTableAsKeeper(store, into.table, actor)
	const pairs = pairsOf(store, staging)
	if (into.how === 'add') return
	const staged = raw(`t${begun.table}`)
	const here = sql`n BETWEEN ${param(from)} AND ${param(to)}`
	const key = keyParts(pairs, into)
	if (key.length > 0) meetRows(store, { staging, pairs, key, here })
	if (into.how !== 'replace') return
	// Before all staged rows: a value that may stand once is free again when a row of the file brings it.
	run(store, sql`DELETE FROM ${staged} WHERE n BETWEEN ${param(-to)} AND ${param(-from)}`)
	const made = sql`${param(now)}, ${param(now)}`
	run(
		store,
		sql`INSERT INTO ${staged} (n, made_at, changed_at, verdict, target) SELECT -t.n, ${made}, 'missing', t.n FROM t${table.id} AS t WHERE t.${here} AND ${missingFrom(begun, into, pairs)}`
	)
}

interface Meeting {
	readonly staging: Staging
	readonly pairs: readonly Pair[]
	readonly key: readonly KeyPart[]
	/** Which rows of the table. */
	readonly here: Sql
}

function meetRows(store: Store, { staging: { begun, plan }, pairs, key, here }: Meeting): void {
	const into = intoOf(plan)
	const differs = pairs
		.filter((pair) => !into.keys.includes(pair.to.id))
		.map((pair) => `(${differsIn(pair)} AND coalesce(instr(s.c${begun.skipped}, ',${pair.staged.id},'), 0) = 0)`)
	const list = raw(key.map(({ theirs }, i) => `${theirs} AS key${i}`).join(', '))
	const filled = raw(key.map(({ theirs }) => `${theirs} IS NOT NULL`).join(' AND '))
	const groups = raw(key.map((_part, i) => i + 1).join(', '))
	// A key that stands in the table twice: met in this span, or in one before.
	const met = sql`SELECT ${list}, min(n) AS n, count(*) AS many FROM t${into.table} WHERE ${here} AND ${filled} GROUP BY ${groups}`
	const same = raw(key.map(({ own }, i) => `s.${own} = met.key${i}`).join(' AND '))
	run(
		store,
		sql`UPDATE t${begun.table} AS s SET target = t.n, verdict = CASE WHEN s.target IS NOT NULL OR met.many > 1 THEN 'repeated' WHEN ${raw(differs.join(' OR ') || '0')} THEN 'change' ELSE 'same' END FROM (${met}) AS met JOIN t${into.table} AS t ON t.n = met.n WHERE ${same} AND s.verdict <> 'repeated'`
	)
}

/** Finds the row that each text of a reference names, among those that the builder sees. */
function findReferences(store: Store, { begun, actor, now }: Staging, pairs: readonly Pair[], here: Sql): void {
	const { catalogue } = store.workspace()
	const { rights } = standingOf(store, actor, now)
	const found = pairs.flatMap(({ to, staged }) => {
		if (to.type !== 'reference') return []
		const target = getTable(catalogue, to.to ?? 0)
		const label = getColumn(target, target.label)
		const context = newContext('x', rights.moment)
		const seen = [rights.rows(target), rights.cell(target, label)].map((each) => compileCondition(each, context))
		const names = hasKey(label)
			? sql`x.c${label.id}k = s.c${staged.id}k`
			: sql`CAST(x.c${label.id} AS TEXT) = s.c${staged.id}`
		const only = sql`CASE WHEN count(*) = 1 THEN max(x.n) END`
		return [sql`r${to.id} = (SELECT ${only} FROM t${target.id} AS x WHERE ${allOf([names, ...seen])})`]
	})
	if (found.length > 0) run(store, sql`UPDATE t${begun.table} AS s SET ${joinSql(found, ', ')} WHERE ${here}`)
}

function run(store: Store, { text, params }: Sql): void {
	store.prepare(text).run(...params)
}
