/** Slots that say what is made of many rows, and by what they are told apart. */
import { MEASURES, PERIODS, type MeasureOf, type Step } from '../../query/measure.ts'
import { OVER_A_SCALE } from '../../chart/columns.ts'
import { columnNames } from './columns.ts'
import type { Choice, Reading, SlotEntry, SlotPlace } from './entry.ts'
import { printExactName, printName, readExactName, readName } from './names.ts'

/** `the count`, `the sum of Weight`. */
export interface Measure {
	readonly of: MeasureOf
	/** None for a count. */
	readonly column: number | null
}

/** `Verdict`, `Date in months`, `Depth in bands`, `Depth in bands of 5`. */
export interface Grouping {
	readonly column: number
	readonly step: Step | Bands | null
}

/** Numbers taken together: as wide as suits their spread, or of one width. */
export type Bands = 'bands' | number

export function isBands(step: Grouping['step']): step is Bands {
	return step === 'bands' || typeof step === 'number'
}

/** Types of columns, and what formulas give, of which there are means. */
export const NUMBERS: ReadonlySet<string> = new Set([
	'whole number',
	'decimal',
	'money',
	'percent',
	'number',
	'duration'
])
const DATES: ReadonlySet<string> = new Set(['date', 'date and time'])
const TOLD_APART: ReadonlySet<string> = new Set(['text', 'choice', 'yes/no', 'yesno', 'reference', 'code', ...DATES])

const OF = new RegExp(`^(?:the )?(${MEASURES.join('|')})(?: of (.+))?$`, 'is')
const IN = new RegExp(`^(.+) in (${PERIODS.join('|')})$`, 'is')
const IN_BANDS = /^(.+) in bands(?: of (\d+(?:\.\d+)?))?$/is

/** How the parts of a chart stand. */
export const ARRANGEMENTS = [...OVER_A_SCALE, 'as a calendar'] as const
export type Arrangement = (typeof ARRANGEMENTS)[number]

export const measure: SlotEntry<Measure> = {
	isFormula: false,
	print: ({ of, column }, place) => printOf(of, column === null ? null : printName(columnNames(place), column)),
	printExact: ({ of, column }, place) =>
		printOf(of, column === null ? null : printExactName(columnNames(place), column)),
	read: (text, place) => readOf(text, (name) => readName(columnNames(place), name)),
	readExact: (text, place) => readOf(text, (name) => readExactName(columnNames(place), name)),
	choices: (place) => [
		{ value: { of: 'count', column: null }, text: 'the count' },
		...columnsAt(place, NUMBERS).flatMap(({ id, name }) =>
			MEASURES.filter((of) => of !== 'count').map((of) => ({ value: { of, column: id }, text: printOf(of, name) }))
		)
	],
	columns: ({ column }) => (column === null ? [] : [column]),
	mapColumns: (value, map) => ({
		...value,
		column: value.column === null ? null : (map(value.column) ?? value.column)
	}),
	onTable: () => ({ of: 'count', column: null })
}

export const grouping: SlotEntry<Grouping> = {
	isFormula: false,
	print: ({ column, step }, place) => printIn(printName(columnNames(place), column), step),
	printExact: ({ column, step }, place) => printIn(printExactName(columnNames(place), column), step),
	read: (text, place) => readIn(text, (name) => readName(columnNames(place), name)),
	readExact: (text, place) => readIn(text, (name) => readExactName(columnNames(place), name)),
	choices: (place) =>
		columnsAt(place, new Set([...TOLD_APART, ...NUMBERS])).flatMap(({ id, name, type, shows }): Choice<Grouping>[] => {
			const kind = shows ?? type
			const steps = DATES.has(kind) ? PERIODS : NUMBERS.has(kind) ? (['bands'] as const) : [null]
			return steps.map((step) => ({ value: { column: id, step }, text: printIn(name, step) }))
		}),
	columns: ({ column }) => [column],
	mapColumns: (value, map) => ({ ...value, column: map(value.column) ?? value.column }),
	onTable: () => null
}

function printOf(of: MeasureOf, name: string | null): string {
	return name === null ? `the ${of}` : `the ${of} of ${name}`
}

function printIn(name: string, step: Grouping['step']): string {
	if (step === null) return name
	return `${name} in ${typeof step === 'number' ? `bands of ${step}` : step}`
}

function readOf(text: string, read: (name: string) => Reading<number>): Reading<Measure> {
	const [, word, name] = OF.exec(text.trim()) ?? []
	const of = MEASURES.find((each) => each === word?.toLowerCase())
	if (!of) return { message: `"${text.trim()}" measures nothing. Write the count, or the sum of a column.` }
	if (of === 'count') return { value: { of, column: null } }
	const column = name === undefined ? undefined : read(name)
	if (!column) return { message: `Say of which column it is the ${of}.` }
	return 'message' in column ? column : { value: { of, column: column.value } }
}

function readIn(text: string, read: (name: string) => Reading<number>): Reading<Grouping> {
	const whole = read(text.trim())
	if (!('message' in whole)) return { value: { column: whole.value, step: null } }
	const [, banded, width] = IN_BANDS.exec(text.trim()) ?? []
	const [, dated, word] = IN.exec(text.trim()) ?? []
	const name = banded ?? dated
	if (name === undefined) return whole
	const column = read(name)
	if ('message' in column) return column
	if (banded === undefined)
		return { value: { column: column.value, step: PERIODS.find((each) => each === word?.toLowerCase()) ?? null } }
	if (Number(width) === 0) return { message: 'A band is wider than nothing. Write in bands of 5, or only in bands.' }
	return { value: { column: column.value, step: width === undefined ? 'bands' : Number(width) } }
}

function columnsAt({ vocabulary, table }: SlotPlace, types: ReadonlySet<string>) {
	const columns = vocabulary.tables.find(({ id }) => id === table)?.columns ?? []
	return columns.filter(({ type, shows, condition }) => !condition && types.has(shows ?? type))
}
