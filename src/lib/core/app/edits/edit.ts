/**
 * A change of an app document by the ids of what it touches: what is sent when a builder saves, what takes it back, and
 * what two versions are compared by. Made and applied by its siblings.
 */
import { z } from 'zod'

export const LISTS = ['screens', 'routines', 'signoffs'] as const
export type ListName = (typeof LISTS)[number]

const id = z.string().min(1).max(40)

/** Where something stands: in one of the document's own lists, or among the lines of a screen. */
export const homeSchema = z.union([z.enum(LISTS), z.object({ screen: id, within: id.nullable() })])
export type Home = z.infer<typeof homeSchema>

/** What belongs to a thing itself; the lines that it holds are edited by themselves. */
const own = z.record(z.string(), z.unknown())
export type Own = z.infer<typeof own>

export const editSchema = z.discriminatedUnion('kind', [
	/** Of the app itself: its name, its colour. */
	z.object({ kind: z.literal('set'), key: z.string(), value: z.unknown(), was: z.unknown() }),
	z.object({
		kind: z.literal('put'),
		home: homeSchema,
		id,
		own,
		/** What it was; left out where it is new. */
		was: own.optional(),
		/** What it stands behind, null for the first; left out where it stays where it is. */
		after: id.nullable().optional()
	}),
	z.object({
		kind: z.literal('remove'),
		home: homeSchema,
		id,
		was: own,
		/** All that it holds, which goes with it. */
		holds: z.array(id)
	})
])
export type Edit = z.infer<typeof editSchema>
export type PutEdit = Extract<Edit, { kind: 'put' }>
export type RemoveEdit = Extract<Edit, { kind: 'remove' }>

/** Whether two values say the same as JSON, whatever the order of their keys. */
export function isSameJson(one: unknown, other: unknown): boolean {
	if (one === other) return true
	if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) return false
	if (Array.isArray(one) !== Array.isArray(other)) return false
	const [left, right] = [Object.entries(one), new Map(Object.entries(other))]
	return left.length === right.size && left.every(([key, value]) => right.has(key) && isSameJson(value, right.get(key)))
}
