/** Formulas worked out on rows that are being filled in, as whoever does so sees the data. */
import { check } from '$lib/core/formula/check/check.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { compileCondition, compileError, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext, type Context } from '$lib/core/formula/sql/sql-context.ts'
import { someNode } from '$lib/core/formula/syntax/walk.ts'
import { moneyOf } from '$lib/core/formula/check/money-of.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import type { Expr, Type } from '$lib/core/model/formula.ts'
import type { Table } from '$lib/core/model/table.ts'
import { joinSql, raw, sql, type Sql } from '$lib/core/sql/sql.ts'
import { momentShown } from '../../rights/shown-me.ts'
import type { Standing } from '../../rights/rights-of-actor.ts'
import type { ChangeContext } from '../../rows/change-context.ts'
import type { Store } from '../../store/store.ts'

/** Who fills a form in; what they may see decides what its formulas read. */
export interface Filling {
	readonly store: Store
	readonly standing: Standing
	readonly context: ChangeContext
	/** The rows that are chosen on the screen of the form. */
	readonly here: Here
}

/** The rows in reach, the innermost last: their tables, and each as a table of one row named `o`, then `r`. */
export interface Reach {
	readonly tables: readonly Table[]
	readonly rows: readonly Sql[]
}

export interface WorkedOut {
	/** As the database gives it; null where it is an error. */
	readonly value: unknown
	readonly type: Type
	/** The unit, where it is an amount of money. */
	readonly money: string | undefined
	/** Of the columns of rows in reach that it reads, whether some are blank, and whether all are; never, where it asks for blanks. */
	readonly blank: 'some' | 'all' | 'none'
}

const ALIASES = ['o', 'r']

/** Every formula once, in one question; one that cannot be read any more comes to nothing. */
export function workOutAll(
	{ store, standing, here }: Filling,
	{ tables, rows }: Reach,
	texts: readonly string[]
): (text: string) => WorkedOut | undefined {
	const { catalogue } = store.workspace()
	const moment = momentShown(store, standing)
	const asked = [...new Set(texts.filter((text) => text.trim() !== ''))].flatMap((text) => {
		const { expr } = check(text, { catalogue, rows: tables, me: true, here })
		return expr ? [{ text, expr, folded: fold(expr, moment) }] : []
	})
	if (asked.length === 0) return () => undefined
	const names = ALIASES.slice(0, rows.length)
	const ctx = { ...newContext(names.at(-1) ?? 'o', moment, standing.rights), aliases: names, own: new Set(names) }
	const blanks = asked.map(({ expr }) => blanksIn(expr, ctx))
	const pieces = asked.flatMap(({ folded }, i) => [
		compileValue(folded, ctx),
		compileError(folded, ctx) ?? raw('NULL'),
		sumOf(blanks[i] ?? [])
	])
	const [row = []] = store.select(sql`SELECT ${joinSql(pieces, ', ')} FROM ${joinSql(rows, ', ')}`)
	const found = asked.map(({ text, expr }, i): [string, WorkedOut] => {
		const [value, error, blank] = row.slice(3 * i, 3 * i + 3)
		const all = blanks[i]?.length ?? 0
		return [
			text,
			{
				value: error === null ? value : null,
				type: expr.type,
				money: moneyOf(expr),
				blank: Number(blank) === 0 ? 'none' : Number(blank) === all ? 'all' : 'some'
			}
		]
	})
	const byText = new Map(found)
	return (text) => byText.get(text)
}

/** Of each column of a row in reach that the formula reads, whether it is blank; none, where it asks for blanks itself. */
function blanksIn(expr: Expr, ctx: Context): readonly Sql[] {
	if (someNode(expr, ({ kind }) => kind === 'isblank')) return []
	const read = new Map<string, Sql>()
	someNode(expr, (node) => {
		if (node.kind === 'field' && node.of.kind === 'this' && node.of.level < ctx.aliases.length) {
			const isBlank = compileCondition({ kind: 'isblank', arg: node, type: { kind: 'yesno' } }, ctx)
			read.set(`${node.of.level} ${node.column.id}`, sql`((${isBlank}) IS TRUE)`)
		}
		return false
	})
	return [...read.values()]
}

function sumOf(pieces: readonly Sql[]): Sql {
	return pieces.length === 0 ? raw('0') : joinSql(pieces, ' + ')
}
