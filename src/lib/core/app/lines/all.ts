/**
 * Every kind of line that a screen can have. A new one is one file beside its siblings, its schema in the union here and
 * its entry in the record: the compiler asks for the rest, on the server and on the screen too.
 */
import { z } from 'zod'
import { button, buttonSchema } from './button.ts'
import type { LineEntry } from './entry.ts'
import { form, formSchema } from './form.ts'
import { heading, headingSchema } from './heading.ts'
import { list, listSchema } from './list.ts'
import { record, recordSchema } from './record.ts'

export const screenLineSchema = z.discriminatedUnion('kind', [
	headingSchema,
	listSchema,
	recordSchema,
	formSchema,
	buttonSchema
])

export type ScreenLine = z.infer<typeof screenLineSchema>
export type LineKind = ScreenLine['kind']
export type LineOf<K extends LineKind> = Extract<ScreenLine, { kind: K }>

export const SCREEN_LINES: { readonly [K in LineKind]: LineEntry<LineOf<K>> } = { heading, list, button, record, form }

export const SCREEN_SENTENCES = Object.values(SCREEN_LINES).map(({ sentence }) => sentence)

/** What is known of the kind of a line. */
export function entryOfLine(line: ScreenLine): LineEntry<ScreenLine> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return SCREEN_LINES[line.kind] as LineEntry<ScreenLine>
}
