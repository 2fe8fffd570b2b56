/** The parts of a form, and what was typed into them: where it stands, what a row begins with, what of it can be sent. */
import type { CellChange, CellInput } from '$lib/core/query/change.ts'
import type { FormTyped } from '$lib/core/requests/forms.ts'
import type { ShownEntry, ShownFormPart, ShownLine, ShownWorked } from '$lib/core/requests/screens.ts'
import { BLANK_DRAFT, draftOf, readDraft } from '../../cells/cell-draft.ts'
import type { FormDraft, RowDraft } from './drafts.ts'

export type ShownForm = Extract<ShownLine, { kind: 'form' }>
export type RowPart = ShownEntry | ShownWorked

/** Where an entry stands, if not in the form's own row: in one of the rows that go in with it. */
export interface RowPlace {
	readonly items: string
	readonly at: number
}

/** Of all pages. */
export function partsOf({ pages }: Pick<ShownForm, 'pages'>): readonly ShownFormPart[] {
	return pages.flatMap(({ parts }) => parts)
}

/** What can be read of what was typed, as requests name it. */
export function typedIn(parts: readonly ShownFormPart[], draft: FormDraft): FormTyped {
	const groups = parts.flatMap((part) => (part.kind === 'items' ? [part] : []))
	return {
		cells: cellsOf(entriesIn(parts), draft.cells),
		items: Object.fromEntries(
			groups.map(({ id, parts: inner }) => [id, (draft.items[id] ?? []).map((row) => cellsOf(entriesIn(inner), row))])
		)
	}
}

/** Parts that stand side by side together, each other one alone. */
export function abreast(parts: readonly ShownFormPart[]): readonly (readonly ShownFormPart[])[] {
	return parts.reduce<ShownFormPart[][]>((rows, part) => {
		const last = rows.at(-1)
		const joins = part.kind === 'entry' && part.isAbreast && last?.at(-1)?.kind === 'entry'
		if (joins) last?.push(part)
		else rows.push([part])
		return rows
	}, [])
}

export function keyOf(entry: string, place?: RowPlace): string {
	return place ? `${entry} ${place.items} ${place.at}` : entry
}

export function entriesIn(parts: readonly (ShownFormPart | RowPart)[]): readonly ShownEntry[] {
	return parts.flatMap((part) => (part.kind === 'entry' ? [part] : []))
}

/** What a row begins with; `last`: what was sent last, of the entries that remember it. */
export function startOf(parts: readonly (ShownFormPart | RowPart)[], last: RowDraft): RowDraft {
	const begun = entriesIn(parts).flatMap(({ column, starts, remembers }) => {
		const remembered = remembers ? last[column.id] : undefined
		const draft = remembered ?? draftOf(column, starts)
		return draft.text === '' && draft.id === undefined ? [] : [[column.id, draft] as const]
	})
	return Object.fromEntries(begun)
}

/** Nothing stands in it: it is not sent. */
export function isBlankRow(row: RowDraft): boolean {
	return Object.values(row).every(({ text, file, unsent }) => text.trim() === '' && !file && !unsent)
}

function cellsOf(entries: readonly ShownEntry[], row: RowDraft): CellChange[] {
	return entries.flatMap(({ column }) => {
		const reading = readDraft(column, row[column.id] ?? BLANK_DRAFT)
		const value: CellInput = reading.ok ? reading.value : null
		return value === null ? [] : [{ column: column.id, value }]
	})
}

/** Whether a refusal that names a column or an entry means this part, or something in it. */
export function namesEntry(part: ShownFormPart, column: unknown, entry: unknown): boolean {
	if (part.kind === 'items')
		return part.id === entry || part.parts.some((each) => each.kind === 'entry' && each.id === entry)
	if (part.kind !== 'entry') return false
	return entry === undefined ? part.column.id === column : part.id === entry
}
