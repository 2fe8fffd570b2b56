/** Tables with every kind of column that formulas meet, filled with random rows, blanks and errors among them. */
import { changeRows } from '$lib/server/rows/change.ts'
import { KEEPER, openScratch } from './scratch-store.ts'
import type { CellInput } from '$lib/core/query/change.ts'
import { BASES, CHOICES, FORMULA_TABLES, ITEMS, KIDS } from './formula-tables.ts'
import type { Store } from '$lib/server/store/store.ts'
import type { Random } from '../../demo/random.ts'

export { ITEMS } from './formula-tables.ts'

export const NOW = Date.parse('2026-11-23T12:00:00Z')

const TEXTS = [null, 'Varrow', 'VARROW', 'Ness Hythe', 'σίσυφος', 'ab c', '10', 'Écluse']
const NUMBERS = [null, 0, 1, -1, 2.5, 7, 0.1, 100, -33.3, 1e15]
const WHOLES = [null, 0, 1, 2, -3, 12, 40]
const DATES = [null, '2026-11-23', '2024-02-29', '1999-12-31', '2026-11-28', '9999-12-30']
const DURATIONS = [null, 0, 1 / 24, 1.5, -0.25, 37 / 86_400]
const MOMENTS = [null, '2026-11-23T23:30:00.000Z', '2024-02-29T00:00:00.000Z', '1999-12-31T12:34:56.000Z']
const YESNO = [null, true, false]

export function makeWorld(random: Random, rows: number): Store {
	const store = openScratch({ now: NOW, tables: FORMULA_TABLES })
	const bases = Array.from({ length: 5 }, () => add(store, BASES, baseCells(random)))
	const items = Array.from({ length: rows }, () => add(store, ITEMS, itemCells(random, bases)))
	for (let i = 0; i < rows * 3; i++) add(store, KIDS, kidCells(random, items))
	return store
}

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
