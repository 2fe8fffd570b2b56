/** A draft while a builder works on it: changes are saved as edits one after the other, and what could not be saved is kept and said. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { appSchema, type AppDocument } from '$lib/core/app/document.ts'
import type { Edit } from '$lib/core/app/edits/edit.ts'
import { DraftState } from './draft.svelte.ts'

const reading = vi.hoisted(() => ({ again: () => Promise.resolve() }))
vi.mock('$app/navigation', () => ({ invalidate: () => reading.again() }))

interface Saving {
	readonly version: number
	/** What the app's name becomes, edit by edit. */
	readonly names: readonly unknown[]
	readonly answer: (value: unknown, status?: number) => void
}

const named = (name: string, about = ''): AppDocument =>
	appSchema.parse({ format: 3, name, about, colour: 'sea', screens: [], routines: [], signoffs: [] })
const saved = (version: number, document: AppDocument | null = null) => ({ version, document })
let waiting: Saving[]
let draft: DraftState

beforeEach(() => {
	waiting = []
	reading.again = () => Promise.resolve()
	vi.stubGlobal(
		'fetch',
		(_address: string, init: RequestInit) =>
			new Promise<Response>((resolve) => {
				const { version, edits } = JSON.parse(String(init.body)) as { version: number; edits: Edit[] }
				const answer: Saving['answer'] = (value, status = 200) => resolve(Response.json(value, { status }))
				waiting.push({ version, names: edits.map((edit) => edit.kind === 'set' && edit.value), answer })
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
const settled = () => vi.waitFor(() => expect(draft.saving).toBe(false))

test('what is changed while a save is on its way goes with the next, on top of its version', async () => {
	for (const name of ['one', 'two', 'three']) draft.change(named(name))
	expect(draft).toMatchObject({ saving: true, ahead: true, isUnsaved: true, document: { name: 'three' } })
	const first = await asked(0)
	expect(waiting).toHaveLength(1)
	expect(first).toMatchObject({ version: 4, names: ['one'] })
	first.answer(saved(5))
	const second = await asked(1)
	expect(second).toMatchObject({ version: 5, names: ['two', 'three'] })
	second.answer(saved(6))
	await settled()
	expect(draft).toMatchObject({ wrong: '', version: 6, isUnsaved: false })
})

test('a change that changes nothing is none', () => {
	draft.change(named('as it was'))
	expect(draft).toMatchObject({ saving: false, ahead: false, canUndo: false })
})

test('changes that wait are saved though the page could not be read anew', async () => {
	reading.again = () => Promise.reject(new Error('No signal'))
	draft.change(named('one'))
	draft.change(named('two'))
	;(await asked(0)).answer(saved(5))
	const second = await asked(1)
	expect(second).toMatchObject({ version: 5, names: ['two'] })
	second.answer(saved(6))
	await settled()
})

test('what was not saved is said, kept, and saved with the next change', async () => {
	draft.change(named('one'))
	;(await asked(0)).answer({ code: 'busy', message: 'Wait a moment.', details: {} }, 429)
	await settled()
	expect(draft).toMatchObject({ wrong: 'Wait a moment.', document: { name: 'one' }, isUnsaved: true })
	draft.change(named('two'))
	const second = await asked(1)
	expect(second).toMatchObject({ version: 4, names: ['one', 'two'] })
	second.answer(saved(5))
	await vi.waitFor(() => expect(draft.wrong).toBe(''))
})

test('undoing goes back change by change, doing again forward, and each saves what it comes to', async () => {
	draft.change(named('one'))
	;(await asked(0)).answer(saved(5))
	await settled()
	draft.undo()
	expect(draft).toMatchObject({ document: { name: 'as it was' }, canUndo: false, canRedo: true })
	draft.undo()
	;(await asked(1)).answer(saved(6))
	await settled()
	draft.redo()
	expect(draft).toMatchObject({ document: { name: 'one' }, canUndo: true, canRedo: false })
	;(await asked(2)).answer(saved(7))
	await settled()
	expect(waiting.map(({ names }) => names)).toEqual([['one'], ['as it was'], ['one']])
})

test('what another builder did meanwhile comes in, and what waits stays', async () => {
	draft.change(named('one'))
	draft.change(named('two'))
	;(await asked(0)).answer(saved(9, named('one', 'theirs')))
	const second = await asked(1)
	expect(second).toMatchObject({ version: 9, names: ['two'] })
	expect(draft.document).toMatchObject({ name: 'two', about: 'theirs' })
	second.answer(saved(10))
	await settled()
	// An undo takes back what this builder did, and nothing of the other's.
	draft.undo()
	draft.undo()
	expect(draft.document).toMatchObject({ name: 'as it was', about: 'theirs' })
})

test('of a place that both changed both versions are there, and this builder decides', async () => {
	draft.change(named('mine'))
	const theirs = saved(9, named('theirs'))
	;(await asked(0)).answer({ code: 'conflict', message: 'Another builder…', details: theirs }, 409)
	await settled()
	expect(draft).toMatchObject({ wrong: '', version: 9, document: { name: 'theirs' }, isUnsaved: false })
	const [conflict] = draft.unplaced
	if (!conflict) throw new Error('Expected a place that both changed')
	expect(conflict).toMatchObject({ what: 'changed', edit: { value: 'mine' } })
	draft.settle(conflict, true)
	expect(await asked(1)).toMatchObject({ version: 9, names: ['mine'] })
	expect(draft).toMatchObject({ unplaced: [], document: { name: 'mine' } })
})

test('a step is not taken back where another builder has changed its place since', async () => {
	draft.change(named('one'))
	;(await asked(0)).answer(saved(6, named('theirs')))
	await settled()
	draft.undo()
	expect(draft.document.name).toBe('theirs')
	expect(draft.wrong).toContain('Another builder has changed this place since')
})

test('looking again takes what others did', async () => {
	void draft.lookAgain()
	const first = await asked(0)
	expect(first).toMatchObject({ version: 4, names: [] })
	// A change that is made meanwhile goes after it.
	draft.change(named('as it was', 'mine'))
	first.answer(saved(5, named('theirs')))
	expect(await asked(1)).toMatchObject({ version: 5 })
	expect(draft.document).toMatchObject({ name: 'theirs', about: 'mine' })
})

test('a change whose screen another builder removed is kept and said, not dropped', async () => {
	const screen = { id: 's', title: 'Due', lines: [] }
	const [one, other] = [['Due'], ['Due now']].map(([title]) => appSchema.parse({ ...named('as it was'), screens: [{ ...screen, lines: [{ id: 'h', kind: 'heading', text: title }] }] })) // prettier-ignore
	draft = new DraftState(1, { version: 4, document: one ?? named(''), ahead: false })
	draft.change(other ?? named(''))
	const theirs = saved(9, named('as it was'))
	;(await asked(0)).answer({ code: 'conflict', message: '', details: theirs }, 409)
	await settled()
	const [conflict] = draft.unplaced
	if (!conflict) throw new Error('Expected a change without its screen')
	draft.settle(conflict, true)
	expect(draft.unplaced).toEqual([conflict])
	expect(draft.wrong).toContain('The screen that it stood on is gone')
	draft.settle(conflict, false)
	expect(draft.unplaced).toEqual([])
})
