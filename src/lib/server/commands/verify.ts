/**
 * `npm run verify`: checks the seals of the Logbook, entry by entry, and that the last copy of the workspace ends as the
 * Logbook did then. Reads only; the program may be running.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import Database from 'better-sqlite3'
import { registerFunctions } from '../db/register-functions.ts'
import { openRowIds } from '../rows/row-ids.ts'
import { openStore } from '../store.ts'
import { checkSeals } from '../workspace/logbook.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
const file = process.argv[2] ?? join(folder, 'workspace.db')
if (!existsSync(file)) {
	console.error(`There is no workspace at ${file}. Set TIN_SHED_DATA, or name the file.`)
	process.exit(2)
}
const db = new Database(file, { readonly: true })
registerFunctions(db)
const { broken, entries } = checkSeals(openStore(db, openRowIds(Buffer.alloc(16))))
const lost = lostHead(join(folder, 'backup'))
db.close()
if (broken !== null) {
	console.error(`Entry ${broken} does not fit its seal: it, or the one before it, was altered or taken out.`)
	process.exit(1)
}
if (lost !== undefined) {
	console.error(`The Logbook was made anew: ${lost} holds another entry at the same place.`)
	process.exit(1)
}
console.log(`${entries.toLocaleString('en-GB')} entries, each sealed to the one before it.`)

/** The latest head that was kept outside the database and is not in it any more. */
function lostHead(copies: string): string | undefined {
	const heads = existsSync(copies) ? readdirSync(copies).filter((name) => name.endsWith('.head.json')) : []
	const latest = heads.sort().at(-1)
	if (latest === undefined) return undefined
	const head = JSON.parse(readFileSync(join(copies, latest), 'utf8')) as { seq: number; seal: string } | null
	const seal = head && db.prepare('SELECT seal FROM history WHERE seq = ?').pluck().get(head.seq)
	return head && seal !== head.seal ? latest : undefined
}
