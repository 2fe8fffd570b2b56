/** Writes a document for somebody and sends it to them as PDF: what stands in it is lines of their own, as they see the rows. */
import { z } from 'zod'
import { holdsFile } from '../capture/attachment.ts'
import { checkPerson } from '../document/check-person.ts'
import { checkColumns, mistake, SCREEN_GONE, TABLE_GONE } from '../document/findings.ts'
import { formula, id, number, words } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'
import { findColumn } from '../model/table.ts'
import { checkWordsLater } from './check-words.ts'
import { PLAIN_STEP, scopeAt, scopeOfReader, type StepEntry } from './step-entry.ts'

export const documentStepSchema = z.object({
	...{ id, kind: z.literal('document'), to: formula },
	/** What it is called, and the message that it comes with: text with formulas in braces, as its reader may see them. */
	subject: words,
	body: z.string().max(5_000),
	/** The screen of the app that the link of its message opens. */
	opens: id.nullish()
})
export type DocumentStep = z.infer<typeof documentStepSchema>

export const headingStepSchema = z.object({ id, kind: z.literal('heading'), text: words })
export const wordsStepSchema = z.object({ id, kind: z.literal('words'), text: z.string().max(5_000) })
export const valuesStepSchema = z.object({ id, kind: z.literal('values'), columns: z.array(number) })
export const pictureStepSchema = z.object({ id, kind: z.literal('picture'), column: number })
export const listStepSchema = z.object({
	...{ id, kind: z.literal('list'), table: number, where: formula },
	...{ sort: z.array(z.object({ column: number, descending: z.boolean() })), columns: z.array(number) }
})
/** A document with what stands in it. */
export const wholeDocumentSchema = documentStepSchema.extend({
	lines: z.array(
		z.discriminatedUnion('kind', [
			headingStepSchema,
			wordsStepSchema,
			valuesStepSchema,
			listStepSchema,
			pictureStepSchema
		])
	)
})
export type WholeDocument = z.infer<typeof wholeDocumentSchema>
export type HeadingStep = z.infer<typeof headingStepSchema>
export type WordsStep = z.infer<typeof wordsStepSchema>
export type ValuesStep = z.infer<typeof valuesStepSchema>
export type PictureStep = z.infer<typeof pictureStepSchema>
export type ListStep = z.infer<typeof listStepSchema>

export const documentStep: StepEntry<DocumentStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'document',
			about: 'Writes a document of headings, words, values, rows and pictures, and sends it to somebody as PDF',
			parts: [
				'Write for ',
				{ key: 'to', type: 'person', title: 'a formula that names a person' },
				' the document ',
				{ key: 'subject', type: 'subject', title: 'what it is called' },
				', with the words ',
				{ key: 'body', type: 'message', title: 'the words of its message', empty: 'none' },
				{
					...{ key: 'opens', type: 'screen', title: 'The screen that its link opens on the row' },
					...{ before: '; it opens ', clause: 'it opens a screen…' }
				}
			]
		},
		blank: { kind: 'document', to: '', subject: '', body: '', lines: [] }
	},
	holds: ['heading', 'words', 'values', 'list', 'picture'],
	needsRow: false,
	check({ to, subject, body, opens }, around) {
		const screen = opens ?? undefined
		return [
			...checkPerson(to, scopeAt(around, around.hasMe)),
			...(subject.trim() === '' ? mistake('It is not called anything yet.') : []),
			...checkWordsLater([subject, body], around),
			...(screen === undefined || around.hasScreen(screen) ? [] : mistake(SCREEN_GONE))
		]
	}
}

/** What stands in a document holds nothing, and nowhere else. */
const IN_DOCUMENT = { ...PLAIN_STEP, isInner: true, needsRow: false } as const

export const headingStep: StepEntry<HeadingStep> = {
	...IN_DOCUMENT,
	sentence: {
		kind: {
			kind: 'heading',
			about: 'A heading in the document',
			parts: ['Heading ', { key: 'text', type: 'subject', title: 'the heading' }]
		},
		blank: { kind: 'heading', text: '' }
	},
	check: ({ text }, around) => checkWordsLater([text], around)
}

export const wordsStep: StepEntry<WordsStep> = {
	...IN_DOCUMENT,
	sentence: {
		kind: {
			kind: 'words',
			about: 'Paragraphs in the document, with values in braces',
			parts: ['Words ', { key: 'text', type: 'message', title: 'the words' }]
		},
		blank: { kind: 'words', text: '' }
	},
	check: ({ text }, around) => checkWordsLater([text], around)
}

export const valuesStep: StepEntry<ValuesStep> = {
	...IN_DOCUMENT,
	sentence: {
		kind: {
			kind: 'values',
			about: 'Columns of the row, each with its name',
			parts: ['Values of ', { key: 'columns', type: 'columns', title: 'columns of the row' }]
		},
		blank: { kind: 'values', columns: [] }
	},
	needsRow: true,
	check: ({ columns }, { table }) => (table ? checkColumns(columns, table) : [])
}

export const pictureStep: StepEntry<PictureStep> = {
	...IN_DOCUMENT,
	sentence: {
		kind: {
			kind: 'picture',
			about: 'A photo, a drawing or a signature of the row',
			parts: ['Picture in ', { key: 'column', type: 'column', title: 'a column of the row' }]
		},
		blank: { kind: 'picture', column: null }
	},
	needsRow: true,
	check({ column: id }, { table }) {
		const column = table && findColumn(table, id)
		if (!table) return []
		if (!column) return mistake(`A column it shows is no longer in ${table.name}.`)
		return holdsFile(column) && column.type !== 'file' ? [] : mistake(`${column.name} holds no pictures.`)
	}
}

export const listStep: StepEntry<ListStep> = {
	...IN_DOCUMENT,
	sentence: {
		kind: {
			kind: 'list',
			about: 'Rows of a table in the document; of those that belong to the row at hand, where that is said',
			tableKey: 'table',
			parts: [
				'Rows of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				{ key: 'where', type: 'condition', title: 'Which rows', before: 'where ', empty: 'whatever they say' },
				', by ',
				{ key: 'sort', type: 'sorts', title: 'Order', empty: 'the order they came in' },
				', showing ',
				{ key: 'columns', type: 'columns', title: 'columns' }
			]
		},
		blank: { kind: 'list', table: null, where: '', sort: [], columns: [] }
	},
	readsRows: true,
	check({ table: id, where, columns }, { catalogue, table: outer, ...around }) {
		const table = catalogue.tables.get(id)
		if (!table) return mistake(TABLE_GONE)
		const scope = scopeOfReader({ ...around, catalogue, table, outer })
		const issues = where.trim() === '' ? [] : checkCondition(where, scope).issues
		return [...checkColumns(columns, table), ...issues.flatMap(({ message }) => mistake(message))]
	}
}
