/** Slots that name columns of the line's table. */
import type { ColumnScope } from '../../access/types.ts'
import { mapList } from '../../model/map-columns.ts'
import type { NamedColumn } from '../vocabulary.ts'
import type { SlotPlace, Reading, SlotEntry } from './entry.ts'
import {
	printExactName,
	printExactNames,
	printName,
	readEach,
	readExactName,
	readExactNames,
	readName,
	splitOutside,
	type Names
} from './names.ts'

export const columnNames = (place: SlotPlace): Names<number> => ({
	list: columnsOf(place),
	what: 'column',
	unseen: place.vocabulary.unseen?.columns
})

const SHOWN_AT_FIRST = 4

export const column: SlotEntry<number> = {
	isFormula: false,
	print: (id, place) => printName(columnNames(place), id),
	printExact: (id, place) => printExactName(columnNames(place), id),
	read: (text, place) => readName(columnNames(place), text),
	readExact: (text, place) => readExactName(columnNames(place), text),
	choices: (place) =>
		columnsOf(place)
			.filter(({ condition }) => !condition)
			.map(({ id, name }) => ({ value: id, text: name })),
	columns: (id) => [id],
	mapColumns: (id, map) => map(id) ?? id,
	onTable: ([first]) => first ?? null
}

export const columns: SlotEntry<readonly number[]> = {
	isFormula: false,
	print: printNames,
	printExact: (ids, place) => printExactNames(columnNames(place), ids),
	read: readNames,
	readExact: (text, place) => readExactNames(columnNames(place), text),
	columns: (ids) => ids,
	mapColumns: (ids, map) => mapList(ids, map),
	onTable: (all) => all.slice(0, SHOWN_AT_FIRST)
}

export interface Sort {
	readonly column: number
	readonly descending: boolean
}

export const sort: SlotEntry<Sort> = {
	isFormula: false,
	print: (value, place) => `${printName(columnNames(place), value.column)}, ${printOrder(value, place)}`,
	printExact: (value, place) => `${printExactName(columnNames(place), value.column)}, ${printOrder(value, place)}`,
	read(text, place) {
		const found = readName(columnNames(place), text.replace(ORDER_WORDS, ''))
		return 'message' in found ? found : { value: { column: found.value, descending: DESCENDING.test(text) } }
	},
	readExact(text, place) {
		const pieces = splitOutside(text, ',')
		const found = readExactName(columnNames(place), pieces[0] ?? '')
		return 'message' in found ? found : { value: { column: found.value, descending: DESCENDING.test(pieces[1] ?? '') } }
	},
	columns: (value) => [value.column],
	mapColumns(value, map) {
		const mapped = map(value.column)
		return mapped === undefined ? null : { ...value, column: mapped }
	},
	onTable: () => null
}

/** By several columns, one after the other. */
export const sorts: SlotEntry<readonly Sort[]> = {
	isFormula: false,
	print: (value, place) => value.map((each) => sort.print(each, place)).join(', then '),
	printExact: (value, place) => value.map((each) => sort.printExact(each, place)).join(' then '),
	read: (text, place) => readEach(text.split(/,?\s+then\s+(?:by\s+)?/i), (part) => sort.read(part, place)),
	readExact: (text, place) => readEach(splitWords(text), (part) => sort.readExact(part, place)),
	columns: (value) => value.map(({ column }) => column),
	mapColumns: (value, map) => value.flatMap((each) => sort.mapColumns?.(each, map) ?? []),
	onTable: () => []
}

/** At ` then ` outside quotes. */
function splitWords(text: string): string[] {
	return text.split(/ then (?=(?:[^"]*"[^"]*")*[^"]*$)/)
}

export const scope: SlotEntry<ColumnScope> = {
	isFormula: false,
	print: (value, place) => printScope(value, (ids) => printNames(ids, place)),
	printExact: (value, place) => printScope(value, (ids) => printExactNames(columnNames(place), ids)),
	read: (text, place) => readScope(text, (names) => readNames(names, place)),
	readExact: (text, place) => readScope(text, (names) => readExactNames(columnNames(place), names)),
	columns: (value) => (value.kind === 'all' ? [] : value.columns),
	mapColumns: (value, map) => (value.kind === 'all' ? value : { ...value, columns: mapList(value.columns, map) }),
	onTable: () => ({ kind: 'all' })
}

const NUMBERS: ReadonlySet<string | undefined> = new Set(['whole number', 'decimal', 'money', 'percent', 'number'])
const DATES: ReadonlySet<string | undefined> = new Set(['date', 'date and time', 'datetime'])
const DESCENDING = /\b(last|latest|largest|highest|newest) first$|\bz to a$/i
const ORDER_WORDS = /,?\s*(\w+ first|a to z|z to a)$/i

/** What the order of a column is called, up and down. */
export function orderWords(of: Pick<NamedColumn, 'type' | 'shows'> | undefined): readonly [string, string] {
	const type = of?.shows ?? of?.type
	if (DATES.has(type)) return ['soonest first', 'latest first']
	if (NUMBERS.has(type)) return ['smallest first', 'largest first']
	return type === 'choice' || type === 'yes/no' || type === 'yesno'
		? ['lowest first', 'highest first']
		: ['A to Z', 'Z to A']
}

function columnsOf({ vocabulary, table }: SlotPlace): readonly NamedColumn[] {
	return vocabulary.tables.find((each) => each.id === table)?.columns ?? []
}

function printOrder({ column: id, descending }: Sort, place: SlotPlace): string {
	return orderWords(columnsOf(place).find((each) => each.id === id))[descending ? 1 : 0]
}

function printNames(ids: readonly number[], place: SlotPlace): string {
	return ids.map((id) => printName(columnNames(place), id)).join(', ')
}

function readNames(text: string, place: SlotPlace): Reading<readonly number[]> {
	return readEach(text.split(/\s*,\s*|\s+and\s+/), (name) => readName(columnNames(place), name))
}

function printScope(value: ColumnScope, printList: (ids: readonly number[]) => string): string {
	if (value.kind === 'all') return 'all columns'
	return `${value.kind === 'only' ? 'only' : 'all columns but'} ${printList(value.columns)}`.trimEnd()
}

function readScope(text: string, readList: (names: string) => Reading<readonly number[]>): Reading<ColumnScope> {
	const match = /^(only|all columns but|all but)(?:\s+(.+))?$/is.exec(text.trim())
	if (!match) return { value: { kind: 'all' } }
	const kind = match[1]?.toLowerCase() === 'only' ? 'only' : 'except'
	const list = match[2] === undefined ? { value: [] } : readList(match[2])
	return 'message' in list ? list : { value: { kind, columns: list.value } }
}
