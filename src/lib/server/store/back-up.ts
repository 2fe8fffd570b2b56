/**
 * Makes a copy of the workspace while it runs: one file, whole and in itself consistent, with the head of the history's
 * chain beside it. A seal proves nothing to who can rewrite the file, unless its head lies elsewhere.
 */
import Database from 'better-sqlite3'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Store } from './store.ts'

const HEAD = `SELECT seq, seal FROM history ORDER BY seq DESC LIMIT 1`

/** Copies the workspace into a folder, with the head of its history as it is in the copy. */
export function backUp({ db }: Pick<Store, 'db'>, { folder, now }: { folder: string; now: number }): { file: string } {
	mkdirSync(folder, { recursive: true, mode: 0o700 })
	const name = `workspace-${new Date(now).toISOString().replace(/[:.]/g, '-')}`
	const file = join(folder, `${name}.db`)
	db.prepare('VACUUM INTO ?').run(file)
	writeFileSync(join(folder, `${name}.head.json`), JSON.stringify(readHead(file)))
	return { file }
}

/** As the copy has it: in the workspace people have written on since. */
function readHead(file: string): unknown {
	const copy = new Database(file, { readonly: true })
	try {
		return copy.prepare(HEAD).get() ?? null
	} finally {
		copy.close()
	}
}
