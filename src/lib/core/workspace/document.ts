/**
 * The workspace document: tables, roles and access lines, as one versioned JSON text in an open format.
 *
 * It takes effect when it is saved; every saved version is kept. Formulas stand in it as text.
 * The published JSON Schema is made from this file: `/schema/workspace.json`.
 */
import { z } from 'zod'
import { VERBS } from '../access/types.ts'
import { LOCALES } from '../table/conventions.ts'
import { COLUMN_TYPES, ON_REMOVAL } from '../model/table.ts'

export const WORKSPACE_FORMAT = 2

const name = z.string().trim().min(1).max(80)
const id = z.number().int().positive()
const formula = z.string().max(10_000)

export const columnSchema = z.object({
	id,
	name,
	type: z.enum(COLUMN_TYPES),
	places: z.number().int().min(0).max(6).optional(),
	unit: z.string().max(20).optional(),
	choices: z.array(z.string().min(1).max(200)).max(500).optional(),
	to: id.optional(),
	reverseName: name.optional(),
	required: z.boolean().optional(),
	unique: z.boolean().optional(),
	/** No value twice among the rows in which this other column is the same. */
	uniqueWithin: id.optional(),
	/** For a reference: what becomes of these rows when the one they point to is removed; `keep` refuses that. */
	onRemoval: z.enum(ON_REMOVAL).optional(),
	/** Said wherever the column is offered. */
	about: z.string().max(500).optional(),
	/** What a new row gets where nothing was filled in: a formula over the row as it was sent. */
	otherwise: formula.optional(),
	/** Numbers each new row by a pattern: `SR-{year}-{0000}`. */
	numbering: z.string().max(60).optional(),
	formula: formula.optional(),
	vouched: z.boolean().optional(),
	/** A computed yes or no that is no column to look at but a named condition, for wherever rows are chosen. */
	condition: z.boolean().optional(),
	/** Of People: a steward lets builders write `me.` with it, though they do not see it of everybody. */
	openAsMe: z.boolean().optional()
})

export const tableSchema = z.object({
	id,
	name,
	keepers: z.array(id),
	label: id,
	columns: z.array(columnSchema).min(1).max(500),
	about: z.string().max(500).optional(),
	/** What must hold of every row, with the builder's own words for where it does not. */
	checks: z
		.array(z.object({ formula, message: z.string().trim().min(1).max(300) }))
		.max(50)
		.optional(),
	/** Who must, or must not, see which rows (by their number): asked again whenever who may see what is changed. */
	examples: z
		.array(z.object({ person: id, row: id, sees: z.boolean() }))
		.max(100)
		.optional(),
	/** Columns that were taken out, for thirty days; their values stay in the store. */
	removed: z.array(z.object({ column: columnSchema, position: z.number().int(), at: z.number() })).optional(),
	/** Where it was brought in from, for the list of sources. */
	source: z
		.object({
			file: z.string(),
			sheet: z.string().optional(),
			at: z.number(),
			/** Columns of which the file itself says that they name rows of another of its sheets, by that sheet's column. */
			references: z.array(z.object({ column: z.number().int(), sheet: z.string(), to: z.string() })).optional()
		})
		.optional()
})

export const roleSchema = z.object({
	id,
	name,
	includes: z.array(id),
	/** What the role is for, in its maker's words. */
	about: z.string().max(500).optional(),
	/** A condition over a row of the people table: whoever fits it holds the role. */
	where: formula.optional()
})

const columnScopeSchema = z.union([
	z.object({ kind: z.literal('all') }),
	z.object({ kind: z.enum(['only', 'except']), columns: z.array(id) })
])

export const lineSchema = z.object({
	id: z.string().min(1).max(40),
	table: id,
	role: id,
	verbs: z.array(z.enum(VERBS)).min(1),
	/** Blank means every row. */
	where: formula,
	after: formula.optional(),
	columns: columnScopeSchema
})

/** A table that was taken out, for thirty days; its rows stay in the store. */
const removedTableSchema = z.object({
	table: tableSchema,
	lines: z.array(lineSchema),
	/** What the other tables' names came to then: with others, its lines might mean something else. */
	names: z.string(),
	at: z.number()
})

export const workspaceSchema = z.object({
	format: z.literal(WORKSPACE_FORMAT),
	name,
	timeZone: z.string().min(1),
	/** Where dates and figures are written as here; as in the United Kingdom where nothing is said. */
	locale: z.enum(LOCALES).optional(),
	/** On which days of the week people work, Monday as 0, and between which times; Monday to Friday from nine to five where nothing is said. */
	work: z
		.object({ week: z.array(z.number().int().min(0).max(6)).min(1).max(7), from: z.string(), until: z.string() })
		.optional(),
	/** Days on which nobody works besides, in the order of the calendar. */
	holidays: z
		.array(z.object({ day: z.string().regex(/^\d{4}-\d{2}-\d{2}$/), name: z.string().max(80) }))
		.max(1_000)
		.optional(),
	people: id,
	tables: z.array(tableSchema),
	roles: z.array(roleSchema),
	lines: z.array(lineSchema),
	removed: z.array(removedTableSchema).optional()
})

export type WorkspaceDocument = z.infer<typeof workspaceSchema>
export type TableEntry = z.infer<typeof tableSchema>
export type ColumnEntry = z.infer<typeof columnSchema>
export type LineEntry = z.infer<typeof lineSchema>
export type RoleEntry = z.infer<typeof roleSchema>

/** Each step turns the format of its number into the next; applied on reading, so old documents need no migration. */
const UPGRADES: Readonly<Record<number, (old: Record<string, unknown>) => Record<string, unknown>>> = {
	// Format 1 had no time zone: every workspace lived by UTC.
	1: (old) => ({ ...old, format: 2, timeZone: 'UTC' })
}

/** Reads a stored document of any format so far. A newer one is refused, saying both numbers. */
export function parseWorkspace(json: string): WorkspaceDocument {
	let body = JSON.parse(json) as Record<string, unknown>
	for (;;) {
		const format = Number(body['format'])
		if (format === WORKSPACE_FORMAT) return workspaceSchema.parse(body)
		const upgrade = UPGRADES[format]
		if (!upgrade)
			throw new Error(
				`Cannot read workspace document: format "${format}", this program knows up to ${WORKSPACE_FORMAT}`
			)
		body = upgrade(body)
	}
}
