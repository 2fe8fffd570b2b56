/** A form while it is filled in: what is missing, what is sent, what becomes of a refusal, and what others' changes leave alone. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { ShownEntry } from '$lib/core/requests/screens.ts'
import { abreast, type ShownForm } from './form-parts.ts'
import { FormState } from './form-state.svelte.ts'

const entry = (id: string, column: ShownColumn, more: Partial<ShownEntry> = {}): ShownEntry => ({
	...{ kind: 'entry', id, column, help: '', sample: '', starts: null, remembers: false },
	...{ isNarrowed: false, isAbreast: false },
	...more
})
const CODE = entry('code', { id: 1, name: 'Code', type: 'text', required: true })
const DEPTH = entry('depth', { id: 2, name: 'Depth', type: 'decimal', places: 1 }, { starts: 4.5 })
const WHY = entry('why', { id: 3, name: 'Why', type: 'text' }, { remembers: true })
const ITEM = entry('item', { id: 9, name: 'Item', type: 'text', required: true })
const NOTHING = { unasked: [], must: [], refused: {}, shown: {} }

const FORM: ShownForm = {
	...{ id: 'f', kind: 'form', table: 2, title: 'Buoys', opens: null, isOfRow: false, changes: false, then: null },
	pages: [
		{ id: 'p', title: 'First', parts: [CODE, DEPTH] },
		{ id: 'q', title: 'Second', parts: [WHY, { kind: 'items', id: 'g', title: 'Items', least: 1, parts: [ITEM] }] }
	],
	verdict: { ...NOTHING, items: {} }
}
const ROW = { items: 'g', at: 0 }

let line: ShownForm
let sent: { address: string; body: Record<string, unknown> }[]
let answer: { readonly status: number; readonly body: unknown }
let form: FormState

beforeEach(() => {
	vi.useFakeTimers()
	sent = []
	answer = { status: 200, body: { ...NOTHING, items: {} } }
	const alone: { parent?: unknown } = {}
	alone.parent = alone
	vi.stubGlobal('window', alone)
	vi.stubGlobal('fetch', async (address: string, init: RequestInit) => {
		sent.push({ address, body: JSON.parse(String(init.body)) as Record<string, unknown> })
		return Response.json(answer.body, { status: answer.status })
	})
	line = FORM
	form = new FormState({ line: () => line, path: () => '/app/1/ask', row: () => null, held: () => ({ port: 'x' }) })
})

afterEach(() => {
	vi.useRealTimers()
	vi.unstubAllGlobals()
})

test('begins with what its entries begin with, and as many rows as must be filled in', () => {
	expect(form.draft).toEqual({ cells: { 2: { text: '4.5' } }, items: { g: [{}] } })
	form.start({ 1: { text: 'not remembered' }, 3: { text: 'as before' } })
	expect(form.draft.cells).toEqual({ 2: { text: '4.5' }, 3: { text: 'as before' } })
})

test('what is missing keeps a page from being turned, and is named', () => {
	expect(form.missingOn(line.pages[0]?.parts ?? [])).toEqual(['Code'])
	form.next()
	expect([form.pageAt, form.wrong['code']]).toEqual([0, 'Code must be filled in.'])
	form.change(CODE, { text: 'B1' })
	form.next()
	expect([form.pageAt, form.missingOn(line.pages[1]?.parts ?? [])]).toEqual([1, ['Items']])
})

test('the server is asked once somebody pauses, with what can be read of it', async () => {
	form.change(DEPTH, { text: 'deep' })
	form.change(CODE, { text: 'B1' })
	form.change(ITEM, { text: 'Chain' }, ROW)
	answer = { status: 200, body: { ...NOTHING, must: ['why'], items: {} } }
	await vi.advanceTimersByTimeAsync(1_000)
	expect(sent).toEqual([
		{
			address: '/app/1/ask/form',
			body: {
				...{ kind: 'judge', line: 'f', cells: [{ column: 1, value: 'B1' }], held: { port: 'x' } },
				items: { g: [[{ column: 9, value: 'Chain' }]] }
			}
		}
	])
	expect(form.missingOn(line.pages[1]?.parts ?? [])).toEqual(['Why'])
})

test('what is sent goes whole, rows that are blank throughout left out of what is missing', async () => {
	form.change(CODE, { text: 'B1' })
	form.change(ITEM, { text: 'Chain' }, ROW)
	form.addRow({ kind: 'items', id: 'g', title: 'Items', least: 1, parts: [ITEM] })
	answer = { status: 200, body: { row: 'r1', rev: 1, conflicts: [], says: 'Saved.' } }
	expect(await form.submit()).toBe('r1')
	expect(sent.at(-1)).toMatchObject({ address: '/app/1/ask/do', body: { kind: 'form', cells: [{ column: 1 }, { column: 2, value: 4.5 }] } }) // prettier-ignore
	expect(form.said).toEqual({ text: 'Saved.', wrong: false })
})

test('a refusal turns to the page of its entry and keeps what was typed', async () => {
	form.change(CODE, { text: 'B1' })
	form.change(ITEM, { text: 'Chain' }, ROW)
	form.pageAt = 0
	answer = {
		status: 422,
		body: { code: 'invalid', message: 'Too dear.', details: { column: 9, entry: 'item', row: 0 } }
	}
	expect(await form.submit()).toBeUndefined()
	expect(form.pageAt).toBe(1)
	expect(form.messageAt(ITEM, ROW)).toBe('Too dear.')
	expect(form.draft.cells[1]).toEqual({ text: 'B1' })
})

test('lines that are changed while it stands open leave what was typed alone', () => {
	line = { ...FORM, pages: [{ id: 'p', title: '', parts: [entry('depth', DEPTH.column, { starts: 9 })] }] }
	form.askAnew()
	expect(form.draft.cells).toEqual({ 2: { text: '9' } })
	form.change(DEPTH, { text: '5' })
	form.askAnew()
	expect(form.draft.cells).toEqual({ 2: { text: '5' } })
})

describe('a form that changes the row that is shown', () => {
	const LEVEL = entry('level', { id: 4, name: 'Level', type: 'whole number' }, { starts: 3 })
	const changes = (parts: ShownForm['pages'][number]['parts']): ShownForm => ({
		...FORM,
		...{ isOfRow: true, changes: true, pages: [{ id: 'p', title: '', parts }] }
	})

	beforeEach(() => {
		line = changes([DEPTH, LEVEL])
		form = new FormState({ line: () => line, path: () => '/app/1/sheet', row: () => 'r1', held: () => ({}) })
	})

	test('begins with what stands there, and sends what was typed otherwise, with what it was', async () => {
		expect(form.draft.cells).toEqual({ 2: { text: '4.5' }, 4: { text: '3' } })
		form.change(DEPTH, { text: '5' })
		form.change(LEVEL, { text: '4' })
		form.change(LEVEL, { text: '3' })
		expect(form.asked()).toEqual({
			...{ line: 'f', typed: { cells: [{ column: 2, value: 5, was: 4.5 }], items: {} } },
			place: { held: {}, row: 'r1' }
		})
		answer = { status: 200, body: { row: 'r1', rev: 2, conflicts: [], says: 'Saved.' } }
		expect(await form.submit()).toBe('r1')
	})

	test('keeps of what was typed only that, over what others have put there meanwhile', () => {
		form.change(DEPTH, { text: '5' })
		expect(form.kept().cells).toEqual({ 2: { text: '5' } })
		line = changes([
			{ ...DEPTH, starts: 6 },
			{ ...LEVEL, starts: 9 }
		])
		form.askAnew()
		expect(form.draft.cells).toEqual({ 2: { text: '5' }, 4: { text: '9' } })
		// What it was is what stands there by now, so that it is known what is being replaced.
		expect(form.asked().typed.cells).toEqual([{ column: 2, value: 5, was: 6 }])
		form.start({})
		form.takeUp({ cells: { 4: { text: '7' } }, items: {} })
		expect(form.draft.cells).toEqual({ 2: { text: '6' }, 4: { text: '7' } })
	})

	test('says what somebody else put where one was slower, and keeps both', async () => {
		form.change(DEPTH, { text: '5' })
		answer = { status: 200, body: { row: 'r1', rev: 3, conflicts: [{ column: 2, theirs: 8, yours: 5 }] } }
		expect(await form.submit()).toBeUndefined()
		expect(form.wrong['depth']).toContain('to 8')
		expect(form.draft.cells[2]).toEqual({ text: '5' })
		expect(form.said?.wrong).toBe(true)
	})
})

test('entries that stand abreast share a row with the entry before', () => {
	const beside = { ...WHY, isAbreast: true }
	const heading = { id: 'h', kind: 'heading' as const, text: 'More' }
	const ids = (...parts: Parameters<typeof abreast>[0][number][]) =>
		abreast(parts).map((row) => row.map(({ id }) => id))
	expect(ids(CODE, beside, DEPTH)).toEqual([['code', 'why'], ['depth']])
	expect(ids(beside, heading, { ...DEPTH, isAbreast: true })).toEqual([['why'], ['h'], ['depth']])
})
