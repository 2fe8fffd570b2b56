/**
 * The app document: screens, routines and sign-offs, as one JSON text in an open format. It is drafted on the Bench and
 * released; staff see only what was released. Access is no part of it, so putting a release back never changes access.
 */
import { z } from 'zod'
import { appFile, formula, id, number, words } from '../document/parts.ts'
import { routineSchema } from '../routine/routine.ts'
import { STANDINGS } from '../sentence/slots/all.ts'
import { ICONS } from '../text/icons.ts'
import { isLineKind, screenLineSchema } from './lines/all.ts'
import { setAsideUnknown } from './lines/unknown.ts'

export const APP_FORMAT = 3

export const COLOURS = ['sea', 'bottle', 'plum', 'oxide', 'rope', 'slate'] as const

export const screenSchema = z.object({
	id,
	title: words,
	/** Null for a screen that stands in the navigation, unless it is opened from a row. */
	stands: z.enum(STANDINGS).nullable().default(null),
	/** What it is called there; its title where it is blank. */
	label: words.default(''),
	icon: z.enum(ICONS).nullable().default(null),
	/** The roles that it is for, and whose first screen it is; everybody, and nobody by name, where there are none. */
	who: z.array(number).default([]),
	first: z.array(number).default([]),
	/** Over nobody's row but the reader's own: to whom it holds, the app begins here. */
	begins: formula.default(''),
	lines: z.array(screenLineSchema)
})

export const signoffSchema = z.object({
	id,
	name: words,
	table: number,
	/** A row asks as soon as this holds for it; blank means when it is added. */
	where: formula,
	/** A formula that names the person who decides. */
	decider: formula,
	/** What the person who decides is shown, whatever the lines say. */
	columns: z.array(number),
	/** Tables whose rows belong to the request, by their reference to it: shown, and closed with it. */
	children: z.array(z.object({ table: number, column: number, columns: z.array(number) }))
})

export const appSchema = z.object({
	format: z.literal(APP_FORMAT),
	name: words.min(1),
	about: words,
	colour: z.enum(COLOURS),
	/** What stands for it on the face of a phone; its letters, where there is none. */
	icon: appFile.nullable().default(null),
	screens: z.array(screenSchema),
	routines: z.array(routineSchema),
	signoffs: z.array(signoffSchema)
})

export type AppDocument = z.infer<typeof appSchema>
/** A document as it is written by hand: what has a default may be left out. */
export type AppInput = z.input<typeof appSchema>
export type Screen = z.infer<typeof screenSchema>
export type ScreenInput = z.input<typeof screenSchema>
export type Signoff = z.infer<typeof signoffSchema>

type Json = Record<string, unknown>

/** Each step turns the format of its number into the next; applied on reading, so old releases keep working. */
const UPGRADES: Readonly<Record<number, (old: Json) => Json>> = {
	// Format 1 sorted lists one way only, by the number of a column.
	1: (old) => ({ ...old, format: 2, screens: mapLists(old, sortBothWays) }),
	// Format 2 sorted them by one column at most. That lines may hold lines, and be for some, needs no change of old ones.
	2: (old) => ({ ...old, format: 3, screens: mapLists(old, sortBySeveral) })
}

function mapLists(document: Json, map: (list: Json) => Json): Json[] {
	return asList(document['screens']).map((screen) => ({
		...screen,
		lines: asList(screen['lines']).map((line) => (line['kind'] === 'list' ? map(line) : line))
	}))
}

function sortBothWays({ sortBy, ...list }: Json): Json {
	return { ...list, sort: typeof sortBy === 'number' ? { column: sortBy, descending: false } : null }
}

function sortBySeveral({ sort, ...list }: Json): Json {
	return { ...list, sort: sort ? [sort] : [] }
}

function asList(value: unknown): Json[] {
	// JSON has lists of JSON only.
	return Array.isArray(value) ? (value as Json[]) : []
}

/** A newer program may have written lines of kinds that this one does not know: nothing of them is lost here. */
function screensAsKnown(body: Json): Json[] {
	return asList(body['screens']).map((screen) => ({ ...screen, lines: setAsideUnknown(screen['lines'], isLineKind) }))
}

/** Reads a stored document of any format so far. A newer one is refused, saying both numbers. */
export function parseApp(json: string): AppDocument {
	let body = JSON.parse(json) as Json
	for (;;) {
		const format = Number(body['format'])
		if (format === APP_FORMAT) return appSchema.parse({ ...body, screens: screensAsKnown(body) })
		const upgrade = UPGRADES[format]
		if (!upgrade)
			throw new Error(`Cannot read app document: format "${format}", this program knows up to ${APP_FORMAT}`)
		body = upgrade(body)
	}
}
