/** Which children a kept total counts, as the text of a statement in a trigger, which takes no parameters. */
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import type { Rollup } from '$lib/core/model/formula.ts'
import type { Sql } from '$lib/core/sql/sql.ts'
import { hasKey } from '$lib/core/table/storage.ts'
import type { Column } from '$lib/core/model/table.ts'

/** A condition over a child's row that stands in the statement under this name. */
export function conditionOf({ where }: Rollup, alias: string): string {
	// A kept condition reads neither the clock nor the looker.
	const ctx = { ...newContext('r', { today: '', now: '' }), aliases: ['r', alias] }
	return ['1', ...where.map((each) => inline(compileCondition(each, ctx)))].join(' AND ')
}

/** A statement with its values written into it, as SQL writes them. */
function inline({ text, params }: Sql): string {
	const pieces = text.split('?')
	if (pieces.length !== params.length + 1) throw new Error(`Expected ${params.length} places for values in "${text}"`)
	return pieces.map((piece, i) => (i === 0 ? piece : written(params[i - 1] ?? null) + piece)).join('')
}

function written(value: Sql['params'][number]): string {
	if (value === null) return 'NULL'
	if (typeof value === 'string') return `'${value.replaceAll("'", "''")}'`
	if (typeof value === 'bigint') return String(value)
	// As a floating number, as it would be bound.
	return Number.isInteger(value) && Math.abs(value) < 1e15 ? `${value}.0` : String(value)
}

/** The columns of the store by which a child's part in a total is decided, beside others that a total names. */
export function columnsDeciding({ by, item, reads }: Rollup, ...further: string[]): readonly string[] {
	const columns = [`c${by.id}`, ...(item ? [`c${item.id}`] : []), ...reads.flatMap(placesRead), ...further]
	return [...new Set(columns)]
}

/** All that a condition can read of a column: its value, its key, its error. */
function placesRead(column: Column): string[] {
	const names = [`c${column.id}`]
	if (hasKey(column)) names.push(`c${column.id}k`)
	if (column.computed) names.push(`c${column.id}e`)
	return names
}
