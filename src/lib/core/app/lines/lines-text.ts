/**
 * Lines of a screen as text, each in its exact sentence, those that one holds two spaces further in: it comes back as the same
 * lines, in another screen or another app, under new ids. A name that is not known there is left blank and said.
 *
 *     Section [Due this week]
 *       List of [Moorings] where [due soon], by [Next due, soonest first]; each row shows [Code]; a tap opens []
 *         Mark [past due] as [past] where [Next due < TODAY()]
 */
import { printExact, readExactAt } from '../../sentence/exact.ts'
import { tableOf } from '../../sentence/print.ts'
import type { Vocabulary } from '../../sentence/vocabulary.ts'
import { entryOfLine, screenLineSchema, SCREEN_SENTENCES, type ScreenLine } from './all.ts'
import { tableAround } from './new-line.ts'
import { insertLine, type Spot } from './tree.ts'

const STEP = '  '

export function linesToText(lines: readonly ScreenLine[], vocabulary: Vocabulary): string {
	return printAll(lines, vocabulary, { table: undefined, indent: '' }).join('\n')
}

export interface PastedLines {
	readonly lines: readonly ScreenLine[]
	/** What of the text could not be taken, in words. */
	readonly problems: readonly string[]
}

/** `newId` gives each line a fresh one. Undefined where the text holds no line. */
export function linesFromText(text: string, vocabulary: Vocabulary, newId: () => string): PastedLines | undefined {
	let lines: ScreenLine[] = []
	const problems: string[] = []
	/** The lines that hold what comes next, the outermost first, with how far in they stand. */
	let open: readonly { readonly line: ScreenLine; readonly indent: number }[] = []
	let at = 0
	while (at < text.length) {
		const start = /^[ \n\r\t]*/.exec(text.slice(at))?.[0] ?? ''
		const indent = start.split('\n').at(-1)?.replaceAll('\t', STEP).length ?? 0
		at += start.length
		if (at >= text.length) break
		open = open.filter((each) => each.indent < indent)
		const found = readExactAt(text, at, SCREEN_SENTENCES, {
			vocabulary,
			problems,
			table: tableAround(open.map(({ line }) => line))
		})
		const end = found?.end ?? (text.indexOf('\n', at) === -1 ? text.length : text.indexOf('\n', at))
		const parsed = found?.parsed
		const line = parsed?.ok ? screenLineSchema.safeParse({ ...parsed.line, id: newId() }).data : undefined
		if (line) {
			const holder = open.at(-1)?.line
			const spot: Spot = holder ? { lastIn: holder.id } : 'end'
			lines = insertLine(lines, line, spot)
			open = [...open, { line, indent }]
		} else problems.push(parsed && !parsed.ok ? parsed.message : `"${text.slice(at, end).slice(0, 60)}" is no line.`)
		at = end
	}
	return lines.length === 0 ? undefined : { lines, problems }
}

interface Within {
	readonly table: number | undefined
	readonly indent: string
}

function printAll(lines: readonly ScreenLine[], vocabulary: Vocabulary, { table, indent }: Within): string[] {
	return lines.flatMap((line) => {
		const { kind } = entryOfLine(line).sentence
		const within = { table: tableOf(kind, line, table), indent: indent + STEP }
		const inner = 'lines' in line ? printAll(line.lines, vocabulary, within) : []
		return [indent + printExact(kind, line, vocabulary, table), ...inner]
	})
}
