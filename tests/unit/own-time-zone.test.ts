import { expect, test } from 'vitest'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { readZone, setZone } from '$lib/server/credentials/own-account.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'

/** Noon in London is past midnight in Auckland (IANA time zone database: UTC+13 in November). */
const NOW = Date.parse('2026-11-24T12:30:00Z')
const [MOORINGS, DUE, IMKE] = [2, 11, 2]

test('today is counted by one’s own clock, in lines of access too', () => {
	const store = openScratch({
		now: NOW,
		tables: [
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: 10,
				columns: [
					{ id: 10, name: 'Code', type: 'code' },
					{ id: DUE, name: 'Due', type: 'date' }
				]
			}
		],
		roles: [{ id: 1, name: 'Everyone', includes: [] }],
		lines: [{ id: 'a', table: MOORINGS, role: 1, verbs: ['see'], where: 'Due <= TODAY()', columns: { kind: 'all' } }]
	})
	store.db.exec(`INSERT INTO t${PEOPLE_TABLE} (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke')`)
	for (const day of ['2026-11-24', '2026-11-25']) {
		const cells = [{ column: DUE, value: day }]
		changeRows(store, [{ kind: 'add', table: MOORINGS, cells }], {
			actor: { person: KEEPER },
			now: NOW,
			through: 'grid'
		})
	}
	const seen = () => readRows(store, { person: IMKE }, { table: MOORINGS }, NOW).rows.length
	expect(seen()).toBe(1)
	setZone(store, { person: IMKE, zone: 'Pacific/Auckland', now: NOW })
	expect(seen()).toBe(2)
	expect(() => setZone(store, { person: IMKE, zone: 'Nowhere/At all', now: NOW })).toThrow(/no time zone/)
	setZone(store, { person: IMKE, zone: '', now: NOW })
	expect([seen(), readZone(store, { person: IMKE })]).toEqual([1, { own: null, workspace: 'UTC' }])
})
