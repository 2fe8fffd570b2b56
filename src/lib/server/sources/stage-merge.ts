/**
 * Bringing a file into a table that is there: its rows wait in a table of their own, unregistered like any import's,
 * until they have been compared and the builder says go on.
 *
 * Each staged row gets a verdict: `add`, `change`, `same`, or left out as `repeated` or `keyless`. A cell that could not
 * be read, or whose reference finds no row, never counts: the table keeps what it holds there.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { Comparison } from '$lib/core/exchange/comparison.ts'
import type { ImportPlan, MergeInto } from '$lib/core/exchange/plan.ts'
import { compileCondition } from '$lib/core/formula/compile.ts'
import { newContext } from '$lib/core/formula/sql-context.ts'
import { allOf, param, raw, sql, type Sql } from '$lib/core/query/sql.ts'
import { comparedPlace, hasKey } from '$lib/core/table/storage.ts'
import { getColumn, getTable, type Column, type Table } from '$lib/core/table/types.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { refuseUnlessBuilder } from '../apps/apps.ts'
import { standingOf, type Actor } from '../people/rights-of-actor.ts'
import { labelText } from '../rows/read.ts'
import { cellText } from '../rows/written-text.ts'
import { rowLabel } from '../signoffs/row-label.ts'
import type { Store } from '../store.ts'
import { getKeptTable } from '../workspace/kept-table.ts'
import { takeNumbers } from '../workspace/numbers.ts'
import { createTable } from '../workspace/schema.ts'
import type { Begun } from './bring-in.ts'

export interface Staging {
	readonly begun: Begun
	readonly plan: ImportPlan
	readonly actor: Actor
	readonly now: number
}

/** A column of the table that is filled, with the one that its values wait in. */
export interface Pair {
	readonly to: Column
	readonly staged: Column
}

/** Makes the table in which the rows of a file wait. References wait as the text that names their row. */
export function beginMerge(store: Store, { plan, actor }: Pick<Staging, 'plan' | 'actor'>): Begun {
	refuseUnlessBuilder(store, actor)
	const into = intoOf(plan)
	const table = getKeptTable(store, into.table, actor)
	const targets = plan.columns.filter(isFilled).map((column) => getColumn(table, column.to))
	refuseUnfit(table, targets, into)
	const id = takeNumbers(store, 'table', 1)
	const first = takeNumbers(store, 'column', targets.length + 1)
	const columns = targets.map((target, i): ColumnEntry => {
		const { computed: _computed, otherwise: _otherwise, timeZone: _zone, choices, to: _to, ...plain } = target
		const type = target.type === 'reference' ? 'text' : target.type
		return { ...plain, id: first + i, type, ...(choices ? { choices: [...choices] } : {}) }
	})
	const skipped = first + targets.length
	const entries: ColumnEntry[] = [...columns, { id: skipped, name: 'skipped', type: 'long text' }]
	const { timeZone } = store.workspace()
	const plain = { keepers: [], label: first, checks: [], reverses: [] }
	createTable(store.db, {
		id,
		name: table.name,
		...plain,
		columns: entries.map((entry) => toColumn(entry, timeZone))
	} satisfies Table)
	store.db.exec(`ALTER TABLE t${id} ADD COLUMN verdict TEXT; ALTER TABLE t${id} ADD COLUMN target INTEGER`)
	for (const target of targets.filter((each) => each.type === 'reference'))
		store.db.exec(`ALTER TABLE t${id} ADD COLUMN r${target.id} INTEGER`)
	return { table: id, columns, skipped, timeZone }
}

export function intoOf({ into }: ImportPlan): MergeInto {
	if (!into) throw new AppError('invalid', 'Say which table the rows go into.')
	return into
}

function isFilled(column: ImportPlan['columns'][number]): column is ImportPlan['columns'][number] & { to: number } {
	return column.include && column.to !== undefined
}

function refuseUnfit(table: Table, targets: readonly Column[], { how, key }: MergeInto): void {
	if (targets.length === 0)
		throw new AppError('invalid', `No column of the file goes into a column of ${table.name} yet. Choose at least one.`)
	const twice = targets.find((column, i) => targets.indexOf(column) !== i)
	if (twice) throw new AppError('invalid', `Two columns of the file go into "${twice.name}". Leave one of them out.`)
	const computed = targets.find((column) => column.computed)
	if (computed)
		throw new AppError('invalid', `"${computed.name}" is worked out from other columns. Leave that column out.`)
	if (how === 'add') return
	const by = targets.find((column) => column.id === key)
	if (!by)
		throw new AppError(
			'invalid',
			'The column by which rows are known must come with the file. Choose another, or add all as new rows.'
		)
	if (by.type === 'reference')
		throw new AppError('invalid', 'Rows are known by a column of their own, such as a code or a name.')
}

/** The pairs of a merge, the key's among them. */
export function pairsOf(store: Store, { begun, plan }: Pick<Staging, 'begun' | 'plan'>): Pair[] {
	const table = getTable(store.workspace().catalogue, intoOf(plan).table)
	return plan.columns.filter(isFilled).map((column, i) => {
		const entry = begun.columns[i]
		if (!entry) throw new Error(`Expected a staged column for "${column.name}"`)
		return { to: getColumn(table, column.to), staged: toColumn(entry, store.workspace().timeZone) }
	})
}

/** Gives every staged row its verdict, as the table stands now, and says what it comes to. */
export function compareMerge(store: Store, staging: Staging): Comparison {
	const { begun, plan, actor } = staging
	const into = intoOf(plan)
	const table = getKeptTable(store, into.table, actor)
	const pairs = pairsOf(store, staging)
	const unfound = findReferences(store, staging, pairs)
	judge(store, { staged: `t${begun.table}`, skipped: `c${begun.skipped}`, into, pairs })
	const counts = new Map(
		store.db.prepare(`SELECT verdict, count(*) FROM t${begun.table} GROUP BY 1`).raw().all() as [string, number][]
	)
	const count = (verdict: string) => counts.get(verdict) ?? 0
	const missing = into.how === 'add' ? raw('0') : missingFrom(begun, into, pairs)
	const [[missed] = []] = store.select(sql`SELECT count(*) FROM t${table.id} AS t WHERE ${missing}`)
	return {
		rows: [...counts.values()].reduce((sum, each) => sum + each, 0),
		added: count('add'),
		changed: count('change'),
		same: count('same'),
		missing: Number(missed),
		repeated: count('repeated'),
		keyless: count('keyless'),
		unfound,
		samples: {
			changed: changedSamples(store, staging, pairs),
			added: stagedLabels(store, { begun, pairs, table }, 'add'),
			missing: missingLabels(store, table, missing, staging),
			repeated: stagedLabels(store, { begun, pairs, table }, 'repeated')
		}
	}
}

/** Rows of the table, called `t`, that the file does not have. */
export function missingFrom(begun: Begun, { key }: MergeInto, pairs: readonly Pair[]): Sql {
	const pair = pairs.find(({ to }) => to.id === key)
	if (!pair) return raw('0')
	return raw(
		`NOT EXISTS (SELECT 1 FROM t${begun.table} AS s WHERE s.${comparedPlace(pair.staged)} = t.${comparedPlace(pair.to)})`
	)
}

const MOST_UNFOUND = 20

/** Finds the row that each text of a reference names, among those that the builder sees. */
function findReferences(store: Store, { begun, actor, now }: Staging, pairs: readonly Pair[]): Comparison['unfound'] {
	const { catalogue } = store.workspace()
	const { rights } = standingOf(store, actor, now)
	return pairs.flatMap(({ to, staged }) => {
		if (to.type !== 'reference') return []
		const target = getTable(catalogue, to.to ?? 0)
		const label = getColumn(target, target.label)
		const context = newContext('x', rights.moment)
		const seen = [rights.rows(target), rights.cell(target, label)].map((each) => compileCondition(each, context))
		const names = hasKey(label)
			? sql`x.c${label.id}k = s.c${staged.id}k`
			: sql`CAST(x.c${label.id} AS TEXT) = s.c${staged.id}`
		const only = sql`CASE WHEN count(*) = 1 THEN max(x.n) END`
		const find = sql`UPDATE t${begun.table} AS s SET r${to.id} = (SELECT ${only} FROM t${target.id} AS x WHERE ${allOf([names, ...seen])})`
		store.db.prepare(find.text).run(...find.params)
		const lost = store.db
			.prepare(
				`SELECT c${staged.id}, count(*) FROM t${begun.table} WHERE c${staged.id} IS NOT NULL AND r${to.id} IS NULL GROUP BY 1 ORDER BY 2 DESC LIMIT ${MOST_UNFOUND}`
			)
			.raw()
			.all() as [string, number][]
		return lost.map(([text, rows]) => ({ column: to.name, text, rows }))
	})
}

interface Judging {
	readonly staged: string
	readonly skipped: string
	readonly into: MergeInto
	readonly pairs: readonly Pair[]
}

function judge({ db }: Store, { staged, skipped, into, pairs }: Judging): void {
	if (into.how === 'add') return void db.exec(`UPDATE ${staged} SET verdict = 'add', target = NULL`)
	const pair = pairs.find(({ to }) => to.id === into.key)
	if (!pair) throw new Error(`Expected the key "${into.key}" among the columns of a merge`)
	const [own, theirs] = [comparedPlace(pair.staged), comparedPlace(pair.to)]
	db.exec(`CREATE INDEX IF NOT EXISTS merge_${staged} ON ${staged} (${own})`)
	db.exec(`CREATE INDEX IF NOT EXISTS merged_${staged} ON t${into.table} (${theirs})`)
	const differs = pairs
		.filter(({ to }) => to.id !== into.key)
		.map((each) => `(${differsIn(each)} AND coalesce(instr(s.${skipped}, ',${each.staged.id},'), 0) = 0)`)
	db.exec(`
		UPDATE ${staged} SET verdict = 'keyless', target = NULL;
		UPDATE ${staged} SET verdict = 'repeated' WHERE ${own} IN (SELECT ${own} FROM ${staged} WHERE ${own} IS NOT NULL GROUP BY 1 HAVING count(*) > 1);
		UPDATE ${staged} SET verdict = 'repeated' WHERE ${own} IN (SELECT ${theirs} FROM t${into.table} WHERE ${theirs} IS NOT NULL GROUP BY 1 HAVING count(*) > 1);
		UPDATE ${staged} AS s SET target = (SELECT n FROM t${into.table} AS t WHERE t.${theirs} = s.${own}) WHERE ${own} IS NOT NULL AND verdict <> 'repeated';
		UPDATE ${staged} SET verdict = 'add' WHERE ${own} IS NOT NULL AND verdict <> 'repeated' AND target IS NULL;
		UPDATE ${staged} SET verdict = 'same' WHERE target IS NOT NULL;
		UPDATE ${staged} AS s SET verdict = 'change' FROM t${into.table} AS t WHERE s.target = t.n AND (${['0', ...differs].join(' OR ')});
		DROP INDEX merged_${staged}`)
}

/** Whether a cell of the staged row `s` says something else than the row `t` of the table. */
export function differsIn({ to, staged }: Pair): string {
	if (to.type !== 'reference') return `s.c${staged.id} IS NOT t.c${to.id}`
	return `s.r${to.id} IS NOT t.c${to.id} AND (s.r${to.id} IS NOT NULL OR s.c${staged.id} IS NULL)`
}

const SHOWN = 20

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
		.prepare(
			`SELECT t.n, ${list.join(', ')} FROM t${begun.table} AS s JOIN t${table.id} AS t ON t.n = s.target WHERE s.verdict = 'change' ORDER BY s.n LIMIT ${SHOWN}`
		)
		.raw()
		.all() as (string | number | null)[][]
	const by = { person: actor.person, now }
	return rows.map(([n, ...values]) => ({
		label: rowLabel(store, table, { n: Number(n), ...by }),
		cells: pairs.flatMap(({ to, staged }, i) => {
			if (values[i * 3] !== 1) return []
			const from = cellText(store, table, { column: to, n: Number(n), ...by })
			return [{ column: to.name, from, to: labelText(staged, values[i * 3 + 1] ?? null) }]
		})
	}))
}

/** What staged rows are known by: their label, or else the first of their columns. */
function stagedLabels(
	store: Store,
	{ begun, pairs, table }: { begun: Begun; pairs: readonly Pair[]; table: Table },
	verdict: 'add' | 'repeated'
): string[] {
	const shown = (pairs.find(({ to }) => to.id === table.label) ?? pairs[0])?.staged
	if (!shown) return []
	const values = store.db
		.prepare(`SELECT c${shown.id} FROM t${begun.table} WHERE verdict = ? ORDER BY n LIMIT ${SHOWN}`)
		.pluck()
		.all(verdict) as (string | number | null)[]
	return values.map((value) => labelText(shown, value))
}

function missingLabels(store: Store, table: Table, missing: Sql, { actor, now }: Staging): string[] {
	const rows = store.select(sql`SELECT t.n FROM t${table.id} AS t WHERE ${missing} LIMIT ${param(SHOWN)}`)
	return rows.map(([n]) => rowLabel(store, table, { n: Number(n), person: actor.person, now }))
}
