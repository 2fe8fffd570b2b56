/** The slot for tables whose rows belong to a row, by their reference to it. */
import { mapList } from '../../model/map-columns.ts'
import type { SlotPlace, Reading, SlotEntry } from './entry.ts'
import { columnNames } from './columns.ts'
import {
	indexOutside,
	joinWords,
	printExactName,
	printExactNames,
	printName,
	readEach,
	readExactName,
	readExactNames,
	readName,
	splitOutside
} from './names.ts'
import { tableNames } from './named.ts'

export interface Child {
	readonly table: number
	/** The column of theirs that points to the row. */
	readonly column: number
	readonly columns: readonly number[]
}

const SHOWN_AT_FIRST = 4

/** Exact: `Inspections.Mooring (Date, Depth)`. */
export const children: SlotEntry<readonly Child[]> = {
	isFormula: false,
	print: (value, place) =>
		joinWords(
			value.map(({ table }) => printName(tableNames(place), table)),
			'and'
		),
	printExact: (value, place) => value.map((child) => printChild(child, place)).join(', '),
	read: (text, place) => readEach(text.split(/\s*,\s*|\s+and\s+/), (name) => findChild(name, place)),
	readExact: (text, place) => readEach(splitOutside(text, ','), (each) => readChild(each, place)),
	tables: (value) => value.map(({ table }) => table),
	columns: (value) => value.flatMap(({ column, columns }) => [column, ...columns]),
	mapColumns: (value, map) =>
		value.map(({ table, column, columns }) => ({
			table,
			column: map(column) ?? column,
			columns: mapList(columns, map)
		})),
	onTable: () => []
}

function printChild({ table, column, columns }: Child, { vocabulary }: SlotPlace): string {
	const names = columnNames({ vocabulary, table })
	return `${printExactName(tableNames({ vocabulary }), table)}.${printExactName(names, column)} (${printExactNames(names, columns)})`
}

function readChild(text: string, { vocabulary }: SlotPlace): Reading<Child> {
	const bracket = indexOutside(text, '(')
	const [tableText = '', columnText = ''] = splitOutside(text.slice(0, bracket), '.')
	const shown = text.slice(bracket + 1, text.lastIndexOf(')'))
	const table = readExactName(tableNames({ vocabulary }), tableText)
	if ('message' in table) return table
	const names = columnNames({ vocabulary, table: table.value })
	const column = readExactName(names, columnText)
	if ('message' in column) return column
	const columns = readExactNames(names, shown)
	if ('message' in columns) return columns
	return { value: { table: table.value, column: column.value, columns: columns.value } }
}

/** Of a table that was typed: what of it points to the line's own, and its first columns. */
function findChild(name: string, { vocabulary, table: of }: SlotPlace): Reading<Child> {
	const table = readName(tableNames({ vocabulary }), name)
	if ('message' in table) return table
	const columns = vocabulary.tables.find(({ id }) => id === table.value)?.columns ?? []
	const column = columns.find(({ to }) => to !== undefined && to === of)
	if (!column) return { message: `Nothing in "${name}" points to the rows of this line.` }
	const shown = columns.filter(({ id, condition }) => id !== column.id && !condition)
	return {
		value: { table: table.value, column: column.id, columns: shown.slice(0, SHOWN_AT_FIRST).map(({ id }) => id) }
	}
}
