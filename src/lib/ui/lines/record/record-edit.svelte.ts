import { isPicture } from '$lib/core/capture/attachment.ts'
import type { CellChange, Conflict } from '$lib/core/query/change.ts'
import { cellKey, isFileCell, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { BLANK_DRAFT, draftOf, readDraft, sameDraft, sendFiles, type CellDraft } from '../../cells/cell-draft.ts'
import { fileAddress } from '../../cells/file-address.ts'
import type { Sent } from '../../send.ts'

interface Place {
	readonly base: string
	/** Puts cells of the row in, where it stands. */
	readonly put: (cells: readonly CellChange[]) => Promise<Sent<{ readonly conflicts: readonly Conflict[] }>>
}

/**
 * - `saved`: it is in, or nothing was to be saved
 * - `clashed`: somebody else was faster with some of the cells; the others are in
 * - `refused`: nothing is in, and `wrong` or the message says why
 */
export type SaveOutcome =
	| { readonly is: 'saved'; readonly changed: boolean }
	| { readonly is: 'clashed' }
	| { readonly is: 'refused'; readonly message: string | undefined }

/** A row while it is changed by hand: what was seen of it, what was typed, and where somebody else was faster. */
export class RecordEdit {
	readonly #place: Place
	readonly columns: readonly ShownColumn[]
	seen: WireRow
	drafts: Readonly<Record<number, CellDraft>>
	/** What is wrong with what was typed, by column. */
	wrong = $state.raw<Readonly<Record<number, string>>>({})
	conflicts = $state.raw<readonly Conflict[]>([])

	/** @param columns those that may be changed */
	constructor(row: WireRow, columns: readonly ShownColumn[], place: Place) {
		this.#place = place
		this.columns = columns
		this.seen = $state.raw(row)
		this.drafts = $state.raw(
			Object.fromEntries(columns.map((column) => [column.id, draftOf(column, row.cells[cellKey(column.id)])]))
		)
	}

	draft({ id }: ShownColumn): CellDraft {
		return this.drafts[id] ?? BLANK_DRAFT
	}

	put(column: ShownColumn, draft: CellDraft): void {
		this.drafts = { ...this.drafts, [column.id]: draft }
	}

	conflictIn({ id }: ShownColumn): Conflict | undefined {
		return this.conflicts.find((each) => each.column === id)
	}

	/** Where the picture is fetched that lies in a cell now, while nothing else was put in its place. */
	pictureOf(column: ShownColumn): string | undefined {
		const cell = this.seen.cells[cellKey(column.id)]
		if (!isFileCell(cell) || this.draft(column).file !== cell.file.sha || !isPicture(cell.file.type)) return undefined
		return fileAddress(this.#place.base, { column: column.id, row: this.seen.id, file: cell.file })
	}

	async save(): Promise<SaveOutcome> {
		const files = await sendFiles(this.drafts)
		this.drafts = files.drafts
		const { cells, wrong } = this.#read()
		this.wrong = { ...wrong, ...files.wrong }
		if (Object.keys(this.wrong).length > 0) return { is: 'refused', message: undefined }
		if (cells.length === 0) return { is: 'saved', changed: false }
		const answer = await this.#place.put(cells)
		if (answer.ok) {
			this.conflicts = answer.value.conflicts
			return this.conflicts.length > 0 ? { is: 'clashed' } : { is: 'saved', changed: true }
		}
		const column = Number(answer.refusal.details['column'])
		if (this.columns.some((each) => each.id === column)) this.wrong = { [column]: answer.refusal.message }
		return { is: 'refused', message: answer.refusal.message }
	}

	/** What was typed otherwise than it was seen: as it travels, or what is wrong with it. */
	#read() {
		const cells: CellChange[] = []
		const wrong: Record<number, string> = {}
		for (const column of this.columns) {
			const was = this.seen.cells[cellKey(column.id)]
			if (sameDraft(this.draft(column), draftOf(column, was))) continue
			const reading = readDraft(column, this.draft(column))
			if (reading.ok) cells.push({ column: column.id, value: reading.value, was: was ?? null })
			else wrong[column.id] = reading.message
		}
		return { cells, wrong }
	}
}
