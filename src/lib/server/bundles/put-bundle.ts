/**
 * Puts a bundle in: its tables under numbers and names of their own, their rows through the door, the app as a draft. All of it,
 * or nothing. Who puts it in keeps the tables, and nobody else sees them: lines of access only wait to be taken.
 */
import { MOST_BUNDLED } from '$lib/core/app/bundle.ts'
import * as appWalk from '$lib/core/app/walk-app.ts'
import { AppError } from '$lib/core/app-error.ts'
import { renameIn, type Standing } from '$lib/core/formula/check/rename.ts'
import type { Routine } from '$lib/core/routine/routine.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import type { LineEntry, TableEntry, WorkspaceDocument } from '$lib/core/workspace/document.ts'
import * as documentWalk from '$lib/core/workspace/walk-document.ts'
import type { PutBundle } from '$lib/core/requests/bundles.ts'
import { addAppFrom } from '../apps/apps.ts'
import { refuseTooDear } from '../derived/formula-cost.ts'
import { writeHistory } from '../history/history.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { BUILDER } from '../rights/system-roles.ts'
import type { Store } from '../store/store.ts'
import { saveWorkspace } from '../structure/save.ts'
import { NO_ROLE, numberAnew, type NewNumbers } from './new-numbers.ts'
import { addBundledRows } from './add-bundled-rows.ts'
import { fitTables, heldRules } from './leave-out.ts'
import { readBundle, type GivenBundle } from './read-bundle.ts'

export interface GivenText extends ByActor {
	readonly text: string
	/** Of the file it came in. */
	readonly name: string
}

const PROPOSE = `INSERT INTO proposed_line (table_id, position, role_name, body) VALUES (?, ?, ?, ?)`

export function putBundle(store: Store, { text, name, actor, now }: GivenText): PutBundle {
	refuseUnlessBuilder(store, actor)
	const bundle = readBundle(text)
	const rows = bundle.tables.reduce((sum, table) => sum + table.rows.length, 0)
	if (rows > MOST_BUNDLED)
		throw new AppError(
			'invalid',
			`A bundle holds at most ${MOST_BUNDLED.toLocaleString('en-GB')} rows. Bring more in from files.`
		)
	const numbers = numberAnew(store, bundle)
	const by = { actor, now }
	const named = nameAnew(store, bundle, numbers, actor.person)
	const fitted = fitTables(store.workspace().document, named.tables)
	addTables(store, fitted.tables, by)
	addBundledRows(store, { bundle, numbers, ...by, through: `file ${name}` })
	const held = heldRules(store, fitted.tables, by)
	addRules(store, held.tables, by)
	proposeLines(store, bundle, named.lines)
	const mapped = appWalk.mapColumns(appWalk.mapNumbers(bundle.app, numbers), numbers.column)
	const acting = {
		...mapped,
		routines: mapped.routines.map((each, i) => actingHere(each, bundle.app.routines[i], numbers))
	}
	const app = addAppFrom(store, { document: appWalk.mapFormulas(acting, named.rename), ...by })
	for (const table of named.tables)
		writeHistory(store, {
			...{ at: now, person: actor.person, through: `file ${name}`, kind: 'make table', table: table.id, row: null },
			body: { name: table.name }
		})
	return {
		...{ app, rows, tables: named.tables.map((table) => ({ id: table.id, name: table.name })) },
		leftOut: [...fitted.leftOut, ...held.leftOut]
	}
}

interface Named {
	readonly tables: readonly TableEntry[]
	readonly lines: readonly LineEntry[]
	readonly rename: (text: string, standing: Standing) => string
}

/** Under names that are free here; what reads a table by its name goes on reading it. */
function nameAnew(store: Store, bundle: GivenBundle, numbers: NewNumbers, keeper: number): Named {
	const { document } = store.workspace()
	const given = bundle.tables.map((table) => numbers.entry(table, keeper))
	const lines = bundle.access.map((line) => numbers.line(line))
	const before: WorkspaceDocument = { ...document, tables: [...setAside(document, given), ...given], lines }
	const renamed = withFreeNames(document, given)
	// Only for the names: formulas are still written in the old ones here.
	const after = buildWorkspace({ ...document, tables: [...document.tables, ...renamed] }).catalogue
	const was = buildWorkspace(before).catalogue
	const rename = (text: string, standing: Standing) => renameIn(text, standing, was, after) ?? text
	const printed = documentWalk.mapFormulas({ ...before, tables: renamed }, rename)
	return { rename, lines: printed.lines, tables: printed.tables }
}

/** As a role that is not here it would act as another: its builder says as which. */
function actingHere(routine: Routine, given: Routine | undefined, { hasRole }: NewNumbers): Routine {
	const role = given?.acts ?? undefined
	return role === undefined || hasRole(role) ? routine : { ...routine, acts: NO_ROLE }
}

/** The tables that are here, under names that no formula of a bundle can mean. */
function setAside({ tables, people }: WorkspaceDocument, given: readonly TableEntry[]): TableEntry[] {
	const named = new Set(given.map(({ name }) => nameKey(name)))
	return tables.map((table) => ({
		...table,
		name: named.has(nameKey(table.name)) ? `${table.name} (here)` : table.name,
		columns: table.columns.map((column) =>
			column.to === people && column.reverseName ? { ...column, reverseName: `${column.reverseName} (here)` } : column
		)
	}))
}

/** `Stores`, or `Stores 2` where there are such already; so are those called by which rows of People are reached from there. */
function withFreeNames(document: WorkspaceDocument, tables: readonly TableEntry[]): TableEntry[] {
	const taken = new Set(document.tables.map(({ name }) => nameKey(name)))
	const reached = document.tables.flatMap(({ columns }) => columns.filter(({ to }) => to === document.people))
	const sets = new Set([
		...reached.flatMap(({ reverseName }) => (reverseName ? [nameKey(reverseName)] : [])),
		...(document.tables.find(({ id }) => id === document.people)?.columns ?? []).map(({ name }) => nameKey(name))
	])
	return tables.map((table) => ({
		...table,
		name: freeName(taken, table.name),
		columns: table.columns.map((column) =>
			column.to === document.people && column.reverseName
				? { ...column, reverseName: freeName(sets, column.reverseName) }
				: column
		)
	}))
}

function freeName(taken: Set<string>, name: string): string {
	for (let i = 1; ; i++) {
		const free = i === 1 ? name : `${name} ${i}`
		if (taken.has(nameKey(free))) continue
		taken.add(nameKey(free))
		return free
	}
}

/** As they stand, but for what would change their rows as these come: defaults, numbers, checks. */
function addTables(store: Store, tables: readonly TableEntry[], { actor, now }: ByActor): void {
	const bare = tables.map(({ checks: _checks, ...table }): TableEntry => ({
		...table,
		columns: table.columns.map(
			({ otherwise: _otherwise, numbering: _numbering, required: _required, ...column }) => column
		)
	}))
	const { document } = store.workspace()
	saveWorkspace(store, { ...document, tables: [...document.tables, ...bare] }, { now, by: actor.person })
	const { catalogue } = store.workspace()
	for (const { id } of bare)
		for (const { name, computed } of catalogue.tables.get(id)?.columns ?? [])
			if (computed) refuseTooDear(store, computed.expr, { what: name })
}

function addRules(store: Store, tables: readonly TableEntry[], by: ByActor): void {
	const { document } = store.workspace()
	const whole = new Map(tables.map((table) => [table.id, table]))
	const all = document.tables.map((table) => whole.get(table.id) ?? table)
	saveWorkspace(store, { ...document, tables: all }, { now: by.now, by: by.actor.person })
}

/** Each for the role of its name; where there is none, its keeper says for which. */
function proposeLines(store: Store, { access, roles }: GivenBundle, lines: readonly LineEntry[]): void {
	const names = new Map(roles.map(({ id, name }) => [id, name]))
	for (const [i, line] of lines.entries())
		store.prepare(PROPOSE).run(line.table, i, names.get(access[i]?.role ?? BUILDER) ?? '', JSON.stringify(line))
}
