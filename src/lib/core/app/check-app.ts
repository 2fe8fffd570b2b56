/**
 * The check before a release: everything in the document that would not work, each with its place and the remedy, and
 * what a builder should have looked at.
 */
import { checkPerson } from '../document/check-person.ts'
import {
	at,
	atLine,
	checkColumns,
	mistake,
	remark,
	TABLE_GONE,
	type Finding,
	type Found
} from '../document/findings.ts'
import { checkCondition } from '../formula/check/check.ts'
import { hereIn } from '../formula/check/rename.ts'
import type { Catalogue } from '../model/table.ts'
import { entryOfStart } from '../routine/routine.ts'
import { takenBy } from '../routine/held-values.ts'
import type { NamedRoutine } from '../routine/step-entry.ts'
import { checkRoutine } from '../routine/step-tree.ts'
import { checkLinks } from './check-links.ts'
import { checkPresses } from './check-presses.ts'
import { checkSeen } from './check-seen.ts'
import type { AppDocument, Screen, Signoff } from './document.ts'
import type { Workspace } from '../workspace/catalogue.ts'
import { heldAround, hostsOf, isShared, linesWithShared, withSharedLines } from './shared-lines.ts'
import { aroundIn, type AroundLines } from './walk-app.ts'
import { entryOfLine, mayHold, type ScreenLine } from './lines/all.ts'
import type { Around } from './lines/entry.ts'
import { allLines, placedLines } from './lines/tree.ts'
import { checkScreen } from './screen-line.ts'

/** `lines`: those of access, by which a screen is judged that nobody could use; `roles`: those that are there. */
export function checkApp(
	document: AppDocument,
	{ catalogue, lines, roles }: Pick<Workspace, 'catalogue' | 'lines' | 'roles'>
): Finding[] {
	const shown = withSharedLines(document)
	const around: Omit<Around, 'table' | 'outer' | 'here' | 'hasList' | 'isShared'> = {
		catalogue,
		lines,
		hasRole: (id) => roles.some((role) => role.id === id),
		hasScreen: (id) => shown.screens.some((screen) => screen.id === id),
		hasShared: (id) => document.screens.some((screen) => screen.id === id && isShared(screen)),
		heldOn: (id) => {
			const screen = document.screens.find((each) => each.id === id)
			return hereIn(screen ? heldAround(screen, document.screens) : {}, catalogue)
		},
		// A code is scanned into a box of its own.
		hasButtonRoutine: (id) => document.routines.some(({ id: each, start }) => each === id && start.kind !== 'scan' && entryOfStart(start).isPressed), // prettier-ignore
		hasScanRoutine: (id) => document.routines.some((each) => each.id === id && each.start.kind === 'scan')
	}
	const findRoutine = (id: string): NamedRoutine | undefined => {
		const found = document.routines.find((each) => each.id === id)
		const calledOn = found?.start.kind === 'called' ? found.start.table : undefined
		return found && { name: found.name, calledOn, takes: takenBy(found) }
	}
	const findSignoff = (id: string) => document.signoffs.find((each) => each.id === id)
	const heads = shown.screens.flatMap((screen) =>
		checkScreen(screen, around).map(at(`Screen ${screen.title}`, { bay: 'screens', screen: screen.id }))
	)
	const screens = document.screens.flatMap((screen) => [
		...checkStandsSomewhere(screen, document).map(at(screen.title, { bay: 'screens', screen: screen.id })),
		...placedLines(screen.lines).flatMap(({ line, number, within }) =>
			checkLine(line, within, { ...around, ...placeOf(screen, document), here: around.heldOn(screen.id) }).map(
				atLine(screen, { line, number })
			)
		)
	])
	const routines = document.routines.flatMap((routine) =>
		checkRoutine(routine, { ...around, findRoutine, findSignoff }).map(({ step, ...found }) =>
			atStep(routine, step)(found)
		)
	)
	const signoffs = document.signoffs.flatMap((signoff) =>
		checkSignoff(signoff, catalogue).map(at(`Sign-off ${signoff.name}`, { bay: 'sign-offs' }))
	)
	const none: Finding[] =
		document.screens.length === 0
			? [{ weight: 'mistake', place: 'Screens', message: 'There is no screen yet.', spot: { bay: 'screens' } }]
			: []
	return [
		...none,
		...heads,
		...screens,
		...checkLinks(shown),
		...checkSeen(shown, around),
		...checkPresses(shown, { ...around, roles }),
		...routines,
		...signoffs
	]
}

function placeOf(screen: Screen, { screens }: AppDocument): Pick<Around, 'hasList' | 'isShared'> {
	const around = isShared(screen) ? hostsOf(screen, screens) : [screen]
	const hasList = around.some((each) => allLines(linesWithShared(each, screens)).some(({ kind }) => kind === 'list'))
	return { hasList, isShared: isShared(screen) }
}

function checkStandsSomewhere(screen: Screen, { screens }: AppDocument): Found[] {
	return isShared(screen) && hostsOf(screen, screens).length === 0
		? remark(`No screen shows these lines yet. Add a line to one: Lines of ${screen.title}.`)
		: []
}

function checkLine(line: ScreenLine, within: readonly ScreenLine[], around: Omit<Around, 'table' | 'outer'>): Found[] {
	if (line.kind !== 'unknown' && !mayHold(within.at(-1)?.kind, line.kind))
		return mistake('It may not stand here. Move it out, or remove it.')
	const held = within.reduce<AroundLines>((outer, holder) => aroundIn(holder, outer), {})
	const outer = aroundIn(line, held).outer
	return entryOfLine(line).check(line, {
		...around,
		table: held.table,
		outer: outer === undefined ? undefined : around.catalogue.tables.get(outer)
	})
}

function atStep(
	{ id, name }: { readonly id: string; readonly name: string },
	step: { readonly id: string; readonly number: number } | undefined
): (found: Found) => Finding {
	const place = step ? `Routine ${name}, line ${step.number}` : `Routine ${name}`
	return at(place, { bay: 'routines', routine: id, ...(step ? { line: step.id } : {}) })
}

function checkSignoff(signoff: Signoff, catalogue: Catalogue): Found[] {
	const table = catalogue.tables.get(signoff.table)
	if (!table) return mistake(TABLE_GONE)
	const found = [
		...checkColumns(signoff.columns, table),
		...checkPerson(signoff.decider, { catalogue, rows: [table], me: false })
	]
	if (signoff.where.trim() !== '') {
		const { issues } = checkCondition(signoff.where, { catalogue, rows: [table], me: false })
		found.push(...issues.flatMap((issue) => mistake(issue.message)))
	}
	return found
}
