import { isSafeAddress, type ButtonLine } from '$lib/core/app/lines/button.ts'
import { givenBy } from '$lib/core/app/lines/with.ts'
import type { ScreenLine } from '$lib/core/app/lines/all.ts'
import type { ButtonDoes, Opening, RowAction } from '$lib/core/requests/screens.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import { tableOfStart, type Routine } from '$lib/core/routine/routine.ts'
import type { Writing } from '$lib/core/routine/step-entry.ts'
import { writingsOf } from '$lib/core/routine/step-tree.ts'
import { readRows } from '../../rows/read.ts'
import { caseOfRow } from '../../signoffs/cases.ts'
import { screenFor, tableOf, type ShownAs, type View } from './view.ts'

export const button: ShownAs<ButtonLine> = {
	/** A page of words that leads on to something is worth opening; that two lead to each other alone is nothing. */
	holdsSomething({ does }, view) {
		const target = does.kind === 'open' ? screenFor(does.screen, view) : undefined
		return target !== undefined && view.inner.holdsSomething(withoutButtons(target.lines))
	},
	show(line, view) {
		const { id, label, icon, picture } = line
		const shown = picture && { sha: picture.sha, says: '' }
		const does = whatItDoes(line, view)
		return does ? [{ id, kind: 'button', label, icon, picture: shown, does }] : []
	}
}

function whatItDoes(line: ButtonLine, view: View): ButtonDoes | undefined {
	const { does } = line
	switch (does.kind) {
		case 'open': {
			const opening = offeredScreen(does.screen, view)
			return opening && { kind: givenBy(line).length > 0 ? 'give' : 'open', ...opening }
		}
		case 'set':
			return { kind: 'give', opens: null, takesRow: false }
		case 'run': {
			const routine = routineOf(does.routine, view)
			return routine && mayRun(routine, view) ? { kind: 'run' } : undefined
		}
		case 'link':
			// A draft may hold any; none but these is ever a link.
			return isSafeAddress(does.address) ? does : undefined
		case 'export':
		case 'copy link':
		case 'print':
		case 'start over':
			return does
	}
}

/**
 * What a button within a list is on each of its rows: offered where this person could do it on some row. Whether they may on
 * this one is asked when it is pressed.
 */
export function actionOnRows(line: ButtonLine, table: Table, view: View): RowAction[] {
	const { id, label, does } = line
	if (does.kind === 'set') return [{ id, label, gives: { takesRow: false } }]
	if (does.kind === 'open') {
		const opening = offeredScreen(does.screen, view)
		if (!opening) return []
		const { opens, takesRow } = opening
		return [{ id, label, opens, ...(givenBy(line).length > 0 ? { gives: { takesRow } } : {}) }]
	}
	if (does.kind !== 'run') return []
	const routine = routineOf(does.routine, view)
	return routine && tableOfStart(routine.start) === table.id && mayPossiblyRun(routine, view) ? [{ id, label }] : []
}

function withoutButtons(lines: readonly ScreenLine[]): ScreenLine[] {
	return lines.flatMap((line): ScreenLine[] => {
		if (line.kind === 'button') return []
		return 'lines' in line ? [{ ...line, lines: withoutButtons(line.lines) }] : [line]
	})
}

/** Undefined where it is not for this person, or holds nothing for them. */
export function offeredScreen(id: string, view: View): Opening | undefined {
	const { inner } = view
	const target = screenFor(id, view)
	if (!target || !inner.holdsSomething(target.lines)) return undefined
	return { opens: target.id, takesRow: inner.showsRow(target.lines) }
}

export function routineOf(id: string, { document }: View): Routine | undefined {
	return document.routines.find((each) => each.id === id)
}

/** What it writes as whoever pressed; as a role of its own it does what that may. */
function writtenBy(routine: Routine): Writing[] {
	return (routine.acts ?? undefined) === undefined ? writingsOf(routine) : []
}

/** Whether its presser might do all that it does, on some rows. */
export function mayPossiblyRun(routine: Routine, view: View): boolean {
	const { rights } = view.standing
	return writtenBy(routine).every(({ table: id, verb, columns }) => {
		const table = tableOf(view, id)
		if (!table) return false
		const may = (column?: number) =>
			rights.mayPossibly(verb, table, column === undefined ? undefined : findColumn(table, column))
		return columns.length === 0 ? may() : columns.every(may)
	})
}

/** A routine's button is offered on a row whose columns this person may set, and which no sign-off has closed. */
function mayRun(routine: Routine, view: View): boolean {
	if (!mayPossiblyRun(routine, view)) return false
	const { store, request } = view
	const { actor, row: asked, now } = request
	const begins = tableOfStart(routine.start)
	const table = begins === undefined ? undefined : tableOf(view, begins)
	const n = table && asked !== undefined ? store.ids.fromId(table.id, asked) : undefined
	if (!table || n === undefined) return false
	const [row] = readRows(store, actor, { table: table.id, columns: [table.label], row: asked, offers: true }, now).rows
	const sets = writtenBy(routine).flatMap((each) =>
		each.table === begins && each.verb === 'change' ? each.columns : []
	)
	if (!row || !sets.every((id) => row.may?.change.includes(id))) return false
	return sets.length === 0 || caseOfRow(store, { table: table.id, n, actor }) === null
}
