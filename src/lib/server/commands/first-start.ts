/**
 * Makes a workspace where there is none, and prints the path by which its first steward comes in. Until somebody has, each
 * start prints a new one.
 */
import { existsSync, mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { openForWriting } from '../db/open.ts'
import { readKey } from '../host.ts'
import { makePass } from '../people/passes.ts'
import { openRowIds } from '../rows/row-ids.ts'
import { openStore } from '../store.ts'
import { makeWorkspace } from '../workspace/make.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
const file = join(folder, 'workspace.db')
const isNew = !existsSync(file)
mkdirSync(folder, { recursive: true, mode: 0o700 })
const db = openForWriting(file)
const store = openStore(db, openRowIds(Buffer.from(readKey(folder), 'hex')))
const now = Date.now()
const token = db.transaction(() => {
	if (isNew) makeWorkspace(store, { name: 'Tin Shed', timeZone: 'UTC', now })
	const { people } = store.workspace().catalogue
	const somebody = store.prepare(`SELECT 1 FROM t${people.id} LIMIT 1`).get()
	return somebody ? undefined : makePass(store, { kind: 'first steward', person: 0, by: null, now })
})()
db.close()
if (token !== undefined)
	console.log(`Nobody is here yet. The first steward comes in by this path, once, within a day:\n\n  /join/${token}\n`)
