/**
 * Makes a copy of the workspace while it runs: one file, whole and in itself consistent, with the head of the history's
 * chain beside it. A seal proves nothing to who can rewrite the file, unless its head lies elsewhere.
 */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Store } from '../store.ts'

const HEAD = `SELECT seq, seal FROM history ORDER BY seq DESC LIMIT 1`

export function backUp(store: Store, { folder, now }: { folder: string; now: number }): { file: string } {
	mkdirSync(folder, { recursive: true, mode: 0o700 })
	const name = `workspace-${new Date(now).toISOString().replace(/[:.]/g, '-')}`
	const file = join(folder, `${name}.db`)
	store.db.prepare('VACUUM INTO ?').run(file)
	writeFileSync(join(folder, `${name}.head.json`), JSON.stringify(store.prepare(HEAD).get() ?? null))
	return { file }
}
