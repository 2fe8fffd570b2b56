/** A block of cells: where it was begun, and where it goes to. Rows and columns count from 0. */
export interface CellPlace {
	readonly row: number
	readonly column: number
}

export interface Selection {
	readonly anchor: CellPlace
	readonly focus: CellPlace
}

export interface Block {
	readonly top: number
	readonly bottom: number
	readonly left: number
	readonly right: number
}

export interface Extent {
	readonly rows: number
	readonly columns: number
}

export function at(row: number, column: number): Selection {
	return { anchor: { row, column }, focus: { row, column } }
}

export function blockOf({ anchor, focus }: Selection): Block {
	return {
		top: Math.min(anchor.row, focus.row),
		bottom: Math.max(anchor.row, focus.row),
		left: Math.min(anchor.column, focus.column),
		right: Math.max(anchor.column, focus.column)
	}
}

export function holds(block: Block, row: number, column: number): boolean {
	return row >= block.top && row <= block.bottom && column >= block.left && column <= block.right
}

export function isOneCell({ anchor, focus }: Selection): boolean {
	return anchor.row === focus.row && anchor.column === focus.column
}

/** The selection after a key of movement; with shift it grows from where it was begun. Undefined for other keys. */
export function moved(
	selection: Selection,
	key: { readonly key: string; readonly shift: boolean; readonly control: boolean },
	extent: Extent,
	page: number
): Selection | undefined {
	const target = targetOf(selection.focus, key, extent, page)
	if (!target) return undefined
	const focus = within(target, extent)
	return key.shift ? { anchor: selection.anchor, focus } : { anchor: focus, focus }
}

function targetOf(
	{ row, column }: CellPlace,
	{ key, control }: { readonly key: string; readonly control: boolean },
	{ rows, columns }: Extent,
	page: number
): CellPlace | undefined {
	switch (key) {
		case 'ArrowUp':
			return { row: control ? 0 : row - 1, column }
		case 'ArrowDown':
			return { row: control ? rows - 1 : row + 1, column }
		case 'ArrowLeft':
			return { row, column: control ? 0 : column - 1 }
		case 'ArrowRight':
			return { row, column: control ? columns - 1 : column + 1 }
		case 'PageUp':
			return { row: row - page, column }
		case 'PageDown':
			return { row: row + page, column }
		case 'Home':
			return { row: control ? 0 : row, column: 0 }
		case 'End':
			return { row: control ? rows - 1 : row, column: columns - 1 }
		default:
			return undefined
	}
}

function within({ row, column }: CellPlace, { rows, columns }: Extent): CellPlace {
	return {
		row: Math.max(0, Math.min(rows - 1, row)),
		column: Math.max(0, Math.min(columns - 1, column))
	}
}
