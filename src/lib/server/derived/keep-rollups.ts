/**
 * Brings kept totals in line with the formulas that ask for them: a place in the parent's row, filled once, and three
 * triggers on the child's table that bring it up to date.
 *
 * Triggers, and not the door: whatever writes a child row (an edit, an import, a row put back, a column converted)
 * changes the total in the same statement, so it is always right (docs/decisions/006). The text of the triggers is all
 * that a total follows from; where it is the same as in the store, the total stands.
 */
import { rollupsOf, meanPlace, partsOfTotal, placeOf, type RollupPart } from '$lib/core/formula/sql/rollups.ts'
import type { Rollup } from '$lib/core/model/formula.ts'
import type { Db } from '../store/open.ts'
import type { Store } from '../store/store.ts'
import { columnsDeciding, conditionOf } from './counted-children.ts'
import { dropValueTables, fillByValue, makeValueTable, triggersByValue } from './keep-rollups-by-value.ts'

const TRIGGERS = `SELECT name, sql FROM sqlite_schema WHERE type = 'trigger' AND name LIKE 'kept!_%' ESCAPE '!'`

/** One thing that is kept: its triggers by name, and how its places are made and filled. */
interface Kept {
	readonly triggers: ReadonlyMap<string, string>
	readonly make: () => void
	readonly fill: () => void
}

/**
 * Makes the triggers and places that the totals of the workspace want, fills new ones, and drops what none wants any
 * more.
 */
export function keepRollups(store: Store): void {
	const { db } = store
	const totals = allTotals(store)
	const wanted = totals.flatMap((total) => keptOf(db, total))
	const there = new Map(db.prepare<unknown[], [string, string]>(TRIGGERS).raw().all())
	const named = new Set(wanted.flatMap(({ triggers }) => [...triggers.keys()]))
	for (const name of there.keys()) if (!named.has(name)) db.exec(`DROP TRIGGER ${name}`)
	for (const { triggers, make, fill } of wanted) {
		if ([...triggers].every(([name, text]) => there.get(name) === text)) continue
		for (const name of triggers.keys()) db.exec(`DROP TRIGGER IF EXISTS ${name}`)
		make()
		fill()
		for (const text of triggers.values()) db.exec(text)
	}
	dropValueTables(db, totals)
}

/** A total in its parent's row, and beside it one for each value by which lines let people see children as theirs. */
function keptOf(db: Db, total: Rollup): Kept[] {
	const inRow = {
		triggers: triggersOf(total),
		make: () => makePlaces(db, total),
		fill: () => fill(db, total)
	}
	const byValue = (total.child.comparedWithMe ?? []).map((column) => ({
		triggers: triggersByValue(total, column),
		make: () => makeValueTable(db, total, column),
		fill: () => fillByValue(db, total, column)
	}))
	return [inRow, ...byValue]
}

function allTotals(store: Store): Rollup[] {
	const { tables } = store.workspace().catalogue
	return [...tables.values()].flatMap((table) =>
		table.columns.flatMap(({ computed }) => (computed && !computed.stored ? rollupsOf(computed.expr) : []))
	)
}

const DEFINITIONS: Readonly<Record<RollupPart, string>> = {
	count: 'INTEGER NOT NULL DEFAULT 0',
	// A sum past 2^63 goes on as a floating number.
	sum: 'ANY NOT NULL DEFAULT 0',
	extreme: 'ANY'
}

function makePlaces(db: Db, total: Rollup): void {
	const { parent, child, by, item } = total
	const there = new Set(db.prepare(`SELECT name FROM pragma_table_xinfo('t${parent.id}')`).pluck().all())
	for (const part of partsOfTotal(total)) {
		const name = placeOf(total, part)
		if (!there.has(name)) db.exec(`ALTER TABLE t${parent.id} ADD COLUMN ${name} ${DEFINITIONS[part]}`)
		// When the extreme goes, the next one is found from this.
		if (part === 'extreme' && item)
			db.exec(`CREATE INDEX IF NOT EXISTS extreme${by.id}_${item.id} ON t${child.id} (c${by.id}, c${item.id})`)
	}
	const mean = meanPlace(total)
	if (total.name !== 'AVERAGE' || there.has(mean)) return
	const divided = `CAST(${placeOf(total, 'sum')} AS REAL) / nullif(${placeOf(total, 'count')}, 0)`
	db.exec(`ALTER TABLE t${parent.id} ADD COLUMN ${mean} REAL GENERATED ALWAYS AS (${divided}) VIRTUAL`)
}

function fill(db: Db, total: Rollup): void {
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

function triggersOf(total: Rollup): Map<string, string> {
	const { child, by, place } = total
	const on = `ON t${child.id}`
	const columns = columnsDeciding(total)
	const differs = columns.map((each) => `OLD.${each} IS NOT NEW.${each}`).join(' OR ')
	const add = added(total)
	const take = takenAway(total)
	const change = `AFTER UPDATE OF ${columns.join(', ')} ${on} WHEN`
	const stays = `OLD.c${by.id} IS NEW.c${by.id}`
	const moves = `OLD.c${by.id} IS NOT NEW.c${by.id}`
	const bodies = {
		add: `AFTER INSERT ${on} BEGIN ${add} END`,
		change: `${change} (${differs}) AND ${stays} BEGIN ${shifted(total) ?? `${take} ${add}`} END`,
		move: `${change} ${moves} BEGIN ${take} ${add} END`,
		remove: `AFTER DELETE ${on} BEGIN ${take} END`
	}
	return new Map(
		Object.entries(bodies).map(([when, body]) => {
			const name = `kept_${place}_${when}`
			return [name, `CREATE TRIGGER ${name} ${body}`]
		})
	)
}

/**
 * What a child that stays with its parent changes there, in one statement; undefined for an extreme, which may have to be
 * looked for. Two statements, one taking away and one adding, cost an edit of a cell a fifth of its time.
 */
function shifted(total: Rollup): string | undefined {
	const parts = partsOfTotal(total)
	if (parts.includes('extreme')) return undefined
	const { parent, by } = total
	const sets = parts.map((part) => {
		const at = placeOf(total, part)
		return `${at} = ${at} + ${shareOf(total, part, 'NEW')} - ${shareOf(total, part, 'OLD')}`
	})
	const differ = parts.map((part) => `${shareOf(total, part, 'NEW')} <> ${shareOf(total, part, 'OLD')}`).join(' OR ')
	return `UPDATE t${parent.id} SET ${sets.join(', ')} WHERE n = NEW.c${by.id} AND (${differ});`
}

/** What one child comes to in a part of a total. */
function shareOf(total: Rollup, part: RollupPart, row: 'NEW' | 'OLD'): string {
	const value = total.item ? `${row}.c${total.item.id}` : '1'
	const counts = [`${value} IS NOT NULL`, conditionOf(total, row)].join(' AND ')
	return `iif(${counts}, ${part === 'count' ? '1' : value}, 0)`
}

/** What a new child, or one as it now is, adds to its parent. */
function added(total: Rollup): string {
	const value = total.item ? `NEW.c${total.item.id}` : '1'
	const sets = partsOfTotal(total).map((part) => {
		const at = placeOf(total, part)
		return `${at} = ${part === 'count' ? `${at} + 1` : part === 'sum' ? `${at} + ${value}` : value}`
	})
	const beats = extremeOf(total, (at, beyond) => `(${at} IS NULL OR ${value} ${beyond} ${at})`)
	return changeParent(total, 'NEW', sets, beats)
}

/** What a child as it was, or one that goes, takes away. The next extreme is looked for only where this one was it. */
function takenAway(total: Rollup): string {
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

function extremeOf(total: Rollup, say: (at: string, beyond: '<' | '>') => string): string[] {
	if (!partsOfTotal(total).includes('extreme')) return []
	return [say(placeOf(total, 'extreme'), total.name === 'MIN' ? '<' : '>')]
}

function changeParent(total: Rollup, row: 'NEW' | 'OLD', sets: readonly string[], and: readonly string[]): string {
	const { parent, by, item } = total
	const filled = item ? [`${row}.c${item.id} IS NOT NULL`] : []
	const where = [`n = ${row}.c${by.id}`, ...filled, ...and, conditionOf(total, row)]
	return `UPDATE t${parent.id} SET ${sets.join(', ')} WHERE ${where.join(' AND ')};`
}
