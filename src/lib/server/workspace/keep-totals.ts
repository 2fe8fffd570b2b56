/**
 * Brings kept totals in line with the formulas that ask for them: a place in the parent's row, filled once, and three
 * triggers on the child's table that bring it up to date.
 *
 * Triggers, and not the door: whatever writes a child row (an edit, an import, a row put back, a column converted)
 * changes the total in the same statement, so it is always right (docs/decisions/006). The text of the triggers is all
 * that a total follows from; where it is the same as in the store, the total stands.
 */
import { compileCondition, newContext } from '$lib/core/formula/compile.ts'
import { keptTotalsOf, partsOfTotal, placeOf, type KeptPart } from '$lib/core/formula/kept.ts'
import type { KeptTotal } from '$lib/core/formula/types.ts'
import type { Sql } from '$lib/core/query/sql.ts'
import { hasKey } from '$lib/core/table/storage.ts'
import type { Column } from '$lib/core/table/types.ts'
import type { Db } from '../db/open.ts'
import type { Store } from '../store.ts'

const TRIGGERS = `SELECT name, sql FROM sqlite_schema WHERE type = 'trigger' AND name LIKE 'kept!_%' ESCAPE '!'`

export function keepTotals(store: Store): void {
	const { db } = store
	const there = new Map(db.prepare(TRIGGERS).raw().all() as [string, string][])
	const wanted = allTotals(store).map((total) => ({ total, triggers: triggersOf(total) }))
	const named = new Set(wanted.flatMap(({ triggers }) => [...triggers.keys()]))
	for (const name of there.keys()) if (!named.has(name)) db.exec(`DROP TRIGGER ${name}`)
	for (const { total, triggers } of wanted) {
		if ([...triggers].every(([name, text]) => there.get(name) === text)) continue
		for (const name of triggers.keys()) db.exec(`DROP TRIGGER IF EXISTS ${name}`)
		makePlaces(db, total)
		fill(db, total)
		for (const text of triggers.values()) db.exec(text)
	}
}

function allTotals(store: Store): KeptTotal[] {
	const { tables } = store.workspace().catalogue
	return [...tables.values()].flatMap((table) =>
		table.columns.flatMap(({ computed }) => (computed && !computed.stored ? keptTotalsOf(computed.expr) : []))
	)
}

const DEFINITIONS: Readonly<Record<KeptPart, string>> = {
	count: 'INTEGER NOT NULL DEFAULT 0',
	// A sum past 2^63 goes on as a floating number.
	sum: 'ANY NOT NULL DEFAULT 0',
	extreme: 'ANY'
}

function makePlaces(db: Db, total: KeptTotal): void {
	const { parent, child, by, item } = total
	const there = new Set(db.prepare(`SELECT name FROM pragma_table_info('t${parent.id}')`).pluck().all())
	for (const part of partsOfTotal(total)) {
		const name = placeOf(total, part)
		if (!there.has(name)) db.exec(`ALTER TABLE t${parent.id} ADD COLUMN ${name} ${DEFINITIONS[part]}`)
		// When the extreme goes, the next one is found from this.
		if (part === 'extreme' && item)
			db.exec(`CREATE INDEX IF NOT EXISTS extreme${by.id}_${item.id} ON t${child.id} (c${by.id}, c${item.id})`)
	}
}

function fill(db: Db, total: KeptTotal): void {
	const { parent, child, by, name } = total
	const counts = conditionOf(total, 'k')
	const value = total.item ? `k.c${total.item.id}` : '*'
	const totals = partsOfTotal(total).map((part) => {
		if (part === 'count') return `count(${value})`
		return part === 'sum' ? `coalesce(sum(${value}), 0)` : `${name.toLowerCase()}(${value})`
	})
	const places = partsOfTotal(total).map((part) => placeOf(total, part))
	const points = `k.c${by.id} = t${parent.id}.n`
	db.exec(
		`UPDATE t${parent.id} SET (${places.join(', ')}) = (SELECT ${totals.join(', ')} FROM t${child.id} AS k WHERE ${points} AND ${counts})`
	)
}

function triggersOf(total: KeptTotal): Map<string, string> {
	const { child, by, item, reads, place } = total
	const on = `ON t${child.id}`
	const columns = [`c${by.id}`, ...(item ? [`c${item.id}`] : []), ...reads.flatMap(placesRead)]
	const differs = [...new Set(columns)].map((each) => `OLD.${each} IS NOT NEW.${each}`).join(' OR ')
	const add = added(total)
	const take = takenAway(total)
	return new Map([
		[`kept_${place}_add`, `CREATE TRIGGER kept_${place}_add AFTER INSERT ${on} BEGIN ${add} END`],
		[
			`kept_${place}_change`,
			`CREATE TRIGGER kept_${place}_change AFTER UPDATE OF ${[...new Set(columns)].join(', ')} ${on} WHEN ${differs} BEGIN ${take} ${add} END`
		],
		[`kept_${place}_remove`, `CREATE TRIGGER kept_${place}_remove AFTER DELETE ${on} BEGIN ${take} END`]
	])
}

/** All that a condition can read of a column: its value, its key, its error. */
function placesRead(column: Column): string[] {
	const names = [`c${column.id}`]
	if (hasKey(column)) names.push(`c${column.id}k`)
	if (column.computed) names.push(`c${column.id}e`)
	return names
}

/** What a new child, or one as it now is, adds to its parent. */
function added(total: KeptTotal): string {
	const value = total.item ? `NEW.c${total.item.id}` : '1'
	const sets = partsOfTotal(total).map((part) => {
		const at = placeOf(total, part)
		return `${at} = ${part === 'count' ? `${at} + 1` : part === 'sum' ? `${at} + ${value}` : value}`
	})
	const beats = extremeOf(total, (at, beyond) => `(${at} IS NULL OR ${value} ${beyond} ${at})`)
	return changeParent(total, 'NEW', sets, beats)
}

/** What a child as it was, or one that goes, takes away. The next extreme is looked for only where this one was it. */
function takenAway(total: KeptTotal): string {
	const { child, by, item, name } = total
	const value = item ? `OLD.c${item.id}` : '1'
	const sets = partsOfTotal(total).map((part) => {
		const at = placeOf(total, part)
		if (part !== 'extreme') return `${at} = ${at} - ${part === 'count' ? '1' : value}`
		const next = `SELECT ${name.toLowerCase()}(k.c${item?.id}) FROM t${child.id} AS k WHERE k.c${by.id} = OLD.c${by.id}`
		return `${at} = (${next} AND ${conditionOf(total, 'k')})`
	})
	const was = extremeOf(total, (at) => `${at} IS ${value}`)
	return changeParent(total, 'OLD', sets, was)
}

function extremeOf(total: KeptTotal, say: (at: string, beyond: '<' | '>') => string): string[] {
	if (!partsOfTotal(total).includes('extreme')) return []
	return [say(placeOf(total, 'extreme'), total.name === 'MIN' ? '<' : '>')]
}

function changeParent(total: KeptTotal, row: 'NEW' | 'OLD', sets: readonly string[], and: readonly string[]): string {
	const { parent, by, item } = total
	const filled = item ? [`${row}.c${item.id} IS NOT NULL`] : []
	const where = [`n = ${row}.c${by.id}`, ...filled, ...and, conditionOf(total, row)]
	return `UPDATE t${parent.id} SET ${sets.join(', ')} WHERE ${where.join(' AND ')};`
}

/** Which children count, as text: a trigger takes no parameters. */
function conditionOf({ where }: KeptTotal, alias: string): string {
	// A kept condition reads neither the clock nor the looker.
	const ctx = { ...newContext('r', { today: '', now: '' }), aliases: ['r', alias] }
	return ['1', ...where.map((each) => inline(compileCondition(each, ctx)))].join(' AND ')
}

/** A statement with its values written into it, as SQL writes them. */
function inline({ text, params }: Sql): string {
	const pieces = text.split('?')
	if (pieces.length !== params.length + 1) throw new Error(`Expected ${params.length} places for values in "${text}"`)
	return pieces.map((piece, i) => (i === 0 ? piece : written(params[i - 1] ?? null) + piece)).join('')
}

function written(value: Sql['params'][number]): string {
	if (value === null) return 'NULL'
	if (typeof value === 'string') return `'${value.replaceAll("'", "''")}'`
	if (typeof value === 'bigint') return String(value)
	// As a floating number, as it would be bound.
	return Number.isInteger(value) && Math.abs(value) < 1e15 ? `${value}.0` : String(value)
}
