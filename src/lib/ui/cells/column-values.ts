/** How one group of a column's values is called, and the filter that finds its rows. */
import type { Filter } from '$lib/core/query/filter.ts'
import { isHiddenCell, isReferenceCell } from '$lib/core/query/wire.ts'
import type { Group, Groups } from '$lib/core/requests/rows.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { isDate, showCell } from '$lib/core/requests/show-cell.ts'
import { showMonth } from '../dates.ts'

interface Grouped {
	readonly column: ShownColumn
	readonly by: Groups['by']
}

export function nameOf({ column, by }: Grouped, { value, before }: Group): string {
	if (by === 'month') return showMonth(String(value))
	if (by === 'year') return String(value)
	if (before !== undefined) return `${showCell(column, value)} to under ${showCell(column, before)}`
	return showCell(column, value) || '(no name)'
}

/** The filter that finds a group's rows; undefined where none does: a span of numbers, or what is hidden. */
export function filterOf({ column, by }: Grouped, { value, before }: Group): Filter | undefined {
	if (before !== undefined || isHiddenCell(value)) return undefined
	const one = { column: column.id }
	if (by === 'month' || by === 'year') return { ...one, is: 'contains', text: String(value) }
	if (isReferenceCell(value)) return { ...one, is: 'equal', text: value.label }
	if (typeof value === 'boolean') return { ...one, is: 'equal', text: value ? 'yes' : 'no' }
	// Numbers without their unit, dates as a filter takes them.
	const isPlain = typeof value === 'number' || isDate(column)
	return { ...one, is: 'equal', text: isPlain ? String(value) : showCell(column, value) }
}
