/**
 * What somebody's standing comes to, piece by piece: what is asked of them, keeping, suspension, the day it is, looking as
 * somebody, what a builder holds of a formula, the tables that a page shows anything of, roles given and taken.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { giveRole, takeRole } from '$lib/server/people/grants.ts'
import { granterOf } from '$lib/server/rights/granter.ts'
import { findUnheld, findUnheldOfMe, refuseUnheld } from '$lib/server/rights/held-formulas.ts'
import { momentAt, momentOf, rightsUnder, standingOf } from '$lib/server/rights/rights-of-actor.ts'
import { fittingRoles, heldRoles, readPersonRow, rolesOf, visitedApp } from '$lib/server/rights/roles-held.ts'
import { seenTables } from '$lib/server/rights/seen-tables.ts'
import { asShownTo } from '$lib/server/rights/shown-me.ts'
import { EVERYONE, STEWARD } from '$lib/server/rights/system-roles.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import { oneListApp } from '../support/one-list-app.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [HARBOURS, H_NAME, H_DUES] = [2, 20, 21]
const [BOATS, B_NAME, B_HARBOUR, B_DUES, B_TRIPS, B_KEPT, B_OWNER] = [3, 30, 31, 32, 33, 34, 35]
const [TRIPS, T_DAY, T_BOAT, T_ODD] = [4, 40, 41, 42]
const [PHONE, WING, RANK] = [7, 8, 9]
const [CREW, CLERKS, SENIORS] = [10, 11, 12]
const [IMKE, OSRIC, PETRA] = [2, 3, 4]

const line = (id: string, table: number, role: number, parts: Partial<LineEntry> = {}): LineEntry => ({
	...{ id, table, role, verbs: ['see'], where: '', columns: { kind: 'all' } },
	...parts
})
const except = (...columns: number[]) => ({ columns: { kind: 'except' as const, columns } })

let store: Store

function open(lines: LineEntry[], openColumns: readonly number[] = []): void {
	const keepers = [KEEPER]
	const mark = <T extends { id: number }>(column: T) => (openColumns.includes(column.id) ? { ...column, openAsMe: true } : column) // prettier-ignore
	store = openScratch({
		now: NOW,
		peopleColumns: [
			{ id: PHONE, name: 'phone', type: 'text' as const },
			{ id: WING, name: 'wing', type: 'text' as const },
			{ id: RANK, name: 'rank', type: 'computed' as const, formula: 'phone & "!"' }
		].map(mark),
		roles: [
			{ id: EVERYONE, name: 'Everyone', includes: [] },
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [CREW] },
			{ id: SENIORS, name: 'Seniors', includes: [], where: 'wing = "east"' },
			{ id: STEWARD, name: 'Stewards', includes: [] }
		],
		lines,
		tables: [
			{
				...{ id: HARBOURS, name: 'harbours', keepers, label: H_NAME },
				columns: [
					{ id: H_NAME, name: 'name', type: 'text' },
					{ id: H_DUES, name: 'dues', type: 'whole number' }
				]
			},
			{
				...{ id: BOATS, name: 'boats', keepers: [OSRIC], label: B_NAME },
				columns: [
					{ id: B_NAME, name: 'name', type: 'text' },
					{ id: B_HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'boats' },
					{ id: B_DUES, name: 'dues', type: 'computed', formula: 'harbour.dues' },
					{ id: B_TRIPS, name: 'trip count', type: 'computed', formula: 'COUNT(trips)' },
					{ id: B_KEPT, name: 'short', type: 'computed', formula: 'LEFT(name; 2)' },
					{ id: B_OWNER, name: 'owner', type: 'reference', to: PEOPLE_TABLE, reverseName: 'boats owned' }
				]
			},
			{
				...{ id: TRIPS, name: 'trips', keepers, label: T_DAY },
				columns: [
					{ id: T_DAY, name: 'day', type: 'date' },
					{ id: T_BOAT, name: 'boat', type: 'reference', to: BOATS, reverseName: 'trips' },
					{ id: T_ODD, name: 'odd', type: 'computed', formula: 'me.phone = "0700"' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c7, c7k, c8, c8k) VALUES
			(${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example', '0700', '0700', 'west', 'west'),
			(${OSRIC}, 0, 0, 'Osric', 'osric', 'o@x.example', 'o@x.example', '0701', '0701', 'east', 'east'),
			(${PETRA}, 0, 0, 'Petra', 'petra', 'p@x.example', 'p@x.example', '0702', '0702', NULL, NULL);
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${OSRIC}, ${CLERKS});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) VALUES (1, 0, 0, 'Ness', 'ness', 70);
		INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31) VALUES (1, 0, 0, 'Heron', 'heron', 1), (2, 0, 0, 'Gull', 'gull', 1);
		INSERT INTO t4 (n, made_at, changed_at, c40, c41) VALUES (1, 0, 0, '2026-11-01', 1);
		UPDATE access_epoch SET n = n + 1`)
	store.forget()
}

const by = (person: number, lookedAtBy?: number) => ({
	...{ actor: { person, ...(lookedAtBy === undefined ? {} : { lookedAtBy }) }, now: NOW }
})
const count = (person: number, table = BOATS) => readRows(store, { person }, { table }, NOW).rows.length
const change = (query: string) => {
	store.db.exec(`${query}; UPDATE access_epoch SET n = n + 1`)
	store.forget()
}
const suspend = (person: number) => change(`INSERT INTO suspended (person, at) VALUES (${person}, 0)`)
const grant = (person: number, table: number, row: number, column: number) =>
	change(`INSERT INTO row_grant (person, table_id, row_n, column_id, case_id) VALUES (${person}, ${table}, ${row}, ${column}, 1)`) // prettier-ignore
const formula = (table: number, text: string) => {
	const { catalogue } = store.workspace()
	const { expr, issues } = checkCondition(text, { catalogue, rows: [getTable(catalogue, table)], me: true })
	if (!expr) throw new Error(issues[0]?.message)
	return expr
}

describe('standing', () => {
	beforeEach(() => open([line('b', BOATS, CREW, { where: 'name = "Heron"' })]))

	test('is what lines, keeping and what was asked come to; for nobody who is not there', () => {
		expect([IMKE, OSRIC, PETRA, 99].map((person) => count(person))).toEqual([1, 2, 0, 0])
		grant(PETRA, BOATS, 2, B_NAME)
		expect([IMKE, OSRIC, PETRA].map((person) => count(person))).toEqual([1, 2, 1])
		expect([...standingOf(store, { person: OSRIC }, NOW).roles].sort()).toEqual([EVERYONE, CREW, CLERKS, SENIORS])
		expect(standingOf(store, { person: 99 }, NOW).roles.size).toBe(0)
	})

	test.each([IMKE, OSRIC, PETRA])('is none while somebody is suspended, by line, keeping or asking: %i', (person) => {
		grant(PETRA, BOATS, 2, B_NAME)
		expect(count(person)).toBeGreaterThan(0)
		suspend(person)
		expect(count(person)).toBe(0)
	})

	test('under other lines alone leaves out what was asked', () => {
		grant(PETRA, BOATS, 2, B_NAME)
		const boats = getTable(store.workspace().catalogue, BOATS)
		const rows = (person: number) => rightsUnder(store, person, store.workspace().lines, NOW).rows(boats)
		expect(rows(PETRA)).toMatchObject({ kind: 'literal', value: false })
		expect(rows(OSRIC)).toMatchObject({ kind: 'literal', value: true })
		expect(rows(IMKE)).toMatchObject({ kind: 'compare' })
	})

	test('has the day of its own clock, or of the workspace', () => {
		const late = Date.parse('2026-11-28T23:30:30Z')
		expect(momentOf(store, IMKE, late)).toEqual({ today: '2026-11-28', now: '2026-11-28T23:30:30.000Z' })
		change(`INSERT INTO person_setting (person, time_zone) VALUES (${IMKE}, 'Pacific/Auckland')`)
		expect(momentOf(store, IMKE, late).today).toBe('2026-11-29')
		expect(momentOf(store, OSRIC, late).today).toBe('2026-11-28')
		expect(standingOf(store, { person: IMKE }, late).moment.today).toBe('2026-11-29')
	})

	test('follows the clock within a minute and over midnight, forwards and back', () => {
		const at = (time: string) => momentAt('Europe/London', Date.parse(`2026-11-${time}Z`))
		expect(at('28T23:59:10')).toEqual({ today: '2026-11-28', now: '2026-11-28T23:59:10.000Z' })
		expect(at('28T23:59:59')).toEqual({ today: '2026-11-28', now: '2026-11-28T23:59:59.000Z' })
		expect(at('29T00:00:00')).toEqual({ today: '2026-11-29', now: '2026-11-29T00:00:00.000Z' })
		expect(at('28T23:59:59').today).toBe('2026-11-28')
		// British summer time ends on 25 October 2026 (IANA time zone database): from then on the day begins at midnight UTC.
		expect(momentAt('Europe/London', Date.parse('2026-10-24T23:30:00Z')).today).toBe('2026-10-25')
		expect(momentAt('Europe/London', Date.parse('2026-10-25T23:30:00Z')).today).toBe('2026-10-25')
	})
})

describe('looking as somebody', () => {
	test('shows what both see: of tables that the looker keeps, all that the other sees', () => {
		open([line('b', BOATS, CREW, { where: 'name = "Heron"' }), line('h', HARBOURS, CREW)])
		const seen = (lookedAtBy: number, table: number) =>
			readRows(store, { person: IMKE, lookedAtBy }, { table }, NOW).rows.length
		expect([seen(OSRIC, BOATS), seen(PETRA, BOATS), seen(OSRIC, HARBOURS), seen(PETRA, HARBOURS)]).toEqual([1, 0, 1, 0])
	})

	test('lines judge the other as they are; what is tried is told no more of them than the looker sees', () => {
		open([line('b', BOATS, CREW, { where: 'me.phone = "0700"' }), line('p', PEOPLE_TABLE, SENIORS, except(PHONE))])
		expect(readRows(store, { person: IMKE, lookedAtBy: OSRIC }, { table: BOATS }, NOW).rows).toHaveLength(2)
		const me = standingOf(store, { person: IMKE, lookedAtBy: OSRIC }, NOW).moment.me
		const people = store.workspace().catalogue.people
		expect(me?.n).toBe(IMKE)
		expect([PHONE, WING].map((id) => me?.value(getColumn(people, id)))).toEqual([null, 'west'])
		expect(standingOf(store, { person: 99, lookedAtBy: OSRIC }, NOW).moment.me).toBeUndefined()
	})

	test.each<[string, LineEntry[], number[], unknown[]]>([
		['nothing of people is seen', [], [], [null, null]],
		['a steward opened one column', [], [WING], [null, 'west']],
		['every row is seen, but one column', [line('p', PEOPLE_TABLE, CREW, except(PHONE))], [], [null, 'west']],
		['the row is seen', [line('p', PEOPLE_TABLE, CREW, { where: 'wing = "west"' })], [], ['0700', 'west']],
		['another row is seen', [line('p', PEOPLE_TABLE, CREW, { where: 'wing = "east"' })], [], [null, null]]
	])('of a person, a looker reads no more where %s', (_what, lines, openColumns, wanted) => {
		open(lines, openColumns)
		const { catalogue } = store.workspace()
		const { rights } = standingOf(store, { person: OSRIC }, NOW)
		const me = readPersonRow(store, IMKE)
		if (!me) throw new Error('Cannot find Imke')
		const shown = asShownTo(store, rights, me)
		const read = () => [PHONE, WING].map((id) => shown.value(getColumn(catalogue.people, id)))
		expect(read()).toEqual(wanted)
		// And the second time, as it was remembered.
		expect(read()).toEqual(wanted)
	})
})

describe('what a builder holds of a formula', () => {
	const unheld = (person: number, table: number, text: string) => findUnheld(store, formula(table, text), by(person))

	test.each<[string, number, string, string | undefined]>([
		['a column of one’s own table', BOATS, 'name = "x"', undefined],
		['a column of rows that are all seen', HARBOURS, 'name = "x"', undefined],
		['a column that is kept back', HARBOURS, 'dues > 1', 'harbours, dues'],
		['it through a reference', BOATS, 'harbour.dues > 1', 'harbours, dues'],
		['it through a computed column of one’s own table', BOATS, 'dues > 1', 'harbours, dues'],
		['rows that point here, of which some are seen', BOATS, 'COUNT(trips) > 1', 'trips, boat'],
		['the same through a computed column', BOATS, 'trip count > 1', 'trips, boat'],
		['rows that point elsewhere, of one’s own table', HARBOURS, 'COUNT(boats) > 1', undefined],
		['what somebody’s row says', BOATS, 'me.phone = name', 'people, phone'],
		['what it says in an open column', BOATS, 'me.wing = name', undefined],
		['what it says in a computed one of a column that is not open', BOATS, 'me.rank = name', 'people, rank'],
		['a column that is open of whoever looks, of somebody else', BOATS, 'owner.wing = "west"', 'people, wing'],
		['what is not held before what is', BOATS, 'harbour.dues > 1 and short = "He"', 'harbours, dues'],
		['the person alone', BOATS, 'me = me', undefined]
	])('%s', (_what, table, text, wanted) => {
		open([line('h', HARBOURS, CREW, except(H_DUES)), line('t', TRIPS, CREW, { where: 'day > "2026-01-01"' })], [WING])
		expect(unheld(OSRIC, table, text)).toBe(wanted)
		expect(unheld(KEEPER, HARBOURS, 'dues > 1')).toBeUndefined()
	})

	test('of whoever looks alone, also through computed columns', () => {
		open([line('t', TRIPS, CREW), line('h', HARBOURS, CREW, except(H_DUES))], [WING])
		const ofMe = (table: number, text: string) => findUnheldOfMe(store, formula(table, text), by(OSRIC))
		expect(ofMe(BOATS, 'harbour.dues > 1')).toBeUndefined()
		expect(ofMe(BOATS, 'me.wing = name')).toBeUndefined()
		expect(ofMe(BOATS, 'name = "x" and me.phone = name')).toBe('people, phone')
		expect(ofMe(BOATS, 'me.phone = name or me.wing = name')).toBe('people, phone')
		expect(ofMe(TRIPS, 'odd')).toBe('people, phone')
		expect(ofMe(BOATS, 'me = me')).toBeUndefined()
	})

	test('is said with the place and the remedy', () => {
		open([])
		const expr = formula(BOATS, 'harbour.dues > 1')
		expect(() => refuseUnheld(store, expr, { ...by(OSRIC), what: 'This line' })).toThrow(
			'This line reads "harbours, dues", of which you do not see every row. Ask whoever keeps that table'
		)
		expect(() => refuseUnheld(store, formula(BOATS, 'name = ""'), { ...by(OSRIC), what: 'x' })).not.toThrow()
	})
})

describe('the tables that a page shows anything of', () => {
	const seen = (person: number, ...tables: number[]) => seenTables(store, { tables, ...by(person) }).sort()

	test('are those themselves, those of references and of what is worked out, as far as any row may be seen', () => {
		open([line('b', BOATS, CREW, { where: 'name = "none"' }), line('h', HARBOURS, CREW), line('t', TRIPS, CREW)])
		expect(seen(IMKE, BOATS)).toEqual([HARBOURS, BOATS, TRIPS])
		expect(seen(IMKE, HARBOURS)).toEqual([HARBOURS])
		expect(seen(IMKE, TRIPS)).toEqual([BOATS, TRIPS])
		expect(seen(IMKE, 999)).toEqual([])
		expect(seen(PETRA, BOATS)).toEqual([])
		open([line('b', BOATS, CREW)])
		expect(seen(IMKE, BOATS)).toEqual([BOATS])
	})
})

describe('roles', () => {
	beforeEach(() => open([]))
	const give = (role: number, person: number, actor: number, mayPassOn = false) =>
		giveRole(store, { role, person, mayPassOn, ...by(actor) })
	const held = (person: number) =>
		store.prepare('SELECT role, may_pass_on FROM role_held WHERE person = ? ORDER BY role').raw().all(person)

	test('are held by name, by a row that fits, and by what they include; a visitor’s row fits none', () => {
		const row = (person: number) => readPersonRow(store, person)
		const osric = row(OSRIC)
		if (!osric) throw new Error('Cannot find Osric')
		expect(heldRoles(store, OSRIC, osric)).toEqual([CLERKS, SENIORS])
		expect(fittingRoles(store, osric)).toEqual([SENIORS])
		expect([...rolesOf(store, OSRIC, undefined)]).toEqual([])
		expect(visitedApp(store, OSRIC)).toBeUndefined()
		const app = addAppFrom(store, { document: oneListApp('Boats', BOATS, B_NAME), ...by(KEEPER) })
		change(`INSERT INTO visitor (person, app) VALUES (${OSRIC}, ${app})`)
		expect(visitedApp(store, OSRIC)).toBe(app)
		expect(heldRoles(store, OSRIC, osric)).toEqual([CLERKS])
		expect([...rolesOf(store, OSRIC, osric)].sort()).toEqual([CREW, CLERKS])
	})

	test('are given and taken with an entry each, and whoever shows pages is told', () => {
		store.touched.clear()
		give(CREW, PETRA, KEEPER, true)
		expect(held(PETRA)).toEqual([[CREW, 1]])
		give(CREW, PETRA, KEEPER)
		expect(held(PETRA)).toEqual([[CREW, 0]])
		expect(store.touched.has('access')).toBe(true)
		takeRole(store, { role: CREW, person: PETRA, ...by(KEEPER) })
		expect(held(PETRA)).toEqual([])
		const entries = store.prepare(`SELECT at, person, through, kind, table_id, row_n, body FROM history ORDER BY seq DESC LIMIT 3`).all() // prettier-ignore
		const entry = { at: NOW, person: KEEPER, through: 'People', table_id: PEOPLE_TABLE, row_n: PETRA }
		expect(entries).toEqual([
			{ ...entry, kind: 'take role', body: JSON.stringify({ role: CREW, name: 'Crew' }) },
			{ ...entry, kind: 'give role', body: JSON.stringify({ role: CREW, name: 'Crew', mayPassOn: false }) },
			{ ...entry, kind: 'give role', body: JSON.stringify({ role: CREW, name: 'Crew', mayPassOn: true }) }
		])
	})

	test.each<[string, () => void, string]>([
		['a role that is not there', () => give(999, PETRA, KEEPER), 'This role is not there.'],
		['what everyone holds', () => give(EVERYONE, PETRA, KEEPER), 'This role is not there.'],
		['to somebody who is not there', () => give(CREW, 99, KEEPER), 'This person is not there.'],
		['by who may not', () => give(CREW, PETRA, IMKE), 'may not'],
		['by who looks as a steward', () => giveRole(store, { role: CREW, person: PETRA, mayPassOn: false, actor: { person: KEEPER, lookedAtBy: IMKE }, now: NOW }), 'may not'] // prettier-ignore
	])('are not given: %s', (_what, work, says) => {
		expect(work).toThrow(says)
		expect(held(PETRA)).toEqual([])
	})

	test('who may pass on what is told of who is there themselves', () => {
		change(`UPDATE role_held SET may_pass_on = 1 WHERE person = ${IMKE}`)
		expect(granterOf(store, { person: KEEPER })).toMatchObject({ person: KEEPER, isSteward: true })
		expect(granterOf(store, { person: IMKE })).toEqual({ person: IMKE, isSteward: false, mayPassOn: new Set([CREW]) })
		expect(granterOf(store, { person: IMKE, lookedAtBy: KEEPER }).mayPassOn.size).toBe(0)
		expect(granterOf(store, { person: KEEPER, lookedAtBy: IMKE }).isSteward).toBe(false)
		expect(granterOf(store, { person: 99 }).isSteward).toBe(false)
	})
})
