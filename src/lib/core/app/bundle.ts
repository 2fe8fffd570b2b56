/**
 * A bundle: an app with the tables that it is about, their rows and their lines of access, for another workspace. An open
 * format: JSON, its schema published as `/schema/bundle.json`. Numbers hold within the file alone; people are in none.
 */
import { z } from 'zod'
import { formula, id as short, number } from '../document/parts.ts'
import { columnSchema, lineSchema, tableSchema } from '../workspace/document.ts'
import { appSchema } from './document.ts'

export const BUNDLE_FORMAT = 1
/** In all of its tables: more are brought in from files. */
export const MOST_BUNDLED = 20_000
/** Of a bundle as text, in bytes. */
export const MOST_BUNDLE_BYTES = 32 * 1024 * 1024

const name = z.string().trim().min(1).max(80)
const rowId = z.string().min(1).max(64)
const cell = z.union([z.string().max(100_000), z.number(), z.boolean(), z.null(), z.object({ row: rowId })])

export const bundleTableSchema = tableSchema
	.pick({ id: true, name: true, label: true, columns: true, about: true, checks: true })
	.extend({
		/** By its column, as `c17`; what is blank is left out. */
		rows: z.array(z.object({ id: rowId, cells: z.record(z.string().regex(/^c\d{1,9}$/), cell) })).max(MOST_BUNDLED)
	})

export const bundleSchema = z.object({
	bundle: z.literal(BUNDLE_FORMAT),
	/** As its own schema has it, or as an earlier one had. */
	app: z.unknown(),
	/** The table of people, which stays behind: what of it is named, by which it is found again. */
	people: z.object({ id: number, columns: z.array(columnSchema.pick({ id: true, name: true })).max(500) }),
	roles: z.array(z.object({ id: number, name })).max(500),
	tables: z.array(bundleTableSchema).max(100),
	access: z.array(lineSchema.extend({ where: formula, id: short })).max(2_000),
	/** Pictures, films and grounds that the app shows. */
	files: z
		.array(
			z.object({
				sha: z.string().regex(/^[0-9a-f]{64}$/),
				kind: z.enum(['picture', 'film', 'ground']),
				base64: z.base64()
			})
		)
		.max(100)
})

/** As it is published: with the app's own schema in its place. */
export const publishedBundleSchema = bundleSchema.extend({ app: appSchema })

export type Bundle = z.infer<typeof bundleSchema>

/** As it leaves: with what stays behind, in words. */
export interface SavedBundle extends Bundle {
	readonly leftOut: readonly string[]
}

export type BundleTable = z.infer<typeof bundleTableSchema>
export type BundleRow = BundleTable['rows'][number]
export type BundleCell = BundleRow['cells'][string]
