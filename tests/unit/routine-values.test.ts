/** Values that routines hand on by name: kept for later steps, given to another routine, and never shown to whom they are not for. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { mapFormulas } from '$lib/core/app/walk-app.ts'
import { renameIn } from '$lib/core/formula/check/rename.ts'
import { refuseUnheldRows } from '$lib/server/apps/refuse-unheld-rows.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	documentOfRoutines,
	HOUR,
	IMKE,
	itemOf,
	ITEMS,
	messagesOf,
	MANY,
	NOW,
	openStock,
	ORDERS,
	release,
	REMARK,
	routine,
	runsOf,
	setItem,
	setNote,
	setStock,
	STOCK,
	STORES,
	tell,
	WIM,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const keep = (value: string, holds: string, what = 'a number', parts = {}) =>
	({ id: `k ${holds}`, kind: 'keep', value, holds, what, ...parts }) as never
const take = (holds: string, what = 'a number') => ({ id: `t ${holds}`, kind: 'take', what, holds }) as never
const give = (value: string, as: string) => ({ id: `g ${as}`, kind: 'give', value, as }) as never
const called = { kind: 'called', table: ITEMS } as const
const wait = { id: 'w', kind: 'wait', many: 1, span: 'hours' } as never

describe('a value that is kept', () => {
	test('stays what it was, whatever has changed when it is read', () => {
		release(store, [
			routine({ acts: STORES, steps: [keep('stock', 'before'), wait, setNote('here.before & " then " & stock')] })
		])
		setStock(store, 4)
		workOff(store)
		setItem(store, 1, [{ column: STOCK, value: 9 }])
		workOff(store, NOW + HOUR)
		expect(itemOf(store, 1)['note']).toBe('4 then 9')
	})

	test('is read in conditions, and kept anew for each row of a set', () => {
		const each = {
			...{ id: 'e', kind: 'each', table: ITEMS, where: 'stock < here.most' },
			lines: [
				keep('stock', 'own'),
				{ id: 'i', kind: 'if', where: 'here.own = stock', lines: [setNote('here.own & ""')] }
			]
		} as never
		release(store, [routine({ acts: STORES, steps: [keep('50', 'most'), each] })])
		setStock(store, 4)
		workOff(store)
		expect([itemOf(store, 1)['note'], itemOf(store, 2)['note']]).toEqual(['4', null])
	})

	test('may be a row, and is blank where it was never kept', () => {
		const missed = { id: 'i', kind: 'if', where: 'stock > 100', lines: [keep('1', 'more')] } as never
		const who = keep('held by', 'who', 'a row', { rows: 1 })
		const to = { ...tell, to: 'here.who' }
		release(store, [routine({ acts: STORES, steps: [who, missed, to, setNote('IF(ISBLANK(here.more), "none", "?")')] })]) // prettier-ignore
		setStock(store, 4)
		workOff(store)
		expect(messagesOf(store).map(({ person }) => person)).toEqual([WIM])
		expect(itemOf(store, 1)['note']).toBe('none')
	})
})

describe('a routine that takes values', () => {
	const order = { id: 'o', kind: 'add', table: ORDERS, lines: [{ id: 'c', kind: 'cell', column: MANY, formula: 'here.many' }, { id: 'd', kind: 'cell', column: REMARK, formula: 'here.why' }] } as never // prettier-ignore
	const other = (steps: never[], parts = {}) => routine({ id: 'other', name: 'Order', start: called, acts: STORES, steps, ...parts }) // prettier-ignore
	const run = (...lines: never[]) => ({ id: 'x', kind: 'run', routine: 'other', lines }) as never

	test('gets them from the one that runs it, as they were then', () => {
		release(store, [
			routine({ steps: [run(give('least - stock', 'many'), give('"low: " & item', 'why'))] }),
			other([take('many'), take('why', 'a text'), wait, order])
		])
		setStock(store, 4)
		workOff(store)
		setItem(store, 1, [{ column: STOCK, value: 20 }])
		workOff(store, NOW + HOUR)
		expect(store.prepare('SELECT c31 AS many, c32 AS why FROM t3').all()).toEqual([{ many: 21, why: 'low: Shackle' }])
	})

	const check = (steps: never[], lines: never[], parts = {}) =>
		checkApp(documentOfRoutines([routine({ steps: [run(...lines)] }), other(steps, parts)]), store.workspace())
			.filter(({ weight }) => weight === 'mistake')
			.map(({ message }) => message)
	test.each([
		[
			'of one that it does not get',
			[take('many'), order],
			[],
			'Order takes many. Give it by a line in this one: Give … as many.'
		],
		['of one that it does not take', [order], [give('1', 'much')], 'Order takes nothing that is called "much"'],
		['of another kind of thing', [take('many'), order], [give('item', 'many')], 'comes to another kind of thing'],
		['of a name of two words', [take('how many')], [], 'cannot follow "here."'],
		['of one that is taken late', [order, take('many')], [give('1', 'many')], 'move this up, before everything else'],
		['of none that is there', [order], [], 'Nothing is chosen or held here'],
		['of one that nobody gives', [take('many'), order], [give('1', 'many')], 'Nothing that starts it gives it a value', { start: { kind: 'rows', table: ITEMS, when: 'added', where: '' } }] // prettier-ignore
	] as [string, never[], never[], string, object?][])(
		'says what is wrong %s',
		(_what, steps, lines, says, parts = {}) => {
			expect(check(steps, lines, parts).join(' ')).toContain(says)
		}
	)

	test('what is read in words is not, where anybody may read them', () => {
		const said = check([take('many'), { ...tell, subject: 'Order {here.many}' } as never], [give('cost', 'many')])
		expect(said.join(' ')).toContain('may not be for whoever reads this')
	})
})

test('what was kept is shown to nobody who could not read it, though it slipped past the check', () => {
	const leak = { ...tell, subject: 'It cost {here.paid}', to: '"imke@varrow.example"' }
	const routines = [routine({ acts: STORES, steps: [keep('cost', 'paid'), leak] })]
	// As a release from before would do.
	release(store, [routine({ acts: STORES, steps: [keep('cost', 'paid')] })])
	const old = JSON.stringify(documentOfRoutines(routines))
	store.db.prepare(`INSERT INTO release (app, number, body, made_at, made_by) SELECT app, 99, ?, 0, made_by FROM release`).run(old) // prettier-ignore
	store.db.exec('UPDATE app SET live_release = 99')
	setStock(store, 4)
	workOff(store)
	expect(messagesOf(store).map(({ person, subject }) => [person, subject])).toEqual([[IMKE, 'It cost']])
	expect(runsOf(store)).toMatchObject([{ state: 'done' }])
})

test('a formula that reads a value is judged and renamed as any other', () => {
	const kept = keep('stock', 'before')
	const document = documentOfRoutines([routine({ acts: STORES, steps: [kept, setNote('here.before & cost')] })])
	const builder = { actor: { person: IMKE }, now: NOW }
	expect(() => refuseUnheldRows(store, document, undefined, builder)).toThrow()
	const { catalogue } = store.workspace()
	const seen: (string | undefined)[] = []
	mapFormulas(document, (text, standing) => {
		seen.push(renameIn(text, standing, catalogue, catalogue))
		return text
	})
	expect(seen).toContain('here.before & cost')
})
