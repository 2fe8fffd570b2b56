/** Finds columns whose values name rows of another table, so that making them references can be offered. */
import type { Relation } from '$lib/core/requests/structure.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { allOf, raw, sql, type Sql } from '$lib/core/sql/sql.ts'
import { comparedPlace, hasKey } from '$lib/core/table/storage.ts'
import { getColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'

/** Enough different values to tell by. */
const LOOKED_AT = 2_000
const LEAST_FOUND = 0.9

/** Relations of a table to others and of others to it, each only where both ends are the builder's to see. */
export function findRelations(store: Store, { table: id, actor, now }: ByActor & { table: number }): Relation[] {
	const table = getTableAsKeeper(store, id, actor)
	const { rights } = standingOf(store, actor, now)
	const others = [...store.workspace().catalogue.tables.values()].filter((each) => each.id !== id)
	return others.flatMap((other) => [
		...relationsBetween(store, rights, table, other),
		...(other.keepers.includes(actor.person) ? relationsBetween(store, rights, other, table) : [])
	])
}

function relationsBetween(store: Store, rights: Rights, from: Table, to: Table): Relation[] {
	const label = getColumn(to, to.label)
	if (isNever(rights.rows(to)) || isNever(rights.cell(to, label))) return []
	return from.columns.flatMap((column) => {
		if (column.id === from.label || !couldName(column, label)) return []
		const [row = []] = store.select(counts(from, column, { to, label, rights }))
		const [found, lost] = [Number(row[0] ?? 0), Number(row[1] ?? 0)]
		if (found < 2 || found < (found + lost) * LEAST_FOUND) return []
		const ends = { table: from.id, tableName: from.name, to: to.id, toName: to.name }
		return [{ ...ends, column: column.id, columnName: column.name, found, lost }]
	})
}

/** Numbers name rows only where rows are known by numbers, and texts where they are known by texts. */
function couldName(column: Column, label: Column): boolean {
	if (column.computed) return false
	if (label.type === 'whole number') return column.type === 'whole number'
	return hasKey(label) && (hasKey(column) || column.type === 'choice')
}

function counts(from: Table, column: Column, { to, label, rights }: { to: Table; label: Column; rights: Rights }): Sql {
	const context = newContext('x', rights.moment)
	const seen = [rights.rows(to), rights.cell(to, label)].map((each) => compileCondition(each, context))
	const same = raw(`x.${comparedPlace(label)} = v.value`)
	const found = sql`EXISTS (SELECT 1 FROM t${to.id} AS x WHERE ${allOf([same, ...seen])})`
	return sql`SELECT count(*) FILTER (WHERE ${found}), count(*) FILTER (WHERE NOT ${found}) FROM (${valuesOf(from, column)}) AS v`
}

function valuesOf(table: Table, column: Column): Sql {
	const at = comparedPlace(column)
	const some = `SELECT DISTINCT ${at} AS value FROM t${table.id} WHERE ${at} IS NOT NULL LIMIT ${LOOKED_AT}`
	if (column.type !== 'choice') return raw(some)
	const labels = JSON.stringify(column.choices ?? [])
	return {
		text: `SELECT text_key(json_extract(?, '$[' || (value - 1) || ']')) AS value FROM (${some})`,
		params: [labels]
	}
}
