/**
 * What is known of files that were given in: who gave each, for which column, and whether a cell has taken it up.
 *
 * A token names a file to the one who gave it, once: a file belongs to one cell. The cell's own JSON text says the rest.
 */
import { AppError } from '$lib/core/app-error.ts'
import { covers } from '$lib/core/access/types.ts'
import { fromStoredFile, holdsFile, misfitOf, toStoredFile, type Attachment } from '$lib/core/capture/attachment.ts'
import { cellKey, isFileCell } from '$lib/core/query/wire.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import { findColumn, getColumn, getTable, type Column, type Table } from '$lib/core/model/table.ts'
import { standingOf, type Actor } from '../rights/rights-of-actor.ts'
import type { ChangeContext } from './change-context.ts'
import { readRows } from './read.ts'
import type { Store } from '../store/store.ts'
import { hashToken } from '../base/token.ts'
import { isTry } from '../store/become-try.ts'

/** Files that no cell took up go after two days. */
const RETENTION_MS = 48 * 3_600_000
/** The most bytes that one person may have lying about without a cell. */
const MOST_WAITING = 500 * 1024 * 1024

const ADD = `
	INSERT INTO upload (token_hash, person, table_id, column_id, sha, name, type, size, at)
	VALUES (@hash, @person, @table, @column, @sha, @name, @type, @size, @now)`
const WAITING_BYTES = `SELECT coalesce(sum(size), 0) FROM upload WHERE person = ? AND attached = 0`
const TAKE = `
	UPDATE upload SET attached = 1
	WHERE token_hash = @hash AND person = @person AND table_id = @table AND column_id = @column AND attached = 0
	RETURNING name, type, size, sha`
const HELD_BEFORE = `
	SELECT coalesce(
		CASE WHEN json_extract(body, @before) LIKE @sign THEN json_extract(body, @before) END,
		CASE WHEN json_extract(body, @after) LIKE @sign THEN json_extract(body, @after) END)
	FROM history
	WHERE table_id = @table AND row_n = @n
		AND (json_extract(body, @before) LIKE @sign OR json_extract(body, @after) LIKE @sign) LIMIT 1`
const DROP_OLD = `DELETE FROM upload WHERE attached = 0 AND at < ? RETURNING sha`
const IS_KNOWN = `
	SELECT 1 FROM upload WHERE sha = @sha UNION ALL SELECT 1 FROM app_file WHERE sha = @sha LIMIT 1`

/** The cell that a file is meant for; `n` is undefined in a row that is being added. */
export interface FileCell {
	readonly table: Table
	readonly column: Column
	readonly n: number | undefined
}

export interface NewUpload {
	readonly column: number
	readonly actor: Actor
	readonly now: number
}

/** Refuses whoever could not put a file there anyway, before its bytes are taken in. */
export function checkUpload(store: Store, { column: id, actor, now }: NewUpload): { table: number } {
	if (actor.lookedAtBy !== undefined && !isTry(store))
		throw new AppError('forbidden', 'This is the Lookout: it changes nothing but a copy of the data.')
	const place = placeOfColumn(store, id)
	const { rights } = standingOf(store, actor, now)
	const verbs = ['add', 'change'] as const
	const may = place && verbs.some((verb) => rights.of(verb, place.table).some((right) => covers(right.columns, id)))
	if (!may) throw new AppError('forbidden', 'You may not put a file here: no line of access lets you.')
	const waiting = Number(store.prepare(WAITING_BYTES).pluck().get(actor.person))
	if (waiting > MOST_WAITING)
		throw new AppError(
			'busy',
			'Too many files wait to be sent with a form. Send those first, or try again in two days.'
		)
	return { table: place.table.id }
}

/** Notes a file whose bytes are safe on disk. */
export function noteUpload(
	store: Store,
	{ token, file, ...asked }: NewUpload & { token: string; file: Attachment }
): Attachment {
	const { table } = checkUpload(store, asked)
	const { column: id, actor, now } = asked
	const misfit = misfitOf(getColumn(getTable(store.workspace().catalogue, table), id), file.type)
	if (misfit !== undefined) throw new AppError('invalid', misfit, { column: id })
	store.prepare(ADD).run({ ...file, hash: hashToken(token), person: actor.person, table, column: id, now })
	return file
}

/** The file that lies in a cell, if this person sees it: read through the door like any cell. */
export function readFileCell(
	store: Store,
	{ actor, column: id, row, now }: { actor: Actor; column: number; row: string; now: number }
): Attachment | null {
	const place = placeOfColumn(store, id)
	if (!place) return null
	const page = readRows(store, actor, { table: place.table.id, row, columns: [id] }, now)
	const cell = page.rows[0]?.cells[cellKey(id)]
	return isFileCell(cell) ? cell.file : null
}

function placeOfColumn(store: Store, id: number): { table: Table; column: Column } | undefined {
	for (const table of store.workspace().catalogue.tables.values()) {
		const column = findColumn(table, id)
		if (column) return holdsFile(column) ? { table, column } : undefined
	}
	return undefined
}

/**
 * What a cell keeps of a file: one that this person gave in for this column and nobody has used, or one that this very
 * cell held before, so that a change can be taken back.
 */
export function attachFile(
	store: Store,
	{ table, column, n }: FileCell,
	key: string,
	{ actor }: ChangeContext
): StoredValue {
	const asked = { hash: hashToken(key), person: actor.person, table: table.id, column: column.id }
	const taken = store.prepare<Attachment>(TAKE).get(asked)
	if (taken) return toStoredFile(taken)
	const before = n === undefined ? undefined : heldBefore(store, { table, column, n }, key)
	if (before !== undefined) return before
	const message = `${column.name}: this file is no longer waiting here. Choose it again.`
	throw new AppError('invalid', message, { column: column.id })
}

function heldBefore(store: Store, { table, column, n }: FileCell, sha: string): string | undefined {
	if (!/^[0-9a-f]{64}$/.test(sha)) return undefined
	const places = { before: `$.before.c${column.id}`, after: `$.after.c${column.id}` }
	const found = store
		.prepare(HELD_BEFORE)
		.pluck()
		.get({ ...places, table: table.id, n, sign: `%"${sha}"%` })
	return typeof found === 'string' && fromStoredFile(found).sha === sha ? found : undefined
}

/** Forgets files that no cell took up, and names those whose bytes nothing knows of any more. */
export function dropOldUploads(store: Store, { now }: { now: number }): string[] {
	const dropped = store
		.prepare<string>(DROP_OLD)
		.pluck()
		.all(now - RETENTION_MS)
	return [...new Set(dropped)].filter((sha) => store.prepare(IS_KNOWN).get({ sha }) === undefined)
}
