/** The Logbook: who did what, when, through what. Without cell values, which belong to the rows' own history. */
import type { LogEntry, LogPage } from '$lib/core/requests/logbook.ts'
import { countOf } from '$lib/core/text/count.ts'
import { textKey } from '$lib/core/text/key.ts'
import { describePerson } from '../rights/accounts.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { findBrokenSeal, writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

export interface LogAsked {
	readonly actor: Actor
	/** Words of a name, a table, a kind of act or a way in; all of them must be there. */
	readonly find?: string | undefined
	/** Days, both of them in it, as ISO dates (UTC). */
	readonly from?: string | undefined
	readonly to?: string | undefined
	readonly before?: number | undefined
}

const PAGE = 100
const DAY = 86_400_000
const FAILED = 'sign in failed'
const HEAD = `SELECT seq, seal FROM history ORDER BY seq DESC LIMIT 1`

interface StoredEntry {
	readonly seq: number
	readonly at: number
	readonly person: number | null
	readonly through: string
	readonly kind: string
	readonly tableId: number | null
	readonly row: number | null
	readonly body: string
	readonly seal: string
}

/** All of it for stewards; others read what they did themselves, and what happened to tables that they keep. */
export function listLogbook(store: Store, asked: LogAsked): LogPage {
	const { actor, before } = asked
	const steward = describePerson(store, actor.person)?.isSteward ?? false
	const { catalogue } = store.workspace()
	const kept = [...catalogue.tables.values()].filter((table) => table.keepers.includes(actor.person))
	const conditions = ['seq < @before', ...wanted(store, asked.find ?? '').map(({ sql }) => sql)]
	if (!steward) conditions.push(`(person = @person OR table_id IN (SELECT value FROM json_each(@kept)))`)
	const [from, to] = [dayStart(asked.from), dayStart(asked.to)]
	if (from !== undefined) conditions.push('at >= @from')
	if (to !== undefined) conditions.push('at < @to')
	const find = `
		SELECT seq, at, person, through, kind, table_id AS tableId, row_n AS row, body, seal
		FROM history WHERE ${conditions.join(' AND ')} ORDER BY seq DESC LIMIT ${PAGE + 1}`
	const rows = store.prepare<StoredEntry>(find).all({
		before: before ?? Number.MAX_SAFE_INTEGER,
		...(steward ? {} : { person: actor.person, kept: JSON.stringify(kept.map(({ id }) => id)) }),
		...(from === undefined ? {} : { from }),
		...(to === undefined ? {} : { to: to + DAY }),
		...Object.assign({}, ...wanted(store, asked.find ?? '').map(({ params }) => params))
	})
	const page = rows.slice(0, PAGE)
	return {
		entries: page.map((row) => toEntry(store, row, steward)),
		next: rows.length > PAGE ? (page.at(-1)?.seq ?? null) : null,
		head: store.prepare<LogPage['head']>(HEAD).get() ?? null
	}
}

interface Wanted {
	readonly sql: string
	readonly params: Readonly<Record<string, string>>
}

/** For each word: it stands in the kind, the way, a person's name or a table's. */
function wanted(store: Store, find: string): Wanted[] {
	const words = find
		.split(/\s+/)
		.filter((word) => word !== '')
		.slice(0, 8)
	const { catalogue } = store.workspace()
	const { people } = catalogue
	return words.map((word, i) => {
		const tables = [...catalogue.tables.values()].filter(({ name }) => textKey(name).includes(textKey(word)))
		const named = `person IN (SELECT n FROM t${people.id} WHERE instr(c${people.label}k, @key${i}) > 0)`
		const within = `table_id IN (SELECT value FROM json_each(@tables${i}))`
		return {
			sql: `(instr(kind, @key${i}) > 0 OR instr(lower(through), @key${i}) > 0 OR ${named} OR ${within})`,
			params: { [`key${i}`]: textKey(word), [`tables${i}`]: JSON.stringify(tables.map(({ id }) => id)) }
		}
	})
}

function dayStart(day: string | undefined): number | undefined {
	const at = day ? Date.parse(`${day}T00:00:00Z`) : Number.NaN
	return Number.isNaN(at) ? undefined : at
}

function toEntry(store: Store, { person, tableId, row, body, ...entry }: StoredEntry, steward: boolean): LogEntry {
	const { catalogue } = store.workspace()
	const table = tableId === null ? undefined : catalogue.tables.get(tableId)
	const nobody = entry.kind === FAILED ? 'somebody unknown' : 'Tin Shed'
	const who = person === null ? nobody : (describePerson(store, person)?.name ?? 'somebody who is gone')
	const whom = table === catalogue.people && row !== null && steward ? describePerson(store, row)?.name : undefined
	const about = [whom, detailOf(store, body)].filter(Boolean).join(', ')
	return { ...entry, who, table: table?.name ?? '', about }
}

/** What of an entry is no cell of a row: names that were given, roles, files, how many rows. */
function detailOf(store: Store, body: string): string {
	const { name, what, file, rows, role, format, number } = ownJson<Readonly<Record<string, unknown>>>(body)
	const held = store.workspace().roles.find((each) => each.id === role)?.name
	const said: string[] = []
	for (const each of [name, what, held, file, format])
		if (typeof each === 'string' && !said.includes(each)) said.push(each)
	if (typeof rows === 'number') said.push(countOf(rows, 'row'))
	if (typeof number === 'number') said.push(`no. ${number}`)
	return said.join(', ')
}

/** Whether every entry fits the one before it: the first that does not, and how many were looked at. */
export function checkSeals(store: Store): { broken: number | null; entries: number } {
	const entries = Number(store.prepare('SELECT count(*) FROM history').pluck().get())
	return { broken: findBrokenSeal(store) ?? null, entries }
}

/** A table left as a file. What was in it depends on who took it; its rows are not written down. */
export function noteExport(
	store: Store,
	{ table, format, actor, now }: { table: number; format: string; actor: Actor; now: number }
): void {
	const entry = { at: now, person: actor.person, through: 'export' as const, kind: 'export', table, row: null }
	writeHistory(store, { ...entry, body: { format } })
}

/** Somebody tried to come in as this person and could not; undefined where nobody has the address. What was typed is not kept. */
export function noteFailedSignIn(store: Store, { person, now }: { person: number | undefined; now: number }): void {
	const entry = { at: now, person: person ?? null, through: 'sign-in' as const, kind: FAILED, table: null, row: null }
	writeHistory(store, { ...entry, body: {} })
}
