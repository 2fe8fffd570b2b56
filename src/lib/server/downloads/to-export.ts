/** What can leave as a file: a table as it is filtered and ordered, or a list of an app; each with what its reader sees. */
import { findLine } from '$lib/core/app/lines/tree.ts'
import type { Narrowing } from '$lib/core/requests/screens.ts'
import type { WirePage } from '$lib/core/query/wire.ts'
import type { Threads } from '../threads/threads.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { RowsRequest } from '../rows/resolve.ts'

export interface ToExport extends RowsToExport {
	readonly table: number
}

export interface RowsToExport {
	readonly name: string
	readonly columns: readonly ShownColumn[]
	/** The rows after a cursor, or the first. */
	page(after: string | undefined): Promise<WirePage>
}

const PAGE = 1_000

interface Reading {
	readonly actor: Actor
	readonly now: number
}

/** Undefined where this person sees nothing of the table. */
export async function tableToExport(
	host: Pick<Threads, 'read'>,
	{ actor, now, table, sort, then, filters }: Reading & Pick<RowsRequest, 'table' | 'sort' | 'then' | 'filters'>
): Promise<ToExport | undefined> {
	const head = await host.read('tableHead', { table, actor, now })
	if (!head) return undefined
	const columns = head.columns.map((column) => column.id)
	const page = (after: string | undefined) =>
		host.read('rows', { actor, request: { table, sort, then, filters, columns, limit: PAGE, after }, now })
	return { table, ...head, page }
}

interface ListAsked {
	readonly app: number
	readonly screen: string
	readonly line: string
	/** What lists of the screen are narrowed down to, by line, and the rows that are chosen on it. */
	readonly narrowed: Readonly<Record<string, Narrowing>>
	readonly held: Readonly<Record<string, string>>
}

/** A list of a released app, with the columns that it shows and the rows that it is narrowed down to. Undefined where it is not there for this person. */
export async function listToExport(
	host: Pick<Threads, 'read'>,
	{ app, screen, line, narrowed, held, actor, now }: Reading & ListAsked
): Promise<ToExport | undefined> {
	const place = { app, draft: false, actor, now, held }
	const opened = await host.read('screen', { ...place, screen, narrowed })
	const list = opened.screen && findLine(opened.screen.lines, line)
	if (list?.kind !== 'list') return undefined
	const page = (after: string | undefined) =>
		host.read('list', { ...place, screen, line, narrowing: narrowed[line], after, limit: PAGE })
	return { table: list.table, name: list.title, columns: list.columns, page }
}
