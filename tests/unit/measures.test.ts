/**
 * Rows measured by groups, against an oracle that reads the same rows through the door, cell by cell as each person sees them,
 * and counts them in plain TypeScript.
 */
import { beforeAll, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { isBand, MEASURES, PERIODS, type Band, type MeasureOf, type Step } from '$lib/core/query/measure.ts'
import type { Filter } from '$lib/core/query/filter.ts'
import { cellKey, isHiddenCell, isReferenceCell, type WireCell } from '$lib/core/query/wire.ts'
import { openScreen, readList } from '$lib/server/apps/open-screen.ts'
import { readMeasures } from '$lib/server/rows/read-measures.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [PORTS, NAME] = [2, 20]
const [CALLS, TITLE, DAY, KIND, FEE, PORT, GOOD, AT, LENGTH] = [3, 30, 31, 32, 33, 34, 35, 36, 37]
const [CREW, BOSSES] = [10, 11]
const [IMKE, BO, NOBODY] = [2, 3, 4]
const ZONE = 'Pacific/Auckland'
const KINDS = ['Night', 'Stores', 'Shelter']

let store: Store

beforeAll(() => {
	const line = (id: string, table: number, role: number, parts: object = {}) =>
		accessLine({ id, table, role, verbs: ['see'], ...parts })
	store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines: [
			// Imke sees no call at South, of shelter no fee, and of Stores not even what they were for.
			line('p', PORTS, CREW, { where: 'name <> "South"' }),
			line('c1', CALLS, CREW, { where: 'kind = "Night"' }),
			line('c2', CALLS, CREW, { where: 'kind = "Shelter"', columns: { kind: 'except', columns: [FEE] } }),
			line('c3', CALLS, CREW, { where: 'kind = "Stores"', columns: { kind: 'except', columns: [KIND] } }),
			line('xp', PORTS, BOSSES),
			line('xc', CALLS, BOSSES)
		],
		tables: [
			{ id: PORTS, name: 'ports', keepers: [KEEPER], label: NAME, columns: [{ id: NAME, name: 'name', type: 'text' }] },
			{
				...{ id: CALLS, name: 'calls', keepers: [KEEPER], label: TITLE },
				columns: [
					{ id: TITLE, name: 'title', type: 'text' },
					{ id: DAY, name: 'day', type: 'date' },
					{ id: KIND, name: 'kind', type: 'choice', choices: KINDS },
					{ id: FEE, name: 'fee', type: 'money', unit: '£' },
					{ id: PORT, name: 'port', type: 'reference', to: PORTS, reverseName: 'calls' },
					{ id: GOOD, name: 'good', type: 'yes/no' },
					{ id: AT, name: 'at', type: 'date and time' },
					{ id: LENGTH, name: 'length', type: 'decimal', places: 1, unit: 'm' }
				]
			}
		]
	})
	saveWorkspace(store, { ...store.workspace().document, timeZone: ZONE }, { now: NOW, by: null })
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo'), (4, 0, 0, 'Una', 'una');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'North', 'north'), (2, 0, 0, 'South', 'south');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${BOSSES})`)
	const add = store.db.prepare(
		`INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31, c32, c33, c34, c35, c36, c37) VALUES (?, 0, 0, ?, ?, ?, ?, ?, ?, ?, ?, ?)`
	)
	// A fixed sequence: every kind, blanks, a year and a half of days, both ports and none.
	for (let n = 1; n <= 400; n++) {
		const day = n % 17 === 0 ? null : new Date(Date.UTC(2025, 5, 1 + ((n * 37) % 540))).toISOString().slice(0, 10)
		const kind = n % 13 === 0 ? null : 1 + ((n * 7) % 3)
		const fee = n % 11 === 0 ? null : ((n * 997) % 30_000) + 5
		add.run(
			n,
			`Call ${n}`,
			`call ${n}`,
			day,
			kind,
			fee,
			n % 7 === 0 ? null : 1 + (n % 2),
			n % 5 === 0 ? null : n % 2,
			atOf(n),
			n % 23 === 0 ? null : (n * 31) % 180
		)
	}
})

/** Every third of them late in the evening, which is the next day in Auckland. */
function atOf(n: number): string | null {
	return n % 19 === 0 ? null : new Date(Date.UTC(2026, 0, 1 + (n % 90), (n * 7) % 24, n % 60)).toISOString()
}

interface Row {
	readonly cell: (column: number) => WireCell | undefined
}

/** All rows of the table as a person reads them. */
function rowsOf(person: number): Row[] {
	const { rows } = readRows(store, { person }, { table: CALLS, limit: 1000 }, NOW)
	// As they were added.
	const numberOf = ({ cells }: (typeof rows)[number]) => Number(/\d+/.exec(String(cells[cellKey(TITLE)]))?.[0])
	return rows
		.toSorted((a, b) => numberOf(a) - numberOf(b))
		.map(({ cells }) => ({ cell: (column) => cells[cellKey(column)] }))
}

/** Undefined where the cell is kept from its reader. */
function keyOf(cell: WireCell | undefined, step: Step | Band | null): string | null | undefined {
	if (cell === undefined || isHiddenCell(cell)) return undefined
	if (cell === null) return null
	if (isBand(step)) return String(Math.floor(Number(cell) / step.width))
	if (isReferenceCell(cell)) return cell.id
	if (typeof cell === 'boolean') return cell ? 'yes' : 'no'
	const text = String(cell).includes('T') ? dayInAuckland(String(cell)) : String(cell)
	if (step === 'years') return text.slice(0, 4)
	if (step === 'months') return text.slice(0, 7)
	if (step === 'quarters') return `${text.slice(0, 4)}-${Math.ceil(Number(text.slice(5, 7)) / 3)}`
	if (step !== 'weeks') return text
	const date = new Date(`${text}T00:00:00Z`)
	date.setUTCDate(date.getUTCDate() - ((date.getUTCDay() + 6) % 7))
	return date.toISOString().slice(0, 10)
}

/** By the platform's own calendar. */
function dayInAuckland(instant: string): string {
	return new Intl.DateTimeFormat('en-CA', { timeZone: ZONE, dateStyle: 'short' }).format(new Date(instant))
}

type By = readonly { readonly column: number; readonly step: Step | Band | null }[]

/** What the oracle counts: by the groups' keys, and how many rows are left out. */
function counted(
	person: number,
	of: MeasureOf,
	by: By,
	most = 1000
): { groups: Record<string, number | null>; leftOut: number } {
	const groups = new Map<string, number[]>()
	let leftOut = 0
	for (const row of rowsOf(person).slice(-most)) {
		// A reference to a row that is not seen reads as blank or hidden; the program calls it one group of its own.
		const keys = by.map(({ column, step }) => keyOf(row.cell(column), step))
		if (keys.includes(undefined)) {
			leftOut++
			continue
		}
		const key = JSON.stringify(keys)
		const values = groups.get(key) ?? groups.set(key, []).get(key) ?? []
		const fee = row.cell(FEE)
		if (of === 'count') values.push(1)
		else if (fee === undefined || isHiddenCell(fee)) leftOut++
		else if (fee !== null) values.push(Number(fee))
	}
	return { leftOut, groups: Object.fromEntries([...groups].map(([key, values]) => [key, made(of, values)])) }
}

function made(of: MeasureOf, values: readonly number[]): number | null {
	const sum = values.reduce((all, value) => all + value, 0)
	if (of === 'count' || of === 'sum') return round(sum)
	if (values.length === 0) return null
	return round(of === 'mean' ? sum / values.length : of === 'least' ? Math.min(...values) : Math.max(...values))
}

const round = (value: number) => Number(value.toPrecision(12))
const measured = (person: number, of: MeasureOf, by: By, most?: number) =>
	readMeasures(store, {
		...{ actor: { person }, now: NOW, by, most, request: { table: CALLS } },
		measure: { of, column: of === 'count' ? null : FEE }
	})

const GROUPINGS: readonly By[] = [
	[],
	[{ column: KIND, step: null }],
	[{ column: GOOD, step: null }],
	[{ column: PORT, step: null }],
	...PERIODS.map((step): By => [{ column: DAY, step }]),
	...PERIODS.map((step): By => [{ column: AT, step }]),
	[{ column: FEE, step: { width: 50 } }],
	[
		{ column: FEE, step: { width: 20 } },
		{ column: KIND, step: null }
	],
	[
		{ column: DAY, step: 'months' },
		{ column: KIND, step: null }
	],
	[
		{ column: KIND, step: null },
		{ column: GOOD, step: null }
	]
]

describe.each([
	['Imke', IMKE],
	['Bo', BO]
])('as %s sees them', (_name, person) => {
	test.each(GROUPINGS.flatMap((by) => MEASURES.map((of) => [of, by] as const)))('the %s by %j', (of, by) => {
		const found = measured(person, of, by)
		const groups = Object.fromEntries(
			(found?.groups ?? []).map(({ keys, value }) => [JSON.stringify(keys), value === null ? null : round(value)])
		)
		expect({ groups, leftOut: found?.leftOut }).toEqual(counted(person, of, by))
	})

	test.each(GROUPINGS.filter((by) => by.length > 0))('of the rows added last, by %j', (...by) => {
		const all = rowsOf(person).length
		for (const most of [1, 40, all, all + 1]) {
			const found = measured(person, 'count', by, most)
			const rows = (found?.groups ?? []).reduce((sum, group) => sum + group.rows, found?.leftOut ?? 0)
			// One more than asked for tells that there are more.
			expect({ rows, isPart: found?.isPart }).toEqual({ rows: Math.min(all, most + 1), isPart: most < all })
			const groups = Object.fromEntries((found?.groups ?? []).map(({ keys, value }) => [JSON.stringify(keys), value]))
			expect(groups).toEqual(counted(person, 'count', by, most + 1).groups)
		}
	})
})

test('a row that is pointed to and not seen gives its group no name', () => {
	const labels = (person: number) =>
		measured(person, 'count', [{ column: PORT, step: null }])
			?.groups.map(({ labels: [label] }) => label)
			.sort()
	expect(labels(BO)).toEqual(['North', 'South', 'left blank'])
	expect(JSON.stringify(labels(IMKE))).not.toContain('South')
})

test('who sees nothing of the table, or of what it goes by, measures nothing', () => {
	expect(measured(NOBODY, 'count', [])).toBeNull()
	expect(readMeasures(store, { actor: { person: BO }, now: NOW, measure: { of: 'sum', column: TITLE }, by: [], request: { table: CALLS } })).toBeNull() // prettier-ignore
	expect(readMeasures(store, { actor: { person: BO }, now: NOW, measure: { of: 'count', column: null }, by: [{ column: 99, step: null }], request: { table: CALLS } })).toBeNull() // prettier-ignore
})

describe('on a screen', () => {
	const lines: ScreenInput['lines'] = [
		{
			...{ id: 'f', kind: 'figure', label: 'calls', measure: { of: 'count', column: null }, table: CALLS },
			...{ where: 'kind = "Night"', aim: '200', than: 'kind = "Shelter"', called: 'for shelter' }
		},
		{ id: 'm', kind: 'figure', label: 'fees', measure: { of: 'sum', column: FEE }, table: CALLS, where: '' },
		{
			...{ id: 'c', kind: 'chart', measure: { of: 'sum', column: FEE }, table: CALLS, where: '' },
			...{ by: { column: DAY, step: 'months' }, parted: { column: KIND, step: null } }
		},
		{
			...{ id: 'k', kind: 'chart', measure: { of: 'count', column: null }, table: CALLS, where: '' },
			...{ by: { column: KIND, step: null }, holds: 'kind' }
		},
		{
			...{ id: 'p', kind: 'chart', measure: { of: 'count', column: null }, table: CALLS, where: '' },
			by: { column: PORT, step: null }
		},
		{
			...{ id: 'h', kind: 'chart', measure: { of: 'count', column: null }, table: CALLS, where: '' },
			by: { column: FEE, step: 'bands' }
		},
		{
			...{ id: 'y', kind: 'chart', measure: { of: 'count', column: null }, table: CALLS, where: '' },
			...{ by: { column: DAY, step: 'days' }, as: 'as a calendar' }
		},
		{
			...{ id: 's', kind: 'scatter', table: CALLS, where: 'not ISBLANK(day)', up: FEE, across: LENGTH },
			parted: { column: KIND, step: null }
		}
	]
	const place = (person: number) => ({ app: 1, draft: true, document: documentOf(lines), actor: { person }, now: NOW })
	const shown = (person: number, id: string, held = {}) =>
		openScreen(store, { ...place(person), screen: 's', held }).screen?.lines.find((each) => each.id === id)

	test('a figure says how it stands to its aim and to other rows', () => {
		const [night, shelter] = ['Night', 'Shelter'].map(
			(kind) => rowsOf(BO).filter((row) => row.cell(KIND) === kind).length
		)
		const apart = (night ?? 0) - (shelter ?? 0)
		expect(shown(BO, 'f')).toMatchObject({
			value: String(night),
			against: [
				{ text: `the aim is 200, ${200 - (night ?? 0)} short`, isGood: false },
				{
					text:
						apart === 0
							? 'as many as for shelter'
							: `${Math.abs(apart)} ${apart > 0 ? 'more' : 'fewer'} than for shelter`
				}
			]
		})
	})

	test('what is left out is said, and in no sum', () => {
		const { groups, leftOut } = counted(IMKE, 'sum', [])
		const value = `£${(groups['[]'] ?? 0).toLocaleString('en-GB', { minimumFractionDigits: 2 })}`
		expect(shown(IMKE, 'm')).toMatchObject({ value, leftOut })
		expect(shown(BO, 'm')).toMatchObject({ leftOut: 0 })
		expect(() => shown(NOBODY, 'm')).toThrow('not for you to see')
	})

	test.each([IMKE, BO])(
		'the bars of a chart come to what their rows do, and so do the rows behind them (person %d)',
		(person) => {
			const line = shown(person, 'c')
			if (line?.kind !== 'chart') throw new Error('Expected a chart')
			expect(line.bars.length).toBeGreaterThan(12)
			const isIn = (row: Row, [first, last]: readonly string[]) => {
				const day = row.cell(DAY)
				return first === undefined ? day === null : typeof day === 'string' && day >= first && day <= (last ?? '')
			}
			const all = rowsOf(person)
			for (const bar of line.bars) {
				const ends = bar.filters.filter(({ is }) => is !== 'blank' && is !== 'seen').map(({ text }) => text)
				const own = all.filter((row) => isIn(row, ends))
				// Of rows whose kind is kept back none is in a bar, nor a fee that is.
				const told = own.filter((row) => keyOf(row.cell(KIND), null) !== undefined)
				const fees = told.map((row) => row.cell(FEE))
				const sum = fees.reduce<number>((whole, fee) => whole + (typeof fee === 'number' ? fee : 0), 0)
				expect(bar.total === '' ? 0 : Number(bar.total.replace(/[£,]/g, '')), bar.label).toBeCloseTo(sum, 6)
				const narrowing = { find: '', filters: [...bar.filters] }
				const page = readList(store, { ...place(person), screen: 's', line: 'c', narrowing, limit: 1000 })
				expect(page.rows.length, bar.label).toBe(told.length)
			}
		}
	)

	test('an instant lies on its day where the workspace is, and its rows are found there', () => {
		const by = { column: AT, step: 'days' } as const
		const line = {
			id: 'd',
			kind: 'chart',
			measure: { of: 'count', column: null },
			table: CALLS,
			where: '',
			by
		} as const
		const document = documentOf([line])
		const place = { app: 1, draft: true, document, screen: 's', actor: { person: BO }, now: NOW }
		const [shownLine] = openScreen(store, place).screen?.lines ?? []
		if (shownLine?.kind !== 'chart') throw new Error('Expected a chart')
		for (const bar of shownLine.bars) {
			const narrowing = { find: '', filters: [...bar.filters] }
			const page = readList(store, { ...place, line: 'd', narrowing, limit: 1000 })
			expect(page.rows.length, bar.label).toBe(Number(bar.total || 0))
		}
	})

	describe.each([
		['Imke', IMKE],
		['Bo', BO]
	])('as %s sees them', (_name, person) => {
		const behind = (line: string, filters: readonly Filter[]) =>
			readList(store, {
				...place(person),
				screen: 's',
				line,
				narrowing: { find: '', filters: [...filters] },
				limit: 1000
			}).rows.length

		test('bands lie side by side, and each has its rows behind it', () => {
			const line = shown(person, 'h')
			if (line?.kind !== 'chart') throw new Error('Expected a chart')
			const numbers = rowsOf(person).map((row) => row.cell(FEE)).filter((fee) => typeof fee === 'number') // prettier-ignore
			// From 0.05 to 300 in about twelve: 50 wide, those without a row among them.
			expect(line.bars.map(({ label }) => label).slice(0, 2)).toEqual(['£0.00–£50.00', '£50.00–£100.00'])
			for (const bar of line.bars.filter(({ label }) => label !== 'left blank'))
				expect(behind('h', bar.filters), bar.label).toBe(Number(bar.total || 0))
			const counted = line.bars.reduce((sum, { label, total }) => sum + (label === 'left blank' ? 0 : Number(total)), 0)
			expect(counted).toBe(numbers.length)
		})

		test.each(['k', 'p'])(
			'behind a group, and behind what is left blank, nothing stands that is kept back (%s)',
			(id) => {
				const line = shown(person, id)
				if (line?.kind !== 'chart') throw new Error('Expected a chart')
				expect(line.bars.length).toBeGreaterThan(1)
				for (const bar of line.bars) expect(behind(id, bar.filters), bar.label).toBe(Number(bar.total || 0))
			}
		)

		test('days of a calendar hold what their rows come to', () => {
			const line = shown(person, 'y')
			if (line?.kind !== 'days') throw new Error('Expected days')
			expect(line.months).toHaveLength(12)
			for (const day of line.months.flatMap(({ days }) => days)) {
				const own = rowsOf(person).filter((row) => row.cell(DAY) === day.key).length
				expect(day.text, day.key).toBe(own === 0 ? '' : String(own))
				if (own > 0) expect(behind('y', day.filters), day.key).toBe(own)
			}
		})

		test('dots stand for every row that has both numbers, and for no other', () => {
			const line = shown(person, 's')
			if (line?.kind !== 'scatter') throw new Error('Expected dots')
			const isSeen = (row: Row, column: number) => keyOf(row.cell(column), null) !== undefined
			const rows = rowsOf(person).filter((row) => typeof row.cell(DAY) === 'string')
			const told = rows.filter((row) => [FEE, LENGTH, KIND].every((column) => isSeen(row, column)))
			const both = told.filter((row) => row.cell(FEE) !== null && row.cell(LENGTH) !== null)
			expect(line.dots.reduce((sum, dot) => sum + dot.rows, 0)).toBe(both.length)
			expect(line).toMatchObject({ blank: told.length - both.length, leftOut: rows.length - told.length })
			for (const dot of line.dots.slice(0, 60)) expect(behind('s', dot.filters), dot.says).toBe(dot.rows)
		})
	})

	test('choices stand in their order, and the one that is set is known again', () => {
		const line = shown(BO, 'k', { kind: 'Stores' })
		expect(line).toMatchObject({
			chosen: 'Stores',
			holds: 'kind',
			bars: [...KINDS, 'left blank'].map((label) => ({ label }))
		})
	})
})
