/**
 * What the conditions of a form come to on what has been filled in so far: what is not asked, what must be filled, what is
 * refused and why, and the values that it shows. All of it as whoever fills it in sees the data.
 */
import type { Type } from '$lib/core/model/formula.ts'
import { showWorked } from '$lib/core/table/show-worked.ts'
import type { Workspace } from '$lib/core/workspace/catalogue.ts'
import type { WorkedLine } from '$lib/core/app/lines/form-parts.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import type { FormTyped, FormVerdict, RowVerdict } from '$lib/core/requests/forms.ts'
import { PIECE, piecesIn } from '$lib/core/text/pieces.ts'
import { itemsIn, partsIn, type FormPart, type FormShape } from './form-shape.ts'
import { typedRow } from './typed-row.ts'
import { workOutAll, type Filling, type Reach, type WorkedOut } from './work-out-typed.ts'

export function judgeForm(filling: Filling, shape: FormShape, typed: FormTyped): FormVerdict {
	const { store, context } = filling
	const own = typedRow(store, 'o', { table: shape.table, cells: typed.cells, context })
	const top = judgeRow(filling, partsIn(shape), { tables: [shape.table], rows: [own] })
	const items = itemsIn(shape).map(({ id, table, parts }) => {
		const rows = (typed.items[id] ?? []).map((cells) =>
			judgeRow(filling, parts, {
				tables: [shape.table, table],
				rows: [own, typedRow(store, 'r', { table, cells, context })]
			})
		)
		return [id, { rows: rows.map(({ verdict }) => verdict), sums: sumsOf(rows, store.workspace()) }] as const
	})
	return { ...top.verdict, items: Object.fromEntries(items) }
}

/** What is not asked of this person now is not sent, whatever a page says. */
export function withoutUnasked(
	parts: readonly FormPart[],
	cells: readonly CellChange[],
	{ unasked }: Pick<RowVerdict, 'unasked'>
): CellChange[] {
	const asked = parts.flatMap((part) => (part.kind === 'entry' && !unasked.includes(part.id) ? [part.column.id] : []))
	return cells.filter(({ column }) => asked.includes(column))
}

interface JudgedRow {
	readonly verdict: RowVerdict
	/** Of the values shown, those that are numbers. */
	readonly numbers: Readonly<Record<string, Amount>>
}

function judgeRow(filling: Filling, parts: readonly FormPart[], reach: Reach): JudgedRow {
	const lines = parts.flatMap((part) => (part.kind === 'entry' && part.line ? [part.line] : []))
	const worked = parts.flatMap((part) => (part.kind === 'shown' ? [part] : []))
	const workspace = filling.store.workspace()
	const valueOf = workOutAll(filling, reach, [
		...lines.flatMap(({ when, must, unless }) => [when, must, unless]),
		...worked.flatMap(({ value }) => [value, asText(value)])
	])
	const isNo = (text: string) => isFalse(valueOf(text)?.value)
	const unasked = lines.filter(({ when }) => isWritten(when) && isNo(when)).map(({ id }) => id)
	const isAsked = ({ id }: { id: string }) => !unasked.includes(id)
	return {
		verdict: {
			unasked,
			must: lines.filter((line) => isAsked(line) && isWritten(line.must) && !isNo(line.must)).map(({ id }) => id),
			refused: Object.fromEntries(
				lines.filter(isAsked).flatMap(({ id, unless, says }) => (isRefused(valueOf(unless)) ? [[id, says]] : []))
			),
			shown: Object.fromEntries(
				worked.map(({ id, value }) => [id, shownText(valueOf(value), valueOf(asText(value)), workspace)])
			)
		},
		numbers: Object.fromEntries(
			worked.flatMap(({ id, value }: WorkedLine) => {
				const found = valueOf(value)
				return found?.type.kind === 'number' && typeof found.value === 'number'
					? [[id, { value: found.value, money: found.money }] as const]
					: []
			})
		)
	}
}

/** Words with the values of formulas in them, on a row that was filled in. */
export function wordsOn(filling: Filling, reach: Reach, text: string): string {
	const formulas = piecesIn(text)
	const valueOf = workOutAll(
		filling,
		reach,
		formulas.flatMap((value) => [value, asText(value)])
	)
	return text.replace(PIECE, (_all, formula: string | undefined) =>
		formula === undefined ? '{' : shownText(valueOf(formula), valueOf(asText(formula)), filling.store.workspace())
	)
}

/** As with the checks of a table: what is left blank is not refused, since whether it must be filled is another matter. */
function isRefused(found: WorkedOut | undefined): boolean {
	return found !== undefined && found.blank === 'none' && isFalse(found.value)
}

/** What the rows of a group come to together, of each value that is a number. */
function sumsOf(rows: readonly JudgedRow[], workspace: Workspace): Record<string, string> {
	const sums = new Map<string, Amount>()
	for (const { numbers } of rows)
		for (const [id, value] of Object.entries(numbers))
			sums.set(id, { ...value, value: (sums.get(id)?.value ?? 0) + value.value })
	// Sums of amounts must not end in the noise of their binary fractions.
	return Object.fromEntries(
		[...sums].map(([id, sum]) => [
			id,
			showWorked({ ...sum, type: NUMBER, value: Number(sum.value.toFixed(6)) }, workspace)
		])
	)
}

/** Before anything is typed there is nothing to say: no nought stands there. */
function shownText(found: WorkedOut | undefined, text: WorkedOut | undefined, workspace: Workspace): string {
	if (text === undefined || text.blank === 'all') return ''
	// A row is read as its label.
	if (!found || found.type.kind === 'row') return String(text.value ?? '')
	const { value } = found
	const isPlain = typeof value === 'string' || typeof value === 'number'
	return isPlain ? showWorked({ ...found, value }, workspace) : ''
}

const NUMBER: Type = { kind: 'number' }

interface Amount {
	readonly value: number
	/** Its unit, where it is money. */
	readonly money: string | undefined
}

function asText(value: string): string {
	return `TEXTJOIN(""; TRUE; ${value})`
}

/** Blank is no as well: nobody is asked for what follows from an answer that was not given. */
function isFalse(value: unknown): boolean {
	return value === null || value === undefined || value === 0 || value === false
}

function isWritten(text: string): boolean {
	return text.trim() !== ''
}
