/**
 * Why somebody sees a row, or does not: each line of its table, whether they hold its role and whether the row fits, with
 * the values that decided. For keepers of the table, who see what they could see anyhow: a value that is kept from them
 * stays so here.
 */
import type { AccessReasons, ColumnReason, LineReason } from '$lib/core/requests/access.ts'
import { AppError } from '$lib/core/app-error.ts'
import { covers } from '$lib/core/access/types.ts'
import { evaluate, isTrue } from '$lib/core/formula/evaluate/evaluate.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { ownColumns, someNode } from '$lib/core/formula/syntax/walk.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { getColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { describePerson } from '../rights/accounts.ts'
import { momentOf, type Actor } from '../rights/rights-of-actor.ts'
import { isSuspended, readPersonRow, rolesOf } from '../rights/roles-held.ts'
import { readRows } from '../rows/read.ts'
import { readStoredRow, storeEnv } from '../store/stored-row.ts'
import { cellText } from '../rows/written-text.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'

export interface WhyAsked {
	readonly table: number
	readonly person: number
	readonly row: string
	readonly actor: Actor
	readonly now: number
}

const WAS_ASKED = `SELECT 1 FROM row_grant WHERE person = ? AND table_id = ? AND row_n = ? LIMIT 1`

/** By which lines somebody sees a row and each of its cells, or why not; only for owners of the table. */
export function explainAccess(store: Store, { table: id, person, row, actor, now }: WhyAsked): AccessReasons {
	const table = getTableAsKeeper(store, id, actor)
	const n = store.ids.fromId(id, row)
	const who = describePerson(store, person)
	if (n === undefined || !who || !readStoredRow(store, table, n))
		throw new AppError('not_found', 'Choose a person and a row that are there.')
	const page = readRows(store, { person }, { table: id, row }, now)
	const cells = page.rows[0]?.cells ?? {}
	const besides = [
		...(table.keepers.includes(person) ? (['keeper'] as const) : []),
		...(store.prepare(WAS_ASKED).get(person, id, n) ? (['asked'] as const) : []),
		...(isSuspended(store, person) ? (['suspended'] as const) : [])
	]
	const lines = reasonsOf(store, { table, n, person, actor, now })
	const isSeen = (column: Column) => cellKey(column.id) in cells
	return {
		name: who.name,
		seesRow: page.rows.length > 0,
		columns: lookedAt(table).map((column) => whyColumn(column, { table, lines, isSeen })),
		besides,
		lines
	}
}

function whyColumn(
	column: Column,
	{ table, lines, isSeen }: { table: Table; lines: readonly LineReason[]; isSeen: (column: Column) => boolean }
): ColumnReason {
	const letting = lines.filter((line) => line.isHeld && line.fits && line.verbs.includes('see'))
	const covers = (line: LineReason) => !line.leavesOut.includes(column.name)
	const { computed } = column
	const operands = computed && !computed.vouched ? [...ownColumns(computed.expr)] : []
	return {
		name: column.name,
		seen: isSeen(column),
		by: letting.filter(covers).map((line) => line.number),
		without: letting.filter((line) => !covers(line)).map((line) => line.number),
		needs: operands
			.map((id) => getColumn(table, id))
			.filter((operand) => !isSeen(operand))
			.map((operand) => operand.name)
	}
}

function lookedAt(table: Table): Column[] {
	return table.columns.filter((column) => !column.condition)
}

interface ExplainedRow {
	readonly table: Table
	readonly n: number
	readonly person: number
	readonly actor: Actor
	readonly now: number
}

function reasonsOf(store: Store, place: ExplainedRow): LineReason[] {
	const { table, n, person, now } = place
	const { lines, roles } = store.workspace()
	const me = readPersonRow(store, person)
	const held = rolesOf(store, person, me)
	const stored = readStoredRow(store, table, n)
	const env = {
		rows: stored ? [stored] : [],
		...momentOf(store, person, now),
		...(me ? { me } : {}),
		...storeEnv(store)
	}
	return lines
		.filter((line) => line.table === table.id)
		.map((line, i) => ({
			id: line.id,
			number: i + 1,
			role: roles.find((role) => role.id === line.role)?.name ?? '',
			verbs: line.verbs,
			isHeld: held.has(line.role),
			fits: isTrue(evaluate(line.where, env)),
			values: valuesOf(store, line.where, place),
			leavesOut: lookedAt(table)
				.filter((column) => !covers(line.columns, column.id))
				.map((column) => column.name)
		}))
}

/** The row's own cells and the person's that a condition reads, as whoever asks sees them. */
function valuesOf(store: Store, where: Expr, { table, n, person, actor, now }: ExplainedRow): LineReason['values'] {
	const { people } = store.workspace().catalogue
	const found = new Map<string, { name: string; text: string | undefined }>()
	const add = (name: string, of: Table, column: Column, at: number): void => {
		const page = readRows(store, actor, { table: of.id, row: store.ids.toId(of.id, at), columns: [column.id] }, now)
		const seen = cellKey(column.id) in (page.rows[0]?.cells ?? {})
		const text = seen ? cellText(store, of, { column, n: at, person: actor.person, now }) || 'blank' : undefined
		found.set(name, { name, text })
	}
	someNode(where, (node) => {
		if (node.kind === 'field' && node.of.kind === 'this' && node.of.level === 0)
			add(node.column.name, table, node.column, n)
		if (node.kind === 'me' && node.column) add(`me.${node.column.name}`, people, node.column, person)
		return false
	})
	return [...found.values()]
}
