/** A row that is changed by hand: what is sent of it, what is kept, and what becomes of it where somebody else was faster. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { doOnScreen } from '../do-on-screen.ts'
import { RecordEdit } from './record-edit.svelte.ts'

const CODE: ShownColumn = { id: 1, name: 'Code', type: 'text', required: true }
const DEPTH: ShownColumn = { id: 2, name: 'Depth', type: 'decimal', places: 1 }
const PHOTO: ShownColumn = { id: 3, name: 'Photo', type: 'photo' }
const SHA = 'ab'.repeat(32)
const row: WireRow = {
	...{ id: 'r1', rev: 1 },
	cells: { c1: 'NH-014', c2: 4.5, c3: { file: { name: 'swivel.jpg', type: 'image/jpeg', size: 3, sha: SHA } } }
}

let sent: unknown[]
let answer: { readonly status: number; readonly body: unknown }
let edit: RecordEdit

beforeEach(() => {
	sent = []
	answer = { status: 200, body: { conflicts: [] } }
	// A page that stands in no frame.
	const alone: { parent?: unknown } = {}
	alone.parent = alone
	vi.stubGlobal('window', alone)
	vi.stubGlobal('fetch', async (_address: string, init: RequestInit) => {
		sent.push(JSON.parse(String(init.body)))
		return Response.json(answer.body, { status: answer.status })
	})
	edit = new RecordEdit(row, [CODE, DEPTH, PHOTO], {
		base: '/app/1',
		put: (cells) => doOnScreen('/app/1/sheet', { kind: 'change', line: 'l1', row: row.id, cells })
	})
})

afterEach(() => vi.unstubAllGlobals())

test('what was left as it was is not sent', async () => {
	expect(await edit.save()).toEqual({ is: 'saved', changed: false })
	expect(sent).toEqual([])
})

test('what was changed is sent beside what was seen', async () => {
	edit.put(DEPTH, { text: '5.2' })
	expect(await edit.save()).toEqual({ is: 'saved', changed: true })
	const cells = [{ column: 2, value: 5.2, was: 4.5 }]
	expect(sent).toEqual([{ kind: 'change', line: 'l1', row: 'r1', cells }])
})

test('what cannot be read is told at its entry, and nothing is sent', async () => {
	edit.put(DEPTH, { text: 'deep' })
	edit.put(CODE, { text: ' ' })
	expect(await edit.save()).toEqual({ is: 'refused', message: undefined })
	expect(Object.keys(edit.wrong)).toEqual(['1', '2'])
	expect(edit.draft(DEPTH).text).toBe('deep')
	expect(sent).toEqual([])
})

test('a refusal stands at the column that it names, and what was typed stays', async () => {
	answer = { status: 422, body: { code: 'invalid', message: 'Another row has this code.', details: { column: 1 } } }
	edit.put(CODE, { text: 'NH-015' })
	expect(await edit.save()).toEqual({ is: 'refused', message: 'Another row has this code.' })
	expect(edit.wrong).toEqual({ 1: 'Another row has this code.' })
	expect(edit.draft(CODE).text).toBe('NH-015')
})

test('a refusal of a column that is not here stands at none', async () => {
	answer = { status: 403, body: { code: 'forbidden', message: 'This is not yours to change.', details: { column: 9 } } }
	edit.put(CODE, { text: 'NH-015' })
	expect(await edit.save()).toMatchObject({ is: 'refused' })
	expect(edit.wrong).toEqual({})
})

test('where somebody else was faster, theirs is shown, and saving again is beside what is seen now', async () => {
	answer = { status: 200, body: { conflicts: [{ column: 2, theirs: 4.9 }] } }
	edit.put(DEPTH, { text: '5.2' })
	expect(await edit.save()).toEqual({ is: 'clashed' })
	expect(edit.conflictIn(DEPTH)?.theirs).toBe(4.9)
	expect(edit.conflictIn(CODE)).toBeUndefined()
	edit.seen = { ...row, cells: { ...row.cells, c2: 4.9 } }
	answer = { status: 200, body: { conflicts: [] } }
	expect(await edit.save()).toEqual({ is: 'saved', changed: true })
	expect(sent[1]).toMatchObject({ cells: [{ column: 2, value: 5.2, was: 4.9 }] })
})

test('the picture that lies there is shown until another is put in its place', () => {
	expect(edit.pictureOf(PHOTO)).toContain('/files/3?')
	expect(edit.pictureOf(CODE)).toBeUndefined()
	edit.put(PHOTO, { text: 'other.jpg', file: 'cd'.repeat(32) })
	expect(edit.pictureOf(PHOTO)).toBeUndefined()
})
