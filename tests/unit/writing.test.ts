/**
 * One change of a row through the door in: by what right, past which guards, what is written down and who is told. Imke changes
 * buoys at Ness that stay there; Osric sees all of them and removes those that are out of use; Petra only adds.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import type { CellInput, Change } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { STEWARD } from '$lib/server/rights/system-roles.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const BUOYS = 3
const [NAME, PORT, NO, DEPTH, USED, SECRET, TWICE, BY] = [30, 31, 32, 33, 34, 35, 36, 37]
const [NOTES, SAID, BUOY, COPY] = [4, 40, 41, 42]
const [CREW, MASTERS, CLERKS] = [10, 11, 12]
const [IMKE, OSRIC, PETRA] = [2, 3, 4]
const WING = 9

const line = (id: string, role: number, verbs: LineEntry['verbs'], parts: Partial<LineEntry> = {}): LineEntry => ({
	...{ id, table: BUOYS, role, verbs, where: '', columns: { kind: 'all' } },
	...parts
})
const but = (...columns: number[]) => ({ columns: { kind: 'except' as const, columns } })

let store: Store

beforeEach(() => {
	const keepers = [KEEPER]
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: WING, name: 'wing', type: 'text' }],
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: MASTERS, name: 'Masters', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [] },
			{ id: STEWARD, name: 'Stewards', includes: [] }
		],
		lines: [
			line('a', CREW, ['see', 'change'], { where: 'port = "Ness"', ...but(SECRET) }),
			line('b', CREW, ['add'], { where: 'depth < 20', ...but(SECRET, USED) }),
			line('c', CREW, ['change'], { where: 'name = "Loose"', after: 'depth > 1', columns: { kind: 'only', columns: [PORT, DEPTH] } }), // prettier-ignore
			line('d', MASTERS, ['see']),
			line('e', MASTERS, ['remove'], { where: 'not used' }),
			line('f', CLERKS, ['add']),
			line('g', CREW, ['see', 'add', 'change'], { table: NOTES }),
			line('h', MASTERS, ['see'], { table: NOTES, where: 'said = "open"' }),
			line('i', MASTERS, ['see', 'change', 'remove', 'add'], { table: PEOPLE_TABLE, where: 'wing = "east" or wing = "west"' }) // prettier-ignore
		],
		tables: [
			{
				...{ id: BUOYS, name: 'buoys', keepers, label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text', required: true, unique: true },
					{ id: PORT, name: 'port', type: 'text' },
					{ id: NO, name: 'no', type: 'whole number', unique: true, uniqueWithin: PORT },
					{ id: DEPTH, name: 'depth', type: 'decimal', places: 1 },
					{ id: USED, name: 'used', type: 'yes/no' },
					{ id: SECRET, name: 'secret', type: 'whole number', unique: true },
					{ id: TWICE, name: 'twice', type: 'computed', formula: 'depth * 2' },
					{ id: BY, name: 'by', type: 'reference', to: PEOPLE_TABLE, reverseName: 'buoys' }
				],
				checks: [
					{ formula: 'depth < 50', message: 'Nothing here is deeper than 50 m.' },
					{ formula: '1 / no > 0 or no > 900', message: 'Never said: it is in error or holds.' },
					{ formula: 'not (ISBLANK(port)) or ISBLANK(no)', message: 'A number needs its port.' }
				]
			},
			{
				...{ id: NOTES, name: 'notes', keepers, label: SAID },
				columns: [
					{ id: SAID, name: 'said', type: 'text' },
					{ id: BUOY, name: 'buoy', type: 'reference', to: BUOYS, reverseName: 'notes' },
					{ id: COPY, name: 'copy of', type: 'reference', to: BUOYS, reverseName: 'copies', onRemoval: 'clear' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c9, c9k) VALUES
			(${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example', 'east', 'east'), (${OSRIC}, 0, 0, 'Osric', 'osric', 'o@x.example', 'o@x.example', 'west', 'west'),
			(${PETRA}, 0, 0, 'Petra', 'petra', 'p@x.example', 'p@x.example', NULL, NULL);
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${OSRIC}, ${MASTERS}), (${PETRA}, ${CLERKS});
		UPDATE access_epoch SET n = n + 1`)
	store.forget()
	add({ [NAME]: 'Heron', [PORT]: 'Ness', [NO]: 1, [DEPTH]: 4, [USED]: true, [SECRET]: 77 })
	add({ [NAME]: 'Gull', [PORT]: 'Varrow', [NO]: 1, [DEPTH]: 6, [USED]: false, [SECRET]: 78 })
	add({ [NAME]: 'Loose', [PORT]: 'Ness', [DEPTH]: 8, [USED]: false })
})

const cellsOf = (values: Record<number, CellInput>) =>
	Object.entries(values).map(([column, value]) => ({ column: Number(column), value }))
const by = (person: number) => ({ actor: { person }, now: NOW, through: 'grid' as const })
/** As the writer does: a refusal leaves nothing. */
const change = (person: number, ...changes: Change[]) =>
	store.db.transaction(() => changeRows(store, changes, by(person)))()
const add = (values: Record<number, CellInput>, person = KEEPER, table = BUOYS) =>
	change(person, { kind: 'add', table, cells: cellsOf(values) })[0]?.row ?? ''
const row = (n: number, table = BUOYS) => store.ids.toId(table, n)
const set = (person: number, n: number, values: Record<number, CellInput>, table = BUOYS) =>
	change(person, { kind: 'change', table, row: row(n, table), cells: cellsOf(values) })
const remove = (person: number, n: number, table = BUOYS) =>
	change(person, { kind: 'remove', table, row: row(n, table) })
const restore = (person: number, n: number, table = BUOYS) => change(person, { kind: 'restore', table, row: row(n, table) }) // prettier-ignore
function says(work: () => unknown): string {
	try {
		work()
	} catch (error) {
		if (error instanceof AppError) return `${error.code}: ${error.message}`
		throw error
	}
	return 'done'
}
const cell = (n: number, column: number, table = BUOYS) =>
	readRows(store, { person: KEEPER }, { table, row: row(n, table) }, NOW).rows[0]?.cells[cellKey(column)]
const last = (count = 1) =>
	store
		.prepare(`SELECT at, person, through, kind, table_id, row_n, body FROM history ORDER BY seq DESC LIMIT ${count}`)
		.all() as Record<string, unknown>[]
const count = (table: string) => store.prepare(`SELECT count(*) FROM ${table}`).pluck().get()

const NOT_THERE = 'not_found: This row is not there, or not for you to see.'
const mayNot = (what: string, table = 'buoys') =>
	`forbidden: You may not ${what} this row: no line of access to ${table} lets you.`
const mayNotSet = (verb: string, column: string) =>
	`forbidden: You may not ${verb} "${column}" of this row: no line of access to buoys lets you.`

describe('who may', () => {
	test.each<[string, () => unknown, string]>([
		['change what a line lets them', () => set(IMKE, 1, { [DEPTH]: 5 }), 'done'],
		['change what they see, but no line lets them', () => set(OSRIC, 1, { [DEPTH]: 5 }), mayNot('change')],
		['change a row that they do not see', () => set(IMKE, 2, { [DEPTH]: 5 }), NOT_THERE],
		['change a column that they see nowhere', () => set(IMKE, 1, { [SECRET]: 5 }), mayNot('change')],
		['change one with it that they may', () => set(IMKE, 1, { [DEPTH]: 5, [SECRET]: 5 }), mayNot('change')],
		['change a row out of the line', () => set(IMKE, 1, { [PORT]: 'Varrow' }), mayNot('change')],
		['change it by another line that allows what comes after', () => set(IMKE, 3, { [PORT]: 'Varrow' }), 'done'],
		['but not to what that line forbids', () => set(IMKE, 3, { [PORT]: 'Varrow', [DEPTH]: 0.5 }), mayNot('change')],
		['nor a column that only the other line holds', () => set(IMKE, 3, { [PORT]: 'Varrow', [USED]: true }), mayNotSet('change', 'used')], // prettier-ignore
		['add what a line lets them', () => add({ [NAME]: 'New', [DEPTH]: 5 }, IMKE), 'done'],
		[
			'add a column that the line leaves out',
			() => add({ [NAME]: 'New', [USED]: true }, IMKE),
			mayNotSet('add', 'used')
		],
		['add a row that does not fit the line', () => add({ [NAME]: 'New', [DEPTH]: 30 }, IMKE), mayNot('add')],
		['add without any line', () => add({ [NAME]: 'New' }, OSRIC), 'forbidden: You may not add rows to buoys.'],
		['add what they do not see afterwards', () => add({ [NAME]: 'New' }, PETRA), 'done'],
		['remove what a line lets them', () => remove(OSRIC, 2), 'done'],
		['remove what it does not', () => remove(OSRIC, 1), mayNot('remove')],
		['remove what they do not see', () => remove(IMKE, 2), NOT_THERE],
		['remove without any line', () => remove(IMKE, 1), mayNot('remove')],
		[
			'change a computed column',
			() => set(KEEPER, 1, { [TWICE]: 5 }),
			'forbidden: That column cannot be changed here.'
		],
		['change a column of another table', () => set(KEEPER, 1, { [SAID]: 'x' }), 'forbidden: That column cannot be changed here.'], // prettier-ignore
		['change nothing, under a line', () => set(IMKE, 1, {}), 'done'],
		['change nothing, without one', () => set(OSRIC, 1, {}), mayNot('change')],
		['change rows of no table', () => change(KEEPER, { kind: 'remove', table: 99, row: row(1) }), NOT_THERE]
	])('%s', (_what, work, wanted) => {
		const before = [count('t3'), count('history')]
		const said = says(work)
		expect(said).toBe(wanted)
		if (said !== 'done') expect([count('t3'), count('history')]).toEqual(before)
	})

	test('in the Lookout nobody changes anything', () => {
		const context = { actor: { person: KEEPER, lookedAtBy: OSRIC }, now: NOW, through: 'grid' as const }
		const cells = cellsOf({ [DEPTH]: 5 })
		const one: Change = { kind: 'change', table: BUOYS, row: row(1), cells }
		expect(says(() => changeRows(store, [one], context))).toBe(
			'forbidden: This is the Lookout: it changes nothing but a copy of the data.'
		)
	})

	test('many changes go in together or not at all', () => {
		const one: Change = { kind: 'change', table: BUOYS, row: row(1), cells: cellsOf({ [DEPTH]: 5 }) }
		expect(says(() => change(KEEPER, one, { kind: 'remove', table: BUOYS, row: row(77) }))).toBe(NOT_THERE)
		expect(cell(1, DEPTH)).toBe(4)
	})
})

describe('guards', () => {
	test.each<[string, () => unknown, string]>([
		['a required column made blank', () => set(KEEPER, 1, { [NAME]: '' }), 'invalid: name must be filled in.'],
		['a new row without it', () => add({ [PORT]: 'Ness' }), 'invalid: name must be filled in.'],
		['a value that another row has, in other letters', () => set(KEEPER, 1, { [NAME]: 'GULL' }), 'invalid: name: another row has this value already.'], // prettier-ignore
		['its own value again', () => set(KEEPER, 1, { [NAME]: 'HERON' }), 'done'],
		['a value of a row that is not seen', () => set(IMKE, 1, { [NAME]: 'Gull' }), 'invalid: name: This value cannot be used.'], // prettier-ignore
		['a value in a column that is not seen', () => add({ [NAME]: 'New', [SECRET]: 77 }, PETRA), 'invalid: secret: This value cannot be used.'], // prettier-ignore
		['the same number within the same port', () => set(KEEPER, 3, { [NO]: 1 }), 'invalid: no: another row has this value already.'], // prettier-ignore
		['the same number within another', () => set(KEEPER, 3, { [NO]: 1, [PORT]: 'Orrin' }), 'done'],
		['another port, where the number is taken', () => set(KEEPER, 2, { [PORT]: 'ness' }), 'invalid: no: another row has this value already.'], // prettier-ignore
		['what a check forbids', () => set(KEEPER, 1, { [DEPTH]: 50 }), 'invalid: Nothing here is deeper than 50 m.'],
		['what it forbids, of a blank', () => set(KEEPER, 1, { [DEPTH]: null }), 'done'],
		['a blank that a check asks for', () => set(KEEPER, 1, { [PORT]: null }), 'invalid: A number needs its port.'],
		['a check in error', () => set(KEEPER, 1, { [NO]: 0 }), 'done']
	])('%s: %#', (_what, work, wanted) => {
		expect(says(work)).toBe(wanted)
	})

	test('name the column, and whether it was of a row that is not seen', () => {
		const details = (work: () => unknown) => {
			try {
				work()
			} catch (error) {
				return (error as AppError).details
			}
			return undefined
		}
		expect(details(() => set(KEEPER, 1, { [NAME]: '' }))).toEqual({ column: NAME })
		expect(details(() => set(KEEPER, 1, { [NAME]: 'Gull' }))).toEqual({ column: NAME })
		expect(details(() => set(IMKE, 1, { [NAME]: 'Gull' }))).toEqual({ column: NAME, unseen: true })
		expect(details(() => set(IMKE, 1, { [SECRET]: 1 }))).toEqual({ column: SECRET })
		expect(details(() => set(OSRIC, 1, { [DEPTH]: 1 }))).toEqual({})
		expect(details(() => set(KEEPER, 1, { [TWICE]: 1 }))).toEqual({ column: TWICE })
	})

	test('leave alone what is not touched, though it would no longer be let in', () => {
		store.db.exec(`UPDATE t3 SET c30 = NULL, c30k = NULL WHERE n = 1; UPDATE t3 SET c35 = 77 WHERE n = 2`)
		expect(says(() => set(KEEPER, 1, { [DEPTH]: 5 }))).toBe('done')
		expect(says(() => set(KEEPER, 2, { [DEPTH]: 5 }))).toBe('done')
		expect(says(() => set(KEEPER, 2, { [SECRET]: 77, [DEPTH]: 6 }))).toBe('done')
	})
})

describe('a column of people that decides what they see', () => {
	const steward = 'forbidden: wing decides what people may see: only a steward changes it.'
	test.each<[string, () => unknown, string]>([
		['is changed by a steward', () => set(KEEPER, IMKE, { [WING]: 'west' }, PEOPLE_TABLE), 'done'],
		['by nobody else', () => set(OSRIC, IMKE, { [WING]: 'west' }, PEOPLE_TABLE), steward],
		['nor in somebody new', () => add({ 1: 'New', [WING]: 'west' }, OSRIC, PEOPLE_TABLE), steward],
		['nor one’s own, by a steward either', () => set(KEEPER, KEEPER, { [WING]: 'west' }, PEOPLE_TABLE), 'forbidden: wing decides what you may see, so somebody else must change it.'], // prettier-ignore
		['what decides nothing is changed by who may', () => set(OSRIC, IMKE, { 1: 'Imke D' }, PEOPLE_TABLE), 'done'],
		['and one’s own', () => set(OSRIC, OSRIC, { 1: 'Osric V' }, PEOPLE_TABLE), 'done'],
		['of another table such a column is like any', () => set(KEEPER, 1, { [PORT]: 'Orrin' }), 'done']
	])('%s', (_what, work, wanted) => {
		expect(says(work)).toBe(wanted)
	})
})

describe('what is written down', () => {
	const entry = (kind: string, person: number, n: number, body: object) => ({
		...{ at: NOW, person, through: 'grid', kind, table_id: BUOYS, row_n: n, body: JSON.stringify(body) }
	})
	test('of an addition the whole row, of a change what differs, of a removal what was there', () => {
		const whole = { c30: 'Loose', c31: 'Ness', c32: null, c33: 80, c34: 0, c35: null, c36: 16, c37: null }
		expect(last()[0]).toMatchObject({ ...entry('add', KEEPER, 3, { after: whole }) })
		set(IMKE, 3, { [DEPTH]: 9, [PORT]: 'Ness' })
		expect(last()[0]).toEqual(entry('change', IMKE, 3, { before: whole, after: { c33: 90, c36: 18 } }))
		remove(OSRIC, 3)
		expect(last()[0]).toEqual(entry('remove', OSRIC, 3, { before: { ...whole, c33: 90, c36: 18 } }))
		restore(KEEPER, 3)
		expect(last()[0]).toEqual(entry('add', KEEPER, 3, { after: { ...whole, c33: 90, c36: 18 } }))
	})

	test('who made and changed a row, and when; the version counts up', () => {
		const later = { ...by(IMKE), now: NOW + 5 }
		const one: Change = { kind: 'change', table: BUOYS, row: row(1), cells: cellsOf({ [DEPTH]: 5 }) }
		expect(changeRows(store, [one], later)).toEqual([{ row: row(1), rev: 2, conflicts: [] }])
		expect(store.prepare('SELECT rev, made_by, made_at, changed_by, changed_at FROM t3 WHERE n = 1').get()).toEqual({
			...{ rev: 2, made_by: KEEPER, made_at: NOW, changed_by: IMKE, changed_at: NOW + 5 }
		})
		expect(set(KEEPER, 1, {})[0]?.rev).toBe(2)
	})

	test('whose pages are told', () => {
		store.touched.clear()
		set(KEEPER, 1, { [DEPTH]: 5 })
		expect([...store.touched]).toEqual([BUOYS])
		store.touched.clear()
		set(KEEPER, OSRIC, { 1: 'Osric V' }, PEOPLE_TABLE)
		expect([...store.touched].map(String).sort()).toEqual([String(PEOPLE_TABLE), 'access'])
	})
})

test('the last steward who can sign in stays', () => {
	store.db.exec(`INSERT INTO account (person, password_hash) VALUES (${KEEPER}, 'x')`)
	expect(says(() => remove(KEEPER, KEEPER, PEOPLE_TABLE))).toContain('this is the last steward who can sign in')
	store.db.exec(`
		INSERT INTO account (person, password_hash) VALUES (${OSRIC}, 'x');
		INSERT INTO role_held (person, role) VALUES (${OSRIC}, ${STEWARD});
		UPDATE access_epoch SET n = n + 1`)
	store.forget()
	expect(says(() => remove(KEEPER, KEEPER, PEOPLE_TABLE))).toBe('done')
})

describe('rows that point to one that goes', () => {
	const note = (values: Record<number, CellInput>) => add({ [SAID]: 'open', ...values }, KEEPER, NOTES)
	const to = (n: number) => ({ id: row(n) })

	test('keep it where their reference says so: named to who sees them', () => {
		note({ [BUOY]: to(2) })
		expect(says(() => remove(OSRIC, 2))).toBe('invalid: Rows of notes still point to this one. Change them first.')
		set(KEEPER, 1, { [SAID]: 'shut' }, NOTES)
		expect(says(() => remove(OSRIC, 2))).toBe('invalid: Other rows still use it.')
		expect(says(() => remove(KEEPER, 2))).toContain('Rows of notes')
	})

	test('lose it where their reference is cleared, which takes the right to change them', () => {
		note({ [COPY]: to(2) })
		note({ [COPY]: to(1) })
		expect(says(() => remove(OSRIC, 2))).toBe(mayNot('change', 'notes'))
		expect(says(() => remove(KEEPER, 2))).toBe('done')
		expect([cell(1, COPY, NOTES), cell(2, COPY, NOTES)]).toMatchObject([null, { label: 'Heron' }])
		expect(says(() => restore(KEEPER, 2))).toBe('done')
		expect(cell(1, COPY, NOTES)).toMatchObject({ label: 'Gull' })
	})

	test('a reference that was cleared stays so where its row has gone too', () => {
		note({ [COPY]: to(2) })
		remove(KEEPER, 2)
		remove(KEEPER, 1, NOTES)
		expect(says(() => restore(KEEPER, 2))).toBe('done')
		expect(says(() => restore(KEEPER, 1, NOTES))).toBe('done')
		expect(cell(1, COPY, NOTES)).toBeNull()
	})

	test('are not changed by the ten thousand', () => {
		store.db.exec(`
			WITH RECURSIVE up (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM up WHERE n < 10000)
			INSERT INTO t${NOTES} (n, made_at, changed_at, c${COPY}) SELECT n, 0, 0, 2 FROM up`)
		expect(says(() => remove(KEEPER, 2))).toBe(
			'invalid: Too many rows of notes point to this one to change them all at once.'
		)
		store.db.exec(`DELETE FROM t${NOTES} WHERE n > 10`)
		expect(says(() => remove(KEEPER, 2))).toBe('done')
	})

	test('only what is filled in asks for the right to add it', () => {
		add({ [NAME]: 'Tern', [PORT]: 'Ness', [DEPTH]: 3 })
		remove(KEEPER, 4)
		expect(says(() => restore(IMKE, 4))).toBe('done')
		expect(cell(4, TWICE)).toBe(6)
	})

	test('a row comes back by who may add it, once, and only to where it pointed', () => {
		note({ [BUOY]: to(2) })
		remove(KEEPER, 1, NOTES)
		remove(KEEPER, 2)
		expect(says(() => restore(KEEPER, 1, NOTES))).toBe(
			'invalid: buoy: the row it points to was removed. Bring that one back first.'
		)
		expect(says(() => restore(OSRIC, 2))).toBe(mayNot('add'))
		expect(says(() => restore(IMKE, 2))).toBe(mayNotSet('add', 'used'))
		expect(restore(KEEPER, 2)).toEqual([{ row: row(2), rev: 3, conflicts: [] }])
		expect(says(() => restore(KEEPER, 2))).toBe(NOT_THERE)
		expect(says(() => restore(KEEPER, 1, NOTES))).toBe('done')
		expect(says(() => change(KEEPER, { kind: 'restore', table: BUOYS, row: 'nonsense' }))).toBe(NOT_THERE)
	})
})
