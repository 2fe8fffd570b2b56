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
	mapTables: (value, map) => value.map((child) => ({ ...child, table: map(child.table) })),
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

/** Every way in which rows may belong to those of a table, each with all that can be shown of them. */
export function childrenOf({ vocabulary, table: of }: SlotPlace): readonly Child[] {
	return vocabulary.tables.flatMap(({ id: table, columns }) =>
		columns
			.filter(({ type, to }) => type === 'reference' && to === of)
			.map(({ id: column }) => ({
				table,
				column,
				columns: columns.filter(({ id }) => id !== column).map(({ id }) => id)
			}))
	)
}

/** Of a table that was typed: the first way in which its rows belong to the line's. */
function findChild(name: string, place: SlotPlace): Reading<Child> {
	const table = readName(tableNames(place), name)
	if ('message' in table) return table
	const child = childrenOf(place).find((each) => each.table === table.value)
	return child ? { value: child } : { message: `Nothing in "${name}" points to the rows of this line.` }
}
