/** Tries a formula while it is written: what is wrong with it, or what it gives on a row. */
import type { FormulaResult } from '$lib/core/requests/formulas.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { hereIn } from '$lib/core/formula/check/rename.ts'
import { tooMuch } from '$lib/core/formula/syntax/issues.ts'
import { rollupsOf, withRollups } from '$lib/core/formula/sql/rollups.ts'
import { ERROR_NAMES, isErrorValue } from '$lib/core/model/formula.ts'
import { showResult } from '$lib/core/routine/message-text.ts'
import { isVolatile, ownColumns, readsOwnRowOnly, registeredCalls } from '$lib/core/formula/syntax/walk.ts'
import { standingOf, type Actor } from '../rights/rights-of-actor.ts'
import { readRows } from '../rows/read.ts'
import { workOut } from '../routines/work-out.ts'
import type { Store } from '../store/store.ts'
import { rowLabel } from '../rows/row-label.ts'
import { findCost, findTooDear } from '../derived/formula-cost.ts'
import { tablesFrom } from './bench.ts'
import { chosenIn, type HeldHere } from './reads-screen.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'

export interface TryFormula {
	readonly table: number
	readonly text: string
	readonly around?: readonly number[]
	readonly here?: HeldHere
	readonly row?: string | undefined
	readonly actor: Actor
	readonly now: number
}

/** What a formula gives on a row, or what is wrong with it, within what its writer sees. */
export function tryFormula(
	store: Store,
	{ table: id, text, around = [], here = {}, row, actor, now }: TryFormula
): FormulaResult {
	const table = getTableAsKeeper(store, id, actor)
	const { catalogue } = store.workspace()
	const { expr, issues } = check(text, {
		catalogue,
		rows: [...tablesFrom(catalogue, around), table],
		me: true,
		here: hereIn(here, catalogue)
	})
	if (!expr) return { issues }
	const tooDear = findTooDear(store, expr)
	if (tooDear !== undefined) return { issues: [tooMuch(tooDear, text)] }
	const chosen = chosenIn(text, here)
	if (around.length > 0 || chosen.length > 0) return { issues: [], type: expr.type.kind, chosen }
	const looksAt = findCost(store, expr)
	const read = ownColumns(expr)
	const plain: FormulaResult = {
		issues: [],
		type: expr.type.kind,
		dependsOn: table.columns.filter((column) => read.has(column.id)).map((column) => column.name),
		registered: registeredCalls(expr),
		...(looksAt === undefined ? {} : { looksAt }),
		stored: readsOwnRowOnly(expr) && !isVolatile(expr),
		rollups: rollupsOf(withRollups(expr, 0)).length
	}
	const first = row ?? readRows(store, actor, { table: id, columns: [], limit: 1 }, now).rows[0]?.id
	const n = first === undefined ? undefined : store.ids.fromId(id, first)
	if (n === undefined) return plain
	const { moment, rights } = standingOf(store, actor, now)
	// A row is shown by its label; its number never leaves the store.
	const shown =
		expr.type.kind === 'row'
			? check(`"" & (${text})`, { catalogue: store.workspace().catalogue, rows: [table], me: true }).expr
			: expr
	const value = shown ? workOut(store, shown, { table, n, moment, rights }) : null
	const result = isErrorValue(value)
		? (ERROR_NAMES[value.errorCode] ?? '')
		: value === null || value === ''
			? 'blank'
			: showResult(shown ?? expr, value, store.workspace().catalogue)
	return { ...plain, sample: rowLabel(store, table, { person: actor.person, n, now }), result }
}
