/** Coasts of the world that are to be drawn under a map. */
import { z } from 'zod'
import type { TakenAppFile } from './app-files.ts'
import type { Pair, Sendable } from './pair.ts'

/** The table whose rows lie on them. */
export const coastsSchema = z.object({ table: z.number().int() })
export type TakeCoasts = Pair<Sendable<z.input<typeof coastsSchema>>, TakenAppFile>
