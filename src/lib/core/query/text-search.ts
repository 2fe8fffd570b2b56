/**
 * Where a text may stand in the rows of a large table: candidates by an index of three-character pieces, to be looked at by
 * the condition itself, so that they may be too many but never too few.
 *
 * The index is a full-text table of SQLite's with trigrams (FTS5, section 4.3.5), one body a row: the keys of all its text.
 */
import { hasKey } from '../table/storage.ts'
import { getColumn, getTable, type Catalogue, type Column, type Table } from '../model/table.ts'
import { textKey } from '../text/key.ts'
import type { Filter } from './filter.ts'
import { columnsSought } from './filter.ts'
import { joinSql, param, raw, sql, type Sql } from '../sql/sql.ts'

const PIECE = 3

/** The columns whose text is in a table's index. */
export function indexedColumns(table: Table): readonly Column[] {
	return table.columns.filter((column) => hasKey(column) || column.type === 'long text')
}

/** What the index is asked for; undefined for a text too short for it. */
export function matchOf(text: string): string | undefined {
	const signs = [...textKey(text.trim())]
	if (signs.length < PIECE || signs.includes('\0')) return undefined
	const pieces = signs.slice(0, signs.length - PIECE + 1).map((_sign, i) => signs.slice(i, i + PIECE).join(''))
	return [...new Set(pieces)].map((piece) => `"${piece.replaceAll('"', '""')}"`).join(' AND ')
}

/**
 * The numbers of all rows that a filter could find, and maybe others; undefined where the index cannot tell.
 *
 *     "find 99887 in any column" of a table with one text column and a reference
 *     → SELECT rowid AS n FROM s3 WHERE s3 MATCH ? UNION SELECT q.n FROM t3 AS q WHERE q.c21 IN (SELECT x.n FROM t2 AS x WHERE instr(x.c10k, ?) > 0)
 */
export function candidatesOf({ filter, table, catalogue }: Sought): Sql | undefined {
	if (filter.is !== 'contains') return undefined
	const match = matchOf(filter.text)
	if (match === undefined) return undefined
	const indexed = new Set(indexedColumns(table))
	const columns = columnsSought(filter, table, catalogue)
	const references = columns.filter((column) => !indexed.has(column))
	const parts: Sql[] = []
	if (references.length < columns.length)
		parts.push(sql`SELECT rowid AS n FROM s${table.id} WHERE s${table.id} MATCH ${param(match)}`)
	for (const column of references) {
		const part = byLabel(table, column, { catalogue, text: filter.text })
		if (!part) return undefined
		parts.push(part)
	}
	return parts.length === 0 ? undefined : joinSql(parts, ' UNION ')
}

export interface Sought {
	readonly filter: Filter
	readonly table: Table
	readonly catalogue: Catalogue
}

/** Rows that point to one whose label holds the text; whether the reader sees that label is asked by the condition. */
function byLabel(
	table: Table,
	column: Column,
	{ catalogue, text }: { catalogue: Catalogue; text: string }
): Sql | undefined {
	if (column.type !== 'reference' || column.to === undefined) return undefined
	const target = getTable(catalogue, column.to)
	const label = getColumn(target, target.label)
	if (!hasKey(label)) return undefined
	const holds = sql`instr(${raw(`x.c${label.id}k`)}, ${param(textKey(text.trim()))}) > 0`
	return sql`SELECT q.n FROM t${table.id} AS q WHERE ${raw(`q.c${column.id}`)} IN (SELECT x.n FROM t${target.id} AS x WHERE ${holds})`
}
