/**
 * Totals kept for each parent and each value of a column of its children, in a table of their own: `c52t0_46 (p, v, …)`.
 * They serve who sees the children that hold one value (`diver = me`). Triggers bring them up to date, as with totals in
 * the parent's row (`keep-rollups.ts`).
 *
 * A pair whose children are all gone keeps its row, with nothing in it: as many as there ever were pairs, no more.
 */
import { partsOfTotal, placeByValue, PART_NAMES, type RollupPart } from '$lib/core/formula/sql/rollups.ts'
import type { Rollup } from '$lib/core/model/formula.ts'
import { comparedPlace } from '$lib/core/table/storage.ts'
import type { Column } from '$lib/core/model/table.ts'
import type { Db } from '../store/open.ts'
import { columnsDeciding, conditionOf } from './counted-children.ts'

const VALUE_TABLES = `SELECT name FROM sqlite_schema WHERE type = 'table' AND name GLOB 'c[0-9]*t[0-9]*_[0-9]*'`

/** Drops those that no total needs any more. */
export function dropValueTables(db: Db, totals: readonly Rollup[]): void {
	const needed = new Set(
		totals.flatMap((total) => (total.child.comparedWithMe ?? []).map((each) => placeByValue(total, each)))
	)
	const there = db.prepare<unknown[], string>(VALUE_TABLES).pluck().all()
	for (const name of there) if (!needed.has(name)) db.exec(`DROP TABLE ${name}`)
}

const DEFINITIONS: Readonly<Record<RollupPart, string>> = {
	count: 'n INTEGER NOT NULL DEFAULT 0',
	sum: 's ANY NOT NULL DEFAULT 0',
	extreme: 'x ANY'
}
const MEAN = `m REAL GENERATED ALWAYS AS (CAST(s AS REAL) / nullif(n, 0)) VIRTUAL`

export function makeValueTable(db: Db, total: Rollup, column: Column): void {
	const { child, by, item } = total
	const parts = partsOfTotal(total)
	const definitions = [...parts.map((part) => DEFINITIONS[part]), ...(total.name === 'AVERAGE' ? [MEAN] : [])]
	const name = placeByValue(total, column)
	db.exec(`DROP TABLE IF EXISTS ${name}`)
	db.exec(
		`CREATE TABLE ${name} (p INTEGER NOT NULL, v ANY NOT NULL, ${definitions.join(', ')}, PRIMARY KEY (p, v)) STRICT, WITHOUT ROWID`
	)
	// When the extreme goes, the next one is found from this.
	if (parts.includes('extreme') && item)
		db.exec(
			`CREATE INDEX IF NOT EXISTS extreme${by.id}_${column.id}_${item.id} ON t${child.id} (c${by.id}, ${comparedPlace(column)}, c${item.id})`
		)
}

export function fillByValue(db: Db, total: Rollup, column: Column): void {
	const { child, by, item, name } = total
	const value = item ? `k.c${item.id}` : '*'
	const parts = partsOfTotal(total)
	const totals = parts.map((part) => (part === 'extreme' ? `${name.toLowerCase()}(${value})` : `${part}(${value})`))
	const pair = `k.c${by.id}, k.${comparedPlace(column)}`
	db.exec(
		`INSERT INTO ${placeByValue(total, column)} (p, v, ${namesOf(parts)}) SELECT ${pair}, ${totals.join(', ')} FROM t${child.id} AS k WHERE ${countsAs(total, column, 'k')} GROUP BY ${pair}`
	)
}

export function triggersByValue(total: Rollup, column: Column): Map<string, string> {
	const name = `kept_${placeByValue(total, column)}`
	const on = `ON t${total.child.id}`
	const columns = columnsDeciding(total, comparedPlace(column))
	const differs = columns.map((each) => `OLD.${each} IS NOT NEW.${each}`).join(' OR ')
	const [add, take] = [added(total, column), takenAway(total, column)]
	const bodies = {
		add: `AFTER INSERT ${on} BEGIN ${add} END`,
		change: `AFTER UPDATE OF ${columns.join(', ')} ${on} WHEN ${differs} BEGIN ${take} ${add} END`,
		remove: `AFTER DELETE ${on} BEGIN ${take} END`
	}
	return new Map(
		Object.entries(bodies).map(([when, body]) => [`${name}_${when}`, `CREATE TRIGGER ${name}_${when} ${body}`])
	)
}

function added(total: Rollup, column: Column): string {
	const parts = partsOfTotal(total)
	const value = total.item ? `NEW.c${total.item.id}` : '1'
	const first = parts.map((part) => (part === 'count' ? '1' : value))
	const beyond = total.name === 'MIN' ? '<' : '>'
	const sets = parts.map((part) => {
		const at = PART_NAMES[part]
		if (part !== 'extreme') return `${at} = ${at} + excluded.${at}`
		return `${at} = iif(${at} IS NULL OR excluded.${at} ${beyond} ${at}, excluded.${at}, ${at})`
	})
	const row = `SELECT NEW.c${total.by.id}, NEW.${comparedPlace(column)}, ${first.join(', ')}`
	return `INSERT INTO ${placeByValue(total, column)} (p, v, ${namesOf(parts)}) ${row} WHERE ${countsAs(total, column, 'NEW')} ON CONFLICT (p, v) DO UPDATE SET ${sets.join(', ')};`
}

/** The next extreme is looked for only where the child that goes was it. */
function takenAway(total: Rollup, column: Column): string {
	const { child, by, item, name } = total
	const value = item ? `OLD.c${item.id}` : '1'
	const own = comparedPlace(column)
	const next = `SELECT ${name.toLowerCase()}(k.c${item?.id}) FROM t${child.id} AS k WHERE k.c${by.id} = OLD.c${by.id} AND k.${own} = OLD.${own} AND ${countsAs(total, column, 'k')}`
	const parts = partsOfTotal(total)
	const sets = parts.map((part) => {
		const at = PART_NAMES[part]
		return part === 'extreme' ? `${at} = (${next})` : `${at} = ${at} - ${part === 'count' ? '1' : value}`
	})
	const was = parts.includes('extreme') ? [`x IS ${value}`] : []
	const where = [`p = OLD.c${by.id}`, `v = OLD.${own}`, ...was, countsAs(total, column, 'OLD')]
	return `UPDATE ${placeByValue(total, column)} SET ${sets.join(', ')} WHERE ${where.join(' AND ')};`
}

/** Which children stand in a pair's total: those that point to a row, hold a value, and count. */
function countsAs(total: Rollup, column: Column, row: string): string {
	const filled = [`c${total.by.id}`, comparedPlace(column), ...(total.item ? [`c${total.item.id}`] : [])]
	return [...filled.map((each) => `${row}.${each} IS NOT NULL`), conditionOf(total, row)].join(' AND ')
}

function namesOf(parts: readonly RollupPart[]): string {
	return parts.map((part) => PART_NAMES[part]).join(', ')
}
