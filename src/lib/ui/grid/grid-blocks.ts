/**
 * What a paste, a fill, a clearing or a replacement comes to: changes of rows, and the cells that do not fit, told apart
 * before anything is sent. The server judges each of them again.
 */
import type { CellChange } from '$lib/core/query/change.ts'
import { cellKey, type WireCell, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { readDraft } from '../cells/cell-draft.ts'
import { plainCell } from './clipboard.ts'
import { toInput, type GridChange } from './grid-edits.svelte.ts'
import type { ShownMisfit } from './misfit.ts'
import { showFigure } from '../count.ts'

export interface BlockPlan {
	readonly changes: readonly GridChange[]
	readonly misfits: readonly ShownMisfit[]
}

export interface TextsInto {
	/** The rows that take the texts, from the first on; undefined for rows that are to be added. */
	readonly rows: readonly (WireRow | undefined)[]
	/** The number of the first row, as people count. */
	readonly first: number
	readonly columns: readonly ShownColumn[]
	readonly textAt: (row: number, column: number) => string
}

/** Texts as typed into a block of cells; cells that hold the same already are left alone. */
export function putTexts({ rows, first, columns, textAt }: TextsInto): BlockPlan {
	const misfits: ShownMisfit[] = []
	const changes = rows.flatMap((row, i): GridChange[] => {
		const cells = columns.flatMap((column, j): CellChange[] => {
			const was = row?.cells[cellKey(column.id)]
			const text = textAt(i, j)
			if (row && plainCell(column, was) === text) return []
			const place = placeOf(first + i, column)
			if (column.type === 'computed' || (row && !mayEdit(row, column))) {
				misfits.push({ place, message: whyNot(column) })
				return []
			}
			const reading = readDraft(column, { text })
			if (!reading.ok) misfits.push({ place, message: reading.message })
			return reading.ok ? [{ column: column.id, value: reading.value, ...wasOf(was) }] : []
		})
		if (cells.length === 0) return []
		return [row ? { kind: 'change', row: row.id, cells } : { kind: 'add', cells }]
	})
	return { changes, misfits }
}

/** The cells of a row into the same columns of others. */
export function fillFrom(source: WireRow, rows: readonly WireRow[], columns: readonly ShownColumn[]): GridChange[] {
	const typed = columns.filter((column) => column.type !== 'computed')
	return rows.map((row) => ({
		kind: 'change',
		row: row.id,
		cells: typed.map((column) => {
			const key = cellKey(column.id)
			return { column: column.id, value: toInput(source.cells[key]), ...wasOf(row.cells[key]) }
		})
	}))
}

/** Blanks into every cell of a block that holds something. */
export function clearCells(rows: readonly WireRow[], columns: readonly ShownColumn[]): GridChange[] {
	const typed = columns.filter((column) => column.type !== 'computed')
	return rows.flatMap((row): GridChange[] => {
		const cells = typed.flatMap((column): CellChange[] => {
			const was = row.cells[cellKey(column.id)]
			return was === undefined || was === null ? [] : [{ column: column.id, value: null, was }]
		})
		return cells.length === 0 ? [] : [{ kind: 'change', row: row.id, cells }]
	})
}

/** One text for another, without regard to case, in one column. */
export function replaceTexts(
	rows: readonly WireRow[],
	column: ShownColumn,
	{ text, by }: { readonly text: string; readonly by: string }
): BlockPlan {
	const pattern = new RegExp(text.trim().replace(/[\\^$.*+?()[\]{}|]/g, '\\$&'), 'giu')
	const misfits: ShownMisfit[] = []
	const changes = rows.flatMap((row, i): GridChange[] => {
		const was = row.cells[cellKey(column.id)]
		const old = plainCell(column, was)
		const next = old.replace(pattern, () => by)
		if (was === undefined || next === old) return []
		const reading = readDraft(column, { text: next })
		if (!reading.ok) misfits.push({ place: placeOf(i + 1, column), message: reading.message })
		return reading.ok
			? [{ kind: 'change', row: row.id, cells: [{ column: column.id, value: reading.value, was }] }]
			: []
	})
	return { changes, misfits }
}

export function mayEdit(row: WireRow | undefined, column: ShownColumn | undefined): boolean {
	return column !== undefined && (row?.may?.change.includes(column.id) ?? false)
}

export function whyNot(column: ShownColumn): string {
	if (column.type === 'computed') return `${column.name} is computed. Open its card to change the formula.`
	return `You may not change ${column.name} here.`
}

function wasOf(was: WireCell | undefined): { was?: WireCell } {
	return was === undefined ? {} : { was }
}

function placeOf(row: number, column: ShownColumn): string {
	return `Row ${showFigure(row)}, ${column.name}`
}
