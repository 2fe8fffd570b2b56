/** A small store room: items with a least stock, orders for them, and an app whose routines a test says. */
import { APP_FORMAT, appSchema, type AppDocument, type AppInput } from '$lib/core/app/document.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { fireClocks } from '$lib/server/routines/clocks.ts'
import { runRoutines } from '$lib/server/routines/run-batch.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from './access-line.ts'
import { KEEPER, openScratch } from './scratch-store.ts'

/** A Sunday. */
export const NOW = Date.parse('2026-11-29T12:00:00Z')
export const HOUR = 3_600_000
export const DAY = 24 * HOUR

export const [ITEMS, ITEM, STOCK, LEAST, NOTE, DUE, HELD_BY, COST] = [2, 20, 21, 22, 23, 24, 25, 26]
export const [ORDERS, OF, MANY, REMARK] = [3, 30, 31, 32]
export const [CREW, STORES] = [10, 11]
export const [IMKE, WIM] = [2, 3]
export const by = { actor: { person: KEEPER }, now: NOW }

const line = (id: string, table: number, role: number, parts: Partial<LineEntry> = {}) =>
	accessLine({ id, table, role, ...parts })

/** Imke may set stock and notes, and does not see costs; stores keepers may do everything; Wim holds that role. */
export function openStock({ timeZone = 'UTC' } = {}): Store {
	const store = openScratch({
		now: NOW,
		timeZone,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: STORES, name: 'Stores keepers', includes: [] }
		],
		lines: [
			line('c', ITEMS, CREW, { columns: { kind: 'except', columns: [COST] } }),
			line('cs', ITEMS, CREW, { verbs: ['change'], columns: { kind: 'only', columns: [STOCK] } }),
			line('s', ITEMS, STORES, { verbs: ['see', 'change', 'add', 'remove'], where: 'item <> "Sealed"' }),
			line('o', ORDERS, STORES, { verbs: ['see', 'add', 'change'] })
		],
		tables: [
			{
				...{ id: ITEMS, name: 'items', keepers: [KEEPER], label: ITEM },
				columns: [
					{ id: ITEM, name: 'item', type: 'text' },
					{ id: STOCK, name: 'stock', type: 'whole number' },
					{ id: LEAST, name: 'least', type: 'whole number' },
					{ id: NOTE, name: 'note', type: 'text' },
					{ id: DUE, name: 'due', type: 'date' },
					{ id: HELD_BY, name: 'held by', type: 'reference', to: 1, reverseName: 'items' },
					{ id: COST, name: 'cost', type: 'whole number' }
				]
			},
			{
				...{ id: ORDERS, name: 'orders', keepers: [KEEPER], label: REMARK },
				columns: [
					{ id: OF, name: 'of', type: 'reference', to: ITEMS, reverseName: 'orders' },
					{ id: MANY, name: 'many', type: 'whole number' },
					{ id: REMARK, name: 'remark', type: 'text' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES
			(${IMKE}, 0, 0, 'Imke', 'imke', 'imke@varrow.example', 'imke@varrow.example'),
			(${WIM}, 0, 0, 'Wim', 'wim', 'wim@varrow.example', 'wim@varrow.example');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22, c25, c26) VALUES
			(1, 0, 0, 'Shackle', 'shackle', 40, 25, ${WIM}, 7), (2, 0, 0, 'Chain', 'chain', 60, 30, ${WIM}, 9), (3, 0, 0, 'Sealed', 'sealed', 5, 1, NULL, 3);
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${WIM}, ${STORES}), (${KEEPER}, ${BUILDER})`)
	return store
}

type RoutineInput = AppInput['routines'][number]

export function documentOfRoutines(routines: readonly RoutineInput[]): AppDocument {
	const none = { about: '', colour: 'sea' as const, screens: [{ id: 's', title: 'S', lines: [] }], signoffs: [] }
	return appSchema.parse({ format: APP_FORMAT, name: 'Stock', routines: [...routines], ...none })
}

/** Makes these routines the live release of a new app. */
export function release(store: Store, routines: readonly RoutineInput[], actor = by.actor): number {
	return store.db.transaction(() => {
		const app = addAppFrom(store, { document: documentOfRoutines(routines), ...by })
		releaseApp(store, { app, note: '', actor, now: NOW })
		return app
	})()
}

export function routine(parts: Partial<RoutineInput>): RoutineInput {
	return {
		id: 'r',
		name: 'Low stock',
		start: { kind: 'comes', table: ITEMS, where: 'stock < least' },
		steps: [],
		...parts
	}
}

/** A change of one item, as somebody. */
export function setItem(store: Store, n: number, cells: readonly CellChange[], person = KEEPER, now = NOW): void {
	const change = { kind: 'change' as const, table: ITEMS, row: store.ids.toId(ITEMS, n), cells: [...cells] }
	store.db.transaction(() => changeRows(store, [change], { actor: { person }, now, through: 'grid' }))()
}

/** Everything that is due, one batch after the other, each a commit of its own. */
export function workOff(store: Store, now = NOW): void {
	store.db.transaction(() => fireClocks(store, { now }))()
	for (let left = 500; left > 0; left--) if (!store.db.transaction(() => runRoutines(store, { now }))()) return
	throw new Error('Expected the runs that are due to end')
}

export interface SeenRun {
	readonly state: string
	readonly error: string | null
	readonly row: number | null
}

export function runsOf(store: Store): SeenRun[] {
	return store.prepare<SeenRun>(`SELECT state, error, row_n AS "row" FROM run ORDER BY id`).all()
}

export function messagesOf(store: Store): { person: number; subject: string; body: string }[] {
	return store
		.prepare<{ person: number; subject: string; body: string }>(`SELECT person, subject, body FROM message ORDER BY id`)
		.all()
}

export function itemOf(store: Store, n: number): Record<string, unknown> {
	const found = store
		.prepare<Record<string, unknown>>(`SELECT c20 AS item, c21 AS stock, c22 AS least, c23 AS note FROM t2 WHERE n = ?`)
		.get(n)
	return found ?? {}
}

/** The steps that most routines here are made of. */
export const tell = {
	id: 't',
	kind: 'send',
	to: 'held by',
	subject: '{item} is low',
	body: '{stock} left of {least}'
} as const
export const setNote = (formula: string, id = 'n') => ({ id, kind: 'set', column: NOTE, formula }) as const

/** The stock of an item, set by a diver where nobody else is named. */
export function setStock(store: Store, value: number, n = 1, person = IMKE): void {
	setItem(store, n, [{ column: STOCK, value }], person)
}

export function ordersOf(store: Store): { of: number; many: number; remark: string }[] {
	return store
		.prepare<{ of: number; many: number; remark: string }>(
			`SELECT c30 AS of, c31 AS many, c32 AS remark FROM t3 ORDER BY n`
		)
		.all()
}

/** In a transaction, as everything is that changes something. */
export function asWriter<T>(store: Store, work: () => T): T {
	return store.db.transaction(work)()
}
