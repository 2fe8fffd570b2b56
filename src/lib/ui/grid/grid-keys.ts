/** Keys, the pointer and the clipboard over a grid, as a spreadsheet has them. */
import { ATTACHED_TYPES } from '$lib/core/capture/attachment.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { fromClipboard, plainCell, toClipboard } from './clipboard.ts'
import type { GridWork } from './grid-work.svelte.ts'
import { at, moved, type CellPlace } from './selection.ts'
import { showFigure } from '../count.ts'

/** Types in which a key that is pressed does not begin a new value. */
const CHOSEN_TYPES: ReadonlySet<string> = new Set(['date', 'choice', 'several choices', 'yes/no', ...ATTACHED_TYPES])

/** What Ctrl does with a letter; `f` is the grid's own. */
const SHORTCUTS: Readonly<Record<string, (work: GridWork, shift: boolean) => unknown>> = {
	z: (work, shift) => work.step(shift ? 'redo' : 'undo'),
	y: (work) => work.step('redo'),
	d: (work) => work.fillDown(),
	a: (work) => work.selectAll()
}

export async function pressKey(work: GridWork, event: KeyboardEvent) {
	const control = event.ctrlKey || event.metaKey
	if (work.editing) return keyWhileEditing(work, event)
	const shortcut = control ? SHORTCUTS[event.key.toLowerCase()] : undefined
	if (shortcut) {
		event.preventDefault()
		event.stopPropagation()
		return shortcut(work, event.shiftKey)
	}
	const next = moved(
		work.selection,
		{ key: event.key, shift: event.shiftKey, control },
		work.extent,
		work.scroll.visible - 2
	)
	if (next) {
		event.preventDefault()
		return work.select(next)
	}
	if (event.key === 'Enter' || event.key === 'F2') {
		event.preventDefault()
		return work.startEdit()
	}
	if (event.key === 'Delete' || event.key === 'Backspace') {
		event.preventDefault()
		return work.clear()
	}
	if (event.key.length === 1 && !control && !event.altKey && event.key !== '/') {
		event.preventDefault()
		const type = work.focusColumn?.type
		work.startEdit(type && CHOSEN_TYPES.has(type) ? undefined : event.key)
	}
}

async function keyWhileEditing(work: GridWork, event: KeyboardEvent) {
	if (event.key === 'Escape') {
		event.stopPropagation()
		return work.stop()
	}
	const multiline = work.focusColumn?.type === 'long text' && event.key === 'Enter' && !event.ctrlKey
	if ((event.key !== 'Enter' && event.key !== 'Tab') || multiline || event.defaultPrevented) return
	event.preventDefault()
	const { row, column } = work.selection.focus
	if (!(await work.commit())) return
	const next =
		event.key === 'Enter'
			? { row: Math.min(work.rows.count - 1, row + 1), column }
			: { row, column: Math.min(work.columns.length - 1, column + 1) }
	await work.select(at(next.row, next.column))
}

export async function pressCell(work: GridWork, event: MouseEvent, { row, column }: CellPlace) {
	if (event.button !== 0) return
	const here = work.selection.focus.row === row && work.selection.focus.column === column
	if (work.editing) {
		if (here) return
		event.preventDefault()
		if (!(await work.commit())) return
	}
	if (event.shiftKey) work.selection = { anchor: work.selection.anchor, focus: { row, column } }
	else work.selection = at(row, column)
	work.wrong = ''
	work.scroll.focus()
}

export function dragOver(work: GridWork, event: MouseEvent, { row, column }: CellPlace) {
	if (event.buttons !== 1 || work.editing) return
	work.selection = { anchor: work.selection.anchor, focus: { row, column } }
}

export function copyCells(work: GridWork, event: ClipboardEvent) {
	if (work.editing) return
	const chosen = work.selectedRows()
	if (!chosen) return
	event.preventDefault()
	const shown = work.columns.slice(work.block.left, work.block.right + 1)
	const cells = chosen.map((row) => shown.map((column) => plainCell(column, row.cells[cellKey(column.id)])))
	event.clipboardData?.setData('text/plain', toClipboard(cells))
	work.said = `Copied ${showFigure(chosen.length * shown.length)} ${chosen.length * shown.length === 1 ? 'cell' : 'cells'}.`
	if (event.type === 'cut') void work.clear()
}

export async function pasteCells(work: GridWork, event: ClipboardEvent) {
	if (work.editing) return
	event.preventDefault()
	const text = event.clipboardData?.getData('text/plain') ?? ''
	const given = fromClipboard(text)
	const single = given.length === 1 && given[0]?.length === 1
	const height = single ? work.block.bottom - work.block.top + 1 : given.length
	const breadth = single ? work.block.right - work.block.left + 1 : Math.max(...given.map((line) => line.length))
	await work.rows.want(work.block.top, work.block.top + height)
	await work.putInto(
		'the paste',
		{ height, breadth },
		(row, column) => (single ? given[0]?.[0] : given[row]?.[column]) ?? ''
	)
}
