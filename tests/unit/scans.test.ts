/** Codes that are scanned or typed on a screen: on the row that has them, for who sees it, under their rights. */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema, type AppInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { press, scan } from '$lib/server/apps/use-app.ts'
import { takeBack } from '$lib/server/logbook/take-back.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	asWriter,
	by,
	COST,
	CREW,
	IMKE,
	ITEM,
	itemOf,
	ITEMS,
	NOW,
	openStock,
	routine,
	STOCK,
	STORES,
	WIM
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const start = { kind: 'scan', table: ITEMS, column: ITEM } as const
const take = { id: 's', kind: 'set', column: STOCK, formula: 'stock - 1' } as const
const say = { id: 'y', kind: 'say', words: '{here.scanned}: {stock} left' } as const

function releaseScan(
	routines: AppInput['routines'],
	lines: AppInput['screens'][number]['lines'] = [{ id: 'l', kind: 'scan', label: 'Taking one', routine: 'r' }]
): number {
	// prettier-ignore
	const screens = [{ id: 's', title: 'S', lines: [{ id: 't', kind: 'text' as const, text: 'Shelf' }, ...lines] }]
	const document = appSchema.parse({ format: APP_FORMAT, name: 'Stock', about: '', colour: 'sea', routines, screens, signoffs: [] }) // prettier-ignore
	return asWriter(store, () => {
		const app = addAppFrom(store, { document, ...by })
		releaseApp(store, { app, note: '', ...by })
		return app
	})
}

function scanned(app: number, code: string, person = IMKE) {
	return asWriter(store, () =>
		scan(store, { app, screen: 's', draft: false, line: 'l', code, actor: { person }, now: NOW })
	)
}

describe('a code that is scanned', () => {
	test('runs the routine on the row that has it, however it is written, and can be taken back', () => {
		const app = releaseScan([routine({ start, steps: [take, say] })])
		const { says, entry } = scanned(app, 'SHACKLE')
		expect(says).toBe('SHACKLE: 39 left')
		expect(itemOf(store, 1)['stock']).toBe(39)
		asWriter(store, () => takeBack(store, { entry: entry ?? 0, actor: { person: IMKE }, now: NOW }))
		expect(itemOf(store, 1)['stock']).toBe(40)
	})

	test.each([
		['that nobody has', 'Rope', 'Rope: no row of items with this item is there for you to see.'],
		['that is a formula', '" or 1=1', 'no row of items'],
		['of a row that they do not see', 'Sealed', 'Sealed: no row of items with this item is there for you to see.']
	])('%s is said, and nothing is done', (_what, code, says) => {
		const app = releaseScan([routine({ start, acts: STORES, steps: [take] })])
		expect(() => scanned(app, code, WIM)).toThrow(says)
		expect(itemOf(store, 3)['stock']).toBe(5)
	})

	test('that several rows have is nobody’s', () => {
		store.db.exec(`UPDATE t2 SET c20 = 'Shackle', c20k = 'shackle' WHERE n = 2`)
		const app = releaseScan([routine({ start, steps: [take] })])
		expect(() => scanned(app, 'Shackle')).toThrow('several rows of items have this item')
		expect([itemOf(store, 1)['stock'], itemOf(store, 2)['stock']]).toEqual([40, 60])
	})

	test('writes what whoever scans may, and no more', () => {
		const app = releaseScan([routine({ start, steps: [{ ...take, column: COST }] })])
		expect(() => scanned(app, 'Shackle')).toThrow()
		expect(itemOf(store, 1)['stock']).toBe(40)
	})

	test('is asked for only on a line that is there, and by no button', () => {
		const button = { id: 'l', kind: 'button', label: 'B', does: { kind: 'run', routine: 'r' } } as const
		expect(() => releaseScan([routine({ start, steps: [take] })], [button])).toThrow('gone, or starts by itself')
		const app = releaseScan([routine({ start, steps: [take] })])
		const row = store.ids.toId(ITEMS, 1)
		const by = { app, screen: 's', draft: false, line: 'l', actor: { person: IMKE }, now: NOW }
		expect(() => asWriter(store, () => press(store, { ...by, row }))).toThrow()
		expect(() => asWriter(store, () => scan(store, { ...by, line: 't', code: 'Shackle' }))).toThrow()
		expect(itemOf(store, 1)['stock']).toBe(40)
	})
})

test('the box is shown to who could do what it does', () => {
	const list = { id: 'list', kind: 'list' as const, table: ITEMS, where: '', sort: [], columns: [ITEM], opens: null }
	const box = { id: 'l', kind: 'scan', label: 'Taking one', routine: 'r' } as const
	const app = releaseScan([routine({ start, steps: [{ ...take, column: COST }] })], [box, list])
	const kinds = (person: number) =>
		openScreen(store, { app, screen: 's', draft: false, actor: { person }, now: NOW }).screen?.lines.map(
			({ kind }) => kind
		)
	expect(kinds(WIM)).toContain('scan')
	expect(kinds(IMKE)).not.toContain('scan')
	expect(CREW).toBe(10)
})

test.each([
	['for no routine', '', start, 'one that starts when a code is scanned'],
	['for one that starts otherwise', 'r', { kind: 'button', table: ITEMS }, 'one that starts when a code is scanned'],
	['of numbers', 'r', { ...start, column: STOCK }, 'stock holds no codes']
] as const)('a box %s is refused before a release', (_what, named, begins, says) => {
	const screens = [{ id: 's', title: 'S', lines: [{ id: 'l', kind: 'scan', label: 'x', routine: named }] }]
	const routines = [routine({ start: begins, steps: [take] })]
	const document = appSchema.parse({ format: APP_FORMAT, name: 'S', about: '', colour: 'sea', routines, screens, signoffs: [] }) // prettier-ignore
	expect(checkApp(document, store.workspace()).map(({ message }) => message).join(' ')).toContain(says) // prettier-ignore
})
