/**
 * Changes made in a grid, as blocks that go in whole or not, with the way back and forth.
 *
 * Taking something back is a new change by the same person: it is refused where somebody else has changed the cell since.
 */
import type { CellChange, CellInput } from '$lib/core/query/change.ts'
import {
	cellKey,
	isFileCell,
	isHiddenCell,
	isReferenceCell,
	type WireCell,
	type WireRow
} from '$lib/core/query/wire.ts'
import type { BlockChanged, Misfit } from '$lib/core/requests/rows.ts'
import { send } from '../send.ts'
import { changeStructure } from '../structure/structure.ts'

export type GridChange =
	| { readonly kind: 'add'; readonly cells: readonly CellChange[] }
	| { readonly kind: 'change'; readonly row: string; readonly cells: readonly CellChange[] }
	| { readonly kind: 'remove'; readonly row: string }
	| { readonly kind: 'restore'; readonly row: string }

type Step =
	| { readonly kind: 'rows'; readonly words: string; readonly changes: readonly GridChange[] }
	/** The table's structure, as it was in a version of the workspace. */
	| { readonly kind: 'structure'; readonly words: string; readonly version: number }

export type Applied =
	| { readonly ok: true; readonly rows: readonly (WireRow | null | undefined)[]; readonly misfits: readonly Misfit[] }
	| { readonly ok: false; readonly message: string; readonly misfits: readonly Misfit[] }

export interface Stepped {
	readonly ok: boolean
	readonly message: string
	readonly structure: boolean
}

type Taken = { readonly ok: true; readonly again: Step | undefined } | { readonly ok: false; readonly message: string }
type RowBefore = (id: string) => WireRow | undefined

const MOST_STEPS = 100

export class GridEdits {
	private readonly table: number
	private past = $state.raw<readonly Step[]>([])
	private future = $state.raw<readonly Step[]>([])
	busy = $state(false)

	constructor(table: number) {
		this.table = table
	}

	get canUndo(): boolean {
		return this.past.length > 0
	}

	get canRedo(): boolean {
		return this.future.length > 0
	}

	/** Puts changes in. `before` gives a row as it was, for the way back. */
	async apply(words: string, changes: readonly GridChange[], before: RowBefore, partly = false): Promise<Applied> {
		const done = await this.send(changes, partly)
		if (!done.ok) return done
		const back = wayBack(changes, done, before)
		if (back.length > 0) this.past = [...this.past.slice(1 - MOST_STEPS), { kind: 'rows', words, changes: back }]
		this.future = []
		return { ok: true, rows: done.rows, misfits: done.misfits }
	}

	/** The structure was changed, with a version of the workspace: the one before it can be put back. */
	structureChanged(words: string, version: number): void {
		this.past = [...this.past, { kind: 'structure', words, version: version - 1 }]
		this.future = []
	}

	undo(before: RowBefore): Promise<Stepped | undefined> {
		return this.step('past', 'future', before)
	}

	redo(before: RowBefore): Promise<Stepped | undefined> {
		return this.step('future', 'past', before)
	}

	private async step(from: 'past' | 'future', to: 'past' | 'future', before: RowBefore): Promise<Stepped | undefined> {
		const last = this[from][this[from].length - 1]
		if (!last) return undefined
		this[from] = this[from].slice(0, -1)
		const done = last.kind === 'structure' ? await this.putBack(last) : await this.sendAgain(last, before)
		if (done.ok && done.again) this[to] = [...this[to], done.again]
		const did = from === 'past' ? 'taken back' : 'done again'
		const message = done.ok ? `${did[0]?.toUpperCase()}${did.slice(1)}: ${last.words}.` : `Not ${did}: ${done.message}`
		return { ok: done.ok, message, structure: last.kind === 'structure' }
	}

	private async putBack(step: Step & { kind: 'structure' }): Promise<Taken> {
		const answer = await changeStructure({ kind: 'put back', table: this.table, version: step.version })
		if (!answer.ok) return { ok: false, message: answer.refusal.message }
		return { ok: true, again: { ...step, version: answer.value.version - 1 } }
	}

	private async sendAgain(step: Step & { kind: 'rows' }, before: RowBefore): Promise<Taken> {
		const done = await this.send(step.changes, false)
		if (!done.ok) return { ok: false, message: done.message }
		return { ok: true, again: { ...step, changes: wayBack(step.changes, done, before) } }
	}

	private async send(
		changes: readonly GridChange[],
		partly: boolean
	): Promise<(BlockChanged & { ok: true }) | (Applied & { ok: false })> {
		this.busy = true
		const answer = await send('POST', `/rows/${this.table}`, { kind: 'block', changes, partly })
		this.busy = false
		if (answer.ok) return { ok: true, ...answer.value }
		// A refused change names its misfits in its details.
		const { misfits } = answer.refusal.details as { misfits?: readonly Misfit[] }
		return { ok: false, message: answer.refusal.message, misfits: misfits ?? [] }
	}
}

/** What brings things back: cells as they were, where they still stand as these changes leave them. */
function wayBack(changes: readonly GridChange[], { changed, rows }: BlockChanged, before: RowBefore): GridChange[] {
	return changes.flatMap((change, i): GridChange[] => {
		const done = changed[i]
		if (!done) return []
		if (change.kind === 'add' || change.kind === 'restore') return [{ kind: 'remove', row: done.row }]
		if (change.kind === 'remove') return [{ kind: 'restore', row: change.row }]
		const was = before(change.row)?.cells
		const now = rows[i]?.cells
		const cells = change.cells.flatMap(({ column }): CellChange[] => {
			const [old, stands] = [was?.[cellKey(column)], now?.[cellKey(column)]]
			// What this person could not see cannot be brought back by them.
			if (old === undefined || isHiddenCell(old)) return []
			const value = toInput(old)
			return [stands === undefined ? { column, value } : { column, value, was: stands }]
		})
		return cells.length === 0 ? [] : [{ kind: 'change', row: change.row, cells }]
	})
}

/** A cell that was read, as it would be sent. */
export function toInput(cell: WireCell | undefined): CellInput {
	if (isReferenceCell(cell)) return { id: cell.id }
	if (isFileCell(cell)) return { file: cell.file.sha }
	return cell === undefined || (cell !== null && typeof cell === 'object') ? null : cell
}
