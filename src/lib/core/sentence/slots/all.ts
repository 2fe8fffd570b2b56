/**
 * Every type of slot that a sentence can have. A new one is its value's type here and its entry in the record; the compiler
 * asks for the rest, the editor on the Bench too.
 */
import type { ColumnScope, Verb } from '../../access/types.ts'
import type { AppFile } from '../../document/parts.ts'
import { fileOf } from './app-file.ts'
import { children, type Child } from './children.ts'
import { column, columns, scope, sorts, type Sort } from './columns.ts'
import { count, formulaText, oneOf, pieces, plainText, type SlotEntry } from './entry.ts'
import { does, type Does } from './does.ts'
import { role, roles, routine, screen, sharedLines, signoff, table } from './named.ts'
import { ARRANGEMENTS, grouping, measure, type Arrangement, type Grouping, type Measure } from './measure.ts'
import { CALENDAR_VIEWS, type CalendarView } from '../../schedule/shown-period.ts'
import { ICONS, type Icon } from '../../text/icons.ts'
import { aWhile, days, recurrence, span, timeOfDay, type Span, type While } from './times.ts'
import { verbs } from './verbs.ts'

/** What a mark says of its row: it is past, needs a look, is sound, is for later, is finished. */
export const TONES = ['past', 'look', 'sound', 'later', 'finished'] as const
/** How lines that stand side by side share the width. */
export const PROPORTIONS = ['1 to 1', '1 to 2', '2 to 1', '1 to 1 to 1'] as const
/** How the rows of a list stand, where they are not lines one under the other. */
export const FORMS_OF_LIST = ['a table', 'cards'] as const
/** What a form does once it is sent, where it does not stay, empty. */
export const AFTER_SENDING = ['goes back', 'shows only that'] as const
/** What a form changes, where it does not only add. */
export const CHANGING = ['the row that is shown'] as const
/** Where an entry of a form stands, if not under the one before. */
export const ABREAST = ['beside the one before'] as const
/** What an entry of a form remembers from one time to the next, on its device. */
export const REMEMBERED = ['what was sent last'] as const
export type FormOfList = (typeof FORMS_OF_LIST)[number]
export type AfterSending = (typeof AFTER_SENDING)[number]
export type Remembered = (typeof REMEMBERED)[number]
export type Tone = (typeof TONES)[number]
export type Proportions = (typeof PROPORTIONS)[number]
/** Where a screen stands, where that is not in the navigation. */
export const STANDINGS = ['by link only', 'only as lines of other screens'] as const
/** Whether what adds can take away too. */
export const TAKING_AWAY = ['takes it away too'] as const
/** Whether a sheet stands in two columns where there is room. */
export const ACROSS = ['in two columns'] as const
/** What a screen holds, of what a link or a button gives it. */
export const HELD_KINDS = ['a row', 'a text', 'a number', 'a date', 'yes or no'] as const
/** How often pages of a welcome are shown to somebody on one device, where that is not always. */
export const ONCE = ['once to each person'] as const
/** Whether a question at a counter can be left unanswered. */
export const SKIPPED = ['which may be skipped'] as const
export const WHEN = ['added', 'changed', 'added or changed', 'removed'] as const
/** On which side of a date. */
export const SIDES = ['before', 'after'] as const
/** What becomes of the times at which the program did not run. */
export const MISSED = ['once for all', 'each', 'not at all'] as const
/** As which file a report comes besides. */
export const ATTACHED = ['an XLSX file', 'an ODS file', 'a CSV file', 'a PDF file'] as const
/** Whether a report is sent where it has nothing to show. */
export const WHERE_NONE = ['there are none'] as const
/** What a sign-off came to. */
export const DECISIONS = ['approved', 'declined', 'approved or declined'] as const
/** On which row a routine opens a screen. */
export const OPENED_ROWS = ['this row', 'the row that was added'] as const
/** Whether something may go to who is nobody here. */
export const OUTSIDE = ['an address outside'] as const
/** Rows that start nothing, though they fit. */
export const NOT_STARTING = ['files that come in'] as const

/** What stands in a slot of each type, where it is not blank. */
export interface SlotValues {
	text: string
	/** One line of words with formulas in braces, and several. */
	subject: string
	message: string
	/** A formula that is true or not. */
	condition: string
	/** A formula that gives a value. */
	formula: string
	/** A formula that names a person. */
	person: string
	table: number
	column: number
	columns: readonly number[]
	sorts: readonly Sort[]
	role: number
	roles: readonly number[]
	count: number
	tone: Tone
	proportions: Proportions
	'form of list': FormOfList
	'after sending': AfterSending
	remembered: Remembered
	verbs: readonly Verb[]
	'column scope': ColumnScope
	screen: string
	'shared lines': string
	routine: string
	'sign-off': string
	/** The name of another program. */
	program: string
	does: Does
	when: (typeof WHEN)[number]
	side: (typeof SIDES)[number]
	span: Span
	while: While
	missed: (typeof MISSED)[number]
	recurrence: string
	'time of day': string
	days: number
	standing: (typeof STANDINGS)[number]
	icon: Icon
	'taking away': (typeof TAKING_AWAY)[number]
	across: (typeof ACROSS)[number]
	'held kind': (typeof HELD_KINDS)[number]
	changing: (typeof CHANGING)[number]
	abreast: (typeof ABREAST)[number]
	once: (typeof ONCE)[number]
	picture: AppFile
	film: AppFile
	ground: AppFile
	children: readonly Child[]
	measure: Measure
	grouping: Grouping
	arrangement: Arrangement
	'calendar view': CalendarView
	skipped: (typeof SKIPPED)[number]
	attached: (typeof ATTACHED)[number]
	decision: (typeof DECISIONS)[number]
	outside: (typeof OUTSIDE)[number]
	'not starting': (typeof NOT_STARTING)[number]
	'opened row': (typeof OPENED_ROWS)[number]
	'where none': (typeof WHERE_NONE)[number]
}

export type SlotType = keyof SlotValues

export const SLOTS: { readonly [T in SlotType]: SlotEntry<SlotValues[T]> } = {
	text: plainText,
	subject: pieces,
	message: pieces,
	condition: formulaText,
	formula: formulaText,
	person: formulaText,
	table,
	column,
	columns,
	sorts,
	role,
	roles,
	count,
	tone: oneOf(TONES),
	proportions: oneOf(PROPORTIONS),
	'form of list': oneOf(FORMS_OF_LIST),
	'after sending': oneOf(AFTER_SENDING),
	remembered: oneOf(REMEMBERED),
	verbs,
	'column scope': scope,
	screen,
	'shared lines': sharedLines,
	routine,
	'sign-off': signoff,
	program: plainText,
	does,
	when: oneOf(WHEN),
	side: oneOf(SIDES),
	span,
	while: aWhile,
	missed: oneOf(MISSED),
	recurrence,
	'time of day': timeOfDay,
	days,
	standing: oneOf(STANDINGS),
	icon: oneOf(ICONS),
	'taking away': oneOf(TAKING_AWAY),
	across: oneOf(ACROSS),
	'held kind': oneOf(HELD_KINDS),
	changing: oneOf(CHANGING),
	abreast: oneOf(ABREAST),
	once: oneOf(ONCE),
	picture: fileOf('picture'),
	film: fileOf('film'),
	ground: fileOf('ground'),
	children,
	measure,
	grouping,
	arrangement: oneOf(ARRANGEMENTS),
	'calendar view': oneOf(CALENDAR_VIEWS),
	skipped: oneOf(SKIPPED),
	attached: oneOf(ATTACHED),
	decision: oneOf(DECISIONS),
	outside: oneOf(OUTSIDE),
	'not starting': oneOf(NOT_STARTING),
	'opened row': oneOf(OPENED_ROWS),
	'where none': oneOf(WHERE_NONE)
}

/** What is known of a type of slot. */
export function entryOfSlot(type: SlotType): SlotEntry<unknown> {
	// Type by type the record holds this; what stands in a line is what was read for the slot or chosen in it.
	return SLOTS[type] as SlotEntry<unknown>
}
