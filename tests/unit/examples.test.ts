import { beforeEach, describe, expect, test } from 'vitest'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { checkDraft } from '$lib/server/apps/check-draft.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import { readMatrix } from '$lib/server/review/access-matrix.ts'
import { readAccess } from '$lib/server/review/read-access.ts'
import { pinExample, unpinExample } from '$lib/server/review/pin-examples.ts'
import { oneListApp } from '../support/one-list-app.ts'
import { saveLines } from '$lib/server/structure/tables.ts'

const NOW = Date.parse('2026-11-24T12:00:00Z')
const [MOORINGS, DIVERS, IMKE, HALE] = [2, 5, 2, 3]
const [CODE, DEPTH] = [10, 11]
const by = { actor: { person: KEEPER }, now: NOW }

let store: Store
let shallow: string
let deep: string

const line = (where: string) => ({
	id: 'a',
	table: MOORINGS,
	role: DIVERS,
	verbs: ['see' as const],
	where,
	columns: { kind: 'all' as const }
})

const save = (where: string) =>
	saveLines(store, { table: MOORINGS, lines: [line(where)], version: store.workspace().version, ...by })

function add(code: string, depth: number): string {
	const cells = [
		{ column: CODE, value: code },
		{ column: DEPTH, value: depth }
	]
	return changeRows(store, [{ kind: 'add', table: MOORINGS, cells }], { ...by, through: 'grid' })[0]?.row ?? ''
}

beforeEach(() => {
	store = openScratch({
		now: NOW,
		tables: [
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [
					{ id: CODE, name: 'Code', type: 'code' },
					{ id: DEPTH, name: 'Depth', type: 'decimal', places: 1 }
				]
			}
		],
		roles: [
			{ id: 1, name: 'Everyone', includes: [] },
			{ id: DIVERS, name: 'Divers', includes: [] }
		],
		lines: [line('Depth < 10')]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES
			(${IMKE}, 0, 0, 'Imke Dahl', 'imke dahl'), (${HALE}, 0, 0, 'Hale Dunmore', 'hale dunmore');
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, 2), (${IMKE}, ${DIVERS}), (${HALE}, ${DIVERS})`)
	shallow = add('NH-001', 4)
	deep = add('NH-002', 30)
	pinExample(store, { table: MOORINGS, person: IMKE, row: shallow, sees: true, ...by })
	pinExample(store, { table: MOORINGS, person: IMKE, row: deep, sees: false, ...by })
})

describe('a pinned example', () => {
	test('is shown with the lines, and with what unsaved ones would make of it', () => {
		const now = readAccess(store, { table: MOORINGS, ...by }).examples
		expect(now.map(({ name, label, sees, holds }) => [name, label, sees, holds])).toEqual([
			['Imke Dahl', 'NH-001', true, true],
			['Imke Dahl', 'NH-002', false, true]
		])
		const would = readAccess(store, { table: MOORINGS, draft: [line('Depth > 10')], ...by }).examples
		expect(would.map(({ holds }) => holds)).toEqual([false, false])
	})

	test('holds a save of the lines to it, naming itself', () => {
		expect(() => save('Depth < 3')).toThrow('Imke Dahl must see NH-001 of Moorings, but then would not.')
		expect(() => save('')).toThrow('Imke Dahl must not see NH-002 of Moorings, but then would.')
		save('Depth < 20')
		unpinExample(store, { table: MOORINGS, person: IMKE, row: deep, ...by })
		save('')
		expect(readAccess(store, { table: MOORINGS, ...by }).examples).toHaveLength(1)
	})

	test('that a changed row has broken lets other saves through, but no release', () => {
		const cells = [{ column: DEPTH, value: 12 }]
		changeRows(store, [{ kind: 'change', table: MOORINGS, row: shallow, cells }], { ...by, through: 'grid' })
		save('Depth < 11')
		const app = addAppFrom(store, { document: oneListApp('Care', MOORINGS, CODE), ...by })
		expect(checkDraft(store, { app, now: NOW })).toContainEqual({
			weight: 'mistake',
			place: 'An example of Moorings',
			spot: { bay: 'access', table: MOORINGS },
			message: 'Imke Dahl no longer sees a row. Change the lines at Access, or take the example off there.'
		})
		expect(() => releaseApp(store, { app, note: '', ...by })).toThrow(/Imke Dahl no longer sees a row/)
	})

	test('is a keeper’s to pin', () => {
		const asked = { table: MOORINGS, person: IMKE, row: deep, sees: true, actor: { person: HALE }, now: NOW }
		expect(() => pinExample(store, asked)).toThrow(/kept by somebody else/)
		expect(() => unpinExample(store, asked)).toThrow(/kept by somebody else/)
	})
})

describe('everybody against every table', () => {
	test('says how many rows each sees, and who keeps them', () => {
		const { tables, people } = readMatrix(store, by)
		expect(tables.map((table) => table.name)).toEqual(['people', 'Moorings'])
		const cellOf = (name: string) => people.find((each) => each.name === name)?.cells[1]
		expect(cellOf('Keeper')).toEqual({ seen: 2, may: ['add', 'change', 'remove'], keeps: true })
		expect(cellOf('Imke Dahl')).toEqual({ seen: 1, may: [], keeps: false })
	})

	test('is only of tables that one keeps', () => {
		expect(readMatrix(store, { actor: { person: IMKE }, now: NOW }).tables).toEqual([])
	})
})
