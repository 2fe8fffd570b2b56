/** What is proposed for a sheet, as settings that the builder can change before anything is brought in. */
import { countOf } from '$lib/core/text/count.ts'
import type { ColumnGuess, Doubt } from '$lib/core/exchange/guess.ts'
import type { NoRow } from '$lib/core/exchange/no-rows.ts'
import type { ImportColumn, ImportPlan, Unread } from '$lib/core/exchange/plan.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import type { Inspection } from '$lib/core/requests/imports.ts'

/** How a doubt was settled: as proposed, another way, or the cell left blank. */
export type Settled = Readonly<Record<string, string>>

export function proposePlan(inspection: Inspection, file: string): ImportPlan {
	return {
		sheet: inspection.sheet,
		headingRow: inspection.headingRow,
		firstRow: inspection.firstRow,
		// Of several sheets each has a name of its own.
		tableName: (inspection.sheets.length > 1 ? inspection.sheet : file.replace(/\.[a-z]+$/i, '')).slice(0, 80),
		label: inspection.label,
		...(inspection.noRows.length > 0 ? { leftOut: inspection.noRows.map(({ row }) => row) } : {}),
		columns: inspection.columns.map((guess, from) => ({
			...toPlanColumn(guess, from),
			...(inspection.groups.includes(from) ? { fillDown: true } : {})
		}))
	}
}

function toPlanColumn(guess: ColumnGuess, from: number): ImportColumn {
	const { name, unit, type, places, choices, writing, blank } = guess
	return {
		from,
		name,
		// The select offers the types only.
		type: type as ImportColumn['type'],
		include: !blank,
		writing,
		fixes: [],
		...(unit === undefined ? {} : { unit }),
		...(places === undefined ? {} : { places }),
		...(choices === undefined ? {} : { choices: [...choices] })
	}
}

/** What a row is that is no record, in the reader's words. */
export const NO_ROW_WORDS: Readonly<Record<NoRow['what'], string>> = {
	total: 'looks like a total',
	heading: 'repeats the headings',
	units: 'says the units, which go into the headings',
	note: 'looks like a note'
}

/** The plan with a row left out, or taken in again. */
export function turnRow(plan: ImportPlan, row: number): ImportPlan {
	const { leftOut = [], ...rest } = plan
	const next = leftOut.includes(row) ? leftOut.filter((each) => each !== row) : [...leftOut, row]
	return next.length > 0 ? { ...rest, leftOut: next } : rest
}

/** How many rows come in: rows that were found to be none count only where they are kept. */
export function rowsOf(inspection: Inspection, { leftOut = [] }: ImportPlan): number {
	const found = new Set(inspection.noRows.map(({ row }) => row))
	const byHand = leftOut.filter((row) => !found.has(row)).length
	const kept = inspection.noRows.filter(({ row }) => !leftOut.includes(row)).length
	return inspection.rowCount - byHand + kept
}

/** The same plan for a table that is there: columns of one name go together, and take its types. */
export function goInto(plan: ImportPlan, table: BenchTable, keys: Inspection['keys']): ImportPlan {
	const free = new Map(
		table.columns.filter((column) => column.type !== 'computed').map((column) => [column.name.toLowerCase(), column])
	)
	const columns = plan.columns.map((column) => {
		const found = free.get(column.name.toLowerCase())
		free.delete(column.name.toLowerCase())
		return found ? goIntoColumn(column, found) : { ...column, include: false }
	})
	const known = knownAgain(columns, table, keys)
	return { ...plan, tableName: table.name, columns, into: { table: table.id, ...known } }
}

/** By what rows are known already, where the file tells its rows apart by it; else by what it does tell them apart by. */
function knownAgain(
	columns: readonly ImportColumn[],
	table: BenchTable,
	keys: Inspection['keys']
): Pick<NonNullable<ImportPlan['into']>, 'how' | 'keys'> {
	const goes = new Map(columns.flatMap(({ include, from, to }) => (include && to !== undefined ? [[from, to]] : [])))
	const filled = new Set(goes.values())
	const apart = keys
		.map((key) => key.map((from) => goes.get(from)))
		// None is undefined, as was just asked.
		.filter((key) => !key.includes(undefined)) as number[][]
	const alone = (id: number) => apart.some((key) => key.length === 1 && key[0] === id)
	const unique = table.columns.find((column) => filled.has(column.id) && column.unique)?.id
	if (filled.has(table.label) && (alone(table.label) || apart.length === 0))
		return { how: 'update', keys: [table.label] }
	if (unique !== undefined) return { how: 'update', keys: [unique] }
	return apart[0] ? { how: 'update', keys: apart[0] } : { how: 'add', keys: [] }
}

/** One column of the file for one of the table. A reference is read as the text that names its row. */
export function goIntoColumn(column: ImportColumn, to: BenchTable['columns'][number]): ImportColumn {
	const type = to.type === 'reference' ? 'text' : (to.type as ImportColumn['type'])
	return { ...column, include: true, to: to.id, type, ...(to.choices ? { choices: [...to.choices] } : {}) }
}

/** The same plan for a table of its own again. */
export function goIntoNew({ into: _into, ...plan }: ImportPlan): ImportPlan {
	return { ...plan, columns: plan.columns.map(({ to: _to, ...column }) => ({ ...column, include: true })) }
}

export interface OpenDoubt {
	readonly key: string
	readonly column: number
	readonly doubt: Doubt
	readonly options: readonly { readonly value: string; readonly words: string }[]
	readonly proposed: string
}

/** The doubts of the columns that are brought in under the type that was guessed. */
export function openDoubts(inspection: Inspection, plan: ImportPlan): OpenDoubt[] {
	return plan.columns.flatMap((column) => {
		const guess = inspection.columns[column.from]
		if (!guess || !column.include || guess.type !== column.type) return []
		return guess.doubts.map((doubt, i) => ({
			key: `${column.from} ${i}`,
			column: column.from,
			doubt,
			...optionsOf(doubt)
		}))
	})
}

function optionsOf(doubt: Doubt): Pick<OpenDoubt, 'options' | 'proposed'> {
	switch (doubt.kind) {
		case 'day or month': {
			const evidence = (count: number) =>
				count > 0 ? ` ${countOf(count, 'value')} only ${count === 1 ? 'fits' : 'fit'} this.` : ''
			const options = [
				{ value: 'day first', words: `Day first.${evidence(doubt.dayOnly)}` },
				{ value: 'month first', words: `Month first.${evidence(doubt.monthOnly)}` }
			]
			return { options, proposed: doubt.monthOnly > doubt.dayOnly ? 'month first' : 'day first' }
		}
		case 'dot or comma':
			return {
				options: [
					{ value: '.', words: 'The dot is the decimal point' },
					{ value: ',', words: 'The comma is the decimal point' }
				],
				proposed: '.'
			}
		case 'currency':
			return {
				options: [
					...CURRENCIES.map((unit) => ({ value: unit, words: unit })),
					{ value: '', words: 'None: numbers with two decimals' }
				],
				proposed: ''
			}
		case 'more places':
			return {
				options: [
					{ value: 'keep', words: `Keep every digit: decimals${doubt.unit === undefined ? '' : ` in ${doubt.unit}`}` },
					{ value: 'round', words: 'Money: round them to two decimals' }
				],
				proposed: 'keep'
			}
		case 'other writing':
			return { options: [{ value: 'fix', words: `Read as ${doubt.proposed}` }, BLANK], proposed: 'fix' }
		case 'spelling':
			return {
				options: [
					{ value: 'fix', words: `Treat it as ${doubt.proposed}` },
					{ value: 'own', words: 'Keep it as a choice of its own' },
					BLANK
				],
				// A word that is nearly another may well be one of its own.
				proposed: 'own'
			}
		case 'unreadable':
			return { options: [BLANK, { value: 'text', words: 'Make the whole column text' }], proposed: 'blank' }
	}
}

const CURRENCIES = ['£', '€', '$', '¥']

const BLANK = { value: 'blank', words: 'Leave the cell blank' }

/** The plan with every doubt settled: as chosen, or as proposed. */
export function settlePlan(plan: ImportPlan, doubts: readonly OpenDoubt[], settled: Settled): ImportPlan {
	const columns = plan.columns.map((column) => {
		let next = column
		for (const each of doubts)
			if (each.column === column.from) next = settle(next, each.doubt, settled[each.key] ?? each.proposed)
		return next
	})
	return { ...plan, columns }
}

function settle(column: ImportColumn, doubt: Doubt, choice: string): ImportColumn {
	switch (doubt.kind) {
		case 'day or month':
			return {
				...column,
				writing: { ...column.writing, dates: choice === 'month first' ? 'month first' : 'day first' }
			}
		case 'dot or comma':
			return { ...column, writing: { ...column.writing, decimal: choice === ',' ? ',' : '.' } }
		case 'currency':
			return choice === '' ? { ...column, type: 'decimal', places: 2 } : { ...column, unit: choice }
		case 'more places': {
			const { places: _places, ...rest } = column
			return choice === 'keep' ? { ...rest, type: 'decimal' } : column
		}
		case 'other writing':
		case 'spelling':
			if (choice === 'own') return { ...column, choices: [...(column.choices ?? []), doubt.text] }
			return { ...column, fixes: [...column.fixes, [doubt.text, choice === 'fix' ? doubt.proposed : null]] }
		case 'unreadable':
			return choice === 'text'
				? { ...column, type: 'text' }
				: { ...column, fixes: [...column.fixes, [doubt.text, null]] }
	}
}

/** What a doubt says, in the reader's words, with its place. */
export function sayDoubt(doubt: Doubt): string {
	const said = (list: readonly number[]) =>
		list.length === 1
			? `row ${list[0]} says`
			: `rows ${list.slice(0, 4).join(', ')}${list.length > 4 ? ` and ${list.length - 4} more` : ''} say`
	switch (doubt.kind) {
		case 'day or month':
			return `reads two ways: ${countOf(doubt.both, 'value')} ${doubt.both === 1 ? 'fits' : 'fit'} both day first and month first, such as ${doubt.sample}.`
		case 'dot or comma':
			return `could be thousands or decimals, such as ${doubt.sample}.`
		case 'currency':
			return `holds amounts such as ${doubt.sample}, and nothing says of what money.`
		case 'more places':
			return `holds ${countOf(doubt.count, 'amount')} with more than two decimals, such as ${doubt.sample}, and money keeps two.`
		case 'other writing':
			return `${said(doubt.rows)} ${doubt.text}.`
		case 'spelling':
			return `${said(doubt.rows)} ${doubt.text}, which is nearly ${doubt.proposed}.`
		case 'unreadable':
			return `${said(doubt.rows)} ${doubt.text}, which cannot be read.`
	}
}

export interface UnreadText {
	readonly column: string
	readonly text: string
	readonly rows: number[]
}

/** The same text in the same column is one thing to mend, however many rows say it. */
export function groupUnread(unread: readonly Unread[]): readonly UnreadText[] {
	const found = new Map<string, UnreadText>()
	for (const { column, text, row } of unread) {
		const known = found.get(`${column}\n${text}`)
		if (known) known.rows.push(row)
		else found.set(`${column}\n${text}`, { column, text, rows: [row] })
	}
	return [...found.values()]
}
