/**
 * The app document: screens, routines and sign-offs, as one JSON text in an open format. It is drafted on the Bench and
 * released; staff see only what was released. Access is no part of it, so putting a release back never changes access.
 */
import { z } from 'zod'

export const APP_FORMAT = 2

const id = z.string().min(1).max(40)
const number = z.number().int().positive()
const words = z.string().max(200)
const formula = z.string().max(10_000)

export const COLOURS = ['sea', 'bottle', 'plum', 'oxide', 'rope', 'slate'] as const

const sortSchema = z.object({ column: number, descending: z.boolean() })

export const headingSchema = z.object({ id, kind: z.literal('heading'), text: words })

export const listSchema = z.object({
	id,
	kind: z.literal('list'),
	table: number,
	where: formula,
	sort: sortSchema.nullable(),
	/** What each row shows: the first big, the others small. */
	columns: z.array(number),
	/** The screen that a row opens. */
	opens: id.nullable()
})

export const recordSchema = z.object({ id, kind: z.literal('record'), table: number, columns: z.array(number) })

export const formSchema = z.object({
	id,
	kind: z.literal('form'),
	table: number,
	columns: z.array(number),
	/** What is said after sending. */
	thanks: words
})

export const buttonSchema = z.object({
	id,
	kind: z.literal('button'),
	label: words,
	does: z.union([z.object({ kind: z.literal('open'), screen: id }), z.object({ kind: z.literal('run'), routine: id })])
})

export const screenLineSchema = z.discriminatedUnion('kind', [
	headingSchema,
	listSchema,
	recordSchema,
	formSchema,
	buttonSchema
])

export const screenSchema = z.object({ id, title: words, lines: z.array(screenLineSchema) })

export const setStepSchema = z.object({ id, kind: z.literal('set'), column: number, formula })
export const sendStepSchema = z.object({
	id,
	kind: z.literal('send'),
	/** A formula that names a person. */
	to: formula,
	/** Text with formulas in braces, worked out as the recipient may see them. */
	subject: words,
	body: z.string().max(5_000)
})

export const routineSchema = z.object({
	id,
	name: words,
	start: z.discriminatedUnion('kind', [
		z.object({ kind: z.literal('button'), table: number }),
		z.object({
			kind: z.literal('rows'),
			table: number,
			when: z.enum(['added', 'changed', 'added or changed']),
			where: formula
		})
	]),
	steps: z.array(z.discriminatedUnion('kind', [setStepSchema, sendStepSchema]))
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
	screens: z.array(screenSchema),
	routines: z.array(routineSchema),
	signoffs: z.array(signoffSchema)
})

export type AppDocument = z.infer<typeof appSchema>
export type Screen = z.infer<typeof screenSchema>
export type ScreenLine = z.infer<typeof screenLineSchema>
export type ListLine = z.infer<typeof listSchema>
export type FormLine = z.infer<typeof formSchema>
export type RecordLine = z.infer<typeof recordSchema>
export type ButtonLine = z.infer<typeof buttonSchema>
export type HeadingLine = z.infer<typeof headingSchema>
export type Routine = z.infer<typeof routineSchema>
export type Step = Routine['steps'][number]
export type SendStep = z.infer<typeof sendStepSchema>
export type SetStep = z.infer<typeof setStepSchema>
export type Signoff = z.infer<typeof signoffSchema>

type Json = Record<string, unknown>

/** Each step turns the format of its number into the next; applied on reading, so old releases keep working. */
const UPGRADES: Readonly<Record<number, (old: Json) => Json>> = {
	// Format 1 sorted lists one way only, by the number of a column.
	1: (old) => ({ ...old, format: 2, screens: asList(old['screens']).map(upgradeScreen) })
}

function upgradeScreen(screen: Json): Json {
	return { ...screen, lines: asList(screen['lines']).map(upgradeLine) }
}

function upgradeLine(line: Json): Json {
	if (line['kind'] !== 'list') return line
	const { sortBy, ...rest } = line
	return { ...rest, sort: typeof sortBy === 'number' ? { column: sortBy, descending: false } : null }
}

function asList(value: unknown): Json[] {
	return Array.isArray(value) ? (value as Json[]) : []
}

/** Reads a stored document of any format so far. A newer one is refused, saying both numbers. */
export function parseApp(json: string): AppDocument {
	let body = JSON.parse(json) as Json
	for (;;) {
		const format = Number(body['format'])
		if (format === APP_FORMAT) return appSchema.parse(body)
		const upgrade = UPGRADES[format]
		if (!upgrade)
			throw new Error(`Cannot read app document: format "${format}", this program knows up to ${APP_FORMAT}`)
		body = upgrade(body)
	}
}
