/** Buttons that are seen by people whose press would be refused, since their lines of access let them not write what it sets. */
import { closeRoles, covers, type Line } from '../access/types.ts'
import { atLine, remark, type Finding } from '../document/findings.ts'
import { findColumn, type Catalogue } from '../model/table.ts'
import { tableOfStart, type Routine } from '../routine/routine.ts'
import { writingsOf } from '../routine/step-tree.ts'
import { joinWords } from '../sentence/slots/names.ts'
import type { Writing } from '../routine/step-entry.ts'
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
			const id =
				line.kind === 'scan'
					? line.routine
					: line.kind === 'button' && line.does?.kind === 'run'
						? line.does.routine
						: undefined
			const routine = document.routines.find((each) => each.id === id)
			return routine
				? refusals(routine, line.who, around).flatMap((says) => remark(says).map(atLine(screen, { line, number })))
				: []
		})
	)
}

/** What those who see a button may not do of what it does, in words. As a role of its own it does what that may. */
function refusals(routine: Routine, who: readonly number[], around: Around): string[] {
	const begins = tableOfStart(routine.start)
	if (begins === undefined || (routine.acts ?? undefined) !== undefined) return []
	const tables = new Set(writingsOf(routine).map(({ table }) => table))
	return [...tables].flatMap((id) => {
		const table = around.catalogue.tables.get(id)
		if (!table) return []
		return VERBS.flatMap((verb) => {
			const written = writingsOf(routine).filter((each) => each.table === id && each.verb === verb)
			if (written.length === 0) return []
			const columns = [...new Set(written.flatMap((each) => each.columns))]
			const refused = refusedBy(begins, { table: id, verb, columns }, who, around)
			if (refused.length === 0) return []
			const names = columns.flatMap((column) => findColumn(table, column)?.name ?? [])
			return `${joinWords(refused, 'and')} see it and may not ${WAYS[verb](table.name, names)}: their press is refused. Let it be for others, or write a line of access.`
		})
	})
}

const VERBS = ['change', 'add', 'remove'] as const
const WAYS: Readonly<Record<Writing['verb'], (table: string, columns: readonly string[]) => string>> = {
	change: (table, columns) => `write ${joinWords(columns, 'and')} of ${table}`,
	add: (table, columns) => (columns.length === 0 ? `add rows to ${table}` : `add rows to ${table} with ${joinWords(columns, 'and')}`), // prettier-ignore
	remove: (table) => `remove rows of ${table}`
}

/** The roles that see rows of the table that it begins on, and the button, and may not do all of what it does. */
function refusedBy(
	begins: number,
	{ table, verb, columns }: Writing,
	who: readonly number[],
	{ lines, roles }: Around
): string[] {
	return roles.flatMap((role) => {
		const held = closeRoles([role.id], roles)
		const own = (id: number) => lines.filter((line) => line.table === id && held.has(line.role))
		const isShown = who.length === 0 || who.some((each) => held.has(each))
		const giving = own(table).filter(({ verbs }) => verbs.includes(verb))
		const may = giving.length > 0 && columns.every((column) => giving.some((line) => covers(line.columns, column)))
		return isShown && own(begins).some(({ verbs }) => verbs.includes('see')) && !may ? [role.name] : []
	})
}
