/** Prints a line as words and slots, with today's names. */
import type { ColumnScope } from '../access/types.ts'
import { unreachable } from '../unreachable.ts'
import { readSlot } from './line-values.ts'
import type { LineValue, NamedColumn, Segment, SentenceKind, Slot, Vocabulary } from './types.ts'

const MONO: ReadonlySet<Slot['type']> = new Set(['condition', 'formula', 'person'])

export function printLine(kind: SentenceKind, line: LineValue, vocabulary: Vocabulary, table?: number): Segment[] {
	const about = tableOf(kind, line, table)
	return (kind.shown?.(line) ?? kind.parts).flatMap((part): Segment[] => {
		if (typeof part === 'string') return [{ kind: 'words', text: part }]
		const text = printSlot(part, readSlot(line, part.key), vocabulary, about)
		const filled = text !== ''
		const shown = filled ? text : (part.empty ?? part.title)
		const mono = filled && MONO.has(part.type)
		const slot: Segment = { kind: 'slot', slot: part, text: shown, filled: filled || part.empty !== undefined, mono }
		return filled && part.before ? [{ kind: 'words', text: part.before }, slot] : [slot]
	})
}

/** The whole sentence as plain text, for reading aloud, comparing and the history. */
export function printText(kind: SentenceKind, line: LineValue, vocabulary: Vocabulary, table?: number): string {
	return printLine(kind, line, vocabulary, table)
		.map((segment) => segment.text)
		.join('')
}

/** The table that a line's columns belong to. */
export function tableOf(kind: SentenceKind, line: LineValue, table?: number): number | undefined {
	const own = kind.tableKey === undefined ? undefined : readSlot(line, kind.tableKey)
	return typeof own === 'number' ? own : table
}

/** What stands in a slot; empty where it is blank. */
export function printSlot(slot: Slot, value: unknown, vocabulary: Vocabulary, table?: number): string {
	if (value === undefined || value === null) return ''
	switch (slot.type) {
		case 'text':
		case 'long text':
		case 'condition':
		case 'formula':
		case 'person':
		case 'when':
			return String(value)
		case 'table':
			return vocabulary.tables.find((each) => each.id === value)?.name ?? 'a table that is gone'
		case 'column':
			return columnName(vocabulary, table, Number(value))
		case 'columns':
			return listColumns(vocabulary, table, value as number[])
		case 'sort': {
			const sort = value as { column: number; descending: boolean }
			const column = vocabulary.tables
				.find((each) => each.id === table)
				?.columns.find((each) => each.id === sort.column)
			return `${columnName(vocabulary, table, sort.column)}, ${orderWords(column)[sort.descending ? 1 : 0]}`
		}
		case 'role':
			return vocabulary.roles.find((role) => role.id === value)?.name ?? 'a role that is gone'
		case 'verbs':
			return joinWords(value as string[], 'and')
		case 'column scope':
			return printScope(value as ColumnScope, vocabulary, table)
		case 'screen':
			return vocabulary.screens.find((screen) => screen.id === value)?.title ?? 'a screen that is gone'
		case 'does':
			return printDoes(value as { kind: string; screen?: string; routine?: string }, vocabulary)
		case 'children':
			return joinWords(
				(value as { table: number }[]).map(
					(child) => vocabulary.tables.find((each) => each.id === child.table)?.name ?? 'a table that is gone'
				),
				'and'
			)
		default:
			return unreachable(slot.type, 'printSlot')
	}
}

const NUMBERS: ReadonlySet<string | undefined> = new Set(['whole number', 'decimal', 'money', 'percent', 'number'])
const DATES: ReadonlySet<string | undefined> = new Set(['date', 'date and time', 'datetime'])

/** What the order of a column is called, up and down. */
export function orderWords(column: NamedColumn | undefined): readonly [string, string] {
	const type = column?.shows ?? column?.type
	if (DATES.has(type)) return ['soonest first', 'latest first']
	if (NUMBERS.has(type)) return ['smallest first', 'largest first']
	return type === 'choice' || type === 'yes/no' || type === 'yesno'
		? ['lowest first', 'highest first']
		: ['A to Z', 'Z to A']
}

function columnName(vocabulary: Vocabulary, table: number | undefined, id: number): string {
	const columns = vocabulary.tables.find((each) => each.id === table)?.columns
	return columns?.find((column) => column.id === id)?.name ?? 'a column that is gone'
}

function listColumns(vocabulary: Vocabulary, table: number | undefined, ids: readonly number[]): string {
	return ids.map((id) => columnName(vocabulary, table, id)).join(', ')
}

function printScope(scope: ColumnScope, vocabulary: Vocabulary, table: number | undefined): string {
	if (scope.kind === 'all') return 'all columns'
	const names = listColumns(vocabulary, table, scope.columns)
	return scope.kind === 'only' ? `only ${names}` : `all columns but ${names}`
}

function printDoes(does: { kind: string; screen?: string; routine?: string }, vocabulary: Vocabulary): string {
	if (does.kind === 'open')
		return `opens ${vocabulary.screens.find((screen) => screen.id === does.screen)?.title ?? 'a screen that is gone'}`
	return `runs ${vocabulary.routines.find((routine) => routine.id === does.routine)?.name ?? 'a routine that is gone'}`
}

function joinWords(words: readonly string[], and: string): string {
	if (words.length <= 1) return words.join('')
	return `${words.slice(0, -1).join(', ')} ${and} ${words[words.length - 1] ?? ''}`
}
