/**
 * Saves the workspace document: a new version, in force at once, with the structure of the store brought in line in the
 * same transaction. Every save turns the access epoch, by which open pages know to read again.
 */
import { AppError } from '$lib/core/app-error.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import { workspaceSchema, type WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { isStored } from '$lib/core/table/storage.ts'
import type { Column, Computed, Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'
import { watchPeople } from '../rights/access-epoch.ts'
import { addColumn, createIndex, createIndexes, createTable, replaceView } from '../store/schema.ts'
import { basisOf, someNode } from '$lib/core/formula/syntax/walk.ts'
import { examplesThatHold, refuseBrokenExamples } from './examples.ts'
import { fillComputed } from '../derived/fill-computed.ts'
import { keepRollups } from '../derived/keep-rollups.ts'
import { alignTextIndexes } from '../derived/text-index.ts'

const LAST_VERSION = `SELECT max(version) FROM document WHERE kind = 'workspace'`
const ADD_VERSION = `
	INSERT INTO document (kind, version, body, made_at, made_by)
	VALUES ('workspace', @version, @body, @now, @by)`

export interface Saving {
	/** Epoch ms. */
	readonly now: number
	readonly by: number | null
	/** Tables whose rows are already in the store under their number, from an import. */
	readonly filled?: readonly number[]
}

/**
 * Makes a document the current version and the store fit it, in one transaction; `invalid` where a formula of it does
 * not hold.
 */
export function saveWorkspace(store: Store, document: WorkspaceDocument, saving: Saving): void {
	const next = buildWorkspace(workspaceSchema.parse(document))
	const [issue] = next.issues
	if (issue) throw new AppError('invalid', issue.message, { issues: next.issues })
	refuseUnfitChoices(document)
	const version = store.pluck<number | null>(LAST_VERSION) ?? null
	const before = version === null ? undefined : store.workspace()
	const held = before ? examplesThatHold(store, saving.now) : []
	for (const table of next.catalogue.tables.values()) {
		bringInLine(store, before?.catalogue.tables.get(table.id), table, saving)
	}
	store
		.prepare(ADD_VERSION)
		.run({ version: (version ?? 0) + 1, body: JSON.stringify(document), now: saving.now, by: saving.by })
	const { catalogue } = store.workspace()
	for (const table of catalogue.tables.values()) {
		const old = before?.catalogue.tables.get(table.id)
		for (const column of table.columns) {
			const was = old?.columns.find((each) => each.id === column.id)
			if (column.computed?.stored && !isStillRight(was, column.computed)) fillComputed(store, table, column)
		}
	}
	watchPeople(store.db, catalogue.people.id)
	keepRollups(store)
	alignTextIndexes(store)
	indexWhatLinesRead(store)
	refuseBrokenExamples(store, held, saving)
	store.touched.add('access')
}

/** A semicolon stands between several choices, so none of them may hold one. */
function refuseUnfitChoices(document: WorkspaceDocument): void {
	for (const { type, name, choices = [] } of document.tables.flatMap((table) => table.columns)) {
		const unfit = type === 'several choices' ? choices.find((choice) => choice.includes(';')) : undefined
		if (unfit !== undefined)
			throw new AppError('invalid', `${name}: "${unfit}" has a semicolon, which stands between several choices.`)
	}
}

/** A kept value follows from the columns that its formula reads too: another type or formula of theirs changes it. */
function isStillRight(was: Column | undefined, now: Computed): boolean {
	return was?.computed?.stored === true && basisOf(was.computed.expr) === basisOf(now.expr)
}

function bringInLine(store: Store, old: Table | undefined, table: Table, saving: Saving): void {
	if (!old) {
		if (!saving.filled?.includes(table.id)) createTable(store.db, table)
		createIndexes(store.db, table)
		replaceView(store.db, table)
		return
	}
	for (const column of table.columns) {
		const was = old.columns.find((each) => each.id === column.id)
		if (!was || (!isStored(was) && isStored(column))) addColumn(store.db, table, column)
	}
	replaceView(store.db, table, old.name)
}

/** Columns that access lines compare are read with every page, so they get an index. */
function indexWhatLinesRead(store: Store): void {
	const { lines } = store.workspace()
	for (const line of lines) {
		for (const expr of [line.where, line.after]) {
			if (!expr) continue
			someNode(expr, (node) => {
				if (node.kind === 'field' && !node.column.computed && node.column.type !== 'long text') {
					createIndex(store.db, node.table, node.column)
				}
				return false
			})
		}
	}
}
