/**
 * Changes what a table is made of while everything that names it goes on meaning what it meant: formulas of tables, lines
 * of access, drafts and releases are printed anew in the same transaction (docs/decisions/005).
 *
 * - Names change by the number behind them; a column that was replaced by another gives its places to that one.
 * - Each change is a new version of the workspace document, so the table as it was can be put back.
 * - No values are dropped: a column that is taken out, or converted, keeps them in the store under its number.
 */
import type { ColumnUse } from '$lib/core/requests/structure.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { parseApp, type AppDocument } from '$lib/core/app/document.ts'
import * as appWalk from '$lib/core/app/walk-app.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { scopeOf, namesIn, renameIn, type Standing } from '$lib/core/formula/check/rename.ts'
import { joinParts, partsOf } from '$lib/core/table/kinds/several-choices.ts'
import { getTable, type Catalogue, type Column } from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import { parseWorkspace, type TableEntry, type WorkspaceDocument } from '$lib/core/workspace/document.ts'
import * as documentWalk from '$lib/core/workspace/walk-document.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { placesOf } from '$lib/core/table/choice-places.ts'
import { refuseUnheldRules } from './rules.ts'
import { saveWorkspace } from './save.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'

export interface Restructuring extends ByActor {
	readonly table: number
	/** In the history's words. */
	readonly what: string
	/** Columns that others take the place of. */
	readonly replaced?: ReadonlyMap<number, number>
	/** Columns that are taken out. */
	readonly gone?: ReadonlySet<number>
}

/** Saves a table's new entry and prints everything that names its parts anew. */
export function restructure(store: Store, asked: Restructuring, change: (entry: TableEntry) => TableEntry): void {
	const { table, actor, now, what } = asked
	const { document, catalogue } = store.workspace()
	const tables = document.tables.map((entry) => (entry.id === table ? change(entry) : entry))
	const moved = (column: number) => (asked.gone?.has(column) ? undefined : (asked.replaced?.get(column) ?? column))
	const changed = documentWalk.mapLineColumns({ ...document, tables }, moved)
	// Only for the names: formulas are still written in the old ones here.
	const after = buildWorkspace(changed).catalogue
	const replacedAway = (asked.replaced?.size ?? 0) > 0
	const rename = (text: string, standing: Standing) => {
		const printed = replacedAway ? text : renameIn(text, standing, catalogue, after)
		if (printed === undefined)
			throw new AppError('invalid', `With this name, "${text}" would mean something else. Choose another.`)
		return printed
	}
	remapChoices(store, table, catalogue, after)
	saveWorkspace(store, documentWalk.mapFormulas(changed, rename), { now, by: actor.person })
	if (replacedAway) refuseBrokenApps(store, catalogue)
	rewriteApps(store, (app) => appWalk.mapColumns(appWalk.mapFormulas(app, rename), moved))
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: 'Tables',
		kind: 'change table',
		table,
		row: null,
		body: { what }
	})
	store.touched.add(table)
}

/** Choices are kept by their place: where the places change, rows go on holding the word they held. */
function remapChoices(store: Store, id: number, before: Catalogue, after: Catalogue): void {
	for (const column of getTable(after, id).columns) {
		const was = getTable(before, id).columns.find((each) => each.id === column.id)?.choices ?? []
		const places = placesOf(was, column.choices ?? [])
		// A column that is new, or was of another type, holds today's words already.
		if (was.length === 0) continue
		if (column.type === 'several choices') rewriteChoices(store, id, column, was)
		const moved = [...places].filter(([from, to]) => from !== to)
		if (column.type !== 'choice' || moved.length === 0) continue
		const whens = moved.map(([from, to]) => `WHEN ${from} THEN ${to ?? 'NULL'}`).join(' ')
		const list = moved.map(([from]) => from).join(', ')
		store.db.exec(`UPDATE t${id} SET c${column.id} = CASE c${column.id} ${whens} END WHERE c${column.id} IN (${list})`)
	}
}

/** Several choices are kept as their words, in the builder's order: both may have changed. */
function rewriteChoices(store: Store, id: number, column: Column, was: readonly string[]): void {
	const now = column.choices ?? []
	const places = placesOf(was, now)
	const turned = (text: string): string | null => {
		const held = new Set(partsOf(text).map((part) => places.get(was.indexOf(part) + 1)))
		const kept = now.filter((_choice, i) => held.has(i + 1))
		return kept.length === 0 ? null : joinParts(kept)
	}
	const texts = store.db
		.prepare(`SELECT DISTINCT c${column.id} FROM t${id} WHERE c${column.id} IS NOT NULL`)
		.pluck()
		.all()
	const set = store.db.prepare(
		`UPDATE t${id} SET c${column.id} = @to, c${column.id}k = @key WHERE c${column.id} = @from`
	)
	// Columns of choices hold words.
	const changed = (texts as string[]).map((from) => ({ from, to: turned(from) })).filter(({ from, to }) => from !== to)
	// By way of texts that nobody can choose: two of them may change places.
	for (const [i, { from }] of changed.entries()) set.run({ from, to: `\u0000${i}`, key: null })
	for (const [i, { to }] of changed.entries())
		set.run({ from: `\u0000${i}`, to, key: to === null ? null : textKey(to) })
}

const DRAFTS = `
	SELECT kind, max(version) AS version, body FROM document WHERE kind LIKE 'app %' GROUP BY kind`
const SET_DRAFT = `UPDATE document SET body = @body WHERE kind = @kind AND version = @version`
const RELEASES = `SELECT app, number, body FROM release`
const SET_RELEASE = `UPDATE release SET body = @body WHERE app = @app AND number = @number`

/** Drafts and releases keep their numbers: they say the same in today's names. */
function rewriteApps(store: Store, map: (app: AppDocument) => AppDocument): void {
	for (const row of store.prepare<{ kind: string; version: number; body: string }>(DRAFTS).all()) {
		const body = JSON.stringify(map(parseApp(row.body)))
		if (body !== row.body) store.prepare(SET_DRAFT).run({ kind: row.kind, version: row.version, body })
	}
	for (const row of store.prepare<{ app: number; number: number; body: string }>(RELEASES).all()) {
		const body = JSON.stringify(map(parseApp(row.body)))
		if (body !== row.body) store.prepare(SET_RELEASE).run({ app: row.app, number: row.number, body })
	}
}

/** A column of another type may not suit the formulas of apps; those of the workspace are checked as it is saved. */
export function refuseBrokenApps(store: Store, before: Catalogue): void {
	const { catalogue } = store.workspace()
	for (const app of appsAt(store)) {
		appWalk.mapFormulas(app, (text, standing, place) => {
			const [was, now] = [before, catalogue].map((each) => check(text, scopeOf(standing, each)))
			if (was?.expr && !now?.expr)
				throw new AppError('invalid', `${app.name}, ${place}: ${now?.issues[0]?.message ?? ''}`)
			return text
		})
	}
}

/** Everything that names a column, once each. */
export function usesOfColumn(store: Store, table: number, column: number): ColumnUse[] {
	const { document, catalogue } = store.workspace()
	const uses = new Map<string, ColumnUse>()
	const add = (place: string, needs: boolean) =>
		uses.set(place, { place, needs: needs || (uses.get(place)?.needs ?? false) })
	const look = (text: string, standing: Standing, place: string) => {
		if (namesIn(text, standing, catalogue).some((use) => use.column === column)) add(place, true)
		return text
	}
	documentWalk.mapFormulas(document, look)
	const entry = document.tables.find((each) => each.id === table)
	if (entry?.label === column) add('What rows are known by', true)
	for (const app of appsAt(store)) {
		const within = (place: string) => `${app.name}: ${place}`
		appWalk.mapFormulas(app, (text, standing, place) => look(text, standing, within(place)))
		for (const screen of app.screens)
			if (appWalk.namesColumn(screen.lines, column)) add(within(`Screen ${screen.title}`), false)
		const needing = appWalk.needsColumn(app, column)
		if (needing) add(within(needing), true)
	}
	return [...uses.values()]
}

/** The drafts and live releases of all apps. */
export function appsAt(store: Store): AppDocument[] {
	const drafts = store.prepare<{ body: string }>(DRAFTS).all()
	const live = store.prepare<{ body: string }>(LIVE_RELEASES).all()
	return [...drafts, ...live].map((row) => parseApp(row.body))
}

const LIVE_RELEASES = `
	SELECT release.body FROM app JOIN release ON release.app = app.id AND release.number = app.live_release`

const BODY = `SELECT body FROM document WHERE kind = 'workspace' AND version = ?`

/** Puts a table back to what it was in a version of the workspace, if nothing of it has changed since the next one. */
export function putTableBack(
	store: Store,
	{ table, version, actor, now }: ByActor & { table: number; version: number }
): void {
	getTableAsKeeper(store, table, actor)
	const [was, next] = [version, version + 1].map((each) => findEntry(store, table, each))
	const current = store.workspace().document.tables.find((entry) => entry.id === table)
	if (!was || !current || !next || JSON.stringify(next) !== JSON.stringify(current))
		throw new AppError('conflict', 'This table has been changed again since, so it was not put back.')
	const replaced = new Map<number, number>()
	const gone = new Set<number>()
	for (const column of current.columns) {
		if (was.columns.some((each) => each.id === column.id)) continue
		const twin = was.columns.find((each) => each.name === column.name)
		if (twin) replaced.set(column.id, twin.id)
		else gone.add(column.id)
	}
	for (const column of gone) refuseIfNeeded(store, table, column)
	// Under today's rights, and without touching who keeps the table.
	refuseUnheldRules(store, table, was, { actor, now })
	const { keepers } = current
	restructure(store, { table, actor, now, what: 'put back', replaced, gone }, () => ({ ...was, keepers }))
}

/** Refuses to take a column out while something cannot do without it, and says what. */
export function refuseIfNeeded(store: Store, table: number, column: number): void {
	const needing = usesOfColumn(store, table, column).filter((use) => use.needs)
	if (needing.length === 0) return
	const places = needing.map((use) => use.place).join('; ')
	throw new AppError('invalid', `These cannot do without it: ${places}. Change them first.`, { uses: needing })
}

function findEntry(store: Store, table: number, version: number): TableEntry | undefined {
	const body = store.prepare<string>(BODY).pluck().get(version)
	const document: WorkspaceDocument | undefined = body === undefined ? undefined : parseWorkspace(body)
	return document?.tables.find((entry) => entry.id === table)
}
