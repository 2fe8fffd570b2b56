/**
 * Looks at a file that was given in: its first rows as they are, where its headings stand, what its columns are.
 *
 * The whole of it is read once, in pieces: what stands in each column is gathered as the rows pass by.
 */
import type { Inspection } from '$lib/core/requests/imports.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { ColumnCollector } from '$lib/core/exchange/collect.ts'
import { nameColumns } from '$lib/core/exchange/headings.ts'
import type { ColumnGuess } from '$lib/core/exchange/guess.ts'
import { inferCollected } from '$lib/core/exchange/infer.ts'
import { LONGEST_TEXT } from '$lib/core/table/kinds/long-text.ts'
import { MEANS_NUMBER, proposeKeys } from '$lib/core/exchange/propose-keys.ts'
import { openFile } from './open-file.ts'
import { lookThrough, type InspectRequest, type Looked } from './look-through.ts'

const SHOWN_ROWS = 60
/** A preview shows what a cell begins with. */
const SHOWN_CHARACTERS = 300

function cutShort(cell: string): string {
	return cell.length > SHOWN_CHARACTERS ? `${cell.slice(0, SHOWN_CHARACTERS)}…` : cell
}

/** Columns with a cell that is longer than any type of column takes: said before anything is settled. */
function tooLong(names: readonly string[], collectors: readonly ColumnCollector[]): string[] {
	return collectors.flatMap(({ longest }, i) =>
		longest.length > LONGEST_TEXT
			? [
					`${names[i] ?? ''}: row ${longest.row} holds more than ${LONGEST_TEXT.toLocaleString('en-GB')} characters, which is as much as a cell takes. It will be listed as unread.`
				]
			: []
	)
}

/**
 * What a file holds: its sheets, columns with their likely types, sample rows and doubts. Throws `invalid` in the
 * reader's words.
 */
export async function inspectFile(request: InspectRequest): Promise<Inspection> {
	const { path, name } = request
	const file = await openFile(path, name)
	try {
		const chosen = file.sheets.find((each) => each.name === request.sheet) ?? file.sheets[0]
		if (!chosen) throw new AppError('invalid', `${name} holds no filled sheet.`)
		const looked = await lookThrough(chosen, request)
		if (looked.head.length === 0) throw new AppError('invalid', `${name} is empty. Nothing was brought in.`)
		const names = nameColumns(looked.headings, looked.width)
		const columns = names.map((each, i) => {
			const guess = inferCollected(each, looked.collectors[i]?.collected() ?? [])
			const unit = looked.units[i]
			// Where no row is there yet, what has a heading is a column all the same.
			const blank = looked.rowCount === 0 ? (looked.headings?.[i] ?? '').trim() === '' : guess.blank
			return unit === undefined || guess.unit !== undefined ? { ...guess, blank } : { ...guess, blank, unit }
		})
		return {
			sheets: file.sheets.map((each) => each.name),
			sheet: chosen.name,
			headingRow: looked.headingRow,
			firstRow: looked.firstRow,
			overTwo: looked.overTwo,
			rowCount: looked.rowCount,
			noRows: looked.noRows,
			groups: groupsIn(looked),
			head: looked.head.slice(0, SHOWN_ROWS).map((row) => row.map(cutShort)),
			columns,
			damaged: looked.damaged,
			notes: [...(chosen.notes?.() ?? []), ...looked.notes, ...tooLong(names, looked.collectors)],
			label: chosen.said?.key ?? proposeLabel(columns, looked),
			keys: proposeKeys(columns, looked.sample)
		}
	} finally {
		file.close()
	}
}

/** Columns near the left that say something in the first row of a group alone, while the others are filled throughout. */
function groupsIn({ sample, width }: Looked): number[] {
	if (sample.length < 4 || width < 3) return []
	const shares = Array.from({ length: width }, (_column, i) => {
		const filled = sample.filter((row) => (row[i] ?? '').trim() !== '').length
		return filled / sample.length
	})
	const isGroup = (i: number) => (shares[i] ?? 0) > 0 && (shares[i] ?? 0) <= 0.6 && (sample[0]?.[i] ?? '').trim() !== ''
	const full = shares.filter((share) => share >= 0.95).length
	return [0, 1].filter((i) => isGroup(i) && full >= Math.max(2, (width - 2) * 0.6))
}

/** What rows are known by: the column whose name means a name, else the first whose values are all there and all different. */
function proposeLabel(columns: readonly ColumnGuess[], looked: Looked): number {
	const { sample } = looked
	const groups = groupsIn(looked)
	const shares = columns.map((column, i) => {
		if (column.blank || !KNOWN_BY.has(column.type)) return 0
		const values = sample.map((row) => (row[i] ?? '').trim().toLowerCase()).filter((value) => value !== '')
		return new Set(values).size / Math.max(1, sample.length)
	})
	const named = columns.findIndex(({ name }, i) => MEANS_NAME.test(name.trim()) && (shares[i] ?? 0) >= NEARLY_ALL)
	if (named >= 0) return named
	// Whole numbers that differ are measures as often as numbers things go by.
	const isWord = ({ name, type }: ColumnGuess, i: number) =>
		type !== 'whole number' || i === 0 || MEANS_NUMBER.test(name.trim())
	const unique = columns.findIndex((column, i) => shares[i] === 1 && isWord(column, i))
	// What a thing is says more than its number, unless the number is a code that people read.
	const says = columns.findIndex(({ name }, i) => SAYS_WHAT.test(name.trim()) && (shares[i] ?? 0) >= NEARLY_ALL)
	const isBareNumber = sample.every((row) => /^\d*$/.test((row[unique] ?? '').trim()))
	if (says >= 0 && (unique < 0 || isBareNumber)) return says
	if (unique >= 0) return unique
	const first = columns.findIndex((column, i) => !column.blank && isWord(column, i) && !groups.includes(i))
	return Math.max(0, first)
}

const KNOWN_BY: ReadonlySet<string> = new Set(['text', 'code', 'whole number'])
const MEANS_NAME = /^((full |item |product |short )?name|title|item|article|subject)$/i
const SAYS_WHAT = /^what( for)?$/i
/** Two of a name among twenty rows are still told apart by what stands beside them. */
const NEARLY_ALL = 0.9
