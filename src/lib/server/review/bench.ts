/** What a builder reads on the Bench: the tables they may know of, their structure, and what a condition comes to. */
import type { FormulaTrial } from '$lib/core/requests/formulas.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { tooMuch } from '$lib/core/formula/syntax/issues.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import type { Catalogue, Table } from '$lib/core/model/table.ts'
import type { NamedColumn, Vocabulary } from '$lib/core/sentence/vocabulary.ts'
import { describePerson } from '../rights/accounts.ts'
import { findUnheldOfMe } from '../rights/held-formulas.ts'
import { standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { readRows } from '../rows/read.ts'
import { countUnder } from '../rows/resolve.ts'
import { findUndoable } from '../history/last-merge.ts'
import type { Store } from '../store/store.ts'
import { peopleListed } from './counts.ts'
import { findCost, findTooDear } from '../derived/formula-cost.ts'
import { chosenIn, type HeldHere } from './reads-screen.ts'
import { hereIn } from '$lib/core/formula/check/rename.ts'

const COUNT_LIMIT = 1_000_001
/** Lists of tables count no further; the grid itself says how many rows there are. */
const LISTED = 10_001

/** The tables that this builder keeps or may see something of, with as much of each. */
export function listTables(store: Store, { actor, now }: ByActor): BenchTable[] {
	const workspace = store.workspace()
	const { rights } = standingOf(store, actor, now)
	return [...workspace.catalogue.tables.values()].flatMap((table) => {
		const owned = table.keepers.includes(actor.person)
		if (!owned && isNever(rights.rows(table))) return []
		const visible = table.columns.filter((column) => !isNever(rights.cell(table, column)))
		const entry = workspace.document.tables.find((each) => each.id === table.id)
		const source =
			entry?.source && owned
				? { file: entry.source.file, at: entry.source.at, ...(entry.source.sheet ? { sheet: entry.source.sheet } : {}) }
				: null
		const shown = describeColumns(
			table,
			visible.map((column) => column.id),
			owned
		)
		const backReferences = table.backReferences.map((each) => each.name)
		return [
			{
				id: table.id,
				name: table.name,
				owned,
				keepers: owned ? table.keepers : [],
				people: table === workspace.catalogue.people,
				label: table.label,
				rows: countUnder(store, rights, { table, where: [], limit: LISTED }),
				mayAdd: rights.mayPossibly('add', table),
				columns: shown,
				backReferences,
				source,
				undoable: owned && findUndoable(store, table.id, now) !== undefined,
				about: table.about ?? '',
				checks: owned ? (entry?.checks ?? []) : [],
				removed: owned ? (entry?.removed ?? []).map(({ column, at }) => ({ id: column.id, name: column.name, at })) : []
			}
		]
	})
}

/** The names that sentences on the Bench may use. */
export function vocabularyOf(
	store: Store,
	tables: readonly BenchTable[]
): Omit<Vocabulary, 'screens' | 'routines' | 'signoffs'> {
	const seen = new Set(tables.flatMap(({ columns }) => columns.map(({ id }) => id)))
	const all = [...store.workspace().catalogue.tables.values()]
	const columns = all.flatMap((table) => table.columns.map(({ id }) => id)).filter((id) => !seen.has(id))
	return {
		unseen: { tables: all.map(({ id }) => id).filter((id) => !tables.some((each) => each.id === id)), columns },
		tables: tables.map(({ id, name, columns }) => ({ id, name, columns: columns.map(toNamed) })),
		roles: store.workspace().document.roles.map(({ id, name }) => ({ id, name }))
	}
}

function toNamed({ id, name, type, shows, to, condition }: ShownColumn): NamedColumn {
	return {
		id,
		name,
		type,
		...(shows === undefined ? {} : { shows }),
		...(to === undefined ? {} : { to }),
		...(condition ? { condition } : {})
	}
}

/** Tries a condition on a table, as the builder may see it, and as a few others would. */
export function tryCondition(
	store: Store,
	asked: ByActor & {
		table: number
		text: string
		people: readonly number[]
		me: boolean
		around?: readonly number[]
		here?: HeldHere
	}
): FormulaTrial {
	const { table: id, text, people, actor, now, me, around = [], here = {} } = asked
	const { catalogue } = store.workspace()
	const { rights, moment } = standingOf(store, actor, now)
	const table = catalogue.tables.get(id)
	if (!table || isNever(rights.rows(table))) return { ok: false, issues: [] }
	const { expr, issues } = checkCondition(text === '' ? 'TRUE' : text, {
		...{ catalogue, me, here: hereIn(here, catalogue) },
		rows: [...tablesFrom(catalogue, around), table]
	})
	if (!expr) return { ok: false, issues }
	const tooDear = findTooDear(store, expr)
	if (tooDear !== undefined) return { ok: false, issues: [tooMuch(tooDear, text)] }
	const chosen = chosenIn(text, here)
	if (around.length > 0 || chosen.length > 0) return { ok: true, issues: [], chosen }
	const looksAt = findCost(store, expr)
	const count = (rights: Rights, at: typeof moment): number =>
		countUnder(store, rights, { table, where: [fold(expr, at)], limit: COUNT_LIMIT })
	const owned = table.keepers.includes(actor.person)
	const unheld = findUnheldOfMe(store, expr, { actor, now })
	const others = owned && unheld === undefined ? people : []
	return {
		ok: true,
		issues: [],
		rows: count(rights, moment),
		...samplesOf(store, { table, text, actor, now }),
		of: countUnder(store, rights, { table, where: [], limit: COUNT_LIMIT }),
		people: others.flatMap((person) => {
			const name = describePerson(store, person)?.name
			const standing = standingOf(store, { person, lookedAtBy: actor.person }, now)
			return name === undefined ? [] : [{ name, rows: count(standing.rights, standing.moment) }]
		}),
		...(owned && unheld !== undefined ? { unheld } : {}),
		...(looksAt === undefined ? {} : { looksAt })
	}
}

const SAMPLES = 3

/** Rows that the builder sees, on either side of a condition: to see at once whether it says what was meant. */
function samplesOf(
	store: Store,
	{ table, text, actor, now }: ByActor & { table: Table; text: string }
): Pick<FormulaTrial, 'samples'> {
	const [label] = describeColumns(table, [table.label])
	if (!label || text.trim() === '') return {}
	const labels = (where: string) => {
		const asked = { table: table.id, columns: [table.label], where: [where], limit: SAMPLES }
		return readRows(store, actor, asked, now).rows.map((row) => row.cells[cellKey(table.label)] ?? null)
	}
	return { samples: { label, inside: labels(text), outside: labels(`NOT (${text})`) } }
}

/** The tables of the rows around a formula's own; one that is gone is left out. */
export function tablesFrom({ tables }: Catalogue, ids: readonly number[]): Table[] {
	return ids.flatMap((id) => tables.get(id) ?? [])
}

/** People whom a builder can look as: everybody, by name and role. */
export function listPeople(store: Store): { person: number; name: string; roles: readonly string[] }[] {
	return peopleListed(store).flatMap((person) => {
		const who = describePerson(store, person)
		return who ? [{ person, name: who.name, roles: who.roleNames }] : []
	})
}
