/**
 * One connection to the workspace and what is known about it: the current document, built once for each version, and
 * prepared statements. Each thread has its own.
 */
import type { Database, Statement } from 'better-sqlite3'
import { buildWorkspace, type Workspace } from '$lib/core/workspace/catalogue.ts'
import { parseWorkspace, type WorkspaceDocument } from '$lib/core/workspace/document.ts'
import type { Sql } from '$lib/core/sql/sql.ts'
import type { RowIds } from './row-ids.ts'

export interface Store {
	readonly db: Database
	readonly ids: RowIds
	/** The workspace as it stands in the current transaction. */
	workspace(): LoadedWorkspace
	/** Does what cannot change the workspace, and so need not ask again and again which version is current. */
	steadily<T>(work: () => T): T
	prepare(text: string): Statement<unknown[]>
	/** One value of one row, or undefined where there is none. */
	pluck(text: string, ...params: readonly unknown[]): unknown
	/** Runs a compiled query; rows come as arrays. */
	select(query: Sql): unknown[][]
	/** What the current group of changes touched: tables by number, who may see what, queued work, who is signed in. */
	readonly touched: Set<number | 'access' | 'jobs' | 'sessions'>
	/** Orders that no index served, by table and column (`derived/order-index.ts`). */
	readonly wanted: Map<string, WantedOrder>
	/** Forgets what was read of the workspace, after a change of it was undone. */
	forget(): void
}

/** A column of a table by which rows were to be ordered. */
export interface WantedOrder {
	readonly table: number
	readonly column: number
}

export interface LoadedWorkspace extends Workspace {
	readonly version: number
	readonly document: WorkspaceDocument
}

const MAX_STATEMENTS = 500

const CURRENT_VERSION = `SELECT max(version) FROM document WHERE kind = 'workspace'`
const READ_DOCUMENT = `SELECT body FROM document WHERE kind = 'workspace' AND version = ?`

export function openStore(db: Database, ids: RowIds): Store {
	const statements = new Map<string, Statement<unknown[]>>()
	let loaded: LoadedWorkspace | undefined
	let steady = 0
	/** Asked with every request, several times. */
	const currentVersion = db.prepare<[]>(CURRENT_VERSION).pluck()

	function prepare(text: string): Statement<unknown[]> {
		const known = statements.get(text)
		if (known) return known
		const [oldest] = statements.keys()
		if (oldest !== undefined && statements.size >= MAX_STATEMENTS) statements.delete(oldest)
		const made = db.prepare<unknown[]>(text)
		statements.set(text, made)
		return made
	}

	/** Apart from the others: one that plucks is asked again and again, and need not be told each time. */
	const plucking = new Map<string, Statement<unknown[]>>()

	function pluck(text: string, ...params: readonly unknown[]): unknown {
		let statement = plucking.get(text)
		if (!statement) {
			statement = db.prepare<unknown[]>(text).pluck()
			if (plucking.size < MAX_STATEMENTS) plucking.set(text, statement)
		}
		return statement.get(...params)
	}

	function workspace(): LoadedWorkspace {
		if (steady > 0 && loaded) return loaded
		const version = Number(currentVersion.get())
		if (loaded?.version === version) return loaded
		const document = parseWorkspace(String(prepare(READ_DOCUMENT).pluck().get(version)))
		loaded = { ...buildWorkspace(document), version, document }
		// A change of tables makes prepared statements over them stale in meaning, if not in form.
		statements.clear()
		plucking.clear()
		return loaded
	}

	function steadily<T>(work: () => T): T {
		workspace()
		steady++
		try {
			return work()
		} finally {
			steady--
		}
	}

	const select = (query: Sql): unknown[][] =>
		prepare(query.text)
			.raw()
			.all(...query.params) as unknown[][]

	const forget = (): void => {
		loaded = undefined
		statements.clear()
		plucking.clear()
	}

	return { db, ids, workspace, steadily, prepare, pluck, select, touched: new Set(), wanted: new Map(), forget }
}
