/** What documents of apps are written with: ids, numbers of tables and columns, words, formulas as text. */
import { z } from 'zod'

export const id = z.string().min(1).max(40)
export const number = z.number().int().positive()
export const words = z.string().max(200)
/** Words over several paragraphs. */
export const longWords = z.string().max(20_000)
/** A picture or a film that an app shows by itself: by the SHA-256 of its bytes, and as it was called where it came from. */
export const appFile = z.object({ sha: z.string().regex(/^[0-9a-f]{64}$/), name: words })
export type AppFile = z.infer<typeof appFile>

export const formula = z.string().max(10_000)
/** How long something waits, or how often it comes. */
export const SPANS = ['minutes', 'hours', 'working hours', 'days', 'working days'] as const
export const aWhile = z.object({ many: z.number().int().min(1).max(10_000), span: z.enum(SPANS) })
