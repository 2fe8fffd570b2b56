/** What a line begins with, so that it works at once, and where it goes. */
import { readSlot } from '../../sentence/line-values.ts'
import { isBlank, tableOf } from '../../sentence/print.ts'
import type { LineValue } from '../../sentence/types.ts'
import type { Vocabulary } from '../../sentence/vocabulary.ts'
import { entryOfLine, mayHold, screenLineSchema, sentencesWithin, type ScreenLine } from './all.ts'
import { SLOTS } from '../../sentence/slots/all.ts'
import { NUMBERS, type Grouping } from '../../sentence/slots/measure.ts'
import { CHOSEN_AMONG } from './filter.ts'
import { placeAmong, type Place } from './place-among.ts'
import { insertLine } from './tree.ts'

const SHOWN_AT_FIRST = 4

export interface Beginning {
	readonly id: string
	/** The screen that it stands on. */
	readonly screen: string
	readonly vocabulary: Vocabulary
	/** What will hold it, the outermost first. */
	readonly within: readonly ScreenLine[]
}

/** A line that was typed or chosen, with what it cannot do without: a table, columns, something to open. */
export function beginLine(line: LineValue, { id, screen, vocabulary, within }: Beginning): ScreenLine {
	const filled: Record<string, unknown> = { ...line, id }
	const around = tableAround(within)
	if (filled['kind'] === 'items') beginItems(filled, around, vocabulary)
	if ('table' in filled && isBlank(filled['table'])) filled['table'] = around ?? vocabulary.tables[0]?.id
	if (filled['kind'] === 'tally' && isBlank(filled['column']))
		filled['column'] = firstOf(filled['table'], COUNTED, vocabulary)
	if (filled['kind'] === 'filter' && isBlank(filled['column']))
		filled['column'] = firstOf(filled['table'], new Set(CHOSEN_AMONG), vocabulary)
	if (filled['kind'] === 'board' && isBlank(filled['by']))
		filled['by'] = firstOf(filled['table'], new Set(['choice']), vocabulary)
	if (filled['kind'] === 'calendar' && isBlank(filled['by'])) filled['by'] = firstOf(filled['table'], DATES, vocabulary)
	if (filled['kind'] === 'map' && isBlank(filled['at']))
		filled['at'] = firstOf(filled['table'], new Set(['place']), vocabulary)
	if (filled['kind'] === 'chart' && isBlank(filled['by'])) filled['by'] = firstGrouping(filled['table'], vocabulary)
	if (filled['kind'] === 'scatter') beginScatter(filled, vocabulary)
	if (filled['kind'] === 'ask' && isBlank(filled['column']))
		filled['column'] = firstOf(tableAround(within), new Set(['choice', 'yes/no']), vocabulary)
	if ('column' in filled && isBlank(filled['column']))
		filled['column'] = firstUnasked(within.at(-1), around, vocabulary)
	if (filled['kind'] === 'scan' && isBlank(filled['routine'])) filled['routine'] = vocabulary.routines[0]?.id ?? ''
	if ('does' in filled && filled['does'] === null) filled['does'] = { kind: 'open', screen }
	if ('columns' in filled && isBlank(readSlot(filled, 'columns'))) {
		const columns = vocabulary.tables.find((table) => table.id === (filled['table'] ?? around))?.columns ?? []
		filled['columns'] = columns
			.filter(({ condition }) => !condition)
			.slice(0, SHOWN_AT_FIRST)
			.map((column) => column.id)
	}
	return screenLineSchema.parse(filled)
}

/** The table of the rows that a line stands among. */
export function tableAround(within: readonly ScreenLine[]): number | undefined {
	return within.reduce<number | undefined>(
		(table, line) => tableOf(entryOfLine(line).sentence.kind, line, table),
		undefined
	)
}

/** Rows that belong to those of the form: of the first table that points to it. */
function beginItems(filled: Record<string, unknown>, around: number | undefined, { tables }: Vocabulary): void {
	const pointing = tables.find(({ columns }) => columns.some(({ to }) => to === around))
	if (isBlank(filled['table'])) filled['table'] = pointing?.id
	const columns = tables.find(({ id }) => id === filled['table'])?.columns ?? []
	if (isBlank(filled['of'])) filled['of'] = columns.find(({ to }) => to === around)?.id ?? columns[0]?.id
	if (isBlank(filled['columns']))
		filled['columns'] = columns
			.filter(({ id, shows }) => id !== filled['of'] && shows === undefined)
			.map(({ id }) => id)
}

/** A column of one of these types; any, where the table has none. */
function firstOf(table: unknown, types: ReadonlySet<string>, { tables }: Vocabulary): number | undefined {
	const columns = tables.find(({ id }) => id === table)?.columns ?? []
	return (columns.find(({ type }) => types.has(type)) ?? columns[0])?.id
}

const DATES: ReadonlySet<string> = new Set(['date', 'date and time'])
const COUNTED: ReadonlySet<string> = new Set(['whole number', 'decimal', 'money', 'percent'])

/** What its holder does not ask for yet. */
function firstUnasked(
	holder: ScreenLine | undefined,
	around: number | undefined,
	{ tables }: Vocabulary
): number | undefined {
	const table = tables.find(({ id }) => id === around) ?? tables[0]
	const columns = (table?.columns ?? []).filter(({ shows }) => shows === undefined)
	const inner =
		holder && 'lines' in holder ? holder.lines.flatMap((line) => (line.kind === 'entry' ? [line.column] : [])) : []
	return (columns.find(({ id }) => !inner.includes(id)) ?? columns[0])?.id
}

/** Several lines put in one after the other, the first where it goes by itself. */
export function insertAll(
	lines: readonly ScreenLine[],
	added: readonly ScreenLine[],
	place: Place<ScreenLine>
): ScreenLine[] {
	return added.reduce<ScreenLine[]>(
		(all, line, i) => {
			const before = added[i - 1]
			return insertLine(all, line, before ? { after: before.id } : place.spotFor(line.kind))
		},
		[...lines]
	)
}

/** Where a new line goes beside the line that is chosen. */
export function placeBeside(lines: readonly ScreenLine[], chosen: string | undefined): Place<ScreenLine> {
	return placeAmong(lines, chosen, { mayHold, sentencesWithin })
}

/** By months of a date, where there is one; else by the first column that tells few rows apart. */
function beginScatter(filled: Record<string, unknown>, vocabulary: Vocabulary): void {
	const columns = vocabulary.tables.find(({ id }) => id === filled['table'])?.columns ?? []
	const numbers = columns.flatMap(({ id, type, shows, condition }) =>
		!condition && NUMBERS.has(shows ?? type) ? [id] : []
	)
	filled['up'] ??= numbers.find((id) => id !== filled['across']) ?? null
	filled['across'] ??= numbers.find((id) => id !== filled['up']) ?? null
}

function firstGrouping(table: unknown, vocabulary: Vocabulary): Grouping | null {
	const choices = SLOTS.grouping.choices?.({ vocabulary, table: typeof table === 'number' ? table : undefined }) ?? []
	const wanted = ['months', null] as const
	const first = wanted.flatMap((step) => choices.find(({ value }) => value.step === step) ?? [])[0]
	return (first ?? choices[0])?.value ?? null
}
