import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
import type { ListRows } from './list-rows.svelte.ts'
import type { RowGroup, RowLook } from './row-look.ts'
import type { SeveralRows } from './several-rows.svelte.ts'

/** What shows the rows of a list is given, whichever way they stand. */
export interface RowsProps {
	readonly line: ShownList & { readonly id: string }
	readonly rows: ListRows
	readonly groups: readonly RowGroup[]
	readonly look: RowLook
	readonly path: ScreenPath
	readonly base: string
	/** The screen that the list stands on, to come back to. */
	readonly from: string
	/** The row that is open beside it, or chosen in it. */
	readonly selected: string | null
	readonly several: SeveralRows
	/** Rows that somebody else has changed since they were last looked at. */
	readonly changed: readonly string[] | undefined
	/** Called with a row that is chosen among several, or no longer. */
	readonly onchoose: (event: Event, id: string) => void
}
