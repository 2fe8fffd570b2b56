/**
 * Makes a workspace where there is none, and prints the path by which its first steward comes in. Until somebody has, each
 * start prints a new one.
 */
import { existsSync, mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { openForWriting } from '../store/open.ts'
import { endForOperator } from '../base/for-operator.ts'
import { makeOneTimeLink } from '../credentials/one-time-links.ts'
import { openRowIds } from '../store/row-ids.ts'
import { openStore } from '../store/store.ts'
import { readKey } from '../base/workspace-key.ts'
import { makeWorkspace } from '../structure/make.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
try {
	const token = begin()
	if (token !== undefined)
		console.log(
			`Nobody is here yet. The first steward comes in by this path, once, within a day:\n\n  /join/${token}\n`
		)
} catch (error) {
	endForOperator(error, folder)
}

/** The token of the first steward's way in; undefined where somebody is here. */
function begin(): string | undefined {
	mkdirSync(folder, { recursive: true, mode: 0o700 })
	const file = join(folder, 'workspace.db')
	const isNew = !existsSync(file)
	const key = readKey(folder)
	const db = openForWriting(file)
	const store = openStore(db, openRowIds(Buffer.from(key, 'hex')))
	const now = Date.now()
	const token = db.transaction(() => {
		if (isNew) makeWorkspace(store, { name: 'Tin Shed', timeZone: 'UTC', now })
		const { people } = store.workspace().catalogue
		const somebody = store.prepare(`SELECT 1 FROM t${people.id} LIMIT 1`).get()
		return somebody ? undefined : makeOneTimeLink(store, { kind: 'first steward', person: 0, by: null, now })
	})()
	db.close()
	return token
}
