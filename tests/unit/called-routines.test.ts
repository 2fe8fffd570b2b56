/** A routine that runs another: on which row, as whom, once; and routines that set each other off without end. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	documentOfRoutines,
	IMKE,
	itemOf,
	ITEMS,
	LEAST,
	messagesOf,
	openStock,
	ORDERS,
	release,
	routine,
	runsOf,
	setItem,
	setNote,
	setStock,
	STOCK,
	STORES,
	tell,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const called = { kind: 'called', table: ITEMS } as const
const run = (id: string, name = 'other') => ({ id, kind: 'run', routine: name }) as const
const other = (parts: Partial<Parameters<typeof routine>[0]> = {}) =>
	routine({ id: 'other', name: 'Tell', start: called, steps: [tell], ...parts })

describe('a routine that another runs', () => {
	test('begins on the row that is at hand there, once for each run of it', () => {
		release(store, [routine({ steps: [run('a')] }), other()])
		setStock(store, 4)
		workOff(store)
		expect(messagesOf(store).map(({ subject }) => subject)).toEqual(['Shackle is low'])
		expect(runsOf(store)).toMatchObject([
			{ state: 'done', row: 1 },
			{ state: 'done', row: 1 }
		])
	})

	test('for each row of a set on that row', () => {
		const each = { id: 'e', kind: 'each', table: ITEMS, where: 'stock > 1', lines: [run('a')] } as const
		const clock = { kind: 'clock', days: 'every day', at: '12:30', missed: 'once for all' } as const
		release(store, [routine({ start: clock, steps: [each] }), other()])
		workOff(store, Date.parse('2026-11-29T13:00:00Z'))
		expect(messagesOf(store).map(({ subject }) => subject)).toEqual(['Shackle is low', 'Chain is low'])
	})

	test('acts as its own role alone, whoever runs it, and its chain is written down', () => {
		release(store, [routine({ steps: [run('a')] }), other({ acts: STORES, steps: [setNote('"told"')] })])
		setStock(store, 4)
		workOff(store)
		expect(itemOf(store, 1)['note']).toBe('told')
		const paths = store.prepare<string>('SELECT path FROM run ORDER BY id').pluck().all()
		expect(paths).toEqual(['["Low stock"]', '["Low stock","Tell"]'])
		const through = store.prepare<string>(`SELECT through FROM history ORDER BY seq DESC LIMIT 1`).pluck().get()
		expect(through).toBe('routine Tell as Stores keepers')
	})
})

test('routines that set each other off without end are stopped at the tenth, with the way that they went', () => {
	const start = { kind: 'rows', table: ITEMS, when: 'changed', where: '' } as const
	const up = { id: 'u', kind: 'set', column: STOCK, formula: 'stock + 1' } as const
	const down = { id: 'd', kind: 'set', column: LEAST, formula: 'least + 1' } as const
	release(store, [
		routine({ id: 'up', name: 'Up', start: { ...start, where: 'stock < 1000' }, acts: STORES, steps: [up] }),
		routine({ id: 'down', name: 'Down', start: called, acts: STORES, steps: [down] })
	])
	setItem(store, 1, [{ column: STOCK, value: 30 }], IMKE)
	workOff(store)
	const runs = runsOf(store)
	expect(runs.map(({ state }) => state)).toEqual([...Array.from({ length: 10 }, () => 'done'), 'given up'])
	expect(runs.at(-1)?.error).toMatch(/^Up → Up → Up → Up → …: routines set each other off 10 times over/)
	expect(itemOf(store, 1)['stock']).toBe(40)
})

describe('before it is released', () => {
	const found = (routines: Parameters<typeof documentOfRoutines>[0]) =>
		checkApp(documentOfRoutines(routines), store.workspace())
			.filter(({ weight }) => weight === 'mistake')
			.map(({ message }) => message)

	test.each([
		['none is named', [routine({ steps: [run('a', '')] })], 'Say which routine it runs'],
		['it is gone', [routine({ steps: [run('a', 'gone')] })], 'Say which routine it runs'],
		['it starts otherwise', [routine({ steps: [run('a')] }), other({ start: { kind: 'button', table: ITEMS } })], 'Tell starts otherwise'], // prettier-ignore
		['it starts on other rows', [routine({ steps: [run('a')] }), other({ start: { ...called, table: ORDERS }, steps: [{ ...tell, to: '"wim@varrow.example"', subject: 's', body: '' }] })], 'starts on rows of orders, and here stands one of items'], // prettier-ignore
		['it writes and acts as nobody', [routine({ steps: [run('a')] }), other({ steps: [setNote('"x"')] })], 'say at the start which role it acts as'] // prettier-ignore
	])('%s, which is said', (_what, routines, says) => {
		expect(found(routines).join(' ')).toContain(says)
	})

	test('a step that waits within each row of a set is remarked on; run by another routine it is not', () => {
		const wait = { id: 'w', kind: 'wait', many: 1, span: 'days' } as const
		const each = (step: object) => ({ id: 'e', kind: 'each', table: ITEMS, where: '', lines: [step] }) as never
		const remarks = (routines: Parameters<typeof documentOfRoutines>[0]) =>
			checkApp(documentOfRoutines(routines), store.workspace())
				.filter(({ weight, place }) => weight === 'remark' && place.startsWith('Routine'))
				.map(({ message }) => message)
		expect(remarks([routine({ steps: [each(wait)] })])).toEqual([expect.stringContaining('one after the other')])
		expect(remarks([routine({ steps: [each(run('a'))] }), other({ steps: [wait, tell] })])).toEqual([])
	})

	test('all rows that are given to another wait at once', () => {
		const each = { id: 'e', kind: 'each', table: ITEMS, where: 'stock > 5', lines: [run('a')] } as const
		const wait = { id: 'w', kind: 'wait', many: 1, span: 'hours' } as const
		release(store, [routine({ steps: [each] }), other({ steps: [wait, tell] })])
		setStock(store, 6)
		workOff(store)
		expect(messagesOf(store)).toEqual([])
		workOff(store, Date.parse('2026-11-29T13:00:00Z'))
		expect(messagesOf(store).map(({ subject }) => subject)).toEqual(['Shackle is low', 'Chain is low'])
	})

	test('what works is not refused', () => {
		expect(found([routine({ steps: [run('a')] }), other()])).toEqual([])
	})
})
