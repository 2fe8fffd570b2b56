/** Charts of what nobody expected: ten thousand groups, days at the ends of the calendar, blanks, errors, one value alone. */
import { beforeAll, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [LOGS, NAME, DAY, SIZE, SHARE] = [3, 30, 31, 32, 33]
const ROWS = 12_000
const FIRST = Date.UTC(1990, 0, 1)

let store: Store

beforeAll(() => {
	store = openScratch({
		now: NOW,
		tables: [
			{
				...{ id: LOGS, name: 'logs', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: DAY, name: 'day', type: 'date' },
					{ id: SIZE, name: 'size', type: 'whole number' },
					{ id: SHARE, name: 'share', type: 'computed', formula: '1 / size' }
				]
			}
		]
	})
	const add = store.db.prepare(
		`INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31, c32, c33, c33e) VALUES (?, 0, 0, ?, ?, ?, ?, ?, ?)`
	)
	// Each by itself a group: a name, a day, a size. Of ten thousand days the last ones are the thinnest.
	for (let n = 1; n <= ROWS; n++) {
		const day = new Date(FIRST + (n % 10_000) * 86_400_000).toISOString().slice(0, 10)
		const size = n % 100 === 0 ? 0 : n * 1_000_003
		// As the door keeps it: what is worked out, or the number of its error (#DIV/0! is 2).
		add.run(n, `Log ${n}`, `log ${n}`, day, size, size === 0 ? null : 1 / size, size === 0 ? 2 : null)
	}
	add.run(ROWS + 1, 'Oldest', 'oldest', '0001-01-01', null, null, 2)
	add.run(ROWS + 2, 'Last', 'last', '9999-12-31', -9_007_199_254_740_991, null, null)
	add.run(ROWS + 3, 'None', 'none', null, null, null, null)
})

const chart = (parts: object) => ({ id: 'l', kind: 'chart', measure: { of: 'count', column: null }, table: LOGS, where: '', ...parts }) // prettier-ignore

function shown(line: object): ShownLine {
	const document = documentOf([line as NonNullable<ScreenInput['lines']>[number]])
	const asked = { app: 1, draft: true, document, screen: 's', actor: { person: KEEPER }, now: NOW }
	const [found] = openScreen(store, asked).screen?.lines ?? []
	if (!found) throw new Error('Expected a line')
	return found
}

test('of ten thousand groups the largest are shown, and that there are thousands more', () => {
	expect(shown(chart({ by: { column: NAME, step: null } }))).toMatchObject({ kind: 'chart', more: null })
})

describe('of ten thousand days the last are shown, however thin they are', () => {
	const last = (n: number) => new Date(FIRST + (9_999 - n) * 86_400_000).toISOString().slice(0, 10)
	const before = `day < DATE(9999; 1; 1)`

	test('as bars', () => {
		const line = shown(chart({ by: { column: DAY, step: 'days' }, where: before }))
		if (line.kind !== 'chart') throw new Error('Expected a chart')
		expect(line.bars.at(-1)).toMatchObject({ key: last(0), total: '1' })
		expect(line.bars.every(({ total }) => total !== '')).toBe(true)
	})

	test('as a calendar', () => {
		const line = shown(chart({ by: { column: DAY, step: 'days' }, as: 'as a calendar', where: before }))
		if (line.kind !== 'days') throw new Error('Expected days')
		const days = line.months.flatMap((month) => month.days)
		expect(days.find(({ key }) => key === last(0))?.text).toBe('1')
		expect(days.find(({ key }) => key === last(300))?.text).toBe('1')
	})
})

describe.each(['days', 'weeks', 'months', 'quarters', 'years'] as const)(
	'from the first day to the last, by %s',
	(step) => {
		test('it ends with the last, and says that more is not shown', () => {
			const line = shown(chart({ by: { column: DAY, step } }))
			if (line.kind !== 'chart') throw new Error('Expected a chart')
			const total = line.bars.reduce((sum, bar) => sum + Number(bar.total || 0), 0)
			expect(line.bars.some(({ label }) => label === 'left blank')).toBe(true)
			expect(line.bars.length).toBeLessThanOrEqual(37)
			expect(total).toBe(2)
			expect(line.more).not.toBe(0)
		})
	}
)

test.each(['bands', 0.001, 1e15] as const)('numbers as far apart as numbers go stand in bands: %o', (step) => {
	const line = shown(chart({ by: { column: SIZE, step } }))
	if (line.kind !== 'chart') throw new Error('Expected a chart')
	expect(line.bars.length).toBeGreaterThan(1)
	expect(line.bars.length).toBeLessThanOrEqual(37)
})

test('what is in error is blank: in no band, and at no dot', () => {
	const bands = shown(chart({ by: { column: SHARE, step: 'bands' }, where: 'size >= 0' }))
	expect(bands).toMatchObject({ bars: expect.arrayContaining([expect.objectContaining({ label: 'left blank', total: '120' })]) as unknown }) // prettier-ignore
	const dots = shown({ id: 'l', kind: 'scatter', table: LOGS, where: 'size >= 0', up: SHARE, across: SIZE })
	expect(dots).toMatchObject({ kind: 'scatter', blank: 120 })
})

test('where there is one value, or none, there is a scale all the same', () => {
	const one = shown({ id: 'l', kind: 'scatter', table: LOGS, where: 'name = "Log 1"', up: SIZE, across: SIZE })
	expect(one).toMatchObject({ kind: 'scatter', dots: [{ x: 50, y: 50, rows: 1 }] })
	const none = shown({ id: 'l', kind: 'scatter', table: LOGS, where: 'name = "nobody"', up: SIZE, across: SIZE })
	expect(none).toMatchObject({ kind: 'scatter', dots: [], blank: 0 })
	expect(shown(chart({ by: { column: SIZE, step: 'bands' }, where: 'name = "nobody"' }))).toMatchObject({ bars: [] })
})
