/**
 * Takes a table out of the workspace, and puts it back. Its rows stay in the store, out of every read, for thirty days;
 * its lines of access wait with it. A table that anything else names stays until that is changed.
 */
import type { TableRemoval } from '$lib/core/requests/structure.ts'
import { createHash } from 'node:crypto'
import { AppError } from '$lib/core/app-error.ts'
import { tablesOf } from '$lib/core/app/walk-app.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import type { WorkspaceDocument } from '$lib/core/workspace/document.ts'
import type { Actor, ByActor } from '../rights/rights-of-actor.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { RETENTION_MS } from './retention.ts'
import { appsAt, refuseBrokenApps } from './restructure.ts'
import { saveWorkspace } from './save.ts'
import { dropTable, dropView } from '../store/schema.ts'
import { refuseTakenName, refuseUnheldLines } from './tables.ts'

interface OfTable extends ByActor {
	readonly table: number
}

/** What taking a table out would come to. */
export function previewTableRemoval(store: Store, { table, actor }: OfTable): TableRemoval {
	const { id, name } = getTableAsKeeper(store, table, actor)
	const rows = Number(store.prepare(`SELECT count(*) FROM t${id}`).pluck().get())
	return { rows, uses: usesOfTable(store, id, name) }
}

/** Takes a table out; it lies in the store for 30 days. `invalid` while something cannot do without it. */
export function removeTable(store: Store, { table, actor, now }: OfTable): void {
	const { name } = getTableAsKeeper(store, table, actor)
	const uses = usesOfTable(store, table, name)
	if (uses.length > 0)
		throw new AppError('invalid', `These cannot do without ${name}: ${uses.join('; ')}. Change them first.`, { uses })
	const { document, catalogue } = store.workspace()
	const entry = document.tables.find((each) => each.id === table)
	if (!entry) throw new Error(`Cannot find table "${table}" in the document`)
	const lines = document.lines.filter((line) => line.table === table)
	const rest = without(document, table)
	const earlier = (document.removed ?? []).filter(({ at }) => at > now - RETENTION_MS)
	const removed = [...earlier, { table: entry, lines, names: namesOf(rest), at: now }]
	dropView(store.db, name)
	saveWorkspace(store, { ...rest, removed }, { now, by: actor.person })
	refuseBrokenApps(store, catalogue)
	note(store, { table, actor, now }, 'take table out', name)
}

/**
 * Puts a table back with its rows, for who kept it. Its lines come back too, unless other tables have other names by now:
 * then the same words could let in somebody else. Gives whether they did.
 */
export function returnTable(store: Store, { table, actor, now }: OfTable): { lines: boolean } {
	refuseUnlessBuilder(store, actor)
	const { document } = store.workspace()
	const found = removedTables(store, actor, now).find((each) => each.table.id === table)
	if (!found) throw new AppError('not_found', 'That table can no longer be put back.')
	refuseTakenName(store, found.table.name)
	const removed = document.removed?.filter((each) => each.table.id !== table) ?? []
	const roles = new Set(document.roles.map((role) => role.id))
	const same = namesOf(document) === found.names
	const lines = same ? found.lines.filter((line) => roles.has(line.role)) : []
	const back = { ...document, tables: [...document.tables, found.table], lines: [...document.lines, ...lines], removed }
	saveWorkspace(store, back, { now, by: actor.person, filled: [table] })
	refuseUnheldLines(store, lines, { table, actor, now })
	note(store, { table, actor, now }, 'put table back', found.table.name)
	return { lines: lines.length === found.lines.length }
}

/** By what names a line can mean something: tables, columns, and the sets of what points here. */
function namesOf({ tables }: Pick<WorkspaceDocument, 'tables'>): string {
	const words = tables.map(({ id, name, label, columns }) => [
		id,
		name,
		label,
		columns.map((column) => [column.id, column.name, column.type, column.reverseName, column.formula])
	])
	return createHash('sha256').update(JSON.stringify(words)).digest('hex')
}

/** The tables that this person kept and took out, and that can still be put back. */
export function removedTables(store: Store, actor: Actor, now: number): NonNullable<WorkspaceDocument['removed']> {
	const removed = store.workspace().document.removed ?? []
	return removed.filter(({ table, at }) => at > now - RETENTION_MS && table.keepers.includes(actor.person))
}

/** At start: rows of tables that have been out for too long. */
export function dropOldTables(store: Store, now: number): void {
	const { document } = store.workspace()
	for (const { table, at } of document.removed ?? []) if (at <= now - RETENTION_MS) dropTable(store.db, table.id)
}

function without(document: WorkspaceDocument, table: number): WorkspaceDocument {
	return {
		...document,
		tables: document.tables.filter((each) => each.id !== table),
		lines: document.lines.filter((line) => line.table !== table)
	}
}

const CASES = `SELECT 1 FROM signoff_case WHERE table_id = ? LIMIT 1`

/** Everything that could not stand without a table, as a person would call it. */
function usesOfTable(store: Store, id: number, name: string): string[] {
	const { document } = store.workspace()
	if (document.people === id) return ['The people of the workspace']
	const rest = without(document, id)
	const references = rest.tables.flatMap((table) =>
		table.columns.filter((column) => column.to === id).map((column) => `${table.name}, ${column.name}`)
	)
	// Without a reference to it no formula of another table can name it, but a set of what points there can.
	const broken = references.length === 0 ? brokenFormulas(rest) : []
	const apps = appsAt(store).flatMap((app) =>
		tablesOf(app)
			.filter(({ table }) => table === id)
			.map(({ place }) => `${app.name}: ${place}`)
	)
	const decided = store.prepare(CASES).get(id) ? [`Decisions about rows of ${name}`] : []
	return [...new Set([...references, ...broken, ...apps, ...decided])]
}

function brokenFormulas(document: WorkspaceDocument): string[] {
	const columns = new Map(
		document.tables.flatMap((table) => table.columns.map((column) => [column.id, `${table.name}, ${column.name}`]))
	)
	return buildWorkspace(document).issues.map(({ place }) => {
		if ('column' in place) return columns.get(place.column) ?? ''
		return 'line' in place ? 'A line of access' : 'A role'
	})
}

function note(store: Store, { table, actor, now }: OfTable, kind: string, name: string): void {
	const entry = { at: now, person: actor.person, through: 'Tables' as const, kind, table, row: null, body: { name } }
	writeHistory(store, entry)
	store.touched.add(table)
}
