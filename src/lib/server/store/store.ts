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
	/** What its rows are is said by the type that it is asked with, where the text of the query is seen. */
	prepare<Row = unknown>(text: string): Statement<unknown[], Row>
	/** One value of one row, or undefined where there is none. */
	pluck<Value = unknown>(text: string, ...params: readonly unknown[]): Value | undefined
	/** Runs a compiled query; rows come as arrays. */
	select(query: Sql): unknown[][]
	/** What the current group of changes touched: tables by number, who may see what, queued work, who is signed in, drafts of apps, people who were told something. */
	readonly touched: Set<number | 'access' | 'jobs' | 'sessions' | `draft ${number}` | `told ${number}`>
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
	return new Connection(db, ids)
}

class Connection implements Store {
	readonly db: Database
	readonly ids: RowIds
	readonly touched: Store['touched'] = new Set()
	readonly wanted: Store['wanted'] = new Map()
	readonly #statements = new Map<string, Statement<unknown[]>>()
	/** Apart from the others: one that plucks is asked again and again, and need not be told each time. */
	readonly #plucking = new Map<string, Statement<unknown[]>>()
	/** Asked with every request, several times. */
	readonly #currentVersion: Statement<[]>
	#loaded: LoadedWorkspace | undefined
	#steady = 0

	constructor(db: Database, ids: RowIds) {
		this.db = db
		this.ids = ids
		this.#currentVersion = db.prepare<[]>(CURRENT_VERSION).pluck()
	}

	workspace(): LoadedWorkspace {
		if (this.#steady > 0 && this.#loaded) return this.#loaded
		const version = Number(this.#currentVersion.get())
		if (this.#loaded?.version === version) return this.#loaded
		// A change of tables makes prepared statements over them stale in meaning, if not in form.
		this.forget()
		const document = parseWorkspace(String(this.pluck(READ_DOCUMENT, version)))
		this.#loaded = { ...buildWorkspace(document), version, document }
		return this.#loaded
	}

	steadily<T>(work: () => T): T {
		this.workspace()
		this.#steady++
		try {
			return work()
		} finally {
			this.#steady--
		}
	}

	prepare<Row = unknown>(text: string): Statement<unknown[], Row> {
		// By one text always the same rows come: what they are is said where it is written.
		const known = this.#statements.get(text) as Statement<unknown[], Row> | undefined
		if (known) return known
		const [oldest] = this.#statements.keys()
		if (oldest !== undefined && this.#statements.size >= MAX_STATEMENTS) this.#statements.delete(oldest)
		const made = this.db.prepare<unknown[], Row>(text)
		this.#statements.set(text, made)
		return made
	}

	pluck<Value = unknown>(text: string, ...params: readonly unknown[]): Value | undefined {
		let statement = this.#plucking.get(text)
		if (!statement) {
			statement = this.db.prepare<unknown[]>(text).pluck()
			if (this.#plucking.size < MAX_STATEMENTS) this.#plucking.set(text, statement)
		}
		// As for `prepare`.
		return statement.get(...params) as Value | undefined
	}

	select(query: Sql): unknown[][] {
		return this.prepare<unknown[]>(query.text)
			.raw()
			.all(...query.params)
	}

	forget(): void {
		this.#loaded = undefined
		this.#statements.clear()
		this.#plucking.clear()
	}
}
