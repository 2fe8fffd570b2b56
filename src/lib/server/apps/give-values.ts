/** What a button or a welcome gives the screen that it opens, or the one that it stands on, as whoever presses it sees the data. */
import { AppError } from '$lib/core/app-error.ts'
import { writeHeld } from '$lib/core/app/held-text.ts'
import { givenBy } from '$lib/core/app/lines/with.ts'
import { tableAround } from '$lib/core/app/lines/new-line.ts'
import { placedLines } from '$lib/core/app/lines/tree.ts'
import { check } from '$lib/core/formula/check/check.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { isErrorValue, type Plain, type Type } from '$lib/core/model/formula.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Given } from '$lib/core/requests/screens.ts'
import { standingOf, type Actor, type Standing } from '../rights/rights-of-actor.ts'
import { momentShown } from '../rights/shown-me.ts'
import { workOut } from '../routines/work-out.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { isFor } from './for-whom.ts'
import { heldOnScreen } from './held-on-screen.ts'
import { findLine, type InApp } from './open-screen.ts'
import { workOutAlone } from './work-out-alone.ts'

const GIVERS = ['button', 'welcome'] as const

/** `row`: on which it was pressed, for a button that stands among rows. */
export interface Giving extends InApp {
	readonly row?: string | undefined
	readonly held?: Readonly<Record<string, string>> | undefined
}

export function giveValues(store: Store, { row, held, actor, now, ...place }: Giving): Given {
	const { line, screen } = findLine(store, { ...place }, ...GIVERS)
	const within = placedLines(screen.lines).find((placed) => placed.line.id === line.id)?.within ?? []
	const table = store.workspace().catalogue.tables.get(tableAround(within) ?? 0)
	const here = heldOnScreen(store, screen, { actor, now, held })
	const on = { table, row, here, actor, now, standing: standingOf(store, actor, now) }
	const forThem = givenBy(line).filter((each) => isFor(each, on.standing))
	const given = forThem.map(({ as, value }) => [as, giveOne(store, value, on)] as const)
	const asText = (isTyped: boolean) =>
		Object.fromEntries(
			given.flatMap(([as, { text, type }]) => ((type.kind === 'text') === isTyped ? [[as, text] as const] : []))
		)
	return { held: asText(false), typed: asText(true) }
}

interface On {
	readonly table: Table | undefined
	readonly row: string | undefined
	readonly here: Here
	readonly standing: Standing
	readonly actor: Actor
	readonly now: number
}

interface Text {
	readonly text: string
	readonly type: Type
}

function giveOne(store: Store, formula: string, on: On): Text {
	const { table, row } = on
	if (table && formula.trim() === '') return { text: row ?? '', type: { kind: 'row', table } }
	const { value, type } = table ? onRow(store, formula, { ...on, table }) : workOutAlone(store, formula, on)
	return { text: type.kind === 'row' ? seenId(store, value, { ...on, table: type.table }) : writeHeld(value), type }
}

function onRow(store: Store, formula: string, on: On & { table: Table }): { value: Plain; type: Type } {
	const { table, row, here, standing } = on
	const { catalogue } = store.workspace()
	const n = row === undefined ? undefined : store.ids.fromId(table.id, row)
	const { expr } = check(formula, { catalogue, rows: [table], me: true, here })
	if (!expr) throw new AppError('invalid', 'This button cannot say what it gives. Tell whoever looks after this app.')
	const moment = momentShown(store, standing)
	const value = n === undefined ? null : workOut(store, expr, { table, n, moment, rights: standing.rights })
	return { value: isErrorValue(value) ? null : value, type: expr.type }
}

/** The id of a row that is named, where whoever presses sees it. */
function seenId(store: Store, value: Plain, { table, actor, now }: On & { table: Table }): string {
	if (typeof value !== 'number') return ''
	const id = store.ids.toId(table.id, value)
	return readRows(store, actor, { table: table.id, row: id, columns: [] }, now).rows.length > 0 ? id : ''
}
