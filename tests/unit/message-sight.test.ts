/** A message is composed with its recipient's sight: what they may not see is left out, whoever set it off. */
import { beforeEach, expect, test } from 'vitest'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { composeFor } from '$lib/server/routines/compose.ts'
import type { Store } from '$lib/server/store/store.ts'
import { seeLine } from '../support/see-line.ts'
import { getTable } from '$lib/core/model/table.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [WRECKS, DIVER, MANAGER, IMKE, JUTTA] = [2, 10, 11, 2, 3]
let store: Store

beforeEach(() => {
	const see = seeLine(WRECKS)
	store = openScratch({
		now: NOW,
		roles: [DIVER, MANAGER].map((id) => ({ id, name: `role ${id}`, includes: [] })),
		lines: [see('d', DIVER, 'harbour = "Ness"', [22]), see('m', MANAGER, '', [])],
		tables: [
			{
				id: WRECKS,
				name: 'wrecks',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'name', type: 'text' },
					{ id: 21, name: 'harbour', type: 'text' },
					{ id: 22, name: 'worth', type: 'money' },
					{ id: 23, name: 'twin', type: 'reference', to: WRECKS, reverseName: 'twins' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke'), (${JUTTA}, 0, 0, 'Jutta', 'jutta');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${DIVER}), (${JUTTA}, ${MANAGER});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k, c22, c23) VALUES
			(1, 0, 0, 'Heron', 'heron', 'Ness', 'ness', 98765, 2), (2, 0, 0, 'Gannet', 'gannet', 'Varrow', 'varrow', 4400, 1)`)
})

const TEXT = '{name}: {worth}, twin {twin.name}, {COUNT(twins)} twins worth {SUM(twins.worth)}.'
const written = (row: number, to: number) =>
	composeFor(store, TEXT, {
		at: { table: getTable(store.workspace().catalogue, WRECKS), n: row },
		...{ outer: undefined, to, now: NOW }
	})

test('who sees the row, its cells and its twin reads all of it', () => {
	expect(written(1, JUTTA)).toMatch(/^Heron: .*987\.65, twin Gannet, 1 twins worth .*44/)
})

test('a cell, the label of an unseen row, and totals over unseen rows are left out for who does not', () => {
	const text = written(1, IMKE)
	expect(text).toContain('Heron')
	for (const secret of ['987', 'Gannet', '44', '1 twins']) expect(text).not.toContain(secret)
})

test('of a row that they do not see, nothing is written at all', () => {
	const text = written(2, IMKE)
	for (const secret of ['Gannet', '44', 'Heron']) expect(text).not.toContain(secret)
})

test('whoever reads it is called by their name, and reads of their own row what they see of it', () => {
	const greet = (to: number) =>
		composeFor(store, 'Dear {me.Name}, {me.Email}', { at: undefined, outer: undefined, to, now: NOW })
	store.db.exec(`UPDATE t1 SET c2 = 'imke@varrow.example', c2k = 'imke@varrow.example' WHERE n = ${IMKE}`)
	// Their address is not among what they see of People here.
	expect([greet(IMKE), greet(JUTTA)]).toEqual(['Dear Imke, ', 'Dear Jutta, '])
})
