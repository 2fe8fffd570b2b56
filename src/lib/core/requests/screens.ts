/** What staff are shown: an app, its screens, and the lines of one. */
import { z } from 'zod'
import { cellChangesSchema, rowIdSchema } from './cells.ts'
import type { Changed } from '../query/change.ts'
import type { Kinds, Pair, Sendable } from './pair.ts'
import type { ShownColumn } from './shown-column.ts'
import type { WirePage, WireRow } from '../query/wire.ts'
import type { CaseOfRow } from './cases.ts'

const line = z.string().max(40)

/** What staff do on a screen: send a form, change or remove a row, press a button. */
export const screenRequestSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('form'), line, cells: cellChangesSchema }),
	z.object({ kind: z.literal('change'), line, row: rowIdSchema, cells: cellChangesSchema }),
	z.object({ kind: z.literal('remove'), line, row: rowIdSchema }),
	z.object({ kind: z.literal('press'), line, row: rowIdSchema })
])
export type ScreenRequests = Kinds<typeof screenRequestSchema, { form: Changed; change: Changed }>

/** Begins to look at the draft of an app as somebody sees it; the token is this builder's alone. */
export const lookSchema = z.object({ app: z.number().int(), person: z.number().int() })
export type Look = Pair<Sendable<z.input<typeof lookSchema>>, { readonly token: string }>

/** Where an app stands for whoever uses it: its own address, or that of the Lookout. */
export type AppBase = `/app/${number}` | `/as/${string}`
/** Where one of its screens stands. */
export type ScreenPath = `${AppBase}/${string}`

export type ShownLine = { readonly id: string } & (
	| { readonly kind: 'heading'; readonly text: string }
	| ShownList
	| {
			readonly kind: 'record'
			readonly table: number
			readonly title: string
			readonly label: number
			readonly columns: readonly ShownColumn[]
			readonly row: WireRow | null
			readonly signoff: CaseOfRow | null
	  }
	| {
			readonly kind: 'form'
			readonly table: number
			readonly title: string
			readonly columns: readonly ShownColumn[]
			readonly thanks: string
	  }
	| { readonly kind: 'button'; readonly label: string; readonly opens?: string; readonly runs?: string }
)

export interface ShownList {
	readonly kind: 'list'
	readonly table: number
	readonly title: string
	readonly columns: readonly ShownColumn[]
	readonly page: WirePage
	/** Counted up to 1,000. */
	readonly count: number
	readonly opens: string | null
}

export interface ShownScreen {
	readonly app: { readonly id: number; readonly name: string; readonly colour: string; readonly release: number | null }
	readonly screens: readonly { readonly id: string; readonly title: string }[]
	readonly screen: { readonly id: string; readonly title: string; readonly lines: readonly ShownLine[] } | null
	/** The tables whose changes make this screen read again. */
	readonly tables: readonly number[]
}

export interface StaffPage {
	readonly main: ShownScreen
	/** The list that the row was opened from, shown beside it where there is room. */
	readonly beside: ShownScreen | null
	readonly row: string | null
	readonly from: string | null
	readonly base: AppBase
	/** Who is looked as, in the Lookout. */
	readonly lookingAs: string | null
	/** Whether something was tried: then a copy of the data is shown. */
	readonly onCopy: boolean
}
