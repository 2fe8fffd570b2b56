/**
 * Everything a builder writes is a line: a sentence with slots. A kind of line describes its sentence here, and one
 * engine prints, parses and edits them all.
 */
import type { SlotType } from './slots/all.ts'

export interface Slot {
	/** Where the value stands in the line; a dot goes deeper. */
	readonly key: string
	readonly type: SlotType
	/** What the slot is called when it opens. */
	readonly title: string
	/** Words that stand before the slot only when it is filled. */
	readonly before?: string
	/** Words that what stands in it may begin with, where no fixed words stand before it. */
	readonly begins?: readonly string[]
	/** Whether its formula may read of whoever looks or presses, as `me`; it may where nothing is said. */
	readonly me?: boolean
	/** The key of the reference whose rows its formula stands on; the row of the line is then `this`. */
	readonly through?: string
	/** Whether its formula stands on the row around, not on those of the line's own table. */
	readonly isOuter?: true
	/** What is shown when it is blank. Without it a blank slot asks to be filled. */
	readonly empty?: string
	/** A clause: printed only when it is filled, with `before`; until then it is offered in these words, after "and…". */
	readonly clause?: string
}

export type Part = string | Slot

export interface SentenceKind {
	readonly kind: string
	/** One sentence about what the line does, for whoever adds one. */
	readonly about: string
	readonly parts: readonly Part[]
	/** The parts that this line shows, where some only matter to some lines. */
	readonly shown?: (line: LineValue) => readonly Part[]
	/** What it is offered as, where it begins with a slot. */
	readonly offer?: string
	/** The slot that names the table whose columns the other slots mean; the line's own table, if there is none. */
	readonly tableKey?: string
}

/** A printed piece of a sentence. */
export type Segment =
	| { readonly kind: 'words'; readonly text: string }
	| {
			readonly kind: 'slot'
			readonly slot: Slot
			readonly text: string
			readonly filled: boolean
			readonly mono: boolean
	  }

export type LineValue = Readonly<Record<string, unknown>>

export interface Sentence {
	readonly kind: SentenceKind
	/** A new line of the kind, with all its slots blank. */
	readonly blank: LineValue
}

export type ParsedLine =
	{ readonly ok: true; readonly line: LineValue } | { readonly ok: false; readonly message: string }
