/** A file on its way in, step by step as the server tells it: nothing that was settled is lost on the way. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { ImportState } from '$lib/core/requests/imports.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import { GivenSource, type InspectedFile } from './given-source.svelte.ts'

const read = vi.hoisted(() => ({ again: [] as string[] }))
vi.mock('$app/navigation', () => ({
	invalidate: (what: string) => (read.again.push(what), Promise.resolve())
}))

const inspected = (more: Partial<InspectedFile> = {}): InspectedFile => ({
	...{ file: 'gear.csv', sheets: [''], sheet: '', headingRow: 0, firstRow: 1, overTwo: false, rowCount: 3, label: 0 },
	...{ head: [['Gear']], damaged: [], noRows: [], groups: [], notes: [], keys: [[0]] },
	columns: [{ name: 'Gear', type: 'text', writing: TYPED, blank: false, doubts: [] }],
	...more
})
const MOORINGS = {
	...{ id: 7, name: 'Moorings', label: 1, owned: true },
	columns: [{ id: 1, name: 'Gear', type: 'text' }]
} as unknown as BenchTable

let sent: { readonly kind: string }[]
/** What is answered, in this order: to what is sent, and to asking how far it is. */
let answers: { readonly status?: number; readonly body: unknown }[]

beforeEach(() => {
	;[sent, answers, read.again] = [[], [], []]
	vi.stubGlobal('fetch', async (_address: string, init?: RequestInit) => {
		if (init?.body !== undefined) sent.push(JSON.parse(String(init.body)))
		const { status = 200, body } = answers.shift() ?? { body: null }
		return Response.json(body, { status })
	})
})
afterEach(() => vi.unstubAllGlobals())

const REFUSED = { status: 422, body: { code: 'invalid', message: 'This sheet is not there.', details: {} } }
const DONE: ImportState = { state: 'done', table: 9, rows: 3, unread: [], unreadCount: 0 }
const nothing = { added: 1, changed: 0, missing: 0, same: 2, lines: [] }
const COMPARED = { state: 'compared', comparison: nothing, unread: [], unreadCount: 0 } as unknown as ImportState

const open = (again?: number, first = inspected()) =>
	new GivenSource({ importId: 'i1', first, tables: () => [MOORINGS], again })
const until = (source: GivenSource, state: ImportState['state']) =>
	vi.waitFor(() => expect(source.status.state).toBe(state))

describe('a new table', () => {
	test('is asked after until it is in, and the Bench is read again', async () => {
		const source = open()
		expect(source.into).toBeUndefined()
		const running: ImportState = { state: 'running', doing: 'reading', done: 1, of: 3 }
		answers = [{ body: null }, { body: running }, { body: DONE }]
		await source.start()
		expect(source.status).toMatchObject({ state: 'running', doing: 'reading', of: 3 })
		await until(source, 'done')
		expect(sent).toMatchObject([{ kind: 'start', plan: { tableName: 'gear' }, more: false }])
		expect(read.again).toEqual(['app:bench'])
	})

	test('that failed goes back to the file, with the reason', async () => {
		const source = open()
		answers = [{ body: null }, { body: { state: 'failed', message: 'The disk is full.' } }]
		await source.start()
		await until(source, 'given')
		expect(source.wrong).toBe('The disk is full.')
	})

	test('that is refused at once begins nothing', async () => {
		const source = open()
		answers = [REFUSED]
		await source.start()
		expect(source).toMatchObject({ status: { state: 'given' }, wrong: 'This sheet is not there.' })
	})
})

describe('a table that is there', () => {
	test('is compared with first; what is changed then takes the comparison back', async () => {
		const source = open(MOORINGS.id)
		expect(source.into?.name).toBe('Moorings')
		answers = [{ body: null }, { body: COMPARED }]
		await source.start()
		await until(source, 'compared')
		expect(source.reviewed).toEqual(COMPARED)
		source.change({ ...source.plan, into: { table: 7, how: 'add', keys: [] } })
		expect(source).toMatchObject({ status: { state: 'given' }, reviewed: undefined })
	})

	test('what was refused while it went in is said beside the comparison', async () => {
		const source = open(MOORINGS.id)
		const refused = { ...COMPARED, refused: { message: '1 row does not fit.', misfits: [] } }
		answers = [{ body: null }, { body: refused }]
		await source.apply(false)
		await until(source, 'compared')
		expect(sent).toEqual([{ kind: 'apply', partly: false }])
		expect(source.wrong).toBe('1 row does not fit.')
	})

	test('that somebody else owns is not gone into', () => {
		expect(open(8).plan.into).toBeUndefined()
	})
})

describe('reading it otherwise', () => {
	test('keeps the name that was written, but for another sheet', async () => {
		const source = open(undefined, inspected({ sheets: ['Chains', 'Anchors'], sheet: 'Chains' }))
		source.plan.tableName = 'Our chains'
		answers = [{ body: inspected({ sheets: ['Chains', 'Anchors'], sheet: 'Chains', firstRow: 2 }) }]
		await source.look({ headingRow: 1 })
		expect(source.plan).toMatchObject({ tableName: 'Our chains', firstRow: 2 })
		answers = [{ body: inspected({ sheets: ['Chains', 'Anchors'], sheet: 'Anchors' }) }]
		await source.look({ sheet: 'Anchors' })
		expect(source.plan.tableName).toBe('Anchors')
		expect(source.others).toEqual(['Chains'])
	})

	test('that is refused leaves what stands there', async () => {
		const source = open()
		const { plan } = source
		answers = [REFUSED]
		await source.look({ sheet: 'Ropes' })
		expect(source.wrong).toBe('This sheet is not there.')
		expect(source.plan).toBe(plan)
	})
})

test('other sheets that were ticked come in after it, each said', async () => {
	const sheets = { sheets: ['Chains', 'Anchors'], sheet: 'Chains' }
	const source = open(undefined, inspected(sheets))
	source.ticked = ['Anchors']
	const anchors = inspected({ ...sheets, sheet: 'Anchors' })
	answers = [{ body: null }, { body: DONE }, { body: anchors }, { body: null }, { body: { ...DONE, table: 10 } }]
	await source.start()
	await vi.waitFor(() => expect(source.moreDone).toEqual([{ sheet: 'Anchors', outcome: { table: 10, rows: 3 } }]))
	expect(sent).toMatchObject([{ kind: 'start', more: true }, { kind: 'inspect', sheet: 'Anchors' }, { kind: 'start' }])
})
