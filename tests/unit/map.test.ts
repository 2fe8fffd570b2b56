/** Maps: what lies where for whom, what lies nowhere, and what is wrong with them before a release. */
import { beforeEach, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [BUOYS, NAME, AT, KIND, DIVER, MANY] = [2, 20, 21, 22, 23, 24]
const [CREW, BOSSES] = [10, 11]
const [IMKE, BO, UNA] = [2, 3, 4]

let store: Store

beforeEach(() => {
	const line = (id: string, role: number, parts: object) =>
		accessLine({ id, table: BUOYS, role, verbs: ['see'], ...parts })
	store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines: [
			// Of Kay's buoys the crew sees that they are there, and not where.
			line('c', CREW, { where: 'diver = "Imke"' }),
			line('k', CREW, { where: 'diver = "Kay"', columns: { kind: 'except', columns: [AT] } }),
			line('b', BOSSES, {})
		],
		tables: [
			{
				...{ id: BUOYS, name: 'buoys', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: AT, name: 'at', type: 'place' },
					{ id: KIND, name: 'kind', type: 'choice', choices: ['Can', 'Cone'] },
					{ id: DIVER, name: 'diver', type: 'text' },
					{ id: MANY, name: 'many', type: 'choice', choices: ['1', '2', '3', '4', '5', '6', '7'] }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo'), (4, 0, 0, 'Una', 'una');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${BOSSES});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k, c22, c23, c23k) VALUES
			(1, 0, 0, 'Heron', 'heron', '50.3121, -4.1102', '', 1, 'Imke', 'imke'),
			(2, 0, 0, 'Dunlin', 'dunlin', '50.4, -4.2', '', 2, 'Kay', 'kay'),
			(3, 0, 0, 'Petrel', 'petrel', '-33.5, 151', '', NULL, 'Ola', 'ola'),
			(4, 0, 0, 'Teal', 'teal', NULL, NULL, 1, 'Imke', 'imke')`)
})

const line = (parts: object = {}): NonNullable<ScreenInput['lines']>[number] => ({
	...{ id: 'm', kind: 'map', table: BUOYS, where: '', at: AT, by: KIND, columns: [NAME] },
	...parts
})

function open(person: number, parts = {}) {
	const place = { app: 1, draft: true, document: documentOf([line(parts)]), screen: 's', actor: { person }, now: NOW }
	const [shown] = openScreen(store, place).screen?.lines ?? []
	if (shown?.kind !== 'map') throw new Error('Expected a map')
	return shown
}

test('shows where rows lie, as far as their reader sees that', () => {
	const lying = (person: number) =>
		open(person).points.map(({ row: { cells }, at, sign }) => [cells[`c${NAME}`], ...at, sign])
	expect(lying(BO)).toEqual([
		['Heron', 50.3121, -4.1102, 0],
		['Dunlin', 50.4, -4.2, 1],
		['Petrel', -33.5, 151, null]
	])
	expect(lying(IMKE)).toEqual([['Heron', 50.3121, -4.1102, 0]])
	// A place that is kept back is none for who looks; a row that is not seen is not counted either.
	expect([open(BO).nowhere, open(IMKE).nowhere]).toEqual([1, 2])
	expect(open(BO).signs).toEqual(['Can', 'Cone'])
	expect(open(BO, { where: 'kind = "Cone"' }).points.length).toBe(1)
	expect(() => open(UNA)).toThrow('not for you to see')
})

test('beyond five thousand places it says that there are more', () => {
	store.db.exec(`
		WITH RECURSIVE some(i) AS (SELECT 5 UNION ALL SELECT i + 1 FROM some WHERE i < 5300)
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k) SELECT i, 0, 0, 'B' || i, 'b' || i, '50.' || (i % 900 + 100) || ', -4.1', '' FROM some`)
	const shown = open(BO)
	expect([shown.points.length, shown.isCut]).toEqual([5_000, true])
	expect(new Set(shown.points.map(({ row }) => row.id)).size).toBe(5_000)
})

test.each([
	['by what holds no places', { at: NAME }, 'holds no places'],
	['by a column that is gone', { at: 99 }, 'holds no places'],
	['told apart by what is no choice', { by: NAME }, 'told apart by a choice'],
	['told apart by too many', { by: MANY }, 'only 6 signs']
])('a map %s is said before a release', (_what, parts, message) => {
	const found = checkApp(documentOf([line(parts)]), store.workspace())
	expect(found.map((each) => each.message).join(' ')).toContain(message)
})
