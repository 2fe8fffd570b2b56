/**
 * Lines by what somebody types that they should do, where it is no sentence of ours: tables, named conditions and dates are found in
 * the words, the rest is the kind's own beginning.
 *
 *     "moorings due this week"  →  List of [Moorings] where ['Next due' <= TODAY() + 7] …
 */
import { textKey } from '../../text/key.ts'
import type { LineValue } from '../../sentence/types.ts'
import { PERIODS } from '../../query/measure.ts'
import { NUMBERS, type Grouping } from '../../sentence/slots/measure.ts'
import type { NamedColumn, Vocabulary } from '../../sentence/vocabulary.ts'
import { printName } from '../../formula/check/rename.ts'
import { oneOf } from '../name-things.ts'
import { SCREEN_LINES, type LineKind } from './all.ts'

const MOST = 4

/** The likeliest first; none where no table is named. */
export function proposeLines(typed: string, vocabulary: Vocabulary): LineValue[] {
	const text = textKey(typed)
	return tablesIn(text, vocabulary)
		.flatMap((table) => kindsIn(text).map((kind) => proposeOne(kind, text, table)))
		.slice(0, MOST)
}

type NamedTable = Vocabulary['tables'][number]

/** Those whose name, of one or of many, stands in the words; the longest name first. */
function tablesIn(text: string, { tables }: Vocabulary): NamedTable[] {
	return tables
		.filter(({ name }) => [name, oneOf(name)].some((each) => each !== 'item' && holds(text, each)))
		.toSorted((a, b) => b.name.length - a.name.length)
}

const KIND_WORDS: readonly (readonly [LineKind, RegExp])[] = [
	['board', /\b(board|lanes)\b/],
	['map', /\b(map|where .* (lie|are)|near me)\b/],
	['calendar', /^(?!.*\bheat\b).*\b(calendar|diary|week by week|timeline|plan(ner)?)\b/],
	['scatter', /\b(scatter|against|plot of)\b/],
	['chart', /\b(chart|graph|bars?|histogram|in bands|heat|by (day|week|month|quarter|year)s?)\b/],
	['figure', /\b(how many|number of|figure|count of)\b/],
	['steps', /\b(questions?|counter|survey|one by one)\b/],
	['form', /\b(add|new|form|report|enter|ask)\b/],
	['record', /\b(sheet|record|details?|card)\b/],
	['list', /./]
]

function kindsIn(text: string): LineKind[] {
	return KIND_WORDS.flatMap(([kind, words]) => (words.test(text) ? [kind] : []))
}

function proposeOne(kind: LineKind, text: string, table: NamedTable): LineValue {
	const { blank } = SCREEN_LINES[kind].sentence
	if (kind === 'chart') {
		const as = /\b(heat|calendar)\b/.test(text) ? 'as a calendar' : null
		return { ...blank, table: table.id, by: groupingIn(text, table), as }
	}
	if (kind === 'scatter') return { ...blank, table: table.id, ...numbersIn(text, table) }
	if (kind === 'figure') return { ...blank, table: table.id, where: whereIn(text, table), label: wordsOf(text) }
	const columns = table.columns.filter(({ condition, type }) => !condition && !(kind === 'form' && type === 'computed'))
	const line = { ...blank, table: table.id, columns: columns.slice(0, kind === 'list' ? 4 : 8).map(({ id }) => id) }
	if (kind !== 'list') return line
	const as = /\btable\b/.test(text) ? 'a table' : /\bcards?\b/.test(text) ? 'cards' : null
	const due = dueColumn(table)
	if (!due) return { ...line, where: whereIn(text, table), as }
	// What rows are ordered by is shown on them.
	const shown = line.columns.includes(due.id) ? line.columns : [...line.columns.slice(0, 3), due.id]
	return { ...line, where: whereIn(text, table), as, columns: shown, sort: [{ column: due.id, descending: false }] }
}

/** By a column that is named after the word, or by the steps of its only date; left to the line's own beginning otherwise. */
function groupingIn(text: string, table: NamedTable): Grouping | null {
	const step = /\b(heat|calendar)\b/.test(text)
		? 'days'
		: (PERIODS.find((each) => holds(text, each) || holds(text, each.slice(0, -1))) ?? 'months')
	const [, after = ''] = /\b(?:by|of) (.+)$/.exec(text) ?? []
	const named = table.columns.find(({ condition, name }) => !condition && holds(after, name))
	const column = named ?? table.columns.find(({ type, shows }) => (shows ?? type) === 'date')
	if (!column) return null
	const kind = column.shows ?? column.type
	return { column: column.id, step: kind.startsWith('date') ? step : isNumber(column) ? 'bands' : null }
}

/** What stands up and what across: those named in the words, the first of them up. */
function numbersIn(text: string, { columns }: NamedTable): { up: number | null; across: number | null } {
	const numbers = columns.filter(isNumber)
	const place = ({ name }: NamedColumn) => (holds(text, name) ? text.indexOf(textKey(name)) : Infinity)
	const [up, across] = numbers.toSorted((a, b) => place(a) - place(b))
	return { up: up?.id ?? null, across: across?.id ?? null }
}

function isNumber({ condition, type, shows }: NamedColumn): boolean {
	return !condition && NUMBERS.has(shows ?? type)
}

/** What a figure is called, from what was asked: `how many moorings are due` counts `moorings are due`. */
function wordsOf(text: string): string {
	return text.replace(/^.*?\b(how many|number of|figure( of)?|count of)\s+/, '').replace(/\?$/, '')
}

/** Conditions with names that stand in the words, or else what they say of the date that something is due by. */
function whereIn(text: string, table: NamedTable): string {
	const named = table.columns.filter(({ condition, name }) => condition && holds(text, name))
	if (named.length > 0) return named.map(({ name }) => printName(name)).join(' and ')
	const due = dueColumn(table)
	const [, says] = (due && DATE_WORDS.find(([words]) => words.test(text))) ?? []
	return due && says ? `${printName(due.name)} ${says}` : ''
}

const DATE_WORDS: readonly (readonly [RegExp, string])[] = [
	[/\b(overdue|past|late|missed)\b/, '< TODAY()'],
	[/\b(today|now)\b/, '= TODAY()'],
	[/\b(week|seven days)\b/, '<= TODAY() + 7'],
	[/\b(month|due|soon|coming)\b/, '<= TODAY() + 31']
]

/** A date that something is due by, by its name, or else the only date. */
function dueColumn({ columns }: NamedTable): NamedColumn | undefined {
	const dates = columns.filter(({ type, shows }) => (shows ?? type) === 'date')
	return (
		dates.find(({ name }) => /\b(due|by|until|deadline)\b/i.test(name)) ?? (dates.length === 1 ? dates[0] : undefined)
	)
}

function holds(text: string, name: string): boolean {
	const key = textKey(name).replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
	return new RegExp(`(^|[^\\p{L}\\p{N}])${key}($|[^\\p{L}\\p{N}])`, 'u').test(text)
}
