/** The first steps of a new builder: lines to begin with, whom to look as, and what rows are known by. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeEach, describe, expect, test } from 'vitest'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { whoSees } from '$lib/server/apps/who-sees.ts'
import type { WhoSees } from '$lib/core/requests/access.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'
import type { Store } from '$lib/server/store/store.ts'
import { proposeAccess } from '$lib/server/review/propose-access.ts'
import { chooseLookers, whyNothing, type Looked } from '$lib/ui/lookout/choose-lookers.ts'
import { oneListApp } from '../support/one-list-app.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [HARBOURS, STOCK, MINUTES] = [2, 3, 4]
const [IMKE, WIM, ADA] = [2, 3, 4]
const CREW = 10
const by = { actor: { person: KEEPER }, now: NOW }
let store: Store

beforeEach(() => {
	const keepers = [KEEPER]
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 9, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'people' }],
		roles: [
			{ id: 1, name: 'Everyone', includes: [] },
			{ id: CREW, name: 'Crew', includes: [] }
		],
		lines: [seeLine(MINUTES)('m', CREW, 'author = me')],
		tables: [
			{ id: HARBOURS, name: 'harbours', keepers, label: 20, columns: [{ id: 20, name: 'name', type: 'text' }] },
			{
				id: STOCK,
				name: 'stock',
				keepers,
				label: 30,
				columns: [
					{ id: 30, name: 'item', type: 'text' },
					{ id: 31, name: 'Keeper e-mail', type: 'email' },
					{ id: 32, name: 'counted by', type: 'reference', to: PEOPLE_TABLE, reverseName: 'counts' },
					{ id: 33, name: 'lies at', type: 'reference', to: HARBOURS, reverseName: 'stock' }
				]
			},
			{
				id: MINUTES,
				name: 'minutes',
				keepers,
				label: 40,
				columns: [
					{ id: 40, name: 'title', type: 'text' },
					{ id: 41, name: 'author', type: 'reference', to: PEOPLE_TABLE, reverseName: 'minutes' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c9) VALUES
			(${IMKE}, 0, 0, 'Imke', 'imke', 'imke@varrow.example', 'imke@varrow.example', 1),
			(${WIM}, 0, 0, 'Wim', 'wim', 'wim@varrow.example', 'wim@varrow.example', 2),
			(${ADA}, 0, 0, 'Ada', 'ada', 'ada@varrow.example', 'ada@varrow.example', NULL);
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${WIM}, ${CREW});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'Ness', 'ness'), (2, 0, 0, 'Varrow', 'varrow');
		INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31, c31k, c32, c33) VALUES
			(1, 0, 0, 'Rope', 'rope', 'imke@varrow.example', 'imke@varrow.example', ${WIM}, 1),
			(2, 0, 0, 'Chain', 'chain', 'imke@varrow.example', 'imke@varrow.example', ${WIM}, 1),
			(3, 0, 0, 'Paint', 'paint', 'wim@varrow.example', 'wim@varrow.example', NULL, 2);
		INSERT INTO t4 (n, made_at, changed_at, c40, c40k, c41) VALUES (1, 0, 0, 'May', 'may', ${IMKE})`)
})

test('a table without lines is offered some from its columns, each with what it comes to', () => {
	const proposed = proposeAccess(store, { table: STOCK, ...by })
	expect(proposed.map(({ says, line, comesTo, asksRole }) => [says, line.where, comesTo, asksRole])).toEqual([
		[
			'Their own rows, by Keeper e-mail',
			"'Keeper e-mail' = me.email",
			{ id: 'proposed 0', people: 4, least: 0, most: 2 },
			false
		],
		['Their own rows, by counted by', 'counted by = me', { id: 'proposed 1', people: 4, least: 0, most: 2 }, false],
		['The rows of their harbour', 'lies at = me.harbour', { id: 'proposed 2', people: 4, least: 0, most: 2 }, false],
		['Every row, for a role of your choice', '', undefined, true]
	])
})

test('one that reads more than its keeper holds says so, and how to mend it', () => {
	const { document } = store.workspace()
	expect(document.tables[0]?.keepers).toEqual([KEEPER])
	store.db.exec(`UPDATE document SET body = json_set(body, '$.tables[0].keepers', json('[]')) WHERE kind = 'workspace'`)
	store.forget()
	const [first] = proposeAccess(store, { table: STOCK, ...by })
	expect(first?.refused).toContain('columns of People are opened to builders by a steward')
})

describe('whom the Lookout begins with', () => {
	const sees = (document = oneListApp('Minutes', MINUTES, 40)): WhoSees => {
		const app = addAppFrom(store, { document, ...by })
		return whoSees(store, { app, ...by })
	}

	test('who sees a row, as far as the builder does', () => {
		const found = sees()
		expect(found.tables).toEqual([{ id: MINUTES, name: 'minutes', owned: true }])
		expect(found.people.filter(({ tables }) => tables.length > 0).map(({ person }) => person)).toEqual([IMKE, KEEPER])
		expect(whyNothing(WIM, found)).toEqual(found.tables)
		expect(whyNothing(IMKE, found)).toBeUndefined()
	})

	const people: readonly Looked[] = [
		{ person: 1, name: 'Ailith', roles: ['Stewards'] },
		{ person: 2, name: 'Bram', roles: ['Divers'] },
		{ person: 3, name: 'Cora', roles: ['Divers'] },
		{ person: 4, name: 'Dag', roles: ['Clerks'] },
		{ person: 5, name: 'Edda', roles: ['Builders'] }
	]
	const seeing = (...all: readonly (readonly [number, number[]])[]): WhoSees => ({
		tables: [],
		people: people.map(({ person }) => ({ person, tables: all.find(([who]) => who === person)?.[1] ?? [] }))
	})
	const names = (found: WhoSees) => chooseLookers(people, found).map((each) => each?.name)

	test.each([
		['staff who see something come before who sees nothing', seeing([3, [7]], [4, [7]]), ['Cora', 'Dag']],
		['of different roles, where there are', seeing([2, [7]], [3, [7]], [4, [7]]), ['Bram', 'Dag']],
		['who sees otherwise, rather', seeing([2, [7, 8]], [4, [7]]), ['Bram', 'Dag']],
		['a builder who sees something before staff who see nothing', seeing([2, [7]], [5, [7]]), ['Bram', 'Edda']],
		['where nobody sees anything, staff', seeing(), ['Bram', 'Dag']]
	])('%s', (_what, found, want) => {
		expect(names(found)).toEqual(want)
	})

	test('in a workspace of one, that one', () => {
		expect(chooseLookers(people.slice(0, 1), seeing()).map((each) => each?.name)).toEqual(['Ailith', undefined])
		expect(chooseLookers([], seeing())).toEqual([undefined, undefined])
	})
})

describe('what rows of a file are known by', () => {
	const labelOf = async (text: string): Promise<string> => {
		const path = join(mkdtempSync(join(tmpdir(), 'tin-shed-label-')), 'stock.csv')
		writeFileSync(path, text)
		const { columns, label } = await inspectFile({ path, name: 'stock.csv' })
		return columns[label]?.name ?? ''
	}

	test.each([
		['a number and a name', 'No.,Item,Qty\n0001,Rope,3\n0002,Chain,4\n0003,Paint,5', 'Item'],
		[
			'a name that stands twice in twenty',
			`Code,Name\n${Array.from({ length: 20 }, (_x, i) => `C-${i},Part ${i === 19 ? 0 : i}`).join('\n')}`,
			'Name'
		],
		['a name that says little', 'Code,Name\nC-1,Rope\nC-2,Rope\nC-3,Rope\nC-4,Chain', 'Code'],
		['no name at all', 'Place,Code\nNess,C-1\nNess,C-2\nVarrow,C-3', 'Code']
	])('%s', async (_what, text, want) => {
		expect(await labelOf(text)).toBe(want)
	})
})
