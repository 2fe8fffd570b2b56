/**
 * `npm run verify`: checks that the workspace is whole, the seals of the Logbook, entry by entry, and that the last copy of the
 * workspace ends as the Logbook did then. Reads only; the program may be running.
 */
import { countOf } from '$lib/core/text/count.ts'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import Database from 'better-sqlite3'
import { registerFunctions } from '../store/register-functions.ts'
import { refuseCutFile } from '../store/open.ts'
import { endForOperator, OperatorError } from '../base/for-operator.ts'
import { openRowIds } from '../store/row-ids.ts'
import { openStore } from '../store/store.ts'
import { checkSeals } from '../logbook/logbook.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
const file = process.argv[2] ?? join(folder, 'workspace.db')
if (!existsSync(file)) {
	console.error(`There is no workspace at ${file}. Set TIN_SHED_DATA, or name the file.`)
	process.exit(2)
}
try {
	console.log(verify())
} catch (error) {
	endForOperator(error, folder)
}

function verify(): string {
	refuseCutFile(file)
	const db = new Database(file, { readonly: true })
	registerFunctions(db)
	const damage = db.pragma('integrity_check(1)', { simple: true })
	if (damage !== 'ok')
		throw new OperatorError(
			`${file} is damaged (${String(damage)}). Put the last good copy back: npm run restore -- ${folder}/backup/FILE`
		)
	const { broken, entries } = checkSeals(openStore(db, openRowIds(Buffer.alloc(16))))
	const lost = lostHead(db, join(folder, 'backup'))
	db.close()
	if (broken !== null)
		throw new OperatorError(
			`Entry ${broken} does not fit its seal: it, or the one before it, was altered or taken out.`
		)
	if (lost !== undefined)
		throw new OperatorError(`The Logbook was made anew: ${lost} holds another entry at the same place.`)
	return `${countOf(entries, 'entry', 'entries')}, each sealed to the one before it.`
}

/** The latest head that was kept outside the database and is not in it any more. */
function lostHead(db: Database.Database, copies: string): string | undefined {
	const heads = existsSync(copies) ? readdirSync(copies).filter((name) => name.endsWith('.head.json')) : []
	const latest = heads.sort().at(-1)
	if (latest === undefined) return undefined
	const head = ownJson<{ seq: number; seal: string } | null>(readFileSync(join(copies, latest), 'utf8'))
	const seal = head && db.prepare('SELECT seal FROM history WHERE seq = ?').pluck().get(head.seq)
	return head && seal !== head.seal ? latest : undefined
}
