/** Columns that a screen shows, and that no line of access lets anybody see. */
import { covers, type Line } from '../access/types.ts'
import { atLine, remark, type Finding } from '../document/findings.ts'
import { findColumn, type Catalogue } from '../model/table.ts'
import type { AppDocument } from './document.ts'
import type { ScreenLine } from './lines/all.ts'
import { placedLines } from './lines/tree.ts'

/** `document`: with its shared lines in their places; `lines`: those of access. */
export function checkSeen(
	document: AppDocument,
	{ catalogue, lines }: { catalogue: Catalogue; lines: readonly Line[] }
): Finding[] {
	return document.screens.flatMap((screen) =>
		placedLines(screen.lines).flatMap(({ line, number }) => {
			const names = unseenIn(line, { catalogue, lines })
			if (names.length === 0) return []
			const stay = names.length === 1 ? 'it stays' : 'they stay'
			return remark(`No line of access lets anybody see ${names.join(', ')}, so ${stay} away for everybody.`).map(
				atLine(screen, { line, number })
			)
		})
	)
}

function unseenIn(
	line: ScreenLine,
	{ catalogue, lines }: { catalogue: Catalogue; lines: readonly Line[] }
): readonly string[] {
	// A form asks for what is added; all others show.
	if (!('table' in line) || !('columns' in line) || line.kind === 'form' || line.kind === 'items') return []
	const table = catalogue.tables.get(line.table)
	const seeing = lines.filter((each) => each.table === line.table && each.verbs.includes('see'))
	// That nobody sees the table at all is said by the line itself.
	if (!table || seeing.length === 0) return []
	return line.columns
		.filter((column) => !seeing.some((each) => covers(each.columns, column)))
		.flatMap((column) => findColumn(table, column)?.name ?? [])
}
