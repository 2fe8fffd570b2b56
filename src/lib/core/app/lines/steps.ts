import { z } from 'zod'
import { checkCondition } from '../../formula/check/check.ts'
import { findColumn, type Column, type Table } from '../../model/table.ts'
import { mistake, type Found } from '../../document/findings.ts'
import { appFile, formula, number, words } from '../../document/parts.ts'
import { TYPED } from '../../model/writing.ts'
import { SKIPPED, TONES } from '../../sentence/slots/all.ts'
import { nameKey } from '../../text/key.ts'
import { findKind } from '../../table/kinds/all.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import type { EntryLine } from './entry-line.ts'
import { form, type FormLine } from './form.ts'
import { checkPieces, checkWhom, lineParts, remarkUnsaid, withWhom } from './parts.ts'
import type { TreeLine } from './tree.ts'
import { givenBy } from './with.ts'

export const stepsSchema = z.object({
	...lineParts,
	kind: z.literal('steps'),
	table: number,
	/** What is said after the last answer; formulas in braces read the row. */
	thanks: words,
	/** How long it says so before it begins again, in seconds. Common practice: five, against repeated taps. */
	pause: number.min(1).max(60).default(5)
})
export const askSchema = z.object({
	...lineParts,
	kind: z.literal('ask'),
	column: number,
	/** In the builder's words, with values in braces; what the column is called, where it is blank. */
	question: words.default(''),
	/** Where this does not hold it is left out. */
	when: formula.default(''),
	skips: z.enum(SKIPPED).nullable().default(null)
})
export const answerSchema = z.object({
	...lineParts,
	kind: z.literal('answer'),
	/** As the column reads it. */
	value: words,
	/** On its key; the value itself, where it is blank. */
	label: words.default(''),
	tone: z.enum(TONES).nullable().default(null),
	picture: appFile.nullable().default(null)
})

export type StepsLine = z.infer<typeof stepsSchema> & { readonly lines: readonly TreeLine[] }
export type AskLine = z.infer<typeof askSchema> & { readonly lines: readonly TreeLine[] }
export type AnswerLine = z.infer<typeof answerSchema>

/** At a counter: one question after the other, each answered by a tap. */
export const steps: LineEntry<StepsLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'steps',
			about:
				'Questions at a counter, one after the other, each answered by a tap; then it begins again for the next person',
			tableKey: 'table',
			parts: withWhom(
				'Questions one by one that add to ',
				{ key: 'table', type: 'table', title: 'a table' },
				'; afterwards they say ',
				{ key: 'thanks', type: 'subject', title: 'What is said after the last answer', empty: 'Thank you.' },
				' for ',
				{ key: 'pause', type: 'count', title: 'How long, in seconds' },
				' seconds'
			)
		},
		blank: { kind: 'steps', table: null, thanks: '', pause: 5, who: [], lines: [] }
	},
	holds: ['ask', 'with'],
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		const unknown = givenBy(line).find(({ as }) => table && !columnCalled(as, table))
		return [
			...form.check(asForm(line, table), around),
			...(unknown ? mistake(`${table?.name} has no column "${unknown.as}" that could be given a value.`) : [])
		]
	}
}

export const ask: LineEntry<AskLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'ask',
			about:
				'One of the questions, and the column that the answer goes into; without answers of its own it offers the choices',
			parts: withWhom(
				'Ask ',
				{ key: 'question', type: 'subject', title: 'the question', empty: 'what the column is called' },
				', answered in ',
				{ key: 'column', type: 'column', title: 'a column' },
				{ key: 'when', type: 'condition', title: 'Asked only when', before: ', only when ', clause: 'only when…' },
				{
					key: 'skips',
					type: 'skipped',
					title: 'Whether it must be answered',
					before: ', ',
					clause: 'which may be skipped'
				}
			)
		},
		blank: { kind: 'ask', column: null, question: '', when: '', skips: null, who: [], lines: [] }
	},
	holds: ['answer'],
	isInner: true,
	written: ({ column }) => [column],
	check(line, around) {
		const table = around.table === undefined ? undefined : around.catalogue.tables.get(around.table)
		const column = table && findColumn(table, line.column)
		if (!table || !column) return mistake('The column that the answer goes into is gone.')
		if (column.computed) return mistake(`"${column.name}" is computed: nobody fills it in.`)
		return [
			...checkWhom(line, around),
			...checkPieces(line.question, around),
			...checkWhen(line, table, around),
			...line.lines.flatMap((each) => (isAnswer(each) ? checkAnswer(each, column) : []))
		]
	}
}

export const answer: LineEntry<AnswerLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'answer',
			about: 'A key for one answer: in words of your own, in a colour, with a picture',
			parts: withWhom(
				'Answer ',
				{ key: 'value', type: 'text', title: 'what goes into the column' },
				{ key: 'label', type: 'text', title: 'What stands on its key', before: ', said as ', clause: 'said as…' },
				{ key: 'tone', type: 'tone', title: 'Its colour', before: ', coloured as ', clause: 'coloured as…' },
				{
					key: 'picture',
					type: 'picture',
					title: 'Its picture',
					before: ', with the picture ',
					clause: 'with a picture…'
				}
			)
		},
		blank: { kind: 'answer', value: '', label: '', tone: null, picture: null, who: [] }
	},
	isInner: true,
	check: (line, around) => [
		...checkWhom(line, around),
		...remarkUnsaid(line.picture, line.label || line.value),
		...(line.value.trim() === '' ? mistake('Say what goes into the column when this is tapped.') : [])
	]
}

/** Its questions, in their order. */
export function asksOf({ lines }: Pick<StepsLine, 'lines'>): readonly AskLine[] {
	return lines.filter((line): line is AskLine => line.kind === 'ask')
}

export function answersOf({ lines }: Pick<AskLine, 'lines'>): readonly AnswerLine[] {
	return lines.filter(isAnswer)
}

/** The form that asks the same: what is judged and sent is that of a form. What is given to it fills a column unasked. */
export function asForm(line: StepsLine, table: Table | undefined): FormLine & { readonly lines: readonly EntryLine[] } {
	const none = { columns: [], of: null, changes: null, then: null, opens: null }
	const given = givenBy(line).flatMap(({ id, who, value, as }) => {
		const column = table && columnCalled(as, table)
		return column ? [{ ...PLAIN_ENTRY, id, who, column: column.id, starts: value }] : []
	})
	const asked = asksOf(line).map(({ id, who, column, when, skips }) => ({
		...PLAIN_ENTRY,
		...{ id, who, column, when, must: skips === null ? 'TRUE' : '' }
	}))
	return {
		id: line.id,
		who: line.who,
		kind: 'form',
		table: line.table,
		thanks: line.thanks,
		...none,
		lines: [...given, ...asked]
	}
}

const PLAIN_ENTRY = {
	...{ kind: 'entry' as const, help: '', sample: '', starts: '', remembers: null, stands: null, when: '', must: '' },
	...{ unless: '', says: '', from: '' }
}

function columnCalled(name: string, { columns }: Table): Column | undefined {
	return columns.find((column) => nameKey(column.name) === nameKey(name))
}

function isAnswer(line: TreeLine): line is AnswerLine {
	return line.kind === 'answer'
}

function checkWhen({ when }: AskLine, table: Table, { catalogue, here }: Around): Found[] {
	if (when.trim() === '') return []
	const { issues } = checkCondition(when, { catalogue, rows: [table], me: true, here })
	return issues.flatMap(({ message }) => mistake(message))
}

function checkAnswer({ value }: AnswerLine, column: Column): Found[] {
	if (value.trim() === '') return []
	const read = findKind(column.type)?.read(value, column, TYPED)
	return read === undefined || read.ok ? [] : mistake(`"${value}" does not go into ${column.name}: ${read.message}`)
}
