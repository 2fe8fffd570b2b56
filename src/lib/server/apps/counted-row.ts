/** On which row a tally counts: the one that is shown, or one that belongs to it and may not be there yet. */
import { amountOf, type TallyLine } from '$lib/core/app/lines/tally.ts'
import { check } from '$lib/core/formula/check/check.ts'
import type { HeldValue } from '$lib/core/formula/check/check-call.ts'
import { columnType } from '$lib/core/formula/check/column-type.ts'
import { printName } from '$lib/core/formula/check/rename.ts'
import { isErrorValue, type Plain } from '$lib/core/model/formula.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { CellChange, CellInput } from '$lib/core/query/change.ts'
import { standingOf, type Actor } from '../rights/rights-of-actor.ts'
import { workOut } from '../routines/work-out.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'

export interface Counted {
	/** How much one press adds; null where that, or on which row, cannot be worked out. */
	readonly amount: number | null
	/** The row with the number; undefined while it is not there, or not for whoever presses to see. */
	readonly row: string | undefined
	/** What a row would hold besides the number that is made because it is missing. */
	readonly fresh: readonly CellChange[]
}

interface Pressing {
	/** The row that is shown, or that it stands on in a list. */
	readonly row: string
	readonly actor: Actor
	readonly now: number
}

/** Undefined where this person does not see the row, or the line names what is not there (any more). */
export function countedRow(store: Store, line: TallyLine, { row, actor, now }: Pressing): Counted | undefined {
	const { catalogue } = store.workspace()
	const table = catalogue.tables.get(line.table)
	const named = (id: number | null) => (table && id !== null ? findColumn(table, id) : undefined)
	const [of, keyColumn] = [named(line.of), named(line.key)]
	const shown = line.of === null ? table : catalogue.tables.get(of?.to ?? 0)
	if (!table || !shown || (line.key !== null && !keyColumn)) return undefined
	const n = store.ids.fromId(shown.id, row)
	const isSeen = readRows(store, actor, { table: shown.id, row, columns: [] }, now).rows.length > 0
	if (n === undefined || !isSeen) return undefined
	const over = (formula: string) => workOutOn(store, formula, { table: shown, n, actor, now })
	const amount = over(amountOf(line))
	const counts = { amount: typeof amount === 'number' ? amount : null }
	if (!of) return { ...counts, row, fresh: [] }
	const key = keyColumn && { column: keyColumn, value: over(line.is) }
	// A row that nothing tells from others would be made anew at each press.
	if (key?.value === null) return { amount: null, row: undefined, fresh: [] }
	const here = new Map<string, HeldValue>([['shown', { type: { kind: 'row', table: shown }, value: n }]])
	if (key) here.set('key', { type: columnType(catalogue, key.column), value: key.value })
	const where = [`${printName(of.name)} = here.shown`, ...(key ? [`${printName(key.column.name)} = here.key`] : [])]
	const [found] = readRows(store, actor, { table: table.id, columns: [], where, here, limit: 1 }, now).rows
	const fresh: CellChange[] = [
		{ column: of.id, value: { id: row } },
		...(key ? [{ column: key.column.id, value: asInput(store, key.value, key.column.to) }] : [])
	]
	return { ...counts, row: found?.id, fresh }
}

/** Blank where it is an error, or cannot be read any more. */
function workOutOn(
	store: Store,
	formula: string,
	{ table, n, actor, now }: { table: Table; n: number; actor: Actor; now: number }
): Plain {
	const { expr } = check(formula, { catalogue: store.workspace().catalogue, rows: [table], me: true })
	if (!expr) return null
	const { moment, rights } = standingOf(store, actor, now)
	const value = workOut(store, expr, { table, n, moment, rights })
	return isErrorValue(value) ? null : value
}

function asInput(store: Store, value: Plain, to: number | undefined): CellInput {
	return to !== undefined && typeof value === 'number' ? { id: store.ids.toId(to, value) } : value
}
