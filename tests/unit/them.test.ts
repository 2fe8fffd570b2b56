/** `them` is the person whose row it is, wherever a formula stands on a row of People: in lines of access, in sets, in messages. */
import { expect, test } from 'vitest'
import { check } from '$lib/core/formula/check/check.ts'
import { getTable } from '$lib/core/model/table.ts'
import { composeFor } from '$lib/server/routines/compose.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { accessLine } from '../support/access-line.ts'
import { openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-12-01T12:00:00Z')
const [BERTHS, CREW, IMKE, WIM] = [2, 10, 2, 3]

function openQuay() {
	const line = (id: string, table: number, where: string) => accessLine({ id, table, role: CREW, where })
	const store = openScratch({
		now: NOW,
		roles: [{ id: CREW, name: 'Crew', includes: [] }],
		lines: [line('p', 1, 'them = me'), line('b', BERTHS, '')],
		tables: [
			{
				...{ id: BERTHS, name: 'berths', keepers: [], label: 20 },
				columns: [
					{ id: 20, name: 'berth', type: 'text' },
					{ id: 21, name: 'of', type: 'reference', to: 1, reverseName: 'berths' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke'), (${WIM}, 0, 0, 'Wim', 'wim');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) VALUES (1, 0, 0, 'A1', 'a1', ${IMKE}), (2, 0, 0, 'A2', 'a2', ${WIM}), (3, 0, 0, 'A3', 'a3', ${IMKE});
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${WIM}, ${CREW})`)
	return store
}

test('as a line of access it lets everybody see their own row alone', () => {
	const store = openQuay()
	const seen = (person: number) => readRows(store, { person }, { table: 1 }, NOW).rows.map(({ cells }) => cells['c1'])
	expect([seen(IMKE), seen(WIM)]).toEqual([['Imke'], ['Wim']])
})

test('in a message about somebody it counts what is theirs, and is their name', () => {
	const store = openQuay()
	const table = getTable(store.workspace().catalogue, 1)
	const words = composeFor(store, '{them} has {COUNT(FILTER(berths; of = this))}', {
		...{ at: { table, n: IMKE }, outer: undefined, to: IMKE, now: NOW }
	})
	expect(words).toBe('Imke has 2')
})

test('elsewhere it is no name', () => {
	const { catalogue } = openQuay().workspace()
	const scope = { catalogue, rows: [getTable(catalogue, BERTHS)], me: true }
	expect(check('them', scope).issues[0]?.message).toContain('no column "them"')
})
