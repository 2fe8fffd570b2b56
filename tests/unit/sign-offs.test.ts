import { afterEach, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { cellKey } from '$lib/core/query/wire.ts'
import { movesFor, step, type CaseState, type Move } from '$lib/core/signoff/moves.ts'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { readDraft, saveDraft } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { decideCase, listCases, readCase } from '$lib/server/signoffs/cases.ts'
import type { Store } from '$lib/server/store/store.ts'
import { DEMO_NOW, openDemo } from '../support/demo-store.ts'
import { refusal } from '../support/refusal.ts'

let demo: Awaited<ReturnType<typeof openDemo>>
let store: Store

beforeAll(async () => {
	demo = await openDemo()
	store = demo.store
})
beforeEach(() => void store.db.exec('SAVEPOINT each'))
afterEach(() => {
	store.db.exec('ROLLBACK TO each')
	store.db.exec('RELEASE each')
	store.forget()
})

function column(table: string, name: string): number {
	const found = store
		.workspace()
		.catalogue.tables.get(demo.table(table))
		?.columns.find((each) => each.name === name)
	if (!found) throw new Error(`Cannot find column "${name}"`)
	return found.id
}

function ask(asker: string, harbour: string, cells: Record<string, unknown> = {}): string {
	const values: Record<string, unknown> = {
		'What for': 'A new winch',
		Harbour: { match: harbour },
		Amount: 600,
		...cells
	}
	const list = Object.entries(values).map(([name, value]) => ({
		column: column('Spend requests', name),
		value: value as string
	}))
	const change = { kind: 'add' as const, table: demo.table('Spend requests'), cells: list }
	return (
		changeRows(store, [change], { actor: { person: demo.person(asker) }, now: DEMO_NOW, through: 'form' })[0]?.row ?? ''
	)
}

const count = (table: string) => Number(store.db.prepare(`SELECT count(*) FROM ${table}`).pluck().get())
const waiting = (name: string) => listCases(store, { actor: { person: demo.person(name) }, now: DEMO_NOW }).waiting

function decide(name: string, move: Move, over: { id?: string; fingerprint?: string; comment?: string } = {}) {
	const actor = { person: demo.person(name) }
	const id = over.id ?? waiting(name).find((each) => each.label === 'A new winch')?.id ?? ''
	const fingerprint = over.fingerprint ?? readCase(store, { id, actor, now: DEMO_NOW }).fingerprint
	decideCase(store, { id, move, comment: over.comment ?? '', fingerprint, actor, now: DEMO_NOW })
	return id
}

function refused(work: () => unknown): string {
	const { code, message } = refusal(work)
	return `${code}: ${message}`
}

describe('the moves of one stage', () => {
	const both = { decides: true, asked: false }
	test.each<[CaseState, Move, CaseState | undefined]>([
		['waiting', 'approve', 'approved'],
		['waiting', 'decline', 'declined'],
		['waiting', 'withdraw', 'withdrawn'],
		['approved', 'decline', undefined],
		['declined', 'approve', undefined],
		['withdrawn', 'approve', undefined]
	])('%s, %s → %s', (state, move, wanted) => {
		expect(step(state, move)).toBe(wanted)
	})
	test('whoever asked may take it back but never decide it', () => {
		expect(movesFor('waiting', { decides: true, asked: true })).toEqual(['withdraw'])
		expect(movesFor('waiting', both)).toEqual(['approve', 'decline'])
		expect(movesFor('waiting', { decides: false, asked: false })).toEqual([])
	})
})

describe('a request', () => {
	test('waits on the person that the formula names, who may see what was asked about and nothing more', () => {
		const before = waiting('Petra Nankivell').length
		const row = ask('Imke Dahl', 'Ness Hythe')
		expect(waiting('Petra Nankivell')).toHaveLength(before + 1)
		const petra = { person: demo.person('Petra Nankivell') }
		const page = readRows(store, petra, { table: demo.table('Spend requests'), row }, DEMO_NOW)
		expect(page.rows[0]?.cells[cellKey(column('Spend requests', 'Amount'))]).toBe(600)
		// Another finance officer has been asked nothing.
		const anselm = { person: demo.person('Anselm Roke') }
		expect(readRows(store, anselm, { table: demo.table('Spend requests'), row }, DEMO_NOW).rows).toEqual([])
	})

	test('is told once, with the row; one that was refused tells nobody', () => {
		const before = count('message')
		ask('Imke Dahl', 'Ness Hythe')
		expect(count('message')).toBe(before + 1)
		store.db.exec('SAVEPOINT refused')
		expect(refused(() => ask('Imke Dahl', 'Ness Hythe', { Amount: null }))).toContain('Amount must be filled in.')
		store.db.exec('ROLLBACK TO refused')
		expect(count('message')).toBe(before + 1)
	})

	test('is closed to changes from the asking on, to its master too, and so is what belongs to it', () => {
		const row = ask('Imke Dahl', 'Ness Hythe')
		const by = { actor: { person: demo.person('Maren Tolliver') }, now: DEMO_NOW, through: 'grid' as const }
		const cells = [{ column: column('Spend requests', 'Amount'), value: 1 }]
		const table = demo.table('Spend requests')
		expect(refused(() => changeRows(store, [{ kind: 'change', table, row, cells }], by))).toContain(
			'Closed to changes: this row is waiting on a decision.'
		)
		decide('Petra Nankivell', 'approve')
		expect(refused(() => changeRows(store, [{ kind: 'change', table, row, cells }], by))).toContain(
			'Closed to changes: this row has been approved.'
		)
		const items = [
			{ column: column('Spend items', 'Item'), value: 'Bolts' },
			{ column: column('Spend items', 'Request'), value: { id: row } }
		]
		expect(
			refused(() => changeRows(store, [{ kind: 'add', table: demo.table('Spend items'), cells: items }], by))
		).toContain('the row it belongs to has been approved')
	})

	test('is decided once, by whom it waits on, who has seen what is decided', () => {
		ask('Imke Dahl', 'Ness Hythe')
		const id = waiting('Petra Nankivell').find((each) => each.label === 'A new winch')?.id ?? ''
		expect(refused(() => decide('Anselm Roke', 'approve', { id, fingerprint: '' }))).toContain('not_found')
		expect(refused(() => decide('Imke Dahl', 'approve', { id }))).toContain('conflict')
		expect(refused(() => decide('Petra Nankivell', 'approve', { fingerprint: 'of something else' }))).toContain(
			'has changed since'
		)
		decide('Petra Nankivell', 'decline', { id, comment: 'Not this year.' })
		expect(refused(() => decide('Petra Nankivell', 'approve', { id }))).toContain('declined already')
	})

	test('comes back to whoever asked, with the comment, and stays among one’s own decided ones', () => {
		ask('Imke Dahl', 'Ness Hythe')
		const id = decide('Petra Nankivell', 'approve', { comment: 'Within budget.' })
		for (const name of ['Imke Dahl', 'Petra Nankivell']) {
			const sheet = readCase(store, { id, actor: { person: demo.person(name) }, now: DEMO_NOW })
			expect(sheet.comment).toBe('Within budget.')
			expect(sheet.row?.cells[cellKey(column('Spend requests', 'Amount'))]).toBe(600)
			expect(sheet.events.map((event) => event.what)).toEqual(['asked for a decision', 'approved it'])
		}
		const decided = listCases(store, { actor: { person: demo.person('Petra Nankivell') }, now: DEMO_NOW }).decided
		expect(decided.some((each) => each.id === id)).toBe(true)
		const told = store.db.prepare('SELECT subject FROM message ORDER BY id DESC LIMIT 1').pluck().get()
		expect(told).toBe('A new winch: approved')
	})

	test('that was withdrawn may be changed again', () => {
		const row = ask('Imke Dahl', 'Ness Hythe')
		const id = waiting('Petra Nankivell').find((each) => each.label === 'A new winch')?.id ?? ''
		decide('Imke Dahl', 'withdraw', { id })
		const cells = [{ column: column('Spend requests', 'Why'), value: 'Thought again.' }]
		const by = { actor: { person: demo.person('Maren Tolliver') }, now: DEMO_NOW, through: 'grid' as const }
		// The master may change it again; which, with no condition on the sign-off, asks nobody anew.
		expect(
			changeRows(store, [{ kind: 'change', table: demo.table('Spend requests'), row, cells }], by)[0]?.conflicts
		).toEqual([])
	})
})

describe('releasing', () => {
	test('a sign-off on a table that somebody else keeps is refused: it would let its decider see', () => {
		const actor = { person: demo.person('Jory Pendarrow') }
		const { document } = readDraft(store, 1)
		const probe = {
			id: 'probe',
			name: 'Probe',
			table: demo.table('Moorings'),
			where: '',
			decider: '"jory.pendarrow@varrow.example"',
			columns: [column('Moorings', 'Arrears')],
			children: []
		}
		saveDraft(store, {
			app: 1,
			version: readDraft(store, 1).version,
			edits: editsBetween(document, { ...document, signoffs: [probe] }),
			actor,
			now: DEMO_NOW
		})
		expect(refused(() => releaseApp(store, { app: 1, note: '', actor, now: DEMO_NOW }))).toContain(
			'Sign-off Probe works on a table that somebody else keeps.'
		)
	})
})
