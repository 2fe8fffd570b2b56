/** What somebody is entering for one cell, and how it becomes what is sent. */
import { findKind } from '$lib/core/table/kinds/all.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import type { CellInput } from '$lib/core/query/change.ts'
import { isFileCell, isReferenceCell, type WireCell } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { CONTROLS } from './controls.ts'
import { fromDataAddress, giveFile } from './give-file.ts'
import { asColumn } from '$lib/core/requests/show-cell.ts'

export interface CellDraft {
	readonly text: string
	/** The row that was chosen, for a reference. */
	readonly id?: string
	/** What the server knows the file by that is to lie in the cell. */
	readonly file?: string
	/** A file that has not been given in yet, as a data address: it goes with the form. */
	readonly unsent?: string
	/** A small picture of the file, as a data address. */
	readonly small?: string
}

export const BLANK_DRAFT: CellDraft = { text: '' }

/** A cell as it stands in an entry before anything is typed. */
export function draftOf(column: ShownColumn, cell: WireCell | undefined): CellDraft {
	if (isReferenceCell(cell)) return { text: cell.label, id: cell.id }
	if (isFileCell(cell)) return { text: cell.file.name, file: cell.file.sha }
	if (cell === undefined || cell === null || typeof cell === 'object') return BLANK_DRAFT
	return { text: CONTROLS[column.type].typed?.(cell, column) ?? String(cell) }
}

/** Whether two drafts stand for the same value. */
export function sameDraft(one: CellDraft, other: CellDraft): boolean {
	return one.text === other.text && one.id === other.id && one.file === other.file && one.unsent === other.unsent
}

/** Gives in what is still unsent, as it must be before its form is; a refusal comes back in its column's place. */
export async function sendFiles(
	drafts: Readonly<Record<number, CellDraft>>
): Promise<{ drafts: Record<number, CellDraft>; wrong: Record<number, string> }> {
	const sent = { ...drafts }
	const wrong: Record<number, string> = {}
	for (const [column, draft] of Object.entries(drafts)) {
		if (draft.unsent === undefined) continue
		const answer = await giveFile(Number(column), draft.text, fromDataAddress(draft.unsent))
		if (!answer.ok) wrong[Number(column)] = answer.refusal.message
		else {
			const { unsent, ...rest } = draft
			sent[Number(column)] = { ...rest, small: rest.small ?? unsent, file: answer.value.token }
		}
	}
	return { drafts: sent, wrong }
}

export type ReadDraft =
	{ readonly ok: true; readonly value: CellInput } | { readonly ok: false; readonly message: string }

/** The value that a draft stands for, or what is wrong with it; the server checks it again. */
export function readDraft(column: ShownColumn, draft: CellDraft): ReadDraft {
	const text = draft.text.trim()
	if (column.type === 'reference') {
		if (draft.id !== undefined) return { ok: true, value: { id: draft.id } }
		if (text !== '') return { ok: true, value: { match: text } }
	}
	if (draft.file !== undefined) return { ok: true, value: { file: draft.file } }
	if (text === '') {
		if (column.required) return { ok: false, message: `${column.name} must be filled in.` }
		return { ok: true, value: null }
	}
	const reading = findKind(asColumn(column).type)?.read(text, asColumn(column), column.writing ?? TYPED)
	if (!reading) return { ok: false, message: `${column.name} cannot be typed in.` }
	return reading.ok ? { ok: true, value: reading.value } : reading
}
