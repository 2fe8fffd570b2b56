/** Routines that start when a row was removed: what they read of it, who may read it, and bringing it back. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { tryRoutine } from '$lib/server/apps/try-routine.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	by,
	CREW,
	documentOfRoutines,
	HOUR,
	IMKE,
	itemOf,
	ITEMS,
	messagesOf,
	NOW,
	openStock,
	ORDERS,
	ordersOf,
	release,
	REMARK,
	routine,
	runsOf,
	setNote,
	STORES,
	tell,
	WIM,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const removed = (where = '') => ({ kind: 'rows', table: ITEMS, when: 'removed', where }) as const
const wait = { id: 'w', kind: 'wait', many: 1, span: 'hours' } as const
const back = { id: 'b', kind: 'restore' } as const
const note = { id: 'o', kind: 'add', table: ORDERS, lines: [{ id: 'c', kind: 'cell', column: REMARK, formula: 'item & " had " & stock' }] } as never // prettier-ignore

function put(kind: 'remove' | 'restore', n = 1, person = WIM): void {
	const change = { kind, table: ITEMS, row: store.ids.toId(ITEMS, n) }
	store.db.transaction(() => changeRows(store, [change], { actor: { person }, now: NOW, through: 'grid' }))()
}

describe('a row that was removed', () => {
	test('starts what fits how it stood, and is read as it stood', () => {
		release(store, [
			routine({ start: removed('stock > 30'), steps: [tell] }),
			routine({ id: 'no', start: removed('stock < 30'), steps: [tell] })
		])
		put('remove')
		workOff(store)
		expect(messagesOf(store)).toMatchObject([{ person: WIM, subject: 'Shackle is low', body: '40 left of 25' }])
		expect(runsOf(store)).toMatchObject([{ state: 'done', error: null }])
	})

	test('is told nobody who did not see it, nor what of it they did not', () => {
		const cost = { ...tell, subject: '{item} cost {cost}', to: '"imke@varrow.example"' }
		const sealed = { ...tell, id: 's', subject: '{item}, {stock}', to: '"wim@varrow.example"' }
		release(store, [routine({ start: removed(), steps: [cost, sealed] })])
		put('remove', 1)
		put('remove', 3, by.actor.person)
		workOff(store)
		// Imke sees no costs, and Wim no row that is called Sealed.
		const told = messagesOf(store).map(({ person, subject }) => [person, subject])
		expect(told).toEqual([[IMKE, 'Shackle cost'], [WIM, 'Shackle, 40'], [IMKE, 'Sealed cost'], [WIM, ',']]) // prettier-ignore
	})

	test('is read within its role, and its values go into other rows', () => {
		release(store, [routine({ start: removed(), acts: STORES, steps: [note] })])
		put('remove')
		workOff(store)
		expect(ordersOf(store)).toMatchObject([{ remark: 'Shackle had 40' }])
	})

	test('comes back by a step, under the rights of its role, and goes on as a row', () => {
		release(store, [routine({ start: removed(), acts: STORES, steps: [back, setNote('"kept"')] })])
		put('remove')
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ item: 'Shackle', stock: 40, note: 'kept' })
		const through = store
			.prepare<string>(`SELECT DISTINCT through FROM history ORDER BY seq DESC LIMIT 1`)
			.pluck()
			.get()
		expect(through).toBe('routine Low stock as Stores keepers')
	})

	test('does not come back as a role that may not add it', () => {
		release(store, [routine({ start: removed(), acts: CREW, steps: [back] })])
		put('remove')
		workOff(store)
		expect(runsOf(store)).toMatchObject([{ state: 'given up', error: expect.stringContaining('You may not add this row') }]) // prettier-ignore
		expect(itemOf(store, 1)).toEqual({})
	})

	test('that somebody brought back meanwhile is read as it is; one that left the bin ends the run', () => {
		release(store, [routine({ start: removed(), steps: [wait, tell] })])
		put('remove')
		workOff(store)
		put('restore')
		workOff(store, NOW + HOUR)
		expect(messagesOf(store)).toHaveLength(1)
		put('remove', 2)
		workOff(store)
		store.db.exec('DELETE FROM bin')
		workOff(store, NOW + HOUR)
		expect(messagesOf(store)).toHaveLength(1)
		expect(runsOf(store).map(({ state }) => state)).toEqual(['done', 'done'])
	})

	test('of the last seven days is found when a routine is tried', () => {
		put('remove')
		const tried = routine({ start: removed('stock > 30'), steps: [tell] })
		const document = documentOfRoutines([tried])
		const [parsed] = document.routines
		if (!parsed) throw new Error('Expected a routine')
		expect(tryRoutine(store, { document, routine: parsed, ...by })).toMatchObject({ starts: 1, steps: { t: '1 message' } }) // prettier-ignore
	})
})

describe('before it is released', () => {
	const found = (steps: never[], start: object = removed()) =>
		checkApp(documentOfRoutines([routine({ start: start as never, acts: STORES, steps })]), store.workspace())
			.filter(({ weight, place }) => weight === 'mistake' && place.startsWith('Routine'))
			.map(({ message }) => message)
			.join(' ')
	const set = setNote('"x"') as never
	test.each([
		['what changes it', [set], 'The row lies in the bin by then'],
		['what removes it again', [{ id: 'r', kind: 'remove' } as never], 'The row lies in the bin by then'],
		['changing it before it is back', [set, back as never], 'The row lies in the bin by then']
	])('%s is refused', (_what, steps, says) => expect(found(steps)).toContain(says))

	test('changing it once it is back is not, nor rows of other tables', () => {
		const each = { id: 'e', kind: 'each', table: ITEMS, where: '', lines: [set] } as never
		expect(found([each, back as never, set])).toBe('')
	})

	test('a row that was not removed does not come back', () => {
		expect(found([back as never], { ...removed(), when: 'added' })).toContain('Only a row that was removed comes back')
	})
})
