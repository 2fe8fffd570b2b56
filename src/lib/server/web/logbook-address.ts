/** What of the Logbook an address asks for: `?find=…&from=2026-11-01&to=…&before=…`. What cannot be read is left out. */
import { z } from 'zod'
import type { LogAsked } from '../logbook/logbook.ts'

const day = z
	.string()
	.regex(/^\d{4}-\d{2}-\d{2}$/)
	.catch('')
const addressSchema = z.object({
	find: z.string().trim().max(100).catch(''),
	from: day,
	to: day,
	before: z.coerce.number().int().positive().optional().catch(undefined)
})

export function readLogbookAddress(url: URL): {
	readonly asked: Omit<LogAsked, 'actor'>
	readonly shown: { readonly find: string; readonly from: string; readonly to: string }
} {
	const { before, ...shown } = addressSchema.parse(Object.fromEntries(url.searchParams))
	return { asked: { ...shown, before }, shown }
}
