/** How a row of a list looks, from what its columns are: what is big, what is small, what stands at the side. */
import { holdsFile } from '$lib/core/capture/attachment.ts'
import { cellKey, isFileCell, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownList } from '$lib/core/requests/screens.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { Tone } from '$lib/core/sentence/slots/all.ts'
import { isNumeric } from '../../cells/controls.ts'
import { daysUntil, isDate, showCell } from '$lib/core/requests/show-cell.ts'

export interface RowLook {
	readonly big: ShownColumn | undefined
	readonly small: readonly ShownColumn[]
	readonly due: ShownColumn | undefined
	readonly amount: ShownColumn | undefined
	readonly photo: ShownColumn | undefined
}

/** Places for pictures are kept where some row has one. */
export function lookOf({ columns, groups }: Pick<ShownList, 'columns' | 'groups'>, rows: readonly WireRow[]): RowLook {
	// What rows are grouped by stands over them.
	const [big, ...rest] = columns.filter((column) => column.id !== groups?.column.id)
	const due = rest.find(isDate)
	const amount = rest.find((column) => column.type === 'money')
	const small = rest.filter((column) => column !== due && column !== amount && !holdsFile(column))
	const photo = columns.find((column) => column.type === 'photo')
	const hasPictures = photo !== undefined && rows.some((row) => isFileCell(row.cells[cellKey(photo.id)]))
	return { big, small, due, amount, photo: hasPictures ? photo : undefined }
}

/** A figure by itself says nothing of what it counts; words and amounts with a unit do. */
function withName(column: ShownColumn, text: string): string {
	const isBare = isNumeric(column) && column.unit === undefined && column.type !== 'percent'
	return text === '' || !isBare ? text : `${column.name} ${text}`
}

/** What a row is called, by what it shows big. */
export function nameOf({ big }: Pick<RowLook, 'big'>, row: WireRow): string {
	return big ? showCell(big, row.cells[cellKey(big.id)]) || '(blank)' : ''
}

export function smallText({ small }: RowLook, row: WireRow): string {
	return small
		.map((column) => withName(column, showCell(column, row.cells[cellKey(column.id)])))
		.filter((text) => text !== '')
		.join(' · ')
}

export interface Stamp {
	readonly text: string
	readonly tone?: Tone
}

/** A date that something is due by says how far off it is; any other, itself. */
export function dueStamp({ due }: RowLook, row: WireRow, today?: Date): Stamp | undefined {
	const value = due && row.cells[cellKey(due.id)]
	if (!due || typeof value !== 'string') return undefined
	const days = daysUntil(value, today)
	if (!/due|by|until|deadline/i.test(due.name)) return { text: showCell(due, value) }
	if (days < 0) return { text: days === -1 ? '1 day past' : `${-days} days past`, tone: 'past' }
	if (days === 0) return { text: 'today', tone: 'look' }
	const text = days <= 28 ? `in ${days} day${days === 1 ? '' : 's'}` : showCell(due, value)
	return days <= 7 ? { text, tone: 'look' } : { text }
}

export interface RowGroup {
	readonly name: string
	/** How many rows there are in all, where that was counted. */
	readonly count: number | undefined
	/** What they come to, where that was added up. */
	readonly sums: readonly string[]
	readonly rows: readonly WireRow[]
}

/**
 * Rows that stand together because they hold the same; one group without a name where none was asked for. `isCounted`: whether
 * the rows are those that the groups were counted over.
 */
export function groupRows(
	{ groups }: Pick<ShownList, 'groups'>,
	rows: readonly WireRow[],
	isCounted: boolean
): RowGroup[] {
	if (!groups) return [{ name: '', count: undefined, sums: [], rows }]
	const { column, counts, blank, blankSums } = groups
	const found: { name: string; rows: WireRow[] }[] = []
	for (const row of rows) {
		const name = showCell(column, row.cells[cellKey(column.id)])
		const last = found.at(-1)
		if (last?.name === name) last.rows.push(row)
		else found.push({ name, rows: [row] })
	}
	const countedAs = (name: string) =>
		name === '' ? { rows: blank, sums: blankSums } : counts.find(({ value }) => showCell(column, value) === name)
	return found.map((group) => {
		const counted = isCounted ? countedAs(group.name) : undefined
		return {
			...group,
			name: group.name === '' ? `without ${column.name.toLowerCase()}` : group.name,
			count: counted?.rows,
			sums: counted?.sums ?? []
		}
	})
}
