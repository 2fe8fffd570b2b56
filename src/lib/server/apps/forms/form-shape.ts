/** What a form asks one person, in its order: what it lists by columns, what its lines say more closely, its pages. */
import type { LineOf, ScreenLine } from '$lib/core/app/lines/all.ts'
import type { EntryLine } from '$lib/core/app/lines/entry-line.ts'
import type { WorkedLine } from '$lib/core/app/lines/form-parts.ts'
import { findColumn, type Catalogue, type Column, type Table } from '$lib/core/model/table.ts'
import type { Standing } from '../../rights/rights-of-actor.ts'
import { isFor } from '../for-whom.ts'
import type { ChangedRow } from './changed-row.ts'

export interface AskedEntry {
	readonly kind: 'entry'
	/** That of its line, or else made of its column. */
	readonly id: string
	readonly column: Column
	readonly line: EntryLine | undefined
}

export interface AskedItems {
	readonly kind: 'items'
	readonly id: string
	readonly table: Table
	readonly of: Column
	readonly least: number
	readonly parts: readonly (AskedEntry | WorkedLine)[]
}

export type FormPart = AskedEntry | AskedItems | WorkedLine | LineOf<'heading'> | LineOf<'text'> | LineOf<'divider'>

export interface FormPage {
	/** Empty where the form is not parted. What stands before its first page is asked there. */
	readonly id: string
	readonly title: string
	readonly parts: readonly FormPart[]
}

export interface FormShape {
	readonly table: Table
	readonly pages: readonly FormPage[]
}

type Eyes = Pick<Standing, 'rights' | 'roles'>

/**
 * Undefined where its table is gone. What a person cannot add is not asked of them; or, of a row that is changed, what they
 * cannot change there.
 */
export function shapeOf(
	form: LineOf<'form'>,
	catalogue: Catalogue,
	eyes: Eyes,
	changed?: ChangedRow
): FormShape | undefined {
	const table = catalogue.tables.get(form.table)
	if (!table) return undefined
	const place = { table, catalogue, eyes, without: form.of, changed }
	const refined = new Set(form.lines.flatMap(within).flatMap((line) => (line.kind === 'entry' ? [line.column] : [])))
	const listed = entriesOf(
		form.columns.filter((id) => !refined.has(id)),
		place
	)
	const loose = form.lines.filter((line) => line.kind !== 'page')
	const first = [...listed, ...loose.flatMap((line) => partsOf(line, place))]
	const pages = form.lines.flatMap((line) =>
		line.kind === 'page' && isFor(line, eyes)
			? [{ id: line.id, title: line.title, parts: line.lines.flatMap((each) => partsOf(each, place)) }]
			: []
	)
	const [opening = { id: '', title: '', parts: [] }, ...others] = pages
	const all = [{ ...opening, parts: [...first, ...opening.parts] }, ...others]
	return { table, pages: all.filter(({ parts }) => parts.some(({ kind }) => kind === 'entry' || kind === 'items')) }
}

export function partsIn({ pages }: FormShape): readonly FormPart[] {
	return pages.flatMap(({ parts }) => parts)
}

export function entriesIn(parts: readonly (FormPart | AskedEntry | WorkedLine)[]): readonly AskedEntry[] {
	return parts.flatMap((part) => (part.kind === 'entry' ? [part] : []))
}

export function itemsIn(shape: FormShape): readonly AskedItems[] {
	return partsIn(shape).flatMap((part) => (part.kind === 'items' ? [part] : []))
}

interface Place {
	readonly table: Table
	readonly catalogue: Catalogue
	readonly eyes: Eyes
	/** The column that is filled by where the row belongs. */
	readonly without: number | null
	/** The row that is changed, where none is added. */
	readonly changed?: ChangedRow | undefined
}

/** A line of the form itself, or those of a page. */
function within(line: ScreenLine): readonly ScreenLine[] {
	return line.kind === 'page' ? line.lines : [line]
}

function partsOf(line: ScreenLine, place: Place): readonly FormPart[] {
	if (!isFor(line, place.eyes)) return []
	switch (line.kind) {
		case 'entry':
			return entriesOf([line.column], place).map((entry) => ({ ...entry, id: line.id, line }))
		case 'items':
			return itemsOf(line, place)
		case 'shown':
		case 'heading':
		case 'text':
		case 'divider':
			return [line]
		default:
			return []
	}
}

function itemsOf(line: LineOf<'items'>, { catalogue, eyes }: Place): readonly AskedItems[] {
	const table = catalogue.tables.get(line.table)
	const of = table && findColumn(table, line.of)
	if (!table || !of || !eyes.rights.mayPossibly('add', table)) return []
	const inner = { table, catalogue, eyes, without: of.id }
	const refined = new Set(line.lines.flatMap((each) => (each.kind === 'entry' ? [each.column] : [])))
	const parts = [
		...entriesOf(
			line.columns.filter((id) => !refined.has(id)),
			inner
		),
		...line.lines.flatMap((each) => partsOf(each, inner))
	].flatMap((part) => (part.kind === 'entry' || part.kind === 'shown' ? [part] : []))
	if (entriesIn(parts).length === 0) return []
	return [{ kind: 'items', id: line.id, table, of, least: line.least ?? 0, parts }]
}

function entriesOf(columns: readonly number[], { table, eyes, without, changed }: Place): AskedEntry[] {
	const mayWrite = (column: Column) =>
		changed ? changed.may.includes(column.id) : eyes.rights.mayPossibly('add', table, column)
	return columns.flatMap((id) => {
		const column = id === without ? undefined : findColumn(table, id)
		if (!column || column.computed || !mayWrite(column)) return []
		return [{ kind: 'entry', id: `c${id}`, column, line: undefined }]
	})
}
