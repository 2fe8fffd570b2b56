/** What a form is asked while somebody fills it in, and what becomes of it once it is sent. */
import { AppError } from '$lib/core/app-error.ts'
import type { FormSent } from '$lib/core/requests/screen-doings.ts'
import type { CellChange, Change } from '$lib/core/query/change.ts'
import type { FormTyped, FormVerdict, RowVerdict } from '$lib/core/requests/forms.ts'
import type { Option } from '$lib/core/requests/rows.ts'
import { standingOf } from '../../rights/rights-of-actor.ts'
import { changeRows } from '../../rows/change.ts'
import type { Store } from '../../store/store.ts'
import { asForm } from '$lib/core/app/lines/steps.ts'
import { heldOnScreen } from '../held-on-screen.ts'
import { findLine, type InApp } from '../open-screen.ts'
import { cellsOf, changedRow, type ChangedRow } from './changed-row.ts'
import { choicesOf } from './form-choices.ts'
import {
	entriesIn,
	itemsIn,
	partsIn,
	shapeOf,
	type AskedEntry,
	type AskedItems,
	type FormPart,
	type FormShape
} from './form-shape.ts'
import { judgeForm, withoutUnasked, wordsOn } from './judge-form.ts'
import { typedRow } from './typed-row.ts'
import type { Filling } from './work-out-typed.ts'

/** `row`: that of the screen, for a form that belongs to one. */
export interface FilledForm extends InApp, FormTyped {
	readonly row?: string | undefined
	/** The rows that are chosen on the screen, by name. */
	readonly held?: Readonly<Record<string, string>> | undefined
}

export function judgeFilled(store: Store, filled: FilledForm): FormVerdict {
	const { filling, shape, typed } = openForm(store, filled)
	return judgeForm(filling, shape, typed)
}

/** `entry`: whose choices; `own`: the cells of the row in which it stands, where that is one of a group. */
export function offerChoices(
	store: Store,
	filled: FilledForm & { entry: string; starts: string; own: readonly CellChange[] }
): readonly Option[] {
	const { filling, shape, typed } = openForm(store, filled)
	const { starts } = filled
	const isAsked = ({ id }: AskedEntry) => id === filled.entry
	const entry = entriesIn(partsIn(shape)).find(isAsked)
	if (entry) return choicesOf(filling, entry, { table: shape.table, cells: typed.cells, starts })
	for (const { table, parts } of itemsIn(shape)) {
		const inner = entriesIn(parts).find(isAsked)
		if (inner) return choicesOf(filling, inner, { table, cells: askedOf(parts, filled.own), starts })
	}
	return []
}

/**
 * Adds the row that a form holds, or changes the one that is shown, and adds those of its groups with it: all of it, or nothing. Only what it asks of this person is
 * taken, and its own conditions are judged after what the lines and guards of the table say.
 */
export function sendForm(store: Store, filled: FilledForm): FormSent {
	const { filling, shape, typed, of, changed, thanks } = openForm(store, filled)
	const verdict = judgeForm(filling, shape, typed)
	const asked = withoutUnasked(partsIn(shape), typed.cells, verdict)
	// Of a row that is there already only what was touched is sent.
	const touched = new Set(filled.cells.map(({ column }) => column))
	const cells = changed ? asked.filter(({ column }) => touched.has(column)) : asked
	const groups = itemsIn(shape).map((group) => {
		const rows = (typed.items[group.id] ?? []).map((row, i) => {
			const unasked = verdict.items[group.id]?.rows[i]?.unasked ?? []
			return withoutUnasked(group.parts, row, { unasked })
		})
		return { ...group, rows: rows.filter((row) => row.some(({ value }) => value !== null)) }
	})
	const own: Change = changed
		? { kind: 'change', table: shape.table.id, row: changed.id, cells }
		: { kind: 'add', table: shape.table.id, cells: [...cells, ...of] }
	const [done] = changeRows(store, [own, ...groups.flatMap((group) => added(group, changed))], filling.context)
	if (!done) throw new Error('Expected the door to answer for the row of a form')
	const asSent = {
		cells: changed ? over(cellsOf(changed), cells) : [...cells, ...of],
		items: Object.fromEntries(groups.map(({ id, rows }) => [id, rows]))
	}
	refuseUnlessWhole(shape, asSent, judgeForm(filling, shape, asSent))
	const sent = typedRow(store, 'o', { table: shape.table, cells: asSent.cells, context: filling.context })
	return { ...done, says: wordsOn(filling, { tables: [shape.table], rows: [sent] }, thanks) || 'Saved.' }
}

/** Rows that belong to the one that is changed, or that is added with them. */
function added(
	{ table, of, rows }: AskedItems & { rows: readonly (readonly CellChange[])[] },
	changed: ChangedRow | undefined
): Change[] {
	const belongs = changed ? { column: of.id, value: { id: changed.id } } : { column: of.id, value: { added: 0 } }
	return rows.map((cells) => ({ kind: 'add', table: table.id, cells: [...cells, belongs] }))
}

interface OpenForm {
	readonly filling: Filling
	readonly shape: FormShape
	/** As far as the form asks it of this person, and with the row that it belongs to. */
	readonly typed: FormTyped
	/** What belongs to the row of the screen. */
	readonly of: readonly CellChange[]
	/** The row that it changes, where it adds none. */
	readonly changed: ChangedRow | undefined
	/** What is said once it is sent. */
	readonly thanks: string
}

function openForm(store: Store, { cells, items, row, held, actor, now, ...place }: FilledForm): OpenForm {
	const found = findLine(store, place, 'form', 'steps')
	const { screen } = found
	const tables = store.workspace().catalogue.tables
	const line = found.line.kind === 'steps' ? asForm(found.line, tables.get(found.line.table)) : found.line
	if (line.of !== null && row === undefined)
		throw new AppError('invalid', 'This form belongs to a row. Open it from there.')
	const standing = standingOf(store, actor, now)
	const changed = changedRow(store, line, { row, actor, now })
	if (line.changes !== null && row !== undefined && !changed)
		throw new AppError('not_found', 'This row is not there, or not for you to see.')
	const shape = shapeOf(line, store.workspace().catalogue, standing, changed)
	if (!shape) throw new AppError('not_found', 'This form is no longer there. Load the page again.')
	const of = line.of === null || row === undefined ? [] : [{ column: line.of, value: { id: row } }]
	return {
		filling: {
			...{ store, standing, here: heldOnScreen(store, screen, { actor, now, held }) },
			context: { actor, now, through: 'form' }
		},
		...{ shape, of, changed, thanks: line.thanks },
		typed: {
			cells: [...over(changed ? cellsOf(changed) : [], askedOf(partsIn(shape), cells)), ...of],
			items: Object.fromEntries(
				itemsIn(shape).map(({ id, parts }) => [id, (items[id] ?? []).map((each) => askedOf(parts, each))])
			)
		}
	}
}

/** What stands in a row, with what was typed over it. */
function over(there: readonly CellChange[], typed: readonly CellChange[]): CellChange[] {
	const columns = new Set(typed.map(({ column }) => column))
	return [...there.filter(({ column }) => !columns.has(column)), ...typed]
}

/** Only what the form asks for: a page sends what it likes. */
function askedOf(parts: readonly FormPart[], cells: readonly CellChange[]): CellChange[] {
	const asked = new Set(entriesIn(parts).map(({ column }) => column.id))
	return cells.filter(({ column }) => asked.has(column))
}

/** The form's own conditions, each refusal with its entry. */
function refuseUnlessWhole(shape: FormShape, typed: FormTyped, verdict: FormVerdict): void {
	refuseRow(partsIn(shape), typed.cells, verdict)
	for (const { id, table, least, parts } of itemsIn(shape)) {
		const rows = typed.items[id] ?? []
		if (rows.length < least)
			throw new AppError('invalid', `At least ${least} of ${table.name} must be filled in.`, { entry: id })
		rows.forEach((row, i) => {
			const own = verdict.items[id]?.rows[i]
			if (own) refuseRow(parts, row, own, i)
		})
	}
}

function refuseRow(parts: readonly FormPart[], cells: readonly CellChange[], verdict: RowVerdict, at?: number): void {
	for (const { id, column } of entriesIn(parts)) {
		const details = { column: column.id, entry: id, ...(at === undefined ? {} : { row: at }) }
		const says = verdict.refused[id]
		if (says !== undefined) throw new AppError('invalid', says, details)
		const isFilled = cells.some((cell) => cell.column === column.id && cell.value !== null && cell.value !== '')
		if (verdict.must.includes(id) && !isFilled)
			throw new AppError('invalid', `${column.name} must be filled in.`, details)
	}
}
