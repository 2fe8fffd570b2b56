/** An app printed in its sentences: to be searched, compared and read as a book. */
import { entryOfStart, entryOfStep, tableOfStart, type Routine } from '../routine/routine.ts'
import { placedSteps } from '../routine/step-tree.ts'
import { asLine } from '../sentence/line-values.ts'
import { printLine, printText } from '../sentence/print.ts'
import type { LineValue, Segment, SentenceKind } from '../sentence/types.ts'
import type { Vocabulary } from '../sentence/vocabulary.ts'
import { SIGNOFF_LINE } from '../signoff/sentence.ts'
import type { AppDocument, Screen, Signoff } from './document.ts'
import type { Edit, Own } from './edits/edit.ts'
import { itemsOf, keyOf } from './edits/items.ts'
import { entryOfLine, type ScreenLine } from './lines/all.ts'
import { tableAround } from './lines/new-line.ts'
import { placedLines } from './lines/tree.ts'
import { SCREEN_LINE } from './screen-line.ts'

export type Bay = 'screens' | 'routines' | 'sign-offs'

export interface PrintedLine {
	readonly id: string
	readonly text: string
	readonly segments: readonly Segment[]
	/** 0 for what stands by itself. */
	readonly level: number
	/** As it is counted on the Bench; blank for what has no number there. */
	readonly number: string
}

/** A screen, a routine or a sign-off. */
export interface PrintedPart {
	readonly bay: Bay
	readonly id: string
	readonly title: string
	readonly lines: readonly PrintedLine[]
}

/** What sentences may name: of the workspace as it is, and of the document itself. */
export type Names = Omit<Vocabulary, 'screens' | 'routines' | 'signoffs'>

export function printApp(document: AppDocument, names: Names): PrintedPart[] {
	const vocabulary = vocabularyOf(document, names)
	return [
		...document.screens.map((screen): PrintedPart => ({
			...{ bay: 'screens', id: screen.id, title: screen.title },
			lines: [printHead(screen, vocabulary), ...printLines(screen.lines, vocabulary)]
		})),
		...document.routines.map((routine): PrintedPart => ({
			...{ bay: 'routines', id: routine.id, title: routine.name },
			lines: printRoutine(routine, vocabulary)
		})),
		...document.signoffs.map((signoff): PrintedPart => ({
			...{ bay: 'sign-offs', id: signoff.id, title: signoff.name },
			lines: [printSignoff(signoff, vocabulary)]
		}))
	]
}

export function vocabularyOf({ screens, routines, signoffs }: AppDocument, names: Names): Vocabulary {
	return { ...names, screens, routines, signoffs }
}

/** Parts that hold all of some words, in any order, each with the lines that do. Blank words find nothing. */
export function findInApp(parts: readonly PrintedPart[], words: string): PrintedPart[] {
	const sought = words.toLocaleLowerCase().split(/\s+/).filter(Boolean)
	if (sought.length === 0) return []
	return parts.flatMap((part) => {
		const title = part.title.toLocaleLowerCase()
		const inTitle = sought.every((word) => title.includes(word))
		const lines = part.lines.filter(({ text }) => {
			const said = text.toLocaleLowerCase()
			return sought.every((word) => said.includes(word))
		})
		return inTitle || lines.length > 0 ? [{ ...part, lines }] : []
	})
}

/** What an edit would make of its place, and what stands there; blank for nothing. */
export function printEdit(
	document: AppDocument,
	edit: Edit,
	vocabulary: Vocabulary
): { readonly mine: string; readonly theirs: string } {
	if (edit.kind === 'set')
		return { mine: String(edit.value), theirs: String((document as Readonly<Record<string, unknown>>)[edit.key]) }
	const there = itemsOf(document).find((item) => keyOf(item) === keyOf(edit))
	const say = (own: Own) => printOwn(document, edit, own, vocabulary)
	return { mine: edit.kind === 'remove' ? '' : say(edit.own), theirs: there ? say(there.own) : '' }
}

/** A screen, line, routine or sign-off by itself. */
function printOwn(
	document: AppDocument,
	{ home }: Exclude<Edit, { kind: 'set' }>,
	own: Own,
	vocabulary: Vocabulary
): string {
	// Each was read by the schema of what stands in that place.
	if (home === 'screens') return `${String(own['title'])}. ${printHead(own as Screen, vocabulary).text}`
	if (home === 'routines') {
		const lines = printRoutine(own as Routine, vocabulary).map(({ text }) => text)
		return [own['name'], ...lines].join('. ')
	}
	if (home === 'signoffs') return `${String(own['name'])}. ${printSignoff(own as Signoff, vocabulary).text}`
	const line = own as unknown as ScreenLine
	const screen = document.screens.find(({ id }) => id === home.screen)
	const holder = placedLines(screen?.lines ?? []).find((placed) => placed.line.id === home.within)
	const within = holder ? [...holder.within, holder.line] : []
	return printText(entryOfLine(line).sentence.kind, line, vocabulary, tableAround(within))
}

function printHead(screen: Screen, vocabulary: Vocabulary): PrintedLine {
	return { ...printed(SCREEN_LINE.kind, asLine(screen), vocabulary, undefined), id: screen.id, level: 0, number: '' }
}

function printLines(lines: readonly ScreenLine[], vocabulary: Vocabulary): PrintedLine[] {
	return placedLines(lines).map(({ line, level, number, within }) => ({
		...printed(entryOfLine(line).sentence.kind, line, vocabulary, tableAround(within)),
		...{ id: line.id, level, number: String(number) }
	}))
}

function printRoutine(routine: Routine, vocabulary: Vocabulary): PrintedLine[] {
	const { id, start } = routine
	const begun = printed(entryOfStart(start).sentence.kind, asLine(routine), vocabulary, tableOfStart(start))
	return [
		{ ...begun, id, level: 0, number: '' },
		...placedSteps(routine).map(({ step, level, number, table, holds }) => ({
			...printed(entryOfStep(step).sentence.kind, step, vocabulary, holds ?? table),
			...{ id: step.id, level: level + 1, number: String(number) }
		}))
	]
}

function printSignoff(signoff: Signoff, vocabulary: Vocabulary): PrintedLine {
	const { id, table } = signoff
	return { ...printed(SIGNOFF_LINE.kind, asLine(signoff), vocabulary, table), id, level: 0, number: '' }
}

function printed(
	kind: SentenceKind,
	line: LineValue,
	vocabulary: Vocabulary,
	table: number | undefined
): Pick<PrintedLine, 'text' | 'segments'> {
	const segments = printLine(kind, line, vocabulary, table)
	return { segments, text: segments.map(({ text }) => text).join('') }
}
