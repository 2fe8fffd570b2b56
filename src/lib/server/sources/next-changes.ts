/** The changes that staged rows come to, some at a time. */
import type { MergeInto } from '$lib/core/exchange/plan.ts'
import type { CellChange, CellInput, Change } from '$lib/core/query/change.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import { getTable, type Table } from '$lib/core/model/table.ts'
import { labelText } from '../rows/to-wire.ts'
import { toValue } from '../store/stored-row.ts'
import { rowLabel } from '../rows/row-label.ts'
import type { Store } from '../store/store.ts'
import { differsIn, intoOf, pairsOf, shownPairs, TOGETHER, type Pair, type Staging } from './stage-merge.ts'

/** Rows that are passed over cost a little too. */
const SPAN = 20_000

export interface Labelled {
	/** What a person knows the row by; asked only where it does not fit. */
	readonly label: () => string
	readonly change: Change
}

/** So many of them after a staged row, or from the first; the answer's `after` says up to which they go. */
export function nextChanges(
	store: Store,
	{ begun, plan, actor, now }: Staging,
	{ after: given, atMost }: { after: number | undefined; atMost: number }
): { changes: Labelled[]; after: number; ended: boolean } {
	const into = intoOf(plan)
	const table = getTable(store.workspace().catalogue, into.table)
	const pairs = pairsOf(store, { begun, plan })
	const places = pairs.flatMap((pair) => [
		`s.c${pair.staged.id}`,
		pair.to.type === 'reference' ? `s.r${pair.to.id}` : 'NULL',
		// The key is what the row is known by: it may be written otherwise, but says the same.
		into.keys.includes(pair.to.id) ? '0' : differsIn(pair)
	])
	const after = given ?? Number(store.pluck(`SELECT coalesce(min(n), 1) - 1 FROM t${begun.table}`))
	const last = Number(store.pluck(`SELECT coalesce(max(n), 0) FROM t${begun.table}`))
	const rows = store
		.prepare<StoredValue[]>(
			`SELECT s.n, s.verdict, s.target, s.c${begun.skipped}, ${places.join(', ')} FROM t${begun.table} AS s LEFT JOIN t${table.id} AS t ON t.n = s.target WHERE s.n > ? AND s.n <= ? AND (s.verdict IN ('add', 'change') OR (s.verdict = 'missing' AND t.n IS NOT NULL)) ORDER BY s.n LIMIT ?`
		)
		.raw()
		.all(after, after + SPAN, atMost)
	const reached = rows.length === atMost ? Number(rows.at(-1)?.[0]) : after + SPAN
	const by = { person: actor.person, now }
	const changes = rows.flatMap(([, verdict, target, skipped, ...values]): Labelled[] => {
		const place = { table: table.id, row: store.ids.toId(table.id, Number(target ?? 0)) }
		if (verdict === 'missing') {
			const label = () => rowLabel(store, table, { n: Number(target), ...by })
			return [{ label, change: { kind: 'remove', ...place } }]
		}
		const given = pairs.map((pair, i) => {
			const [value = null, row = null, differs] = values.slice(i * 3, i * 3 + 3)
			return { pair, value, row, differs: differs === 1 }
		})
		const sent = verdict === 'add' ? given : given.filter((each) => each.differs)
		const cells = sent.flatMap((each) => toCell(store, each, String(skipped ?? '')))
		// Somebody may have written the same meanwhile.
		if (verdict === 'change' && cells.length === 0) return []
		const change: Change =
			verdict === 'add' ? { kind: 'add', table: table.id, cells } : { kind: 'change', ...place, cells }
		return [{ label: () => givenLabel(table, into, given), change }]
	})
	return { changes, after: Math.min(reached, last), ended: reached >= last }
}

interface Given {
	readonly pair: Pair
	readonly value: StoredValue
	/** The number of the row that a reference names. */
	readonly row: StoredValue
}

function givenLabel(table: Table, into: MergeInto, given: readonly Given[]): string {
	const shown = shownPairs(
		given.map(({ pair }) => pair),
		table,
		into
	)
	return given
		.filter(({ pair }) => shown.includes(pair))
		.map(({ pair, value }) => labelText(pair.staged, value))
		.join(TOGETHER)
}

/** One cell as the door takes it; none where it could not be read. */
function toCell(store: Store, { pair: { to, staged }, value, row }: Given, skipped: string): CellChange[] {
	if (skipped.includes(`,${staged.id},`)) return []
	if (to.type !== 'reference') return [{ column: to.id, value: plain(staged, value) }]
	if (value !== null && row === null) return []
	return [{ column: to.id, value: row === null ? null : { id: store.ids.toId(to.to ?? 0, Number(row)) } }]
}

function plain(column: Pair['staged'], stored: StoredValue): CellInput {
	const value = toValue(column, stored)
	return isErrorValue(value) ? null : value
}
