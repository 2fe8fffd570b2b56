/** What documents of apps are written with: ids, numbers of tables and columns, words, formulas as text. */
import { z } from 'zod'

export const id = z.string().min(1).max(40)
export const number = z.number().int().positive()
export const words = z.string().max(200)
/** Words over several paragraphs. */
export const longWords = z.string().max(20_000)
export const formula = z.string().max(10_000)
