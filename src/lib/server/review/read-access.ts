/** What the lines of a table come to, person by person and line by line; with unsaved ones, what those would. */
import type { AccessSheet, PersonCount } from '$lib/core/requests/access.ts'
import { AppError } from '$lib/core/app-error.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import type { Line } from '$lib/core/access/types.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { getTable, type Table } from '$lib/core/model/table.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import { lineSchema, type LineEntry, type WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { describePerson } from '../rights/accounts.ts'
import { momentOf, rightsUnder, standingOf, type Actor } from '../rights/rights-of-actor.ts'
import { readPersonRow, rolesOf } from '../rights/roles-held.ts'
import type { Store } from '../store/store.ts'
import { openCounts, peopleListed, peopleUnlisted, type Counts } from './counts.ts'
import { readExamples } from '../structure/examples.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { refuseUnheldLines } from '../structure/tables.ts'

export interface AskingAccess {
	readonly table: number
	/** Lines that are not saved yet. */
	readonly draft?: unknown
	readonly actor: Actor
	readonly now: number
}

/** The lines of a table with what they come to; of a draft, without saving it. */
export function readAccess(store: Store, { table: id, draft, actor, now }: AskingAccess): AccessSheet {
	getTableAsKeeper(store, id, actor)
	const workspace = store.workspace()
	const saved = workspace.document.lines.filter((line) => line.table === id)
	const lines = draft === undefined ? saved : parseDraft(draft)
	if (draft !== undefined) refuseUnheldLines(store, lines, { table: id, actor, now })
	const document: WorkspaceDocument = {
		...workspace.document,
		lines: [...workspace.document.lines.filter((line) => line.table !== id), ...lines]
	}
	const next = draft === undefined ? workspace : buildWorkspace(document)
	const table = getTable(next.catalogue, id)
	const issues = next.issues.flatMap((each) =>
		'line' in each.place ? [{ ...each, line: each.place.line, part: each.place.part }] : []
	)
	const counting: Counting = {
		store,
		table,
		counts: openCounts(store),
		keeper: standingOf(store, actor, now).rights,
		now
	}
	const people = peopleListed(store).map((person) => {
		const before = rightsUnder(store, person, workspace.lines, now)
		const after = draft === undefined ? before : rightsUnder(store, person, next.lines, now)
		return { person, before, after }
	})
	return {
		version: workspace.version,
		lines,
		people: people.map((each) => countFor(counting, each)),
		unlisted: peopleUnlisted(store),
		comesTo: lines.map((line) =>
			lineComesTo(counting, line, { people: people.map(({ person }) => person), lines: next.lines })
		),
		issues,
		examples: readExamples(store, { table, lines: next.lines, actor, now })
	}
}

function parseDraft(draft: unknown): LineEntry[] {
	const parsed = lineSchema.array().max(200).safeParse(draft)
	if (!parsed.success) throw new AppError('invalid', 'A line still has a gap: choose a role and what it may do.')
	return parsed.data
}

interface Counting {
	readonly store: Store
	readonly table: Table
	readonly counts: Counts
	/** Of whoever asks, and keeps the table: everything in it. */
	readonly keeper: Rights
	readonly now: number
}

function countFor(
	{ store, table, counts, keeper }: Counting,
	{ person, before, after }: { person: number; before: Rights; after: Rights }
): PersonCount {
	const who = describePerson(store, person)
	const change = after.of('change', table).map((right) => right.where)
	const may: Expr = { kind: 'or', args: change, type: { kind: 'yesno' } }
	const hiddenFrom = (rights: Rights) =>
		table.columns.filter((column) => !column.condition && isNever(rights.cell(table, column))).map(({ name }) => name)
	return {
		person,
		name: who?.name ?? '',
		roles: who?.roleNames ?? [],
		seen: counts.count(after, table),
		before: counts.count(before, table),
		change: change.length === 0 ? 0 : counts.count(keeper, table, may),
		withheld: hiddenFrom(after),
		withheldBefore: hiddenFrom(before)
	}
}

function lineComesTo(
	{ store, table, counts, keeper, now }: Counting,
	line: LineEntry,
	{ people, lines }: { people: readonly number[]; lines: readonly Line[] }
): AccessSheet['comesTo'][number] {
	const checked = lines.find((each) => each.id === line.id && each.table === table.id)
	const found = people.flatMap((person) => {
		const me = readPersonRow(store, person)
		if (!checked || !rolesOf(store, person, me).has(line.role)) return []
		const where = fold(checked.where, { ...momentOf(store, person, now), ...(me ? { me } : {}) })
		return [counts.count(keeper, table, where)]
	})
	return {
		id: line.id,
		people: found.length,
		least: found.length > 0 ? Math.min(...found) : 0,
		most: Math.max(0, ...found)
	}
}
