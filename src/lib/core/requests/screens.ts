/** What staff are shown: an app, its screens, and the lines of one. */
import { z } from 'zod'
import { heldSchema, lineIdSchema, rowIdSchema } from './cells.ts'
import type { Pair, Sendable } from './pair.ts'
import type { ShownColumn } from './shown-column.ts'
import type {
	ListMark,
	ShownBoard,
	ShownCalendar,
	ShownChart,
	ShownDays,
	ShownFigure,
	ShownMap,
	ShownScatter
} from './shown-rows.ts'
import type { WireCell, WirePage, WireRow } from '../query/wire.ts'
import type { CaseOfRow } from './cases.ts'
import type { Group, Groups } from './rows.ts'
import type { FormVerdict } from './forms.ts'
import type { FileFormat } from '../exchange/file-formats.ts'
import type { Icon } from '../text/icons.ts'
import { filtersSchema } from '../query/filter.ts'
import type { AfterSending, FormOfList, Proportions, Tone } from '../sentence/slots/all.ts'

/** As text, by the names that they have there. */
export interface Given {
	readonly held: Readonly<Record<string, string>>
	/** Words, which stand in no log: they go into the fragment of an address. */
	readonly typed: Readonly<Record<string, string>>
}

/** Where an app stands for whoever uses it: its own address, or that of the Lookout. */
export type AppBase = `/app/${number}` | `/as/${string}`
/** Where one of its screens stands. */
export type ScreenPath = `${AppBase}/${string}`

export type ShownLine = { readonly id: string } & (
	| { readonly kind: 'heading'; readonly text: string }
	/** Made of Markdown by the server, in which nothing of the words or values is HTML. */
	| { readonly kind: 'text'; readonly html: string }
	| { readonly kind: 'divider' }
	| ({ readonly kind: 'picture'; readonly caption: string; readonly width: number | null } & ShownPicture)
	/** `film`: by the SHA-256 of its bytes; else it stands at an address on the web. */
	| { readonly kind: 'video'; readonly title: string; readonly film: string | null; readonly address: string }
	| {
			readonly kind: 'welcome'
			readonly pages: readonly ShownLeaf[]
			readonly last: string
			/** Where the last key leads; it only puts the pages away, where it is null. */
			readonly opens: string | null
			/** Whether the last key gives that screen something. */
			readonly gives: boolean
			readonly once: boolean
	  }
	/** `to`: the first screen, where it is null. */
	| { readonly kind: 'timer'; readonly seconds: number; readonly keeps: readonly string[]; readonly to: string | null }
	| ShownFrame<'section'>
	| ShownFrame<'fold'>
	| ShownFrame<'tab'>
	| { readonly kind: 'beside'; readonly as: Proportions; readonly lines: readonly ShownLine[] }
	| { readonly kind: 'buttons'; readonly lines: readonly ShownLine[] }
	| { readonly kind: 'tabs'; readonly lines: readonly ShownLine[] }
	| ShownList
	| {
			readonly kind: 'record'
			readonly table: number
			readonly title: string
			readonly label: number
			/** Those that stand in no part first. */
			readonly columns: readonly ShownColumn[]
			readonly parts: readonly {
				readonly id: string
				readonly title: string
				readonly columns: readonly ShownColumn[]
			}[]
			readonly tallies: readonly ShownTally[]
			/** Whether it stands in two columns, where there is room. */
			readonly isWide: boolean
			/** Whether it shows a row that is chosen in a list, and none is. */
			readonly waits: boolean
			readonly row: WireRow | null
			readonly signoff: CaseOfRow | null
	  }
	| {
			readonly kind: 'form'
			readonly table: number
			readonly title: string
			/** One without a title, where the form is not parted. */
			readonly pages: readonly ShownFormPage[]
			/** What its conditions come to before anything is typed; null where it has none to judge. */
			readonly verdict: FormVerdict | null
			/** Whether what is sent belongs to the row that the screen shows. */
			readonly isOfRow: boolean
			/** Whether it changes that row; then entries begin with what stands there. */
			readonly changes: boolean
			readonly then: AfterSending | null
			/** The screen that is opened once it is sent. */
			readonly opens: Opening | null
	  }
	| ({ readonly kind: 'steps' } & ShownSteps)
	| ({ readonly kind: 'board' } & ShownBoard)
	| ({ readonly kind: 'calendar' } & ShownCalendar)
	| ({ readonly kind: 'map' } & ShownMap)
	| ({ readonly kind: 'figure' } & ShownFigure)
	| ({ readonly kind: 'chart' } & ShownChart)
	| ({ readonly kind: 'days' } & ShownDays)
	| ({ readonly kind: 'scatter' } & ShownScatter)
	| ({ readonly kind: 'tally' } & ShownTally)
	| {
			readonly kind: 'rating'
			readonly label: string
			readonly row: string
			/** Marks go from 1 to this. */
			readonly most: number
			readonly mark: number | null
	  }
	| ({
			readonly kind: 'choose'
			readonly label: string
			readonly holds: string
			/** As it is held; blank where none is. */
			readonly chosen: string
	  } & ShownChoices)
	| {
			readonly kind: 'search'
			readonly label: string
			readonly sample: string
			readonly holds: string
			readonly typed: string
	  }
	| { readonly kind: 'scan'; readonly label: string }
	| {
			readonly kind: 'button'
			readonly label: string
			readonly icon: Icon | null
			/** Over its words. */
			readonly picture: ShownPicture | null
			readonly does: ButtonDoes
	  }
)

/** Questions one after the other, and the form that their answers fill in. */
export interface ShownSteps {
	readonly form: Extract<ShownLine, { kind: 'form' }>
	/** In their order, each by the entry that it fills in. */
	readonly asks: readonly ShownAsk[]
	/** In seconds. */
	readonly pause: number
}

export interface ShownAsk {
	readonly id: string
	readonly question: string
	/** None where it is typed. */
	readonly answers: readonly ShownAnswer[]
	readonly canSkip: boolean
}

export interface ShownAnswer {
	readonly value: WireCell
	readonly label: string
	readonly tone: Tone | null
	readonly picture: ShownPicture | null
}

/** A picture of the app: by the SHA-256 of its bytes, and in words. */
export interface ShownPicture {
	readonly sha: string
	readonly says: string
}

export interface ShownLeaf {
	readonly id: string
	readonly title: string
	readonly html: string
	readonly picture: ShownPicture | null
}

/** What one is chosen from. */
export interface ShownChoices {
	/** What they are values of, or by what the rows are known. */
	readonly column: ShownColumn
	/** Each as it is held, and as it is shown; none for a date, which is typed. */
	readonly options: readonly { readonly value: string; readonly cell: WireCell }[]
	/** Whether there are more than these. */
	readonly isCut: boolean
}

export interface ShownTally {
	readonly id: string
	readonly label: string
	/** The row that it counts on, and what stands there. */
	readonly row: string
	readonly column: ShownColumn
	readonly value: WireCell
	/** How much one press adds, as it is shown. */
	readonly amount: string
	readonly takesAway: boolean
}

export interface ShownFormPage {
	readonly id: string
	readonly title: string
	readonly parts: readonly ShownFormPart[]
}

export type ShownFormPart =
	ShownEntry | ShownItems | ShownWorked | Extract<ShownLine, { kind: 'heading' | 'text' | 'divider' }>

export interface ShownEntry {
	readonly kind: 'entry'
	readonly id: string
	readonly column: ShownColumn
	readonly help: string
	readonly sample: string
	/** What it begins with. */
	readonly starts: WireCell
	readonly remembers: boolean
	/** Whether it stands beside the entry before it, where there is room. */
	readonly isAbreast: boolean
	/** Whether what can be chosen depends on what was filled in. */
	readonly isNarrowed: boolean
}

export interface ShownItems {
	readonly kind: 'items'
	readonly id: string
	readonly title: string
	readonly least: number
	readonly parts: readonly (ShownEntry | ShownWorked)[]
}

/** A value that is worked out while one types. */
export interface ShownWorked {
	readonly kind: 'shown'
	readonly id: string
	readonly label: string
}

/** What a button does for whoever sees it. */
export type ButtonDoes =
	| ({ readonly kind: 'open' } & Opening)
	| { readonly kind: 'run' }
	/** Gives values to the screen that it opens, or to this one. */
	| { readonly kind: 'give'; readonly opens: string | null; readonly takesRow: boolean }
	| { readonly kind: 'link'; readonly address: string }
	| { readonly kind: 'copy link' }
	/** The first list of the screen, as a file. */
	| { readonly kind: 'export'; readonly format: FileFormat }
	/** Puts a value into the row of the screen. */
	| { readonly kind: 'put' }
	| { readonly kind: 'print' }
	| { readonly kind: 'start over' }

/** A screen that is opened, and whether it shows a row: then the one at hand goes along. */
export interface Opening {
	readonly opens: string
	readonly takesRow: boolean
}

export interface ShownFrame<K> {
	readonly kind: K
	readonly title: string
	readonly lines: readonly ShownLine[]
}

export interface ShownList {
	readonly kind: 'list'
	readonly table: number
	readonly title: string
	readonly as: FormOfList | null
	/** The day on whose evening it was so, as people write it; null where it is so now. */
	readonly asOf: string | null
	/** Whether it shows what belongs to the row of its screen. */
	readonly isOfRow: boolean
	readonly columns: readonly ShownColumn[]
	readonly page: WirePage
	/** Made-up rows, in the Lookout of a builder who keeps the table, while it is empty. */
	readonly samples: readonly WireRow[]
	/** Counted up to 1,000. */
	readonly count: number
	readonly opens: string | null
	readonly limit: number | null
	/** What is said where there is no row; the program's own words where it is blank. */
	readonly empty: string
	/** What the row is called that is chosen in it; none is, where it is blank. */
	readonly holds: string
	/** The name of the table of which a row must be chosen on the screen before there is anything to show; blank where one is. */
	readonly waitsFor: string
	readonly groups: ListGroups | null
	/** In their order; each row says which of them hold. */
	readonly marks: readonly ListMark[]
	readonly actions: readonly RowAction[]
	/** The column of the box on each row, where this person may tick it. */
	readonly ticks: ShownColumn | null
	readonly totals: readonly ListTotal[]
	readonly wide: readonly number[]
	readonly narrow: readonly number[]
	/** Whether words can be looked for, and the columns that it can be narrowed down by. */
	readonly finds: boolean
	readonly filters: readonly ShownColumn[]
	readonly narrowing: Narrowing
}

/** What can be done on a row of a list: a screen that it opens, or else a routine. */
export interface RowAction {
	readonly id: string
	readonly label: string
	readonly opens?: string
	/** It gives values to that screen, or to this one where it opens none; and its row, where that shows one. */
	readonly gives?: { readonly takesRow: boolean }
	/** For a set amount: whether it is added or taken away. */
	readonly tally?: 'more' | 'less'
	/** It puts a value into the row. */
	readonly puts?: true
}

/** Of the rows that the reader sees and whose cell they see; `unseen`: of how many rows the cell is kept back. */
export interface ListTotal {
	readonly column: ShownColumn
	readonly sum: number
	readonly unseen: number
}

/** `sums`: what the list adds up at its foot, for the group alone; each with the name of its column. */
export interface SummedGroup extends Group {
	readonly sums: readonly string[]
}

export interface ListGroups {
	readonly column: ShownColumn
	/** The most frequent values; those of a long tail are left out. */
	readonly counts: readonly SummedGroup[]
	readonly blank: number
	readonly blankSums: readonly string[]
}

/** What a reader of a list looks for in it. */
export const narrowingSchema = z.object({
	find: z.string().max(200),
	filters: filtersSchema,
	/** By what its reader orders it, before the list's own order. */
	sort: z.object({ column: z.number().int().positive(), descending: z.boolean() }).optional()
})
export type Narrowing = z.infer<typeof narrowingSchema>

export const listRequestSchema = z.object({
	line: lineIdSchema,
	after: z.string().max(4_000).optional(),
	/** How many rows, where they are read anew that were shown already. */
	limit: z.number().int().min(1).max(1_000).optional(),
	narrowing: narrowingSchema,
	/** The row that the screen shows, for a list of what belongs to it. */
	row: rowIdSchema.optional(),
	held: heldSchema
})
export const valuesRequestSchema = z.object({
	line: lineIdSchema,
	column: z.number().int().positive(),
	narrowing: narrowingSchema,
	row: rowIdSchema.optional(),
	held: heldSchema
})
export type ListValues = Pair<Sendable<z.input<typeof valuesRequestSchema>>, Groups | null>
export type ListPages = Pair<Sendable<z.input<typeof listRequestSchema>>, WirePage>

export interface ShownScreen {
	readonly app: {
		readonly id: number
		readonly name: string
		readonly colour: string
		/** Whether a picture stands for it. */
		readonly hasIcon: boolean
		readonly release: number | null
		/** The version of the draft that is shown; null where it is a release. */
		readonly draft: number | null
	}
	readonly screens: readonly OfferedScreen[]
	readonly screen: { readonly id: string; readonly title: string; readonly lines: readonly ShownLine[] } | null
	/** What its reader keeps of searches on it. */
	readonly kept: readonly KeptSearch[]
	/** The tables whose changes make this screen read again. */
	readonly tables: readonly number[]
}

/** What somebody looks for on a screen, under a name of their own. */
export interface KeptSearch {
	readonly id: number
	readonly name: string
	/** Of the address of the screen. */
	readonly query: string
	/** Of its fragment. */
	readonly words: string
}

/** One that stands in the navigation, by the word that it has there. */
export interface OfferedScreen {
	readonly id: string
	readonly title: string
	readonly icon: Icon | null
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
