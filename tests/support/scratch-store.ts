import { randomBytes } from 'node:crypto'
import type { ColumnEntry, WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { WORKSPACE_FORMAT } from '$lib/core/workspace/document.ts'
import { STEWARD } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { openWriter } from '$lib/server/threads/open-writer.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'

/** The number of the person who keeps every table of a scratch workspace. */
export const KEEPER = 1

export const PEOPLE_TABLE = 1
const OWN_PEOPLE_COLUMNS: ColumnEntry[] = [
	{ id: 1, name: 'name', type: 'text' },
	{ id: 2, name: 'email', type: 'email', unique: true }
]

export interface Scratch {
	readonly tables: WorkspaceDocument['tables']
	readonly peopleColumns?: ColumnEntry[]
	readonly roles?: WorkspaceDocument['roles']
	readonly lines?: WorkspaceDocument['lines']
	/** Epoch ms. */
	readonly now: number
	/** UTC, if left out. */
	readonly timeZone?: string
	/** Where it lies; in memory, if left out. */
	readonly file?: string
}

/** A workspace in memory, with a keeper who may do everything: for tables of check values and for tests. */
export function openScratch(scratch: Scratch): Store {
	const store = openWriter(scratch.file ?? ':memory:', randomBytes(16).toString('hex'))
	const people = { id: PEOPLE_TABLE, name: 'people', keepers: [KEEPER], label: 1 }
	const document: WorkspaceDocument = {
		format: WORKSPACE_FORMAT,
		name: 'Scratch',
		timeZone: scratch.timeZone ?? 'UTC',
		people: PEOPLE_TABLE,
		tables: [{ ...people, columns: [...OWN_PEOPLE_COLUMNS, ...(scratch.peopleColumns ?? [])] }, ...scratch.tables],
		roles: scratch.roles ?? [],
		lines: scratch.lines ?? []
	}
	saveWorkspace(store, document, { now: scratch.now, by: null })
	store.db
		.prepare(
			`INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (?, 0, 0, 'Keeper', 'keeper', 'keeper@varrow.example', 'keeper@varrow.example')`
		)
		.run(KEEPER)
	// Columns of people that lines read are changed by stewards only.
	store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(KEEPER, STEWARD)
	return store
}
