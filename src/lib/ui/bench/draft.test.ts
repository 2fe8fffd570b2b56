/** A draft while a builder works on it: changes are saved one after the other, and what could not be saved is kept and said. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { AppDocument } from '$lib/core/app/document.ts'
import { DraftState } from './draft.svelte.ts'

const reading = vi.hoisted(() => ({ again: () => Promise.resolve() }))
vi.mock('$app/navigation', () => ({ invalidate: () => reading.again() }))

interface Saving {
	readonly version: number
	readonly name: string
	readonly answer: (value: unknown, status?: number) => void
}

const named = (name: string) => ({ name }) as unknown as AppDocument
let waiting: Saving[]
let draft: DraftState

beforeEach(() => {
	waiting = []
	reading.again = () => Promise.resolve()
	vi.stubGlobal(
		'fetch',
		(_address: string, init: RequestInit) =>
			new Promise<Response>((resolve) => {
				const { version, document } = JSON.parse(String(init.body)) as { version: number; document: { name: string } }
				const answer: Saving['answer'] = (value, status = 200) => resolve(Response.json(value, { status }))
				waiting.push({ version, name: document.name, answer })
			})
	)
	draft = new DraftState(1, { version: 4, document: named('as it was'), ahead: false })
})

afterEach(() => vi.unstubAllGlobals())

/** What is asked next, once it is asked. */
const asked = (at: number) =>
	vi.waitFor(() => {
		const saving = waiting[at]
		if (!saving) throw new Error(`Expected ${at + 1} savings, got ${waiting.length}`)
		return saving
	})

test('each change is saved on top of the version that the one before it made', async () => {
	draft.change(named('one'))
	draft.change(named('two'))
	expect(draft).toMatchObject({ saving: true, ahead: true, document: { name: 'two' } })
	const first = await asked(0)
	expect(waiting).toHaveLength(1)
	expect(first).toMatchObject({ version: 4, name: 'one' })
	first.answer(5)
	const second = await asked(1)
	expect(second).toMatchObject({ version: 5, name: 'two' })
	second.answer(6)
	await vi.waitFor(() => expect(draft.saving).toBe(false))
	expect(draft.wrong).toBe('')
})

test('changes that wait are saved though the page could not be read anew', async () => {
	reading.again = () => Promise.reject(new Error('No signal'))
	draft.change(named('one'))
	draft.change(named('two'))
	;(await asked(0)).answer(5)
	const second = await asked(1)
	expect(second).toMatchObject({ version: 5, name: 'two' })
	second.answer(6)
	await vi.waitFor(() => expect(draft.saving).toBe(false))
})

test('what was not saved is said, kept, and saved with the next change', async () => {
	draft.change(named('one'))
	;(await asked(0)).answer({ code: 'busy', message: 'Wait a moment.', details: {} }, 429)
	await vi.waitFor(() => expect(draft.saving).toBe(false))
	expect(draft).toMatchObject({ wrong: 'Wait a moment.', document: { name: 'one' } })
	draft.change(named('two'))
	const second = await asked(1)
	expect(second).toMatchObject({ version: 4, name: 'two' })
	second.answer(5)
	await vi.waitFor(() => expect(draft.wrong).toBe(''))
})

test('undoing goes back change by change, and saves what it comes to', async () => {
	draft.change(named('one'))
	draft.change(named('two'))
	draft.undo()
	draft.undo()
	expect(draft.document).toEqual({ name: 'as it was' })
	expect(draft.canUndo).toBe(false)
	draft.undo()
	for (const at of [0, 1, 2, 3]) (await asked(at)).answer(5 + at)
	await vi.waitFor(() => expect(draft.saving).toBe(false))
	expect(waiting.map(({ name }) => name)).toEqual(['one', 'two', 'one', 'as it was'])
})
