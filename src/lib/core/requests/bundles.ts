/** A bundle that is given: looked at first, then put in. */
import { z } from 'zod'
import { MOST_BUNDLE_BYTES } from '../app/bundle.ts'
import type { Kinds } from './pair.ts'

const given = { name: z.string().trim().min(1).max(200), text: z.string().max(MOST_BUNDLE_BYTES) }

export const bundleRequestSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('look'), ...given }),
	z.object({ kind: z.literal('put'), ...given })
])
export type BundleRequests = Kinds<typeof bundleRequestSchema, { look: LookedAtBundle; put: PutBundle }>

/** What putting it in would make. */
export interface LookedAtBundle {
	readonly app: string
	readonly screens: readonly string[]
	readonly tables: readonly {
		readonly name: string
		readonly columns: number
		readonly rows: number
		/** How many lines of access come with it. */
		readonly lines: number
	}[]
	/** Roles of its lines and screens that are not here by that name. */
	readonly strange: readonly string[]
	readonly files: number
}

export interface PutBundle {
	/** Its number. */
	readonly app: number
	readonly tables: readonly { readonly id: number; readonly name: string }[]
	readonly rows: number
	/** What cannot be in this workspace, each with why. */
	readonly leftOut: readonly string[]
}
