/** Buttons that are seen by people whose press would be refused, since their lines of access let them not write what it sets. */
import { closeRoles, covers, type Line } from '../access/types.ts'
import { atLine, remark, type Finding } from '../document/findings.ts'
import { findColumn, type Catalogue } from '../model/table.ts'
import { entryOfStep } from '../routine/routine.ts'
import { joinWords } from '../sentence/slots/names.ts'
import type { Workspace } from '../workspace/catalogue.ts'
import type { AppDocument } from './document.ts'
import { placedLines } from './lines/tree.ts'

type Roles = Workspace['roles']

interface Around {
	readonly catalogue: Catalogue
	readonly lines: readonly Line[]
	readonly roles: Roles
}

/** `document`: with its shared lines in their places; `lines`: those of access. */
export function checkPresses(document: AppDocument, around: Around): Finding[] {
	return document.screens.flatMap((screen) =>
		placedLines(screen.lines).flatMap(({ line, number }) => {
			if (line.kind !== 'button' || line.does?.kind !== 'run') return []
			const { routine: id } = line.does
			const routine = document.routines.find((each) => each.id === id)
			const table = routine && around.catalogue.tables.get(routine.start.table)
			if (!routine || !table) return []
			const set = routine.steps.flatMap((step) => entryOfStep(step).written(step))
			const refused = refusedBy(table.id, set, line.who, around)
			if (refused.length === 0) return []
			const columns = set.flatMap((column) => findColumn(table, column)?.name ?? [])
			return remark(
				`${joinWords(refused, 'and')} see it and may not write ${joinWords(columns, 'and')} of ${table.name}: their press is refused. Let it be for others, or write a line of access.`
			).map(atLine(screen, { line, number }))
		})
	)
}

/** The roles that see rows of a table, and the button, and may not write all that it sets. */
function refusedBy(table: number, set: readonly number[], who: readonly number[], { lines, roles }: Around): string[] {
	if (set.length === 0) return []
	return roles.flatMap((role) => {
		const held = closeRoles([role.id], roles)
		const own = lines.filter((line) => line.table === table && held.has(line.role))
		const isShown = who.length === 0 || who.some((each) => held.has(each))
		const may = (column: number) => own.some((line) => line.verbs.includes('change') && covers(line.columns, column))
		return isShown && own.some(({ verbs }) => verbs.includes('see')) && !set.every(may) ? [role.name] : []
	})
}
