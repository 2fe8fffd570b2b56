/** Made-up rows in the Lookout while a table is empty: for its keeper alone, and of values that each type takes. */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema } from '$lib/core/app/document.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { sampleCell, SAMPLES } from '$lib/server/apps/shown/sample-values.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { COLUMN_TYPES, type Column, type ColumnTypeName } from '$lib/core/model/table.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-30T12:00:00Z')
const [BUOYS, NAME, DUE, SECRET] = [2, 20, 21, 22]
const [CREW, OTHER, IMKE] = [10, 2, 3]

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		roles: [
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: CREW, name: 'Crew', includes: [] }
		],
		lines: [
			accessLine({ id: 'c', table: BUOYS, role: CREW, columns: { kind: 'except', columns: [SECRET] } }),
			accessLine({ id: 'b', table: BUOYS, role: BUILDER })
		],
		tables: [
			{
				...{ id: BUOYS, name: 'buoys', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: DUE, name: 'due', type: 'date' },
					{ id: SECRET, name: 'secret', type: 'text' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Other', 'other'), (3, 0, 0, 'Imke', 'imke');
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER}), (${OTHER}, ${BUILDER}), (${IMKE}, ${CREW})`)
})

const DOCUMENT = appSchema.parse({
	...{ format: APP_FORMAT, name: 'Buoys', about: '', colour: 'sea', routines: [], signoffs: [] },
	screens: [
		{
			...{ id: 's', title: 'Buoys' },
			lines: [
				{
					...{ id: 'l', kind: 'list', table: BUOYS, where: '', sort: [], opens: null },
					columns: [NAME, DUE, SECRET]
				}
			]
		}
	]
})

function samples(actor: { person: number; lookedAtBy?: number }) {
	const [list] = openScreen(store, { app: 1, draft: true, document: DOCUMENT, actor, now: NOW }).screen?.lines ?? []
	return list?.kind === 'list' ? list.samples.map(({ cells }) => cells) : []
}

describe('samples', () => {
	test('stand in the Lookout of the keeper, with the columns that are seen', () => {
		expect(samples({ person: IMKE, lookedAtBy: KEEPER })).toEqual([
			{ [`c${NAME}`]: 'name 1', [`c${DUE}`]: '2026-12-03' },
			{ [`c${NAME}`]: 'name 2', [`c${DUE}`]: '2026-12-10' },
			{ [`c${NAME}`]: 'name 3', [`c${DUE}`]: '2026-11-28' }
		])
	})

	test('are nobody else’s: not of staff, nor of a builder who does not keep the table', () => {
		expect(samples({ person: IMKE })).toEqual([])
		expect(samples({ person: IMKE, lookedAtBy: OTHER })).toEqual([])
	})

	test('go with the first row, though whoever is looked as does not see it', () => {
		store.db.exec(`INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'Pole', 'pole')`)
		expect(samples({ person: IMKE, lookedAtBy: KEEPER })).toEqual([])
	})
})

test.each(
	COLUMN_TYPES.filter((type) => !['reference', 'computed', 'photo', 'file', 'ink', 'signature'].includes(type))
)('a sample of the type %s is one that a cell takes', (type: ColumnTypeName) => {
	const column: Column & ShownColumn = { id: 1, name: 'Code', type, choices: ['Sound', 'Watch'], places: 2, unit: '£' }
	for (let row = 0; row < SAMPLES; row++) {
		const value = sampleCell(column, row, '2026-11-30')
		expect(findKind(type)?.check(value, column)).toMatchObject({ ok: true })
	}
})
