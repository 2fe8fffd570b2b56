/**
 * Many changes at once, as a paste or a fill makes them: all of them, or those that fit. Each goes through `changeRows`
 * on its own, so one that is refused leaves nothing, and is told apart by its place.
 */
import type { BlockChanged, Misfit } from '$lib/core/requests/rows.ts'
import { countOf } from '$lib/core/text/count.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { CellChange, Change, Changed } from '$lib/core/query/change.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { Store } from '../store/store.ts'
import { noteRefusal } from '../history/note-refusal.ts'
import { readRows } from './read.ts'
import { changeRows } from './change.ts'
import type { ChangeContext } from './change-context.ts'

export interface Block {
	readonly changes: readonly Change[]
	/** Whether those that fit go in although others do not. */
	readonly partly: boolean
	readonly context: ChangeContext
}

const MOST_READ = 1_000

/** Puts a block in. Where one does not fit and `partly` is not set, none goes in and all misfits are named. */
export function changeBlock(store: Store, { changes, partly, context }: Block): BlockChanged {
	const misfits: Misfit[] = []
	/** How many of them for want of a right. */
	let refused = 0
	const attempt = (change: Change, at: number): Changed | undefined => {
		try {
			const [changed] = store.db.transaction(() => changeRows(store, [change], context))()
			for (const conflict of changed?.conflicts ?? [])
				misfits.push({ at, column: conflict.column, message: 'Somebody else has changed it meanwhile.', conflict })
			return changed
		} catch (error) {
			if (!(error instanceof AppError)) throw error
			if (error.code === 'forbidden') refused++
			const column = error.details['column']
			misfits.push({ at, column: typeof column === 'number' ? column : undefined, message: error.message })
			return undefined
		}
	}
	const changed = changes.map((change, at) => (partly ? attemptCells(change, at, attempt) : attempt(change, at)))
	if (misfits.length > 0 && !partly) {
		const message = `${misfits.length} of ${countOf(changes.length, 'row')} ${misfits.length === 1 ? 'does' : 'do'} not fit. Nothing was put in.`
		throw new AppError(refused > 0 ? 'forbidden' : 'invalid', message, { misfits: misfits.slice(0, 200) })
	}
	if (refused > 0) {
		const message = `${refused} of ${countOf(changes.length, 'row')} may not be changed so.`
		noteRefusal(store, { changes, context }, new AppError('forbidden', message))
	}
	const rows = changed
		.slice(0, MOST_READ)
		.map((each, at) => each && readBack(store, changes[at]?.table ?? 0, each.row, context))
	return { changed, misfits, rows }
}

function readBack(store: Store, table: number, row: string, { actor, now }: ChangeContext): WireRow | undefined {
	return readRows(store, actor, { table, row, offers: true }, now).rows[0]
}

/** A row of which one cell does not fit still takes the others. */
function attemptCells(
	change: Change,
	at: number,
	attempt: (change: Change, at: number) => Changed | undefined
): Changed | undefined {
	if (change.kind !== 'change' || change.cells.length < 2) return attempt(change, at)
	const single = (cell: CellChange): Change => ({ ...change, cells: [cell] })
	return change.cells.map((cell) => attempt(single(cell), at)).findLast((changed) => changed !== undefined)
}
