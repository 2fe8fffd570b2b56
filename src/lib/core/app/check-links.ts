/** Ways from screen to screen by which one is opened without what it reads: a value that nothing there would set. */
import { atLine, remark, type Finding } from '../document/findings.ts'
import { nameKey } from '../text/key.ts'
import type { AppDocument, Screen } from './document.ts'
import { entryOfLine, type LineOf, type ScreenLine } from './lines/all.ts'
import { givenBy } from './lines/with.ts'
import { allLines, placedLines } from './lines/tree.ts'
import { formulasIn } from './walk-app.ts'

/** `document`: with its shared lines in their places. */
export function checkLinks(document: AppDocument): Finding[] {
	return document.screens.flatMap((screen) =>
		placedLines(screen.lines).flatMap(({ line, number }) =>
			opensFrom(line).flatMap(({ opens, gives }) => {
				const target = document.screens.find(({ id }) => id === opens)
				const lacks = (target ? wantedBy(target) : []).filter((name) => !gives.includes(nameKey(name)))
				return lacks.flatMap((name) =>
					remark(
						`"${target?.title}" reads here.${name}, and this opens it without one. Give it: With … as ${name}; or say there what it starts as.`
					).map(atLine(screen, { line, number }))
				)
			})
		)
	)
}

interface Opens {
	readonly opens: string
	/** By their keys. */
	readonly gives: readonly string[]
}

function opensFrom(line: ScreenLine): Opens[] {
	if (line.kind === 'button' || line.kind === 'welcome') {
		const opens = line.kind === 'welcome' ? line.screen : line.does.kind === 'open' ? line.does.screen : null
		return opens === null ? [] : [{ opens, gives: givenBy(line).map(({ as }) => nameKey(as)) }]
	}
	const opens = line.kind === 'list' || line.kind === 'form' ? line.opens : null
	return opens === null ? [] : [{ opens, gives: [] }]
}

/** What a screen holds without a start, and its other lines read. */
function wantedBy({ lines }: Screen): string[] {
	const holds = allLines(lines).filter(
		(line): line is LineOf<'hold'> => line.kind === 'hold' && line.starts.trim() === ''
	)
	if (holds.length === 0) return []
	const read = new Set(formulasIn(lines).flatMap(namesHeld))
	return holds.flatMap(({ holds: name }) => (read.has(nameKey(name)) && !setsItself(lines, name) ? [name] : []))
}

function namesHeld(formula: string): string[] {
	return [...formula.matchAll(/\bhere\.([\p{L}\p{N}_]+)/giu)].map(([, name = '']) => nameKey(name))
}

/** Whether a line of the screen itself lets it be chosen, or a button of it sets it. */
function setsItself(lines: readonly ScreenLine[], name: string): boolean {
	return allLines(lines).some((line) => {
		if (line.kind === 'button')
			return line.does.kind === 'set' && givenBy(line).some(({ as }) => nameKey(as) === nameKey(name))
		return line.kind !== 'hold' && nameKey(entryOfLine(line).chooses(line)?.name ?? '') === nameKey(name)
	})
}
