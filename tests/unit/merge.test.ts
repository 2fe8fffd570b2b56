/** A file that goes into a table which is there: compared first, then put in through the door, all of it or none. */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema } from '$lib/core/app/document.ts'
import { AppError } from '$lib/core/app-error.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { runRoutines } from '$lib/server/routines/run-batch.ts'
import type { ImportPlan, MergeInto } from '$lib/core/exchange/plan.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { readHistory } from '$lib/server/rows/read-history.ts'
import { closeBroken } from '$lib/server/sources/apply-merge.ts'
import { AT_ONCE, applyInSteps, compareInSteps, undoInSteps, type Watch } from '$lib/server/imports/merge-run.ts'
import {} from '$lib/server/sources/undo-merge.ts'
import { findUndoable } from '$lib/server/history/last-merge.ts'
import { beginMerge, type Staging } from '$lib/server/sources/stage-merge.ts'
import type { Host } from '$lib/server/host/host.ts'
import type { Store } from '$lib/server/store/store.ts'
import { READS } from '$lib/server/threads/reads.ts'
import { WRITES } from '$lib/server/threads/writes.ts'
import { changeColumn } from '$lib/server/structure/change-columns.ts'
import { stageCsv } from '../support/stage-csv.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const actor = { person: KEEPER }
const [HARBOURS, MOORINGS] = [2, 3]
const [CODE, HARBOUR, DEPTH, STATE, SEEN] = [30, 31, 32, 33, 34]
let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		tables: [
			{
				id: HARBOURS,
				name: 'harbours',
				keepers: [KEEPER],
				label: 20,
				columns: [{ id: 20, name: 'name', type: 'text' }]
			},
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [
					{ id: CODE, name: 'code', type: 'code', required: true },
					{ id: HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS },
					{ id: DEPTH, name: 'depth', type: 'decimal', places: 1 },
					{ id: STATE, name: 'state', type: 'choice', choices: ['Good', 'Watch'] },
					{ id: SEEN, name: 'seen', type: 'date' }
				],
				checks: [{ formula: 'depth < 50', message: 'Nothing here is deeper than 50 m.' }]
			}
		]
	})
	store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(KEEPER, BUILDER)
	for (const name of ['Ness Hythe', 'Varrow Quay']) add(HARBOURS, { 20: name })
	add(MOORINGS, {
		[CODE]: 'NH-001',
		[HARBOUR]: { match: 'Ness Hythe' },
		[DEPTH]: 4.2,
		[STATE]: 'Good',
		[SEEN]: '2026-01-05'
	})
	add(MOORINGS, { [CODE]: 'NH-002', [HARBOUR]: { match: 'Ness Hythe' }, [DEPTH]: 6, [STATE]: 'Watch' })
	add(MOORINGS, { [CODE]: 'VQ-001', [HARBOUR]: { match: 'Varrow Quay' }, [DEPTH]: 3 })
})

type Cells = Record<number, string | number | null | { match: string }>

function add(table: number, cells: Cells): void {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	changeRows(store, [{ kind: 'add', table, cells: list }], { actor, now: NOW, through: 'grid' })
}

function shown(): Record<string, unknown> {
	const { rows } = readRows(store, actor, { table: MOORINGS }, NOW)
	const cell = (value: unknown) =>
		value !== null && typeof value === 'object' && 'label' in value ? value.label : (value ?? null)
	return Object.fromEntries(
		rows.map(({ cells }) => [
			String(cells[`c${CODE}`]),
			[HARBOUR, DEPTH, STATE, SEEN].map((column) => cell(cells[`c${column}`]))
		])
	)
}

const FILE = `code,harbour,depth,state,seen
nh-001,ness hythe,4.2,Good,2026-01-05
NH-002,Varrow Quay,6.5,Sunk,
GS-001,Gull Stair,2,Good,2026-02-01
GS-002,Ness Hythe,1.5,Good,2026-02-02
,Ness Hythe,1,,
GS-003,,1,,
GS-003,,2,,
`

/** What came of rows that all fit. */
const FITTING = { added: 0, changed: 0, removed: 0, misfits: [], misfitCount: 0 }

const COLUMNS = [
	{ to: CODE, type: 'code' },
	{ to: HARBOUR, type: 'text' },
	{ to: DEPTH, type: 'decimal' },
	{ to: STATE, type: 'choice' },
	{ to: SEEN, type: 'date' }
] as const

const stage = (how: MergeInto['how'], text = FILE): Promise<Staging> =>
	stageCsv(store, { text, columns: COLUMNS, into: { table: MOORINGS, how, keys: [CODE] }, person: KEEPER, now: NOW })

/** What the threads do when they are asked, done here; `asked` tells of each write before it is made. */
function doors(asked: (name: string) => void = () => undefined): Pick<Host, 'read' | 'write'> {
	type Call = (store: Store, args: unknown) => unknown
	const call = (work: Call, args: unknown): never => JSON.parse(JSON.stringify(work(store, args) ?? null)) as never
	return {
		read: async (name, args) => call(READS[name] as Call, args),
		write: async (name, args) => {
			asked(name)
			return store.db.transaction(() => call(WRITES[name] as Call, args))()
		}
	}
}

const NEVER_STOPPED: Watch = { onProgress: () => undefined, isStopped: () => false }

const compare = (staging: Staging) => compareInSteps(doors(), staging, NEVER_STOPPED)

async function run(staging: Staging, { partly = false, host = doors(), watch = NEVER_STOPPED } = {}) {
	const expected = await compare(staging)
	return applyInSteps(host, { ...staging, file: 'moorings.csv', expected, partly }, watch)
}

async function apply(staging: Staging, partly = false) {
	const outcome = await run(staging, { partly })
	if ('refused' in outcome) throw new Error(outcome.refused)
	return outcome.merged
}

test('a comparison tells what is new, changed, the same, missing and left out, before anything is in', async () => {
	const before = shown()
	const comparison = await compare(await stage('replace'))
	expect(comparison).toMatchObject({ rows: 7, added: 2, changed: 1, same: 1, missing: 1, repeated: 2, keyless: 1 })
	expect(comparison.unfound).toEqual([{ column: 'harbour', text: 'Gull Stair', rows: 1 }])
	expect(comparison.samples).toEqual({
		// "Sunk" is no choice of the table, so the cell keeps what it holds; blank in the file is blank.
		changed: [
			{
				label: 'NH-002',
				cells: [
					{ column: 'harbour', from: 'Ness Hythe', to: 'Varrow Quay' },
					{ column: 'depth', from: '6.0', to: '6.5' }
				]
			}
		],
		added: ['GS-001', 'GS-002'],
		missing: ['VQ-001'],
		repeated: ['GS-003', 'GS-003']
	})
	expect(shown()).toEqual(before)
})

test('an update changes by key, adds the rest, and leaves alone what the file does not have', async () => {
	expect(await apply(await stage('update'))).toEqual({ ...FITTING, added: 2, changed: 1 })
	expect(shown()).toEqual({
		'NH-001': ['Ness Hythe', 4.2, 'Good', '2026-01-05'],
		'NH-002': ['Varrow Quay', 6.5, 'Watch', null],
		'VQ-001': ['Varrow Quay', 3, null, null],
		'GS-001': [null, 2, 'Good', '2026-02-01'],
		'GS-002': ['Ness Hythe', 1.5, 'Good', '2026-02-02']
	})
	const changed = readRows(store, actor, { table: MOORINGS, labelIs: 'NH-002' }, NOW).rows[0]?.id ?? ''
	const history = readHistory(store, { table: MOORINGS, row: changed, actor, now: NOW })
	expect(history.map((entry) => entry.through)).toContain('file moorings.csv')
})

test('a replacement takes out what the file does not have; the rows that stay keep their ids', async () => {
	const idOf = () => readRows(store, actor, { table: MOORINGS, labelIs: 'NH-002' }, NOW).rows[0]?.id
	const before = idOf()
	expect(await apply(await stage('replace'))).toEqual({ ...FITTING, added: 2, changed: 1, removed: 1 })
	expect(Object.keys(shown())).toEqual(['NH-001', 'NH-002', 'GS-001', 'GS-002'])
	expect(idOf()).toBe(before)
})

test('the same file a second time changes nothing', async () => {
	await apply(await stage('update'))
	expect(await compare(await stage('update'))).toMatchObject({ added: 0, changed: 0, same: 4 })
})

test('rows that do not fit are named, and none goes in unless the rest is asked for', async () => {
	const deep = `code,harbour,depth,state,seen\nNH-001,Ness Hythe,60,Good,2026-01-05\nGS-009,Ness Hythe,2,Good,\n`
	const before = shown()
	const staging = await stage('update', deep)
	const misfits = [{ label: 'NH-001', message: 'Nothing here is deeper than 50 m.' }]
	expect(await run(staging)).toMatchObject({ refused: 'One row does not fit. Nothing was brought in.', misfits })
	expect(shown()).toEqual(before)
	expect(await apply(staging, true)).toEqual({ added: 1, changed: 0, removed: 0, misfits, misfitCount: 1 })
})

test('what was compared is not applied to a table that turned meanwhile', async () => {
	const staging = await stage('update')
	const expected = await compare(staging)
	add(MOORINGS, { [CODE]: 'GS-001' })
	const before = shown()
	const late = { ...staging, file: 'moorings.csv', expected, partly: false }
	const outcome = await applyInSteps(doors(), late, NEVER_STOPPED)
	expect(outcome).toMatchObject({ refused: expect.stringContaining('changed meanwhile'), comparison: { added: 1 } })
	expect(shown()).toEqual(before)
})

test('a stop while it is compared once more is heard, few rows or many', async () => {
	const staging = await stage('update')
	const before = shown()
	const watch = { ...NEVER_STOPPED, isStopped: () => true }
	expect(await run(staging, { watch })).toMatchObject({ refused: 'Stopped. Nothing was brought in.' })
	expect(shown()).toEqual(before)
})

test('only who keeps the table may bring a file into it, and only into columns of it that are typed in', () => {
	const plan = (to: number, keys = [to]): ImportPlan => ({
		sheet: '',
		headingRow: 0,
		firstRow: 1,
		tableName: 'x',
		label: 0,
		columns: [{ from: 0, name: 'code', type: 'code', include: true, to, writing: TYPED, fixes: [] }],
		into: { table: MOORINGS, how: 'update', keys }
	})
	expect(() => beginMerge(store, { plan: plan(CODE), actor: { person: 99 } })).toThrow()
	expect(() => beginMerge(store, { plan: plan(CODE, [CODE, DEPTH]), actor })).toThrow('must come with the file')
	expect(() => beginMerge(store, { plan: plan(CODE, []), actor })).toThrow('Choose by which column')
})

describe('a table in which no column tells its rows apart', () => {
	const into = (how: MergeInto['how'], keys: number[]) => ({ table: MOORINGS, how, keys })
	const given = (text: string, how: MergeInto['how'], keys: number[]) =>
		stageCsv(store, { text, columns: COLUMNS, into: into(how, keys), person: KEEPER, now: NOW })
	const LATER =
		'code,harbour,depth,state,seen\nx,ness hythe,4.2,Watch,2026-02-01\ny,varrow quay,3,,\nz,ness hythe,9,Good,\n'

	test('knows rows by a reference together with another column', async () => {
		const compared = await compare(await given(LATER, 'update', [HARBOUR, DEPTH]))
		expect(compared.samples.changed.map(({ label }) => label)).toEqual(['Ness Hythe · 4.2', 'Varrow Quay · 3.0'])
		expect([compared.samples.added, compared.samples.missing]).toEqual([['ness hythe · 9.0'], ['Ness Hythe · 6.0']])
		expect(await apply(await given(LATER, 'update', [HARBOUR, DEPTH]))).toEqual({ ...FITTING, added: 1, changed: 2 })
		expect(shown()).toEqual({
			x: ['Ness Hythe', 4.2, 'Watch', '2026-02-01'],
			'NH-002': ['Ness Hythe', 6, 'Watch', null],
			y: ['Varrow Quay', 3, null, null],
			z: ['Ness Hythe', 9, 'Good', null]
		})
	})

	test('has all its rows exchanged, or more added, without any', async () => {
		expect(await apply(await given(LATER, 'replace', []))).toEqual({ ...FITTING, added: 3, removed: 3 })
		expect(Object.keys(shown())).toEqual(['x', 'y', 'z'])
		expect(await apply(await given(LATER, 'add', []))).toEqual({ ...FITTING, added: 3 })
	})

	test('passes over rows that somebody else took out since it was compared', async () => {
		const staging = await given(LATER, 'replace', [])
		await compare(staging)
		const { rows } = readRows(store, actor, { table: MOORINGS }, NOW)
		const remove = { kind: 'remove', table: MOORINGS, row: rows.at(-1)?.id ?? '' } as const
		changeRows(store, [remove], { actor, now: NOW, through: 'grid' })
		expect(await apply(staging)).toEqual({ ...FITTING, added: 3, removed: 2 })
	})

	test('takes values that may stand once from rows that go', async () => {
		changeColumn(store, { table: MOORINGS, column: CODE, words: { unique: true }, actor, now: NOW })
		const text = 'code,harbour,depth,state,seen\nNH-001,,1,,\nNH-002,,2,,\n'
		expect(await apply(await given(text, 'replace', []))).toEqual({ ...FITTING, added: 2, removed: 3 })
		expect(shown()).toEqual({ 'NH-001': [null, 1, null, null], 'NH-002': [null, 2, null, null] })
	})
})

test('the list of people is brought in again by address, like any shared table', async () => {
	// The keeper's own name is another, which is theirs to change; another row is found by its address; a third is new.
	const text =
		'name,address\nThe Keeper,keeper@varrow.example\nImke Dahl-Orlo,IMKE@varrow.example\nHedda Lisle,hedda@brig.example\n'
	add(1, { 1: 'Imke Dahl', 2: 'imke@varrow.example' })
	const columns = [
		{ to: 1, type: 'text' },
		{ to: 2, type: 'email' }
	] as const
	const into = { table: 1, how: 'update' as const, keys: [2] }
	const staging = await stageCsv(store, { text, columns, into, person: KEEPER, now: NOW })
	expect(await apply(staging)).toEqual({ ...FITTING, added: 1, changed: 2 })
	const names = readRows(store, actor, { table: 1 }, NOW).rows.map(({ cells }) => [cells['c1'], cells['c2']])
	expect(names).toEqual([
		['The Keeper', 'keeper@varrow.example'],
		['Imke Dahl-Orlo', 'imke@varrow.example'],
		['Hedda Lisle', 'hedda@brig.example']
	])
})

describe('a bringing-in is undone as a whole', () => {
	const undo = (at = NOW) => undoInSteps(doors(), { table: MOORINGS, actor, now: at })
	const rowOf = (code: string) => readRows(store, actor, { table: MOORINGS, labelIs: code }, NOW).rows[0]?.id ?? ''
	const change = (code: string, column: number, value: number | string) =>
		changeRows(store, [{ kind: 'change', table: MOORINGS, row: rowOf(code), cells: [{ column, value }] }], {
			actor,
			now: NOW,
			through: 'grid'
		})

	test.each(['add', 'update', 'replace'] as const)('how: %s', async (how) => {
		const text = how === 'add' ? 'code,harbour,depth,state,seen\nGS-001,Ness Hythe,2,,\n' : FILE
		const before = shown()
		const ids = Object.keys(before).map(rowOf)
		const { added, changed, removed } = await apply(await stage(how, text))
		expect(shown()).not.toEqual(before)
		expect(await undo()).toEqual({ undone: added + changed + removed, left: [], leftCount: 0 })
		expect(shown()).toEqual(before)
		expect(Object.keys(before).map(rowOf)).toEqual(ids)
		await expect(undo()).rejects.toThrow('There is nothing that can be undone')
	})

	test('what somebody has changed since stays, and is named', async () => {
		await apply(await stage('update'))
		change('NH-002', DEPTH, 7)
		change('GS-002', STATE, 'Watch')
		expect(await undo()).toEqual({
			undone: 1,
			left: [
				{ label: 'GS-002', message: 'state was changed since.' },
				{ label: 'NH-002', message: 'depth was changed since.' }
			],
			leftCount: 2
		})
		expect(shown()).toMatchObject({
			'NH-002': ['Varrow Quay', 7, 'Watch', null],
			'GS-002': ['Ness Hythe', 1.5, 'Watch', '2026-02-02']
		})
		expect(shown()).not.toHaveProperty('GS-001')
	})

	test('a cell that was changed beside those of the file does not stand in the way', async () => {
		await apply(await stage('update'))
		change('NH-002', SEEN, '2026-03-03')
		expect(await undo()).toMatchObject({ undone: 3, leftCount: 0 })
		expect(shown()['NH-002']).toEqual(['Ness Hythe', 6, 'Watch', '2026-03-03'])
	})

	test('a row that went since is named; one that is needed by others stays', async () => {
		await apply(await stage('update'))
		changeRows(store, [{ kind: 'remove', table: MOORINGS, row: rowOf('NH-002') }], { actor, now: NOW, through: 'grid' })
		expect(await undo()).toMatchObject({ undone: 2, left: [{ message: 'It was removed since.' }] })
	})

	test('not after thirty days, when what was taken out is gone for good; nor by who does not keep the table', async () => {
		await apply(await stage('replace'))
		expect(findUndoable(store, MOORINGS, NOW)).toMatchObject({ file: 'moorings.csv' })
		await expect(undo(NOW + 30 * 86_400_000)).rejects.toThrow('There is nothing that can be undone')
		const stranger = { table: MOORINGS, actor: { person: 99 }, now: NOW }
		await expect(undoInSteps(doors(), stranger)).rejects.toThrow(AppError)
	})
})

describe('many rows go in step by step', () => {
	const MANY = AT_ONCE + 700
	const lines = Array.from({ length: MANY }, (_, i) => `Z-${i},Ness Hythe,${i % 40},Good,2026-02-01`)
	const text = (rows: readonly string[]) => `code,harbour,depth,state,seen\n${rows.join('\n')}\n`
	const count = () => Number(store.pluck(`SELECT count(*) FROM t${MOORINGS}`))
	const entries = () => Number(store.pluck('SELECT count(*) FROM history'))
	const undo = () => undoInSteps(doors(), { table: MOORINGS, actor, now: NOW })

	test('each is tried first, others change rows meanwhile, and all of it is undone but what they changed', async () => {
		const asked: string[] = []
		const host = doors((name) => {
			asked.push(name)
			// Between two steps somebody else adds a row.
			if (name === 'applyStep' && asked.filter((each) => each === name).length === 3)
				add(MOORINGS, { [CODE]: 'VQ-777' })
		})
		const staging = await stage('replace', text(lines))
		expect(await run(staging, { host })).toEqual({ merged: { ...FITTING, added: MANY, removed: 3 } })
		expect(asked.filter((name, i) => name !== asked[i - 1])).toEqual(
			['judgeStaged', 'judgeTable', 'tryStep', 'beginApplying', 'applyStep', 'endApplying'] //
		)
		expect(count()).toBe(MANY + 1)
		expect(await undo()).toEqual({ undone: MANY + 3, left: [], leftCount: 0 })
		expect(Object.keys(shown()).sort()).toEqual(['NH-001', 'NH-002', 'VQ-001', 'VQ-777'])
	})

	test('a row that does not fit is found before the first is in', async () => {
		const staging = await stage('update', text([...lines, 'Z-deep,Ness Hythe,70,Good,']))
		const before = entries()
		const misfits = [{ label: 'Z-deep', message: 'Nothing here is deeper than 50 m.' }]
		expect(await run(staging)).toMatchObject({ refused: 'One row does not fit. Nothing was brought in.', misfits })
		expect([count(), entries()]).toEqual([3, before])
		expect(await apply(staging, true)).toEqual({ ...FITTING, added: MANY, misfits, misfitCount: 1 })
	})

	test('a row that fits no more by the time it goes in takes the others out again', async () => {
		let tried = false
		const host = doors((name) => {
			if (name !== 'beginApplying' || tried) return
			tried = true
			const guards = { checks: [{ formula: 'depth < 30', message: 'Not so deep.' }] }
			WRITES.changeTable(store, { table: MOORINGS, words: guards, actor, now: NOW } as never)
		})
		const staging = await stage('update', text(lines))
		await expect(run(staging, { host })).rejects.toThrow(/\d+ rows do not fit. Nothing was brought in./)
		expect(count()).toBe(3)
	})

	test.each([
		['tryStep', { refused: 'Stopped. Nothing was brought in.' }],
		['applyStep', undefined]
	] as const)('it is stopped at %s', async (at, refused) => {
		const seen: string[] = []
		const stopped = () => seen.filter((each) => each === at).length > 4
		const host = doors((name) => seen.push(name))
		const watch = { ...NEVER_STOPPED, isStopped: stopped }
		const ended = run(await stage('update', text(lines)), { host, watch })
		if (refused) expect(await ended).toMatchObject(refused)
		else await expect(ended).rejects.toThrow('What had come in was taken out again.')
		expect(count()).toBe(3)
		expect(findUndoable(store, MOORINGS, NOW)).toBeUndefined()
	})

	test('what is cut off between two steps can be undone after the next start', async () => {
		const host = doors((name) => {
			if (name === 'endApplying') throw new Error('Cut off')
		})
		await expect(run(await stage('update', text(lines)), { host })).rejects.toThrow('Cut off')
		expect(findUndoable(store, MOORINGS, NOW)).toBeUndefined()
		closeBroken(store, NOW)
		expect(findUndoable(store, MOORINGS, NOW)).toMatchObject({ file: 'moorings.csv' })
		const told = store.pluck(`SELECT body ->> 'added' FROM history WHERE kind = 'bring in again'`)
		expect(told).toBe(MANY)
		expect(await undo()).toMatchObject({ undone: MANY, leftCount: 0 })
		expect(count()).toBe(3)
	})

	test('meanwhile no second file goes into the same table', async () => {
		const other = await stage('update', text(lines))
		const host = doors((name) => {
			if (name !== 'applyStep') return
			const begin = () => WRITES.beginApplying(store, { ...other, file: 'other.csv' })
			expect(begin).toThrow('Another file is just going into moorings.')
		})
		expect(await run(await stage('update', text(lines)), { host })).toMatchObject({ merged: { added: MANY } })
	})
})

test('a routine starts once for a file, with how many rows it changed; a file that changes nothing starts none', async () => {
	const words = '{here.file}: {here.added} new, {here.changed} changed, {here.removed} gone'
	const routine = {
		...{ id: 'r', name: 'Came in', start: { kind: 'file' as const, into: MOORINGS } },
		steps: [{ id: 's', kind: 'send' as const, to: '"keeper@varrow.example"', subject: words, body: '' }]
	}
	const parts = { format: APP_FORMAT, name: 'M', about: '', colour: 'sea', signoffs: [] } as const
	const screens = [{ id: 's', title: 'S', lines: [] }]
	const document = appSchema.parse({ ...parts, screens, routines: [routine] })
	store.db.exec(`UPDATE t1 SET c2 = 'keeper@varrow.example', c2k = 'keeper@varrow.example' WHERE n = ${KEEPER}`)
	store.db.transaction(() => {
		const app = addAppFrom(store, { document, actor, now: NOW })
		releaseApp(store, { app, note: '', actor, now: NOW })
	})()
	const told = () => {
		for (let isLeft = true; isLeft;) isLeft = store.db.transaction(() => runRoutines(store, { now: NOW }))()
		return store.prepare<string>('SELECT subject FROM message ORDER BY id').pluck().all()
	}
	await apply(await stage('replace'))
	expect(told()).toEqual(['moorings.csv: 2 new, 1 changed, 1 gone'])
	await apply(await stage('replace'))
	expect(told()).toHaveLength(1)
})
