/**
 * Every kind of line that a screen can have. A new one is one file beside its siblings, its schema in the union here and
 * its entry in the record: the compiler asks for the rest, on the server and on the screen too.
 */
import { z } from 'zod'
import type { Sentence } from '../../sentence/types.ts'
import { board, boardSchema } from './board.ts'
import { button, buttonSchema } from './button.ts'
import { calendar, calendarSchema } from './calendar.ts'
import { chart, chartSchema } from './chart.ts'
import { choose, chooseSchema } from './choose.ts'
import { divider, dividerSchema } from './divider.ts'
import type { LineEntry } from './entry.ts'
import { entry, entrySchema } from './entry-line.ts'
import { figure, figureSchema } from './figure.ts'
import { filter, filterSchema } from './filter.ts'
import { form, formSchema } from './form.ts'
import { items, itemsSchema, page, pageSchema, shown, shownSchema } from './form-parts.ts'
import {
	beside,
	besideSchema,
	buttons,
	buttonsSchema,
	fold,
	foldSchema,
	section,
	sectionSchema,
	tab,
	tabSchema,
	tabs,
	tabsSchema
} from './frames.ts'
import { heading, headingSchema } from './heading.ts'
import { hold, holdSchema } from './hold.ts'
import { list, listSchema } from './list.ts'
import { map, mapSchema } from './map.ts'
import { mark, markSchema } from './mark.ts'
import { part, partSchema } from './part.ts'
import { picture, pictureSchema } from './picture.ts'
import { put, putSchema } from './put.ts'
import { rating, ratingSchema } from './rating.ts'
import { record, recordSchema } from './record.ts'
import { scan, scanSchema } from './scan.ts'
import { scatter, scatterSchema } from './scatter.ts'
import { search, searchSchema } from './search.ts'
import { shared, sharedSchema } from './shared.ts'
import { answer, answerSchema, ask, askSchema, steps, stepsSchema } from './steps.ts'
import { tally, tallySchema } from './tally.ts'
import { text, textSchema } from './text.ts'
import { timer, timerSchema } from './timer.ts'
import type { MayHold } from './tree.ts'
import { unknown, unknownSchema } from './unknown.ts'
import { video, videoSchema } from './video.ts'
import { leaf, leafSchema, welcome, welcomeSchema } from './welcome.ts'
import { given, withSchema } from './with.ts'

/** Kinds that hold no line. */
const PLAIN = [
	headingSchema,
	textSchema,
	dividerSchema,
	pictureSchema,
	videoSchema,
	leafSchema,
	answerSchema,
	markSchema,
	partSchema,
	tallySchema,
	putSchema,
	ratingSchema,
	timerSchema,
	chooseSchema,
	entrySchema,
	shownSchema,
	scanSchema,
	searchSchema,
	filterSchema,
	holdSchema,
	unknownSchema,
	figureSchema,
	chartSchema,
	scatterSchema,
	withSchema
] as const

type Holder = { readonly lines: readonly ScreenLine[] }
type HolderInput = { readonly lines?: readonly ScreenLineInput[] | undefined }

export type ScreenLine =
	| z.infer<(typeof PLAIN)[number]>
	| (z.infer<typeof sectionSchema> & Holder)
	| (z.infer<typeof foldSchema> & Holder)
	| (z.infer<typeof besideSchema> & Holder)
	| (z.infer<typeof tabsSchema> & Holder)
	| (z.infer<typeof tabSchema> & Holder)
	| (z.infer<typeof listSchema> & Holder)
	| (z.infer<typeof boardSchema> & Holder)
	| (z.infer<typeof calendarSchema> & Holder)
	| (z.infer<typeof mapSchema> & Holder)
	| (z.infer<typeof recordSchema> & Holder)
	| (z.infer<typeof formSchema> & Holder)
	| (z.infer<typeof stepsSchema> & Holder)
	| (z.infer<typeof askSchema> & Holder)
	| (z.infer<typeof pageSchema> & Holder)
	| (z.infer<typeof itemsSchema> & Holder)
	| (z.infer<typeof buttonSchema> & Holder)
	| (z.infer<typeof buttonsSchema> & Holder)
	| (z.infer<typeof sharedSchema> & Holder)
	| (z.infer<typeof welcomeSchema> & Holder)

/** A line as it is written: what has a default may be left out. */
export type ScreenLineInput =
	| z.input<(typeof PLAIN)[number]>
	| (z.input<typeof sectionSchema> & HolderInput)
	| (z.input<typeof foldSchema> & HolderInput)
	| (z.input<typeof besideSchema> & HolderInput)
	| (z.input<typeof tabsSchema> & HolderInput)
	| (z.input<typeof tabSchema> & HolderInput)
	| (z.input<typeof listSchema> & HolderInput)
	| (z.input<typeof boardSchema> & HolderInput)
	| (z.input<typeof calendarSchema> & HolderInput)
	| (z.input<typeof mapSchema> & HolderInput)
	| (z.input<typeof recordSchema> & HolderInput)
	| (z.input<typeof formSchema> & HolderInput)
	| (z.input<typeof stepsSchema> & HolderInput)
	| (z.input<typeof askSchema> & HolderInput)
	| (z.input<typeof pageSchema> & HolderInput)
	| (z.input<typeof itemsSchema> & HolderInput)
	| (z.input<typeof buttonSchema> & HolderInput)
	| (z.input<typeof buttonsSchema> & HolderInput)
	| (z.input<typeof sharedSchema> & HolderInput)
	| (z.input<typeof welcomeSchema> & HolderInput)

const lines = z.lazy(() => z.array(screenLineSchema)).default([])

export const screenLineSchema: z.ZodType<ScreenLine, ScreenLineInput> = z.discriminatedUnion('kind', [
	...PLAIN,
	sectionSchema.extend({ lines }),
	foldSchema.extend({ lines }),
	besideSchema.extend({ lines }),
	tabsSchema.extend({ lines }),
	tabSchema.extend({ lines }),
	listSchema.extend({ lines }),
	boardSchema.extend({ lines }),
	calendarSchema.extend({ lines }),
	mapSchema.extend({ lines }),
	recordSchema.extend({ lines }),
	formSchema.extend({ lines }),
	stepsSchema.extend({ lines }),
	askSchema.extend({ lines }),
	pageSchema.extend({ lines }),
	itemsSchema.extend({ lines }),
	buttonSchema.extend({ lines }),
	buttonsSchema.extend({ lines }),
	sharedSchema.extend({ lines }),
	welcomeSchema.extend({ lines })
])

export type LineKind = ScreenLine['kind']
export type LineOf<K extends LineKind> = Extract<ScreenLine, { kind: K }>

/** In the order in which they are offered. */
export const SCREEN_LINES: { readonly [K in LineKind]: LineEntry<LineOf<K>> } = {
	...{
		heading,
		text,
		picture,
		video,
		welcome,
		leaf,
		list,
		mark,
		board,
		calendar,
		map,
		figure,
		chart,
		scatter,
		record,
		part,
		tally,
		put,
		rating,
		search,
		filter,
		choose,
		form,
		entry,
		items,
		shown,
		steps,
		ask,
		answer
	},
	...{ page, button, scan, buttons, with: given, hold },
	...{ section, beside, tabs, tab, fold, shared, divider, timer, unknown }
}

/** What is known of the kind of a line. */
export function entryOfLine(line: ScreenLine): LineEntry<ScreenLine> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return SCREEN_LINES[line.kind] as LineEntry<ScreenLine>
}

/** Whether a line, or one that it holds, shows one row, so that its screen is reached from a row alone. */
export function showsRow(lines: readonly ScreenLine[]): boolean {
	return lines.some((line) => entryOfLine(line).showsRow(line) || ('lines' in line && showsRow(line.lines)))
}

/** Whether a line of one kind may stand in one of another; `undefined` for the screen itself. */
export const mayHold: MayHold = (holder, kind) => {
	const isInner = entryOfKind(kind)?.isInner ?? false
	if (holder === undefined) return !isInner
	const holds = entryOfKind(holder)?.holds ?? []
	return holds === 'parts' ? !isInner : holds.includes(kind)
}

/** The sentences that may be added within a line of this kind, or on the screen itself. */
export function sentencesWithin(holder: string | undefined): Sentence[] {
	return SCREEN_SENTENCES.filter(({ kind }) => mayHold(holder, kind.kind))
}

/** Of the kinds that a builder can add. */
export const SCREEN_SENTENCES: readonly Sentence[] = Object.values(SCREEN_LINES).flatMap(({ sentence, isAdded }) =>
	isAdded ? [sentence] : []
)

export function isLineKind(kind: string): boolean {
	return kind in SCREEN_LINES
}

function entryOfKind(kind: string): LineEntry<never> | undefined {
	// An entry takes any line that its own schema read; which one is known at run time only.
	return isLineKind(kind) ? (SCREEN_LINES[kind as LineKind] as LineEntry<never>) : undefined
}
