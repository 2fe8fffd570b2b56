/** What bringing a file into a table would come to, told from the verdicts of its staged rows. */
import type { MergeInto } from '$lib/core/exchange/plan.ts'
import type { Comparison } from '$lib/core/exchange/comparison.ts'
import { param, raw, sql, type Sql } from '$lib/core/sql/sql.ts'
import { getTable, type Table } from '$lib/core/model/table.ts'
import { labelText } from '../rows/to-wire.ts'
import { cellText } from '../rows/written-text.ts'
import { rowLabel } from '../rows/row-label.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import {
	differsIn,
	intoOf,
	missingFrom,
	pairsOf,
	shownPairs,
	TOGETHER,
	type Pair,
	type Staging
} from './stage-merge.ts'

/** Of each kind as many rows are shown. */
const SHOWN = 20

/** What bringing the staged rows in would change, with samples; nothing is written. */
export function readComparison(store: Store, staging: Staging): Comparison {
	const { begun, plan, actor } = staging
	const into = intoOf(plan)
	const table = getTableAsKeeper(store, into.table, actor)
	const pairs = pairsOf(store, staging)
	const missing = into.how === 'add' ? raw('0') : missingFrom(begun, into, pairs)
	const [[missed] = []] = store.select(sql`SELECT count(*) FROM t${table.id} AS t WHERE ${missing}`)
	const counts = new Map(
		store.db
			.prepare<unknown[], [string, number]>(`SELECT verdict, count(*) FROM t${begun.table} GROUP BY 1`)
			.raw()
			.all()
	)
	const count = (verdict: string) => counts.get(verdict) ?? 0
	const all = [...counts.values()].reduce((sum, each) => sum + each, 0)
	return {
		rows: all - count('missing'),
		added: count('add'),
		changed: count('change'),
		same: count('same'),
		missing: Number(missed),
		repeated: count('repeated'),
		keyless: count('keyless'),
		unfound: unfoundReferences(store, staging, pairs),
		samples: {
			changed: changedSamples(store, staging, pairs),
			added: stagedLabels(store, { staging, pairs, table }, 'add'),
			missing: missingLabels(store, { staging, pairs, table }, missing),
			repeated: stagedLabels(store, { staging, pairs, table }, 'repeated')
		}
	}
}

function unfoundReferences(store: Store, { begun }: Staging, pairs: readonly Pair[]): Comparison['unfound'] {
	return pairs.flatMap(({ to, staged }) => {
		if (to.type !== 'reference') return []
		const lost = store.db
			.prepare<unknown[], [string, number]>(
				`SELECT c${staged.id}, count(*) FROM t${begun.table} WHERE c${staged.id} IS NOT NULL AND r${to.id} IS NULL GROUP BY 1 ORDER BY 2 DESC LIMIT ${SHOWN}`
			)
			.raw()
			.all()
		return lost.map(([text, rows]) => ({ column: to.name, text, rows }))
	})
}

function changedSamples(
	store: Store,
	{ begun, plan, actor, now }: Staging,
	pairs: readonly Pair[]
): Comparison['samples']['changed'] {
	const table = getTable(store.workspace().catalogue, intoOf(plan).table)
	const list = pairs.map(({ to, staged }) => {
		const skipped = `coalesce(instr(s.c${begun.skipped}, ',${staged.id},'), 0) = 0`
		return `(${differsIn({ to, staged })}) AND ${skipped}, s.c${staged.id}, t.c${to.id}`
	})
	const rows = store.db
		.prepare<unknown[], (string | number | null)[]>(
			`SELECT t.n, ${list.join(', ')} FROM t${begun.table} AS s JOIN t${table.id} AS t ON t.n = s.target WHERE s.verdict = 'change' ORDER BY s.n LIMIT ${SHOWN}`
		)
		.raw()
		.all()
	const by = { person: actor.person, now }
	const into = intoOf(plan)
	return rows.map(([n, ...values]) => ({
		label: tableLabel(store, { table, into, pairs, n: Number(n), ...by }),
		cells: pairs.flatMap(({ to, staged }, i) => {
			if (values[i * 3] !== 1) return []
			const from = cellText(store, table, { column: to, n: Number(n), ...by })
			return [{ column: to.name, from, to: labelText(staged, values[i * 3 + 1] ?? null) }]
		})
	}))
}

interface Staged {
	readonly staging: Staging
	readonly pairs: readonly Pair[]
	readonly table: Table
}

/** What staged rows are known by: their label, or else the first of their columns. */
function stagedLabels(store: Store, { staging, pairs, table }: Staged, verdict: 'add' | 'repeated'): string[] {
	const shown = shownPairs(pairs, table, intoOf(staging.plan)).map((pair) => pair.staged)
	if (shown.length === 0) return []
	const list = shown.map(({ id }) => `c${id}`).join(', ')
	const rows = store.db
		.prepare<unknown[], (string | number | null)[]>(
			`SELECT ${list} FROM t${staging.begun.table} WHERE verdict = ? ORDER BY n LIMIT ${SHOWN}`
		)
		.raw()
		.all(verdict)
	return rows.map((values) => shown.map((column, i) => labelText(column, values[i] ?? null)).join(TOGETHER))
}

interface OfRow {
	readonly table: Table
	readonly into: MergeInto
	readonly pairs: readonly Pair[]
	readonly n: number
	readonly person: number
	readonly now: number
}

/** What a row of the table is known by in this merge. */
function tableLabel(store: Store, { table, into, pairs, ...of }: OfRow): string {
	if (into.keys.length < 2) return rowLabel(store, table, of)
	return shownPairs(pairs, table, into)
		.map(({ to }) => cellText(store, table, { column: to, ...of }))
		.join(TOGETHER)
}

function missingLabels(store: Store, { staging, pairs, table }: Staged, missing: Sql): string[] {
	const { actor, now, plan } = staging
	const rows = store.select(sql`SELECT t.n FROM t${table.id} AS t WHERE ${missing} LIMIT ${param(SHOWN)}`)
	const by = { person: actor.person, now }
	return rows.map(([n]) => tableLabel(store, { table, into: intoOf(plan), pairs, n: Number(n), ...by }))
}
