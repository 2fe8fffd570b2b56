/** What staff do on a screen, and what they are answered. */
import { z } from 'zod'
import type { Changed } from '../query/change.ts'
import { cellChangesSchema, heldSchema, lineIdSchema, rowIdSchema } from './cells.ts'
import { itemsSchema } from './forms.ts'
import type { Kinds, Sendable } from './pair.ts'

/** Part of an address that says what lists show and what is held: names that begin with one of some letters and a dot. */
function stateOf(letters: string) {
	const isState = (text: string) =>
		[...new URLSearchParams(text).keys()].every((name) => letters.includes(name[0] ?? ' ') && name[1] === '.')
	return z.string().max(4_000).refine(isState, 'This is nothing that a screen looks for.')
}

/** What one press does on one row. */
const pressSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('press'), line: lineIdSchema, row: rowIdSchema }),
	/** The box of a row in a list. */
	z.object({ kind: z.literal('tick'), line: lineIdSchema, row: rowIdSchema, on: z.boolean() }),
	/** A set amount, added or taken away. */
	z.object({ kind: z.literal('tally'), line: lineIdSchema, row: rowIdSchema, less: z.boolean() }),
	/** What a line puts into a column of a row. */
	z.object({ kind: z.literal('put'), line: lineIdSchema, row: rowIdSchema }),
	/** To another lane of a board, blank for none; or to the day of a calendar that it begins on. */
	z.object({ kind: z.literal('move'), line: lineIdSchema, row: rowIdSchema, to: z.string().max(200) }),
	/** Of a map whose places are called at in an order. */
	z.object({
		...{ kind: z.literal('order'), line: lineIdSchema, row: rowIdSchema, held: heldSchema },
		to: z.union([z.enum(['last', 'out']), z.object({ before: rowIdSchema })])
	}),
	z.object({
		kind: z.literal('rate'),
		line: lineIdSchema,
		row: rowIdSchema,
		mark: z.number().int().min(1).max(10).nullable()
	})
])
export type Press = Sendable<z.input<typeof pressSchema>>

const MOST_PRESSED = 200
/** As many as a calendar shows of a month. */
const MOST_DAYS = 42

/** What staff do on a screen: send a form, change or remove a row, press a button. */
export const screenRequestSchema = z.discriminatedUnion('kind', [
	/** `row`: the row that the screen shows, for a form that belongs to it. */
	z.object({
		...{ kind: z.literal('form'), line: lineIdSchema, cells: cellChangesSchema, items: itemsSchema },
		...{ row: rowIdSchema.optional(), held: heldSchema }
	}),
	z.object({ kind: z.literal('change'), line: lineIdSchema, row: rowIdSchema, cells: cellChangesSchema }),
	z.object({ kind: z.literal('remove'), line: lineIdSchema, row: rowIdSchema }),
	...pressSchema.options,
	/** A code that was scanned or typed: on the row that has it. */
	z.object({ kind: z.literal('scan'), line: lineIdSchema, code: z.string().trim().min(1).max(200) }),
	/** The same on several rows: each is done or refused by itself. */
	z.object({ kind: z.literal('press all'), presses: z.array(pressSchema).min(1).max(MOST_PRESSED) }),
	/** Into which lanes a card may be moved, or an entry to which of some days, asked before it is. */
	z.object({
		kind: z.literal('moves'),
		line: lineIdSchema,
		row: rowIdSchema,
		to: z.array(z.iso.date()).max(MOST_DAYS).optional()
	}),
	/** What is looked for, kept under a name: the query of the address, and the words of its fragment. */
	z.object({
		...{ kind: z.literal('keep search'), name: z.string().trim().min(1).max(60) },
		...{ query: stateOf('fhs'), words: stateOf('fh') }
	}),
	z.object({ kind: z.literal('forget search'), id: z.number().int() }),
	/** `entry`: what was just done, as its answer says. */
	z.object({ kind: z.literal('take back'), entry: z.number().int() })
])
export type ScreenRequests = Kinds<
	typeof screenRequestSchema,
	{
		form: FormSent
		change: Changed
		scan: Pressed
		'press all': readonly PressedOne[]
		moves: readonly Move[]
	} & Record<Press['kind'], Pressed>
>

/** `says`: in the builder's words, with what was sent. */
export interface FormSent extends Changed {
	readonly says: string
}

export interface Pressed {
	/** By which it can be taken back; null where nothing was written. */
	readonly entry: number | null
	/** What the button says then, in its builder's words. */
	readonly says?: string
	/** The screen that is opened then, and on which row. */
	readonly opens?: { readonly screen: string; readonly row: string | null }
}

/** What moving a card to a lane, or an entry to a day, would come to. */
export interface Move {
	readonly to: string
	/** Why it would be refused; null where it would not. */
	readonly refused: string | null
}

/** Of several presses, in their order. */
export type PressedOne = Pressed | { readonly refused: string }
