/** Why somebody sees a row: what is said agrees with the door for every person and row of the demo. */
import { beforeAll, expect, test } from 'vitest'
import { readRows } from '$lib/server/rows/read.ts'
import { explainAccess } from '$lib/server/review/explain-access.ts'
import type { Store } from '$lib/server/store/store.ts'
import { DEMO_NOW, openDemo } from '../support/demo-store.ts'
import { PEOPLE } from '../../demo/people.ts'

let demo: Awaited<ReturnType<typeof openDemo>>
let store: Store
let rows: { id: string; code: string }[]

beforeAll(async () => {
	demo = await openDemo()
	store = demo.store
	const actor = { person: demo.person('Saskia Holm') }
	const table = demo.table('Moorings')
	const label = store.workspace().catalogue.tables.get(table)?.label
	rows = readRows(store, actor, { table, limit: 264 }, DEMO_NOW).rows.map((row) => ({
		id: row.id,
		code: String(row.cells[`c${label}`])
	}))
})

const why = (person: string, code: string, asker = 'Saskia Holm') =>
	explainAccess(store, {
		table: demo.table('Moorings'),
		person: demo.person(person),
		row: rows.find((row) => row.code === code)?.id ?? '',
		actor: { person: demo.person(asker) },
		now: DEMO_NOW
	})

test('names the line that lets a diver see a mooring of her harbour, and what it keeps back', () => {
	const { seesRow, columns, lines } = why('Imke Dahl', 'NH-014')
	expect(seesRow).toBe(true)
	const unseen = columns.filter((column) => !column.seen)
	expect(unseen.map((column) => column.name)).toEqual(expect.arrayContaining(['Holder phone', 'Arrears']))
	const see = lines.find((line) => line.isHeld && line.fits && line.verbs.includes('see'))?.number
	expect(unseen.find((column) => column.name === 'Arrears')).toMatchObject({ by: [], without: [see], needs: [] })
	expect(columns.find((column) => column.name === 'Code')).toMatchObject({ seen: true, by: [see], without: [] })
	const counting = lines.filter((line) => line.isHeld && line.fits)
	expect(counting.map((line) => [line.role, line.verbs])).toEqual([
		['Divers', ['see']],
		['Divers', ['change']]
	])
	expect(counting[0]?.values).toEqual([
		{ name: 'Harbour', text: 'Ness Hythe' },
		// Saskia keeps Moorings, but of people she sees only their names.
		{ name: 'me.Harbour', text: undefined }
	])
})

test('says which lines do not fit, for a mooring of another harbour', () => {
	const { seesRow, lines } = why('Imke Dahl', 'VQ-003')
	expect(seesRow).toBe(false)
	expect(lines.filter((line) => line.isHeld).map((line) => line.fits)).toEqual([false, false])
	expect(lines.filter((line) => line.fits && !line.isHeld).map((line) => line.role)).toContain('Trust manager')
})

test('agrees with the door for everybody, on a row of each harbour', () => {
	for (const { name } of PEOPLE) {
		for (const code of ['VQ-001', 'NH-001', 'GS-001', 'OS-001']) {
			const { seesRow, lines, besides } = why(name, code)
			const said =
				besides.includes('keeper') || lines.some((line) => line.isHeld && line.fits && line.verbs.includes('see'))
			expect(said, `${name} sees ${code}`).toBe(seesRow)
		}
	}
})

test('what it says of each column agrees with the door, for everybody', () => {
	for (const { name } of PEOPLE) {
		for (const code of ['VQ-001', 'NH-001']) {
			const { columns, besides } = why(name, code)
			for (const { name: column, seen, by, needs } of columns) {
				const said = besides.includes('keeper') || (by.length > 0 && needs.length === 0)
				expect(said, `${name} sees ${column} of ${code}`).toBe(seen)
			}
		}
	}
})

test('is told to keepers only', () => {
	expect(() => why('Imke Dahl', 'NH-014', 'Jory Pendarrow')).toThrow('kept by somebody else')
})
