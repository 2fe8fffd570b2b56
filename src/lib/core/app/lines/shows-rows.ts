/** What lines that show rows otherwise than by a list have in common: what a tap opens, and what can be wrong with any of them. */
import type { Table } from '../../model/table.ts'
import { checkColumns, mistake, SCREEN_GONE, type Found } from '../../document/findings.ts'
import type { Slot } from '../../sentence/types.ts'
import type { Around } from './entry.ts'
import { checkRows } from './measured.ts'
import { checkWhom } from './parts.ts'
import { remarkUnseen } from './unseen.ts'

/** What is opened with the row that is tapped. */
export const TAP_OPENS: Slot = {
	...{ key: 'opens', type: 'screen', title: 'A screen', empty: 'nothing' },
	...{ before: '; a tap opens ', clause: 'a tap opens…' }
}

interface ShowsRows {
	readonly who: readonly number[]
	readonly columns: readonly number[]
	readonly where: string
	readonly once: string
	readonly opens: string | null
}

export function checkShowsRows({ who, columns, where, once, opens }: ShowsRows, table: Table, around: Around): Found[] {
	return [
		...checkWhom({ who }, around),
		...checkColumns(columns, table),
		...[where, once].flatMap((condition) => checkRows(condition, table, around)),
		...(opens !== null && !around.hasScreen(opens) ? mistake(SCREEN_GONE) : []),
		...remarkUnseen(table, around.lines)
	]
}
