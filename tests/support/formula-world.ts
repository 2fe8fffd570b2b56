/** Tables with every kind of column that formulas meet, filled with random rows, blanks and errors among them. */
import { changeRows } from '$lib/server/rows/change.ts'
import { KEEPER, openScratch } from './scratch-store.ts'
import type { CellInput } from '$lib/core/query/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import type { Random } from '../../demo/random.ts'

export const NOW = Date.parse('2026-11-23T12:00:00Z')
export const BASES = 2
export const ITEMS = 3
export const KIDS = 4

const TEXTS = [null, 'Varrow', 'VARROW', 'Ness Hythe', 'σίσυφος', 'ab c', '10', 'Écluse']
const NUMBERS = [null, 0, 1, -1, 2.5, 7, 0.1, 100, -33.3, 1e15]
const WHOLES = [null, 0, 1, 2, -3, 12, 40]
const DATES = [null, '2026-11-23', '2024-02-29', '1999-12-31', '2026-11-28', '9999-12-30']
const CHOICES = ['Swinging', 'Trot', 'Pontoon']
const DURATIONS = [null, 0, 1 / 24, 1.5, -0.25, 37 / 86_400]
const MOMENTS = [null, '2026-11-23T23:30:00.000Z', '2024-02-29T00:00:00.000Z', '1999-12-31T12:34:56.000Z']
const YESNO = [null, true, false]

export function makeWorld(random: Random, rows: number): Store {
	const store = openScratch({ now: NOW, tables: TABLES })
	const bases = Array.from({ length: 5 }, () => add(store, BASES, baseCells(random)))
	const items = Array.from({ length: rows }, () => add(store, ITEMS, itemCells(random, bases)))
	for (let i = 0; i < rows * 3; i++) add(store, KIDS, kidCells(random, items))
	return store
}

const TABLES = [
	{
		id: BASES,
		name: 'bases',
		keepers: [KEEPER],
		label: 10,
		columns: [
			{ id: 10, name: 'name', type: 'text' as const },
			{ id: 11, name: 'size', type: 'decimal' as const },
			{ id: 12, name: 'fee', type: 'money' as const },
			{ id: 13, name: 'since', type: 'date' as const },
			{ id: 14, name: 'open', type: 'yes/no' as const }
		]
	},
	{
		id: ITEMS,
		name: 'items',
		keepers: [KEEPER],
		label: 20,
		columns: [
			{ id: 20, name: 't', type: 'text' as const },
			{ id: 21, name: 'u', type: 'long text' as const },
			{ id: 22, name: 'a', type: 'decimal' as const },
			{ id: 23, name: 'w', type: 'whole number' as const },
			{ id: 24, name: 'm', type: 'money' as const },
			{ id: 25, name: 'p', type: 'decimal' as const, places: 3 },
			{ id: 26, name: 'c', type: 'choice' as const, choices: CHOICES },
			{ id: 27, name: 'd', type: 'date' as const },
			{ id: 28, name: 'y', type: 'yes/no' as const },
			{ id: 29, name: 'base', type: 'reference' as const, to: BASES },
			{ id: 35, name: 'len', type: 'duration' as const },
			{ id: 36, name: 'at', type: 'date and time' as const },
			{ id: 30, name: 'other', type: 'reference' as const, to: BASES, reverseName: 'others' },
			{ id: 31, name: 'ratio', type: 'computed' as const, formula: 'm / w' },
			{ id: 32, name: 'due', type: 'computed' as const, formula: 'EDATE(d; w)' },
			{ id: 33, name: 'label two', type: 'computed' as const, formula: 't & " " & c' },
			{ id: 34, name: 'kid total', type: 'computed' as const, formula: 'SUM(kids.cost) / COUNT(kids)' }
		]
	},
	{
		id: KIDS,
		name: 'kids',
		keepers: [KEEPER],
		label: 41,
		columns: [
			{ id: 40, name: 'of', type: 'reference' as const, to: ITEMS },
			{ id: 41, name: 'kt', type: 'text' as const },
			{ id: 42, name: 'k', type: 'decimal' as const },
			{ id: 43, name: 'cost', type: 'money' as const },
			{ id: 44, name: 'kd', type: 'date' as const },
			{ id: 45, name: 'ky', type: 'yes/no' as const },
			{ id: 46, name: 'share', type: 'computed' as const, formula: 'cost / k' }
		]
	}
]

function add(store: Store, table: number, cells: Record<number, CellInput>): string {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	const context = { actor: { person: KEEPER }, now: NOW, through: 'grid' as const }
	return changeRows(store, [{ kind: 'add', table, cells: list }], context)[0]?.row ?? ''
}

function baseCells(random: Random): Record<number, CellInput> {
	return {
		10: random.pick(TEXTS),
		11: random.pick(NUMBERS),
		12: money(random),
		13: random.pick(DATES),
		14: random.pick(YESNO)
	}
}

function itemCells(random: Random, bases: readonly string[]): Record<number, CellInput> {
	return {
		20: random.pick(TEXTS),
		21: random.pick(TEXTS),
		22: random.pick(NUMBERS),
		23: random.pick(WHOLES),
		24: money(random),
		25: random.chance(0.3) ? null : random.below(100_000) / 1000,
		26: random.pick([null, ...CHOICES]),
		27: random.pick(DATES),
		28: random.pick(YESNO),
		35: random.pick(DURATIONS),
		36: random.pick(MOMENTS),
		29: random.chance(0.3) ? null : { id: random.pick(bases) },
		30: random.chance(0.3) ? null : { id: random.pick(bases) }
	}
}

function kidCells(random: Random, items: readonly string[]): Record<number, CellInput> {
	return {
		40: random.chance(0.1) ? null : { id: random.pick(items) },
		41: random.pick(TEXTS),
		42: random.pick([null, 0, 1, 2.5, -7, 0.1, 33.3]),
		43: money(random),
		44: random.pick(DATES),
		45: random.pick(YESNO)
	}
}

function money(random: Random): number | null {
	return random.chance(0.2) ? null : (random.below(200_000) - 50_000) / 100
}
