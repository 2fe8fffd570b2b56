/** Waiting until something holds of a row: seen at once when the row changes, and given up in time where that is said. */
import { beforeEach, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { cancelRun } from '$lib/server/routines/tend-runs.ts'
import { listRuns } from '$lib/server/routines/read-runs.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	asWriter,
	by,
	DAY,
	documentOfRoutines,
	HOUR,
	itemOf,
	messagesOf,
	NOTE,
	NOW,
	openStock,
	release,
	routine,
	runsOf,
	setItem,
	setNote,
	setStock,
	STORES,
	tell,
	WIM,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const until = {
	...{ id: 'u', kind: 'until', where: 'note = "come"' },
	ends: { many: 2, span: 'days' },
	lines: [{ ...tell, id: 'came', subject: 'Come: {item}' }]
} as const
const otherwise = { id: 'e', kind: 'else', lines: [{ ...tell, id: 'late', subject: 'Late: {item}' }] } as const
const after = setNote('note & "!"', 'after')
const subjects = () => messagesOf(store).map(({ subject }) => subject)
const come = (now = NOW, note = 'come') => setItem(store, 1, [{ column: NOTE, value: note }], WIM, now)
const begin = (steps: readonly object[]) => {
	const app = release(store, [routine({ acts: STORES, steps: [...steps, after] as never })])
	setStock(store, 4)
	workOff(store)
	return app
}

test('it goes on as soon as the row is so, and not before', () => {
	begin([until, otherwise])
	expect(runsOf(store)).toMatchObject([{ state: 'waiting' }])
	come(NOW + 60_000, 'not yet')
	workOff(store, NOW + 60_000)
	expect(subjects()).toEqual([])
	come(NOW + 120_000)
	workOff(store, NOW + 120_000)
	expect(subjects()).toEqual(['Come: Shackle'])
	expect(itemOf(store, 1)['note']).toBe('come!')
	expect(runsOf(store)).toMatchObject([{ state: 'done' }])
	expect(store.pluck<number>('SELECT count(*) FROM run_wait')).toBe(0)
})

test('where it is so already it does not wait at all', () => {
	come()
	begin([until, otherwise])
	expect(subjects()).toEqual(['Come: Shackle'])
})

test('once the time is over what follows "Otherwise" is done, and a change after that changes nothing', () => {
	begin([until, otherwise])
	workOff(store, NOW + 2 * DAY - 1)
	expect(subjects()).toEqual([])
	workOff(store, NOW + 2 * DAY)
	expect(subjects()).toEqual(['Late: Shackle'])
	come(NOW + 3 * DAY)
	workOff(store, NOW + 3 * DAY)
	expect(subjects()).toEqual(['Late: Shackle'])
})

test('what comes true by the time alone is seen within the hour', () => {
	begin([{ ...until, where: 'HOUR(NOW()) > 12' }])
	workOff(store, NOW + HOUR - 1)
	expect(runsOf(store)).toMatchObject([{ state: 'waiting' }])
	workOff(store, NOW + HOUR)
	expect(subjects()).toEqual(['Come: Shackle'])
})

test('cancelled, or of a row that is gone, it waits no longer', () => {
	const app = begin([until])
	const [run] = listRuns(store, { app, routine: 'r', ...by })
	asWriter(store, () => cancelRun(store, { app, run: run?.id ?? '', ...by }))
	come(NOW + HOUR)
	workOff(store, NOW + HOUR)
	expect(subjects()).toEqual([])
	setStock(store, 40)
	setStock(store, 4)
	workOff(store, NOW + HOUR)
	store.db.exec('DELETE FROM t2 WHERE n = 1')
	workOff(store, NOW + 3 * HOUR)
	expect(runsOf(store).at(-1)).toMatchObject({ state: 'done' })
})

test.each([
	['says nothing', [{ ...until, where: ' ' }], 'Say what it waits for'],
	['cannot be read', [{ ...until, where: 'nothing = 1' }], 'nothing'],
	['has an Otherwise that never comes', [{ ...until, ends: null }, otherwise], 'waits without end']
])('one that %s is said before it is released', (_what, steps, says) => {
	const document = documentOfRoutines([routine({ acts: STORES, steps: steps as never })])
	const found = checkApp(document, store.workspace()).map(({ message }) => message)
	expect(found.join(' ')).toContain(says)
})
