import { spawnSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeEach, describe, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { addSession } from '$lib/server/rights/accounts.ts'
import { giveRole } from '$lib/server/people/grants.ts'
import { changeBlock } from '$lib/server/rows/change-block.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import { checkSeals, listLogbook, noteExport, noteFailedSignIn } from '$lib/server/logbook/logbook.ts'
import { noteRefusal } from '$lib/server/history/note-refusal.ts'

const NOW = Date.parse('2026-11-24T12:00:00Z')
const DAY = 86_400_000
const [MOORINGS, IMKE, DIVERS, CODE] = [2, 2, 5, 10]
const by = { actor: { person: KEEPER }, now: NOW }
const imke = { actor: { person: IMKE }, now: NOW }

let store: Store
let file: string

beforeEach(() => {
	file = join(mkdtempSync(join(tmpdir(), 'tin-shed-log-')), 'workspace.db')
	store = openScratch({
		file,
		now: NOW,
		tables: [
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [{ id: CODE, name: 'Code', type: 'code' }]
			}
		],
		roles: [
			{ id: 1, name: 'Everyone', includes: [] },
			{ id: DIVERS, name: 'Divers', includes: [] }
		]
	})
	store.db.exec(`INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke Dahl', 'imke dahl')`)
	giveRole(store, { person: IMKE, role: DIVERS, mayPassOn: false, ...by })
	const cells = [{ column: CODE, value: 'NH-001' }]
	changeRows(store, [{ kind: 'add', table: MOORINGS, cells }], { ...by, through: 'grid' })
	noteExport(store, { table: MOORINGS, format: 'csv', actor: by.actor, now: NOW + DAY })
	noteFailedSignIn(store, { person: IMKE, now: NOW + 2 * DAY })
	const session = { tokenHash: 'x', person: IMKE, expiresAt: NOW + 9 * DAY, through: 'sign-in' as const, agent: '' }
	addSession(store, { ...session, now: NOW + 2 * DAY })
})

const kinds = (asked: Parameters<typeof listLogbook>[1]) => listLogbook(store, asked).entries.map(({ kind }) => kind)

describe('the Logbook', () => {
	test('holds grants, changes, exports, and who came in or could not, the latest first', () => {
		expect(kinds(by)).toEqual(['sign in', 'sign in failed', 'export', 'add', 'give role'])
		const [, , exported, added, given] = listLogbook(store, by).entries
		expect(exported).toMatchObject({ who: 'Keeper', table: 'Moorings', about: 'csv', through: 'export' })
		expect(given).toMatchObject({ who: 'Keeper', about: 'Imke Dahl, Divers' })
		expect(JSON.stringify(added)).not.toContain('NH-001')
	})

	test('is whole for stewards; others read what they did, and what happened to tables they keep', () => {
		expect(kinds(imke)).toEqual(['sign in', 'sign in failed'])
	})

	test.each([
		['imke', ['sign in', 'sign in failed']],
		['imke failed', ['sign in failed']],
		['moorings', ['export', 'add']],
		['MOORINGS export', ['export']],
		['keeper moorings grid', ['add']],
		['NH-001', []],
		["' OR 1", []]
	])('finds %j', (find, wanted) => {
		expect(kinds({ ...by, find })).toEqual(wanted)
	})

	test('goes by days, and page by page', () => {
		expect(kinds({ ...by, from: '2026-11-25', to: '2026-11-25' })).toEqual(['export'])
		expect(kinds({ ...by, to: '2026-11-24' })).toEqual(['add', 'give role'])
		for (let i = 0; i < 120; i++) noteExport(store, { table: MOORINGS, format: `file ${i}`, actor: by.actor, now: NOW })
		const first = listLogbook(store, by)
		const second = listLogbook(store, { ...by, before: first.next ?? 0 })
		expect([first.entries.length, second.entries.length, second.next]).toEqual([100, 25, null])
		expect(new Set([...first.entries, ...second.entries].map(({ seq }) => seq)).size).toBe(125)
	})
})

describe('the seals', () => {
	const verify = () => spawnSync(process.execPath, ['build/threads/verify.js', file], { encoding: 'utf8' })

	test('fit, each to the one before it', () => {
		expect(checkSeals(store)).toEqual({ broken: null, entries: 5 })
		expect(verify()).toMatchObject({ status: 0, stdout: '5 entries, each sealed to the one before it.\n' })
	})

	test.each([
		['an entry that was altered', `UPDATE history SET body = '{"format":"ods"}' WHERE kind = 'export'`, 3],
		['one that was taken out', `DELETE FROM history WHERE seq = 2`, 3],
		['one under another name', `UPDATE history SET person = ${IMKE} WHERE seq = 1`, 1]
	])('find %s, here and by the command', (_what, statement, broken) => {
		store.db.exec(statement)
		expect(checkSeals(store).broken).toBe(broken)
		const said = verify()
		expect([said.status, said.stderr]).toEqual([1, expect.stringContaining(`Entry ${broken} does not fit its seal`)])
	})
})

test('nobody is taken for the program: a stranger who could not come in is said to be one', () => {
	noteFailedSignIn(store, { person: undefined, now: NOW + 3 * DAY })
	expect(listLogbook(store, by).entries[0]).toMatchObject({ kind: 'sign in failed', who: 'somebody unknown' })
})

describe('what was refused for want of a right', () => {
	const change = { kind: 'add', table: MOORINGS, cells: [{ column: CODE, value: 'NH-002' }] } as const
	const context = (at: number) => ({ ...imke, now: at, through: 'grid' as const })

	test('is written down with who asked, where, and what they were told; without what they typed', () => {
		const args = { changes: [change], context: context(NOW + 4 * DAY) }
		const refused = (() => {
			try {
				return changeRows(store, args.changes, args.context)
			} catch (error) {
				return error
			}
		})()
		noteRefusal(store, args, refused)
		const [entry] = listLogbook(store, by).entries
		expect(entry).toMatchObject({
			kind: 'refused',
			who: 'Imke Dahl',
			table: 'Moorings',
			about: 'You may not add rows to Moorings.',
			through: 'grid' as const
		})
		expect(JSON.stringify(store.db.prepare('SELECT body FROM history').pluck().all())).not.toContain('NH-002')
	})

	test('a block that is refused in part says of how many rows', () => {
		const at = NOW + 5 * DAY
		const block = { changes: [change, change], partly: true, context: context(at) }
		expect(changeBlock(store, block).misfits).toHaveLength(2)
		expect(listLogbook(store, by).entries[0]).toMatchObject({
			kind: 'refused',
			about: '2 of 2 rows may not be changed so.'
		})
		expect(() => changeBlock(store, { ...block, partly: false })).toThrow(
			expect.objectContaining({ code: 'forbidden' })
		)
	})

	test('what does not fit for another reason is no refusal, nor is a trial in the Lookout', () => {
		const before = kinds(by)
		const args = { changes: [change], context: context(NOW + 6 * DAY) }
		noteRefusal(store, args, new AppError('invalid', 'Code must be filled in.'))
		noteRefusal(store, args, new Error('a bug'))
		const looking = { ...args.context, actor: { person: IMKE, lookedAtBy: KEEPER } }
		noteRefusal(store, { ...args, context: looking }, new AppError('forbidden', 'You may not.'))
		noteRefusal(store, { tokenHash: 'x' }, new AppError('forbidden', 'You may not.'))
		expect(kinds(by)).toEqual(before)
	})

	test('somebody who tries without end does not fill the Logbook', () => {
		const args = { table: MOORINGS, actor: { person: IMKE }, now: NOW + 7 * DAY }
		for (let i = 0; i < 50; i++) noteRefusal(store, args, new AppError('forbidden', 'You may not.'))
		expect(kinds(by).filter((kind) => kind === 'refused')).toHaveLength(20)
		expect(checkSeals(store).broken).toBe(null)
	})
})
