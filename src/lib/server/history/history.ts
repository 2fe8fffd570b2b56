/**
 * Writes down what happened, in the transaction of what changed. Each entry's seal covers the one before it, so that an
 * entry that was altered afterwards breaks the chain from there on.
 */
import { hash } from 'node:crypto'
import type { Store } from '../store/store.ts'
import { throughText, type Through } from './through.ts'

export interface Entry {
	/** Epoch ms. */
	readonly at: number
	readonly person: number | null
	readonly through: Through
	readonly kind: string
	readonly table: number | null
	readonly row: number | null
	/** What is kept of it; as JSON text where it was written already. */
	readonly body: Readonly<Record<string, unknown>> | string
}

const LAST_SEAL = `SELECT seal FROM history ORDER BY seq DESC LIMIT 1`
const ADD_ENTRY = `
	INSERT INTO history (at, person, through, kind, table_id, row_n, body, seal)
	VALUES (?, ?, ?, ?, ?, ?, ?, ?)`
const ALL_ENTRIES = `
	SELECT seq, at, person, through, kind, table_id AS "table", row_n AS row, body, seal FROM history ORDER BY seq`

/** Writes one entry down, sealed to the one before it; within the transaction of what it tells of. */
export function writeHistory(store: Store, entry: Entry): void {
	const before = store.pluck<string>(LAST_SEAL) ?? ''
	const { at, person, kind, table, row } = entry
	const through = throughText(entry.through)
	const body = typeof entry.body === 'string' ? entry.body : JSON.stringify(entry.body)
	const seal = sealOf(before, { at, person, through, kind, table, row, body })
	store.prepare(ADD_ENTRY).run(at, person, through, kind, table, row, body, seal)
}

/** The number of the first entry whose seal does not fit, or undefined if all do. */
export function findBrokenSeal(store: Store): number | undefined {
	let before = ''
	// The columns that the statement names.
	for (const entry of store.prepare(ALL_ENTRIES).raw(false).iterate() as IterableIterator<StoredEntry>) {
		if (sealOf(before, entry) !== entry.seal) return entry.seq
		before = entry.seal
	}
	return undefined
}

type Sealed = Omit<Entry, 'body' | 'through'> & { readonly body: string; readonly through: string }
type StoredEntry = Sealed & { readonly seq: number; readonly seal: string }

function sealOf(before: string, entry: Sealed): string {
	const { at, person, through, kind, table, row, body } = entry
	return hash('sha256', JSON.stringify([before, at, person, through, kind, table, row, body]))
}
